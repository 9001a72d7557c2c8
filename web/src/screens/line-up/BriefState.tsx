import { ConflictStrip } from "../../ui/ConflictStrip";
import { SavedMark } from "../../ui/SavedMark";
import type { BriefDesk } from "./useBrief";

/** Where the saving of the brief stands, where that is not plain: not saved yet, or changed elsewhere. */
export function BriefState({ desk }: { desk: BriefDesk }) {
  return (
    <>
      {desk.saving === "not saved" && <SavedMark saving={desk.saving} />}
      {desk.conflict && <ConflictStrip conflict={desk.conflict} onTakeTheirs={() => void desk.takeOther()} />}
    </>
  );
}
