import type { Shares } from "../api/types";

/** Shares of a weight: left against right, front against back. */
export function SidesPair({ title, sides }: { title: string; sides: Shares["mass"] }) {
  return (
    <section>
      <h3 className="m-0 text-base">{title}</h3>
      <Bar first="left" second="right" share={sides.left} />
      <Bar first="front" second="back" share={sides.front} />
    </section>
  );
}

/** Two shares of one whole on one bar, with a mark at the middle. */
function Bar({ first, second, share }: { first: string; second: string; share: number }) {
  const left = Math.round(100 * share);
  return (
    <p className="m-0 mt-1 grid grid-cols-[88px_minmax(0,1fr)_88px] items-center gap-2">
      <span className="text-right">
        {first} {left} %
      </span>
      <span className="relative block h-4 rounded-sm bg-leaf/25" aria-hidden="true">
        <span className="absolute inset-y-0 left-0 rounded-sm bg-leaf/70" style={{ width: `${left}%` }} />
        <span className="absolute -inset-y-1 left-1/2 w-0.5 bg-ink" />
      </span>
      <span>
        {100 - left} % {second}
      </span>
    </p>
  );
}
