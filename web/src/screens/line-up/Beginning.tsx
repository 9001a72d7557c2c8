import type { Trade } from "../../api/types";
import { Flag } from "../rig/Flag";

type Props = {
  start: Trade["starts"][number];
  stems: boolean;
  onStems: (stems: boolean) => void;
};

/** What to measure first for what is begun, and whether its usual stems come with it. */
export function Beginning({ start, stems, onStems }: Props) {
  return (
    <div className="mt-1 text-sm text-soft">
      {start.measure.length > 0 && <p className="m-0">Measure first: {start.measure.join("; ")}.</p>}
      {start.by !== null && (
        <Flag checked={stems} words="with its usual stems, for its size" onCommit={onStems} />
      )}
    </div>
  );
}
