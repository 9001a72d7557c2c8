import type { components } from "./schema";

type Schemas = components["schemas"];

/** What the server sends has every field: a default in the schema never means "may be absent". */
type Full<T> = T extends readonly unknown[]
  ? { readonly [K in keyof T]: Full<T[K]> }
  : T extends object
    ? { readonly [K in keyof T]-?: Full<Exclude<T[K], undefined>> }
    : T;

export type Standing = Full<Schemas["Standing"]>;
export type Piece = PieceOut["part"];
export type Vessel = Full<Schemas["Vessel"]>;
export type Mechanic = Full<Schemas["Mechanic"]>;
export type MechanicKind = Mechanic["kind"];
export type Setting = Full<Schemas["Setting"]>;
export type People = Full<Schemas["People"]>;
export type Support = Full<Schemas["Support"]>;
export type Ledge = Full<Schemas["Ledge"]>;
export type Companion = Full<Schemas["Companion"]>;
export type Spill = Full<Schemas["Spill"]>;
export type Counterweight = Full<Schemas["Counterweight"]>;
export type Bouquet = Full<Schemas["Bouquet"]>;
export type Worn = Full<Schemas["Worn"]>;
export type Making = Full<Schemas["Making"]>;
export type StemRef = Full<Schemas["StemRef"]>;
export type MakingReport = Full<Schemas["MakingReport"]>;
export type MakingStep = Full<Schemas["MakingStep"]>;
export type Moment = Full<Schemas["Moment"]>;
export type Gate = Full<Schemas["Gate"]>;
export type PullLine = Full<Schemas["PullLine"]>;
export type Shares = Full<Schemas["Shares"]>;
export type Transport = Full<Schemas["Transport"]>;
export type HandPlaced = Full<Schemas["HandPlaced"]>;
export type Envelope = Full<Schemas["Envelope"]>;
export type Practice = Full<Schemas["Practice"]>;
export type Netting = Full<Schemas["Netting"]>;
export type Frog = Full<Schemas["Frog"]>;
export type Variety = Full<Schemas["Variety"]>;
export type Part = Full<Schemas["Part"]>;
export type Option = Full<Schemas["Option"]>;
export type Understood = Full<Schemas["Understood"]>;
export type Wish = Full<Schemas["Wish"]>;
export type HeadMark = Full<Schemas["HeadMark"]>;
export type Match = Full<Schemas["Match"]>;
export type Split = Full<Schemas["Split"]>;
export type LedgerRow = Full<Schemas["LedgerRow"]>;
export type Swapped = Full<Schemas["Swapped"]>;
export type SaidPart = Full<Schemas["SaidPart"]>;
export type Heard = Full<Schemas["Heard"]>;
export type Words = Full<Schemas["Words"]>;
export type Asked = Full<Schemas["Asked"]>;
export type Shade = Full<Schemas["Shade"]>;
export type Trade = Full<Schemas["TradeOut"]>;
export type ImportOut = Full<Schemas["ImportOut"]>;
export type VesselDrawn = Full<Schemas["VesselDrawn"]>;
export type Looking = Full<Schemas["Looking"]>;
export type Glance = Looking["glances"][number];
export type FillCheck = Full<Schemas["FillCheck"]>;
export type StoreAbout = Schemas["StoreOut"];
export type StoreKind = StoreAbout["kind"];
export type Holding = Stock["holdings"][string][string];
export type Stand = Full<Schemas["Stand"]>;
export type FinishedArmature = Full<Schemas["FinishedArmature"]>;
export type HeldKind = StoreKind | "mechanic";
export type ProfilePoint = Full<Schemas["ProfilePoint"]>;
export type RecipeLine = Full<Schemas["RecipeLine"]>;
export type StemTube = NonNullable<RecipeLine["tube"]>;
export type Role = RecipeLine["role"];
export type Report = Full<Schemas["Report"]>;
export type Passed = Report["acts"][number];
export type Picture = Report["picture"];
export type Head = Trade["heads"][number];
export type Outline = Trade["shapes"][number]["outline"];
export type Stems = Full<Schemas["Stems"]>;
/** One of what comes as columns. */
export type Row<C> = { readonly [K in keyof C]: C[K] extends readonly (infer E)[] ? E : never };
export type Stem = Row<Stems>;
export type PlacedStem = Row<Report["stems"]>;
export type Changed = Full<Schemas["Changed"]>;
/** What is done to a part by one press; the core says what that makes of it. */
export type Edit = Schemas["EditPart"]["edit"];
export type Brush = Trade["usual"]["brush"];
export type Missing = Full<Schemas["Missing"]>;
export type Verdict = Full<Schemas["Verdict"]>;
export type Fix = Full<Schemas["Fix"]>;
export type Figure = Full<Schemas["Figure"]>;
export type Phrase = Full<Schemas["Phrase"]>;
export type Quantity = Full<Schemas["Quantity"]>;
export type QuantityKind = Quantity["kind"];
export type Rig = Full<Schemas["Rig"]>;
export type HangPoint = Full<Schemas["HangPoint"]>;
export type Attachment = Full<Schemas["Attachment"]>;
export type RigLine = Full<Schemas["RigLine"]>;
export type LineSpec = Full<Schemas["LineSpec"]>;
export type Armature = Full<Schemas["Armature"]>;
export type Mount = Full<Schemas["Mount"]>;
export type Hazard = Full<Schemas["Hazard"]>;
export type Bond = Full<Schemas["Bond"]>;
export type Cover = Full<Schemas["Cover"]>;
export type Proven = Full<Schemas["Proven"]>;
export type RecipesOut = Full<Schemas["RecipesOut"]>;
export type Hardware = Full<Schemas["Hardware"]>;
export type Survey = Full<Schemas["Survey"]>;
export type SurveyBeam = Full<Schemas["SurveyBeam"]>;
export type SurveyPoint = Full<Schemas["SurveyPoint"]>;
export type SurveyOut = Full<Schemas["SurveyOut"]>;
export type Rest = Full<Schemas["Rest"]>;
export type RigReport = Full<Schemas["RigReport"]>;
export type RigFix = Full<Schemas["RigFix"]>;
export type RigOut = Full<Schemas["RigOut"]>;
export type SnipStep = Full<Schemas["SnipStep"]>;
export type Brief = Full<Schemas["Brief"]>;
export type Headline = Full<Schemas["Headline"]>;
export type EventOut = Full<Schemas["EventOut"]>;
export type PieceOut = Full<Schemas["PieceOut"]>;
export type PartOut = PieceOut | RigOut;
export type EventChange = Full<Schemas["EventChange"]>;
export type EditSeen = Schemas["EditSeen"];
export type EventStanding = Full<Schemas["EventStanding"]>;
export type EventSummary = Full<Schemas["EventSummary"]>;
export type Judging = Full<Schemas["Judging"]>;
export type DeletedEvent = Full<Schemas["DeletedEvent"]>;
export type CopiesOut = Full<Schemas["CopiesOut"]>;
export type PutBack = Full<Schemas["PutBack"]>;
export type Stock = Full<Schemas["StockOut"]>;
export type Kept = Full<Schemas["Kept"]>;
export type Book = Full<Schemas["BookOut"]>;
export type BookFigure = Full<Schemas["FigureOut"]>;
export type Newer = Full<Schemas["NewerOut"]>;
export type RollOut = Full<Schemas["RollOut"]>;
export type MaterialPlan = Full<Schemas["MaterialPlan"]>;
export type CutStock = Full<Schemas["CutStock"]>;
export type CutStep = Full<Schemas["CutStep"]>;
export type Remnants = Full<Schemas["RemnantsOut"]>;
export type DayOut = Full<Schemas["DayOut"]>;
export type Timed = Full<Schemas["Timed"]>;
export type Conflict = Full<Schemas["Conflict"]>;
export type Shortfall = Full<Schemas["Shortfall"]>;
export type Note = Full<Schemas["Note"]>;
export type Life = Full<Schemas["Life"]>;
export type WaterRounds = Full<Schemas["WaterRounds"]>;
export type CalendarRead = Full<Schemas["CalendarRead"]>;
export type ListsOut = Full<Schemas["ListsOut"]>;
export type Shopping = Full<Schemas["Shopping"]>;
export type CostOut = Full<Schemas["CostOut"]>;
export type ReachOut = Full<Schemas["ReachOut"]>;
export type BendsOut = Full<Schemas["BendsOut"]>;
export type Instead = Full<Schemas["Instead"]>;
export type Tick = Full<Schemas["Tick"]>;
export type Ticks = ListsOut["ticks"];
export type TickIn = Schemas["TickIn"];
/** A line that is ticked, or (null) not any more. */
export type Ticking = Pick<TickIn, "list" | "line" | "tick">;
export type Returns = Full<Schemas["ReturnsState"]>;
export type Back = Schemas["BackIn"];
export type Order = Full<Schemas["Order"]>;
export type PieceCost = Full<Schemas["PieceCost"]>;
export type Mix = Full<Schemas["Mix"]>;
export type Lasting = Full<Schemas["Lasting"]>;
export type Costing = Full<Schemas["Costing"]>;
export type Air = Full<Schemas["Air"]>;
export type ScaleRecipe = Full<Schemas["ScaleRecipe"]>;
export type FileRead = Full<Schemas["FileRead"]>;
export type Supply = Full<Schemas["Supply"]>;
export type Difference = { readonly path: string; readonly was: unknown; readonly now: unknown };

/** What the server refuses with: one sentence for one place. */
export type Problem = {
  readonly code: string;
  readonly path: string;
  readonly message: Phrase;
  readonly limit: Phrase;
  readonly revision?: number;
  readonly differences?: readonly Difference[];
  /** What this window changed and another one too: to be chosen, field by field. */
  readonly both?: readonly Both[];
};

/** A field that two windows changed: what it was, what this one made of it, what the other did. */
export type Both = {
  readonly path: string;
  readonly was: unknown;
  readonly mine: unknown;
  readonly now: unknown;
};
/** What a person chose of what both changed, over which revision. */
export type Chosen = {
  readonly revision: number;
  readonly mine: readonly string[];
  readonly theirs: readonly string[];
};
/** What a write of a whole document rests on: the document its window began from, and what was chosen since. */
export type Rests<D> = { readonly was: D | null; readonly chosen: Chosen | null };

/** A figure of the studio's own, in the unit of its kind, and why. */
export type OwnFigure = { readonly value: number; readonly reason: string };
