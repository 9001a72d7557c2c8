import { Pause, Play, StepBack, StepForward } from "lucide-react";
import type { MakingReport } from "../../api/types";
import { Button } from "../../ui/Button";

type Props = {
  making: MakingReport;
  step: number;
  playing: boolean;
  onStep: (step: number) => void;
  onPlay: () => void;
};

const WIDE = 460;
const TALL = 92;
const LEFT = 40;
const WORDS = {
  "tip angle": "tip angle, degrees",
  "ledge ratio": "held, times",
  "wrist moment": "at the wrist, N·m",
} as const;

/** The margin after every step against its limit, with the step in hand marked; below it, the slider that walks it. */
export function MarginCurve({ making, step, playing, onStep, onPlay }: Props) {
  const { curve, limit } = making;
  const last = making.steps.length;
  const most = Math.max(limit * 1.6, ...curve) * 1.06;
  const x = (at: number) => LEFT + ((WIDE - LEFT - 8) * at) / Math.max(last, 1);
  const y = (value: number) => TALL - 14 - ((TALL - 22) * Math.max(Math.min(value, most), 0)) / most;
  const atMost = making.margin === "wrist moment";
  const line = curve
    .map((value, at) => `${at ? "L" : "M"}${x(at).toFixed(1)} ${y(value).toFixed(1)}`)
    .join("");
  const bad = (value: number) => (atMost ? value > limit : value < limit);
  return (
    <div className="flex-none border-t border-line px-2 pb-1">
      <svg
        viewBox={`0 0 ${WIDE} ${TALL}`}
        className="block w-full"
        role="img"
        aria-label={`Margin over the steps: ${WORDS[making.margin]}, limit ${limit.toFixed(1)}`}
      >
        <rect
          x={LEFT}
          width={WIDE - LEFT - 8}
          y={atMost ? 4 : y(limit)}
          height={atMost ? y(limit) - 4 : TALL - 14 - y(limit)}
          className="fill-berry/15"
        />
        <path d={`M${LEFT} ${y(limit)}H${WIDE - 8}`} className="stroke-berry" strokeDasharray="5 4" />
        <path d={line} fill="none" className="stroke-ink" strokeWidth="1.8" strokeLinejoin="round" />
        {curve.map(
          (value, at) =>
            bad(value) && (
              <circle
                // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its step
                key={at}
                cx={x(at)}
                cy={y(value)}
                r="3"
                className="fill-berry"
              />
            ),
        )}
        <path d={`M${x(step)} 4V${TALL - 14}`} className="stroke-marigold" strokeWidth="1.6" />
        {curve[step] !== undefined && (
          <circle cx={x(step)} cy={y(curve[step])} r="4.5" className="fill-marigold" />
        )}
        <text x={LEFT} y={TALL - 2} fontSize="10.5" className="fill-soft">
          {WORDS[making.margin]}
        </text>
        <text x={LEFT - 4} y={y(limit) + 3.5} fontSize="10.5" textAnchor="end" className="fill-berry">
          {limit.toFixed(1)}
        </text>
        <text x={LEFT - 4} y="12" fontSize="10.5" textAnchor="end" className="fill-soft">
          {most.toFixed(most < 10 ? 1 : 0)}
        </text>
        <text x={WIDE - 8} y={TALL - 2} fontSize="10.5" textAnchor="end" className="fill-soft">
          {last} stems
        </text>
      </svg>
      <div className="flex items-center gap-1">
        <Button
          look="quiet"
          className="w-11 flex-none px-0"
          disabled={step <= 0}
          onClick={() => onStep(step - 1)}
          title="One stem back"
        >
          <StepBack size={18} aria-hidden="true" />
          <span className="sr-only">One stem back</span>
        </Button>
        <Button
          className="w-11 flex-none px-0"
          onClick={onPlay}
          title={playing ? "Stop here" : "Watch it being made"}
        >
          {playing ? <Pause size={18} aria-hidden="true" /> : <Play size={18} aria-hidden="true" />}
          <span className="sr-only">{playing ? "Stop here" : "Watch it being made"}</span>
        </Button>
        <Button
          look="quiet"
          className="w-11 flex-none px-0"
          disabled={step >= last}
          onClick={() => onStep(step + 1)}
          title="One stem on"
        >
          <StepForward size={18} aria-hidden="true" />
          <span className="sr-only">One stem on</span>
        </Button>
        <input
          type="range"
          aria-label="Step of the making order"
          className="h-11 min-w-0 flex-1 accent-marigold"
          min={0}
          max={last}
          value={step}
          onChange={(event) => onStep(Number(event.target.value))}
        />
        <output className="w-16 flex-none text-right text-md">
          {step} of {last}
        </output>
      </div>
    </div>
  );
}
