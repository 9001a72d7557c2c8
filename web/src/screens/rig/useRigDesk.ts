import { api } from "../../api/client";
import type { Rest, RigOut } from "../../api/types";
import { isRig } from "../../desk/change";
import { useDesk } from "../../desk/useDesk";

/** One hung piece: while a hand drags, only where it would hang is asked; it is judged when it is kept. */
export function useRigDesk(eventId: number, rigId: number) {
  const desk = useDesk<RigOut, Rest>(eventId, rigId, isRig, api.settleRig);
  const report = desk.kept?.report ?? null;
  return { ...desk, rig: desk.part, rest: desk.told ?? report?.rest ?? null, report };
}

export type RigDesk = ReturnType<typeof useRigDesk>;
