import { useMemo } from "react";
import type { Stock } from "../../api/types";
import { Shapes } from "../../drawing/Drawing";
import { boundsOf } from "../../drawing/look";
import { project } from "../../drawing/project";
import { useKit } from "../../ui/useTrade";

const PX_PER_M = 340;
const CUT = { turn_rad: 0, raised_rad: 0, cut: true } as const;
const EDGE_M = 0.004;

type Props = { drawn: Stock["drawn"][string] };

/** A vessel's section at the shelf's scale. */
export function VesselDrawing({ drawn }: Props) {
  const kit = useKit();
  const flats = useMemo(() => {
    const picture = { primitives: drawn, rims_m: [], deep_m: 1 };
    return kit ? project(picture, [], CUT, kit) : [];
  }, [drawn, kit]);
  const { xMin, xMax, yMin, yMax } = boundsOf(flats);
  const [wide, tall] = [xMax - xMin + 2 * EDGE_M, yMax - yMin + 2 * EDGE_M];
  return (
    <svg
      className="drawing"
      width={Math.max(wide * PX_PER_M, 20)}
      height={tall * PX_PER_M}
      viewBox={`${xMin - EDGE_M} ${-yMax - EDGE_M} ${wide} ${tall}`}
      aria-hidden="true"
    >
      <g transform="scale(1 -1)">
        <Shapes scene={flats} />
      </g>
    </svg>
  );
}
