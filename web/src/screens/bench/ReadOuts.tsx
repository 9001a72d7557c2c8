import type { MakingReport } from "../../api/types";
import { SidesPair } from "../../ui/SidesPair";

/** Balance to the eye: mass and visual mass by side, depth to width, openness, and varieties by share. */
export function ReadOuts({ making }: { making: MakingReport }) {
  const { shares } = making;
  if (!shares) return <p className="p-3">No stems yet.</p>;
  const percent = (value: number) => `${Math.round(100 * value)} %`;
  return (
    <div className="space-y-3 p-3">
      <SidesPair title="Weight" sides={shares.mass} />
      <SidesPair title="To the eye" sides={shares.sight} />
      <dl className="m-0 grid grid-cols-[minmax(0,1fr)_auto] gap-y-1">
        <dt>Depth to width</dt>
        <dd className="m-0 text-right">{shares.depth_to_width.toFixed(2)}</dd>
        <dt>Openness: air in the size wanted</dt>
        <dd className="m-0 text-right">{percent(shares.openness)}</dd>
      </dl>
      <section>
        <h3 className="m-0 text-base">Varieties, of what is seen</h3>
        <ul className="m-0 mt-1 list-none p-0">
          {shares.varieties.map((each) => (
            <li
              key={each.variety}
              className="grid grid-cols-[130px_minmax(0,1fr)_120px] items-center gap-2 py-1"
            >
              <span className="truncate">{each.name}</span>
              <span className="block h-3 rounded-sm bg-line/50" aria-hidden="true">
                <span
                  className="block h-3 rounded-sm border border-ink/30"
                  style={{ width: `${100 * each.of_sight}%`, background: each.colour }}
                />
              </span>
              <span className="text-right text-sm">
                {percent(each.of_sight)} · {each.stems} stems
              </span>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}
