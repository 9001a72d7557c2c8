import type { components } from "./schema";

type Schemas = components["schemas"];

/** What the server sends has every field: a default in the schema never means "may be absent". */
type Full<T> = T extends readonly unknown[]
  ? { readonly [K in keyof T]: Full<T[K]> }
  : T extends object
    ? { readonly [K in keyof T]-?: Full<Exclude<T[K], undefined>> }
    : T;

export type Piece = Full<Schemas["Piece"]>;
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
export type Trade = Full<Schemas["TradeOut"]>;
export type ImportOut = Full<Schemas["ImportOut"]>;
export type FillCheck = Full<Schemas["FillCheck"]>;
export type StoreKind = "vessel" | "netting" | "frog" | "variety" | "supply";
export type HeldKind = StoreKind | "mechanic";
export type ProfilePoint = Full<Schemas["ProfilePoint"]>;
export type RecipeLine = Full<Schemas["RecipeLine"]>;
export type Role = RecipeLine["role"];
export type Report = Full<Schemas["Report"]>;
export type PlacedStem = Full<Schemas["PlacedStem"]>;
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
export type Survey = Full<Schemas["Survey"]>;
export type SurveyPoint = Full<Schemas["SurveyPoint"]>;
export type SurveyOut = Full<Schemas["SurveyOut"]>;
export type Rest = Full<Schemas["Rest"]>;
export type RigReport = Full<Schemas["RigReport"]>;
export type RigFix = Full<Schemas["RigFix"]>;
export type RigOut = Full<Schemas["RigOut"]>;
export type SavedRig = Full<Schemas["SavedRig"]>;
export type SnipStep = Full<Schemas["SnipStep"]>;
export type Brief = Full<Schemas["Brief"]>;
export type Headline = Full<Schemas["Headline"]>;
export type EventOut = Full<Schemas["EventOut"]>;
export type PieceOut = Full<Schemas["PieceOut"]>;
export type SavedPiece = Full<Schemas["SavedPiece"]>;
export type DeletedEvent = Full<Schemas["DeletedEvent"]>;
export type CopiesOut = Full<Schemas["CopiesOut"]>;
export type PutBack = Full<Schemas["PutBack"]>;
export type Stock = Full<Schemas["StockOut"]>;
export type Topic = Full<Schemas["TopicOut"]>;
export type RollOut = Full<Schemas["RollOut"]>;
export type MaterialPlan = Full<Schemas["MaterialPlan"]>;
export type CutStock = Full<Schemas["CutStock"]>;
export type CutAct = Full<Schemas["CutAct"]>;
export type Remnants = Full<Schemas["RemnantsOut"]>;
export type DayOut = Full<Schemas["DayOut"]>;
export type Timed = Full<Schemas["Timed"]>;
export type Conflict = Full<Schemas["Conflict"]>;
export type Life = Full<Schemas["Life"]>;
export type WaterRounds = Full<Schemas["WaterRounds"]>;
export type CalendarRead = Full<Schemas["CalendarRead"]>;
export type ListsOut = Full<Schemas["ListsOut"]>;
export type Shopping = Full<Schemas["Shopping"]>;
export type CostOut = Full<Schemas["CostOut"]>;
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
};
