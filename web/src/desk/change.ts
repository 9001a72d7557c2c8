import type { EventChange, EventOut, PartOut, PieceOut, RigOut } from "../api/types";

/** An event with a write's answer laid over it; an answer that is older than what is known changes nothing. */
export function withChange(event: EventOut, change: EventChange): EventOut {
  if (change.revision < event.revision) return event;
  const { order, added: _, parts, ...head } = change;
  const known = new Map<number, PartOut>([...event.parts, ...parts].map((each) => [each.id, each]));
  return { ...head, parts: order.flatMap((id) => known.get(id) ?? []) };
}

/** Whether a part hangs or is mounted. */
export function isRig(part: PartOut): part is RigOut {
  return part.part.kind === "rig";
}

/** Whether a part stands or is carried. */
export function isPiece(part: PartOut): part is PieceOut {
  return !isRig(part);
}

/** The parts of an event that stand or are carried. */
export function piecesOf(event: EventOut): readonly PieceOut[] {
  return event.parts.filter(isPiece);
}

/** The parts of an event that hang or are mounted. */
export function rigsOf(event: EventOut): readonly RigOut[] {
  return event.parts.filter(isRig);
}

/** Where a part is worked on, under its event's address. */
export function placeOf(part: PartOut): string {
  return isPiece(part) ? `pieces/${part.id}` : `rigs/${part.id}`;
}
