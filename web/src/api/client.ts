import type { UnitSystem } from "../units/parse";
import type {
  Armature,
  Back,
  BendsOut,
  Book,
  Brief,
  CalendarRead,
  Changed,
  CopiesOut,
  CostOut,
  DayOut,
  DeletedEvent,
  Edit,
  EditSeen,
  EventChange,
  EventOut,
  EventStanding,
  EventSummary,
  FileRead,
  FillCheck,
  HeldKind,
  Holding,
  ImportOut,
  Instead,
  Judging,
  Kept,
  Lasting,
  ListsOut,
  Looking,
  MakingReport,
  Match,
  Mix,
  Newer,
  Option,
  OwnFigure,
  Piece,
  Problem,
  ProfilePoint,
  Proven,
  PutBack,
  ReachOut,
  RecipeLine,
  RecipesOut,
  Remnants,
  Report,
  Rest,
  Rests,
  Returns,
  Rig,
  RigFix,
  RollOut,
  SaidPart,
  ScaleRecipe,
  SnipStep,
  Split,
  Stock,
  StoreKind,
  Survey,
  SurveyOut,
  Swapped,
  TickIn,
  Ticks,
  Trade,
  Understood,
  Vessel,
  VesselDrawn,
} from "./types";

/** A refusal with its sentence, thrown by every call below. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.message.text);
  }
}

const UNREACHED: Problem = {
  code: "unreached",
  path: "",
  message: { text: "The program does not answer.", quantities: {} },
  limit: { text: "Start it again; what was saved is still there.", quantities: {} },
};

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  let answer: Response;
  try {
    answer = await fetch(`/api${path}`, {
      method,
      signal: signal ?? null,
      headers:
        body === undefined
          ? {}
          : { "Content-Type": body instanceof Blob ? "application/octet-stream" : "application/json" },
      body: body === undefined ? null : body instanceof Blob ? body : JSON.stringify(body),
    });
  } catch {
    throw new Refused(0, UNREACHED);
  }
  const said: unknown = await answer.json().catch(() => null);
  if (!answer.ok) throw new Refused(answer.status, (said as Problem | null) ?? UNREACHED);
  return said as T;
}

/** A write that names what it is based on in its address. */
function over(path: string, revision: number): string {
  return `${path}?base_revision=${revision}`;
}

export const api = {
  events: () => call<readonly EventSummary[]>("GET", "/events"),
  event: (id: number) => call<EventOut>("GET", `/events/${id}`),
  standing: (id: number) => call<EventStanding>("GET", `/events/${id}/standing`),
  judging: (id: number) => call<Judging>("GET", `/events/${id}/judging`),
  newEvent: (brief: Pick<Brief, "name" | "time_zone">) => call<EventOut>("POST", "/events", brief),
  putBrief: (id: number, base_revision: number, brief: Brief, rests: Rests<Brief>) =>
    call<EventChange>("PUT", `/events/${id}/brief`, { base_revision, brief, ...rests }),
  undo: (id: number, base_revision: number) =>
    call<EventChange>("POST", `/events/${id}/undo`, { base_revision }),
  redo: (id: number, base_revision: number) =>
    call<EventChange>("POST", `/events/${id}/redo`, { base_revision }),
  evaluate: (id: number, piece: Piece, with_fixes: boolean, signal?: AbortSignal) =>
    call<Report>("POST", `/events/${id}/evaluate`, { piece, with_fixes }, signal),
  evaluateChange: (id: number, piece: Piece, have: Readonly<Record<string, string>>) =>
    call<Changed>("POST", `/events/${id}/evaluate/changed`, { piece, have }),
  making: (id: number, piece: Piece, with_fixes: boolean, signal?: AbortSignal) =>
    call<MakingReport>("POST", `/events/${id}/making`, { piece, with_fixes }, signal),
  addPart: (id: number, base_revision: number, part: Piece | Rig) =>
    call<EventChange>("POST", `/events/${id}/parts`, { base_revision, part }),
  beginPart: (id: number, base_revision: number, start: string, vessel: string | null, stems: boolean) =>
    call<EventChange>("POST", `/events/${id}/parts/begin`, { base_revision, start, vessel, stems }),
  recipes: () => call<RecipesOut>("GET", "/recipes"),
  keepRecipe: (recipe: Proven) => call<RecipesOut>("POST", "/recipes", { recipe }),
  scaleKept: (recipe: number, size: number) =>
    call<readonly RecipeLine[]>("POST", `/recipes/${recipe}/scaled`, { size }),
  scaleUsual: (start: string, size: number) =>
    call<readonly RecipeLine[]>("POST", `/recipes/usual/${start}/scaled`, { size }),
  deleteRecipe: (recipe: number) => call<RecipesOut>("DELETE", `/recipes/${recipe}`),
  bringBackRecipe: (recipe: number) => call<RecipesOut>("POST", `/recipes/${recipe}/bring-back`),
  putPart: (
    id: number,
    partId: number,
    base_revision: number,
    part: Piece | Rig,
    label: string,
    rests: Rests<Piece | Rig>,
  ) => call<EventChange>("PUT", `/events/${id}/parts/${partId}`, { base_revision, label, part, ...rests }),
  editPart: (id: number, partId: number, base_revision: number, edit: Edit) =>
    call<EventChange>("POST", `/events/${id}/parts/${partId}/edit`, { base_revision, edit }),
  /** What an edit would make of a part; nothing is kept. */
  seeEdit: (id: number, partId: number, base_revision: number, edit: Edit) =>
    call<EditSeen>("POST", `/events/${id}/parts/${partId}/edit`, { base_revision, edit, keep: false }),
  removePart: (id: number, partId: number, base_revision: number) =>
    call<EventChange>("DELETE", `/events/${id}/parts/${partId}`, { base_revision }),
  applyFix: (id: number, partId: number, base_revision: number, verb: string, key: string) =>
    call<EventChange>("POST", `/events/${id}/parts/${partId}/fix`, { base_revision, verb, key }),
  settleRig: (id: number, rig: Rig) => call<Rest>("POST", `/events/${id}/settle`, { rig }),
  rigFixes: (id: number, part: number, rig: Rig, signal?: AbortSignal) =>
    call<readonly RigFix[]>("POST", `/events/${id}/rig-fixes`, { rig, part }, signal),
  rigFinished: (id: number, rig: Rig, size: { length_m?: number; width_m?: number; thick_m?: number }) =>
    call<Armature>("POST", `/events/${id}/rig-finished`, { rig, ...size }),
  survey: (id: number) => call<SurveyOut>("GET", `/events/${id}/survey`),
  putSurvey: (id: number, base_revision: number, survey: Survey, rests: Rests<Survey>) =>
    call<SurveyOut>("PUT", `/events/${id}/survey`, { base_revision, ...survey, ...rests }),
  putSurveyBack: (id: number, base: number) =>
    call<SurveyOut>("POST", over(`/events/${id}/survey/put-back`, base)),
  snip: (id: number, part: number, rig: Rig, cut: number) =>
    call<readonly SnipStep[]>("POST", `/events/${id}/snip`, { rig, part, cut }),
  beginDemo: () => call<EventSummary>("POST", "/events/demo"),
  deleteEvent: (id: number) => call<null>("DELETE", `/events/${id}`),
  deletedEvents: () => call<readonly DeletedEvent[]>("GET", "/events/deleted"),
  bringBackEvent: (id: number) => call<{ id: number }>("POST", `/events/${id}/bring-back`),
  copies: () => call<CopiesOut>("GET", "/data"),
  restoreCopy: (name: string) => call<PutBack>("POST", `/data/copies/${encodeURIComponent(name)}/restore`),
  restoreFile: (file: Blob) => call<PutBack>("POST", "/data/restore", file),
  copyEvent: (id: number) => call<EventOut>("POST", `/events/${id}/copy`),
  readEventFile: (text: string) => call<FileRead>("POST", "/events/from-file", { text }),
  roll: (id: number) => call<RollOut>("GET", `/events/${id}/cuts`),
  startCuts: (id: number, seconds: number) => call<RollOut>("POST", `/events/${id}/cuts/start`, { seconds }),
  stopCuts: (id: number) => call<RollOut>("POST", `/events/${id}/cuts/stop`),
  markCut: (id: number, material: "netting" | "supply", key: string, nth: number, cut: boolean) =>
    call<RollOut>("POST", `/events/${id}/cuts/mark`, { material, key, nth, cut }),
  remnants: () => call<Remnants>("GET", "/remnants"),
  addRemnant: (
    base: number,
    remnant: { material: "netting" | "supply"; key: string; width_m: number; length_m: number },
  ) => call<Remnants>("POST", over("/remnants", base), remnant),
  removeRemnant: (base: number, id: number) => call<Remnants>("DELETE", over(`/remnants/${id}`, base)),
  day: (id: number) => call<DayOut>("GET", `/events/${id}/day`),
  stopDay: (id: number) => call<DayOut>("POST", `/events/${id}/day/stop`),
  applyRemedy: (id: number, base_revision: number, key: string) =>
    call<DayOut>("POST", `/events/${id}/day/remedy`, { base_revision, key }),
  setTask: (id: number, base_revision: number, task: string, starts_at: string | null) =>
    call<DayOut>("PUT", `/events/${id}/day/lock`, { base_revision, task, starts_at }),
  readCalendar: (id: number, base_revision: number, text: string) =>
    call<CalendarRead>("POST", `/events/${id}/day/calendar`, { base_revision, text }),
  lists: (id: number) => call<ListsOut>("GET", `/events/${id}/lists`),
  cost: (id: number) => call<CostOut>("GET", `/events/${id}/cost`),
  scaledRecipe: (id: number, pieceId: number, scale: ScaleRecipe) =>
    call<readonly RecipeLine[]>("POST", `/events/${id}/parts/${pieceId}/scaled`, scale),
  scaleRecipe: (id: number, pieceId: number, base_revision: number, scale: ScaleRecipe) =>
    call<EventChange>("POST", `/events/${id}/parts/${pieceId}/scale`, { base_revision, scale }),
  mix: (id: number, asked: object) => call<Mix>("POST", `/events/${id}/mix`, asked),
  lasting: (id: number, pieceId: number, months: number | null) =>
    call<Lasting>("POST", `/events/${id}/parts/${pieceId}/lasting`, { months }),
  tick: (id: number, tick: TickIn) => call<Ticks>("PUT", `/events/${id}/ticks`, tick),
  goodsIn: (id: number, text: string) =>
    call<{ readonly unknown: readonly string[]; readonly ticks: Ticks }>("POST", `/events/${id}/goods-in`, {
      text,
    }),
  reuse: (id: number, base_revision: number, part: number, armature: string, number: number) =>
    call<EventChange>("POST", `/events/${id}/reuse`, { base_revision, part, armature, number }),
  instead: (id: number, thing: string) =>
    call<readonly Instead[]>("GET", `/events/${id}/instead?thing=${encodeURIComponent(thing)}`),
  takeInstead: (id: number, base_revision: number, thing: string, vessel: string) =>
    call<EventChange>("POST", `/events/${id}/instead`, { base_revision, thing, vessel }),
  comeHome: (id: number, lines: readonly Back[]) => call<Returns>("POST", `/events/${id}/home`, { lines }),
  notHome: (id: number) => call<Returns>("DELETE", `/events/${id}/home`),
  acceptPrice: (id: number, base_revision: number) =>
    call<EventChange>("POST", `/events/${id}/quote`, { base_revision }),
  letPriceGo: (id: number, base_revision: number) =>
    call<EventChange>("POST", `/events/${id}/quote/let-go`, { base_revision }),
  target: (id: number) => call<ReachOut>("GET", `/events/${id}/target`),
  reachTarget: (id: number, base_revision: number, key: string) =>
    call<EventChange>("POST", `/events/${id}/target`, { base_revision, key }),
  bends: (id: number) => call<BendsOut>("GET", `/events/${id}/bends`),
  takeBend: (id: number, base_revision: number, key: string) =>
    call<EventChange>("POST", `/events/${id}/bends`, { base_revision, key }),
  addPicture: (data: string) => call<{ key: string }>("POST", "/pictures", { data }),
  putCurrency: (base: number, currency: string) =>
    call<Stock>("PUT", over("/stock/currency", base), { currency }),
  stock: () => call<Stock>("GET", "/stock"),
  trade: () => call<Trade>("GET", "/trade"),
  choose: (id: number, piece: Piece, signal?: AbortSignal) =>
    call<readonly Option[]>("POST", `/events/${id}/choose`, { piece }, signal),
  looking: (id: number, piece: Piece, signal?: AbortSignal) =>
    call<Looking>("POST", `/events/${id}/looking`, { piece }, signal),
  split: (id: number, part: number, budget: string, premium: number) =>
    call<Split>("POST", `/events/${id}/parts/${part}/split`, { budget, premium }),
  keepSplit: (id: number, part: number, budget: string, premium: number, base_revision: number) =>
    call<EventChange>("POST", `/events/${id}/parts/${part}/split/keep`, { budget, premium, base_revision }),
  matching: (id: number, piece: Piece) => call<Match>("POST", `/events/${id}/matching`, { piece }),
  pictureColour: (key: string, x: number, y: number) =>
    call<{ colour: string }>("GET", `/pictures/${key}/colour?x=${x}&y=${y}`),
  trySwap: (id: number, old: string, said: string) =>
    call<Swapped>("GET", `/events/${id}/swap?old=${encodeURIComponent(old)}&new=${encodeURIComponent(said)}`),
  swap: (id: number, old: string, said: string, base_revision: number) =>
    call<EventChange>("POST", `/events/${id}/swap`, { old, new: said, base_revision }),
  sayParts: (id: number, text: string, system: UnitSystem) =>
    call<SaidPart[]>("POST", `/events/${id}/parts/say`, { text, system }),
  addSaid: (id: number, text: string, system: UnitSystem, base_revision: number) =>
    call<EventChange>("POST", `/events/${id}/parts/said`, { text, system, base_revision }),
  say: (id: number, text: string, system: UnitSystem, piece: Piece) =>
    call<Understood>("POST", `/events/${id}/say`, { text, system, piece }),
  drawVessel: (vessel: Vessel, signal?: AbortSignal) =>
    call<VesselDrawn>("POST", "/vessel-drawing", { vessel }, signal),
  addVessel: (base: number, vessel: Vessel) => call<Kept>("POST", over("/stock/vessel", base), { vessel }),
  putThing: (base: number, kind: StoreKind, key: string, thing: object, rests: Rests<object>) =>
    call<Kept>("PUT", over(`/stock/${kind}/${key}`, base), { [kind]: thing, ...rests }),
  copyThing: (base: number, kind: StoreKind, key: string) =>
    call<Kept>("POST", over(`/stock/${kind}/${key}/copy`, base)),
  deleteThing: (base: number, kind: StoreKind, key: string) =>
    call<Stock>("DELETE", over(`/stock/${kind}/${key}`, base)),
  bringBackThing: (base: number, kind: StoreKind, key: string) =>
    call<Stock>("POST", over(`/stock/${kind}/${key}/bring-back`, base)),
  travelStock: (base: number, way: "undo" | "redo") => call<Stock>("POST", over(`/stock/${way}`, base)),
  putHolding: (base: number, kind: HeldKind, key: string, holding: Holding, rests: Rests<Holding>) =>
    call<Kept>("PUT", over(`/stock/${kind}/${key}/holding`, base), { ...holding, ...rests }),
  addThing: (base: number, kind: "stand" | "armature", thing: object) =>
    call<Kept>("POST", over(`/stock/${kind}`, base), { [kind]: thing }),
  importTable: (base: number, kind: StoreKind, text: string, dry_run: boolean) =>
    call<ImportOut>("POST", over(`/tables/${kind}`, base), { text, dry_run }),
  readOutline: (body: {
    text: string;
    written_as: "svg" | "table";
    inside_depth_m: number | null;
    half: boolean;
    system: UnitSystem;
  }) => call<{ profile: readonly ProfilePoint[] }>("POST", "/outline", body),
  checkFill: (vessel: Vessel, poured_l: number) =>
    call<FillCheck>("POST", "/fill-check", { vessel, poured_l }),
  figures: () => call<Book>("GET", "/figures"),
  setFigure: (key: string, own: OwnFigure, was: OwnFigure | null) =>
    call<Book>("PUT", `/figures/${key}`, { ...own, was }),
  unsetFigure: (key: string, was: OwnFigure | null) => call<Book>("DELETE", `/figures/${key}`, { was }),
  newerFigures: (id: number) => call<Newer>("GET", `/events/${id}/newer-figures`),
  takeNewerFigures: (id: number, base_revision: number) =>
    call<EventChange>("POST", `/events/${id}/newer-figures`, { base_revision }),
};

/** Where a piece's flat patterns are, at true size. */
export function patternUrl(
  eventId: number,
  pieceId: number,
  ending: "svg" | "dxf" | "pdf",
  paper: "A4" | "Letter" = "A4",
): string {
  return `/api/events/${eventId}/parts/${pieceId}/patterns.${ending}?paper=${paper}`;
}

/** Where the card of a part is: one page to print. */
export function cardUrl(eventId: number, partId: number, paper: "A4" | "Letter", system: UnitSystem): string {
  return `/api/events/${eventId}/parts/${partId}/card.pdf?paper=${paper}&system=${system}`;
}
