import type { View } from "../../drawing/turned";

type Props = { view: View; onView: (view: View) => void };

/** From the front, or from the right side. */
export function ViewSwitch({ view, onView }: Props) {
  return (
    <fieldset className="no-print m-0 flex flex-none rounded border border-line p-0 text-[14px]">
      <legend className="sr-only">Seen from</legend>
      {(["front", "side"] as const).map((each) => (
        <button
          key={each}
          type="button"
          aria-pressed={view === each}
          onClick={() => onView(each)}
          className={`min-h-[32px] border-0 px-2.5 ${view === each ? "bg-ink text-sheet" : "bg-transparent text-soft"}`}
        >
          {each === "front" ? "front" : "right side"}
        </button>
      ))}
    </fieldset>
  );
}
