import { useId, useState } from "react";
import type { BookFigure, Problem, Quantity } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { askForFigure, parseFigure } from "../../units/figure";
import { render, textOf } from "../../units/text";

type Props = {
  figure: BookFigure;
  /** Whether it was set; the sentence of a refusal is kept by the row. */
  onSet: (figure: BookFigure, value: number, reason: string) => Promise<Problem | null>;
  onUnset: (figure: BookFigure) => void;
};

const SORTS = { measure: "measure", rule: "rule", standard: "by definition" } as const;

/** One figure: what it is, whose it is, where it comes from, and the way to set one's own and back. */
export function FigureRow({ figure, onSet, onUnset }: Props) {
  const { system } = useSettings();
  const [open, setOpen] = useState(false);
  const own = figure.owner === "studio";
  return (
    <li className="border-t border-line">
      <div className="grid grid-cols-[minmax(0,1fr)_5rem_6rem] items-center gap-x-3 lg:grid-cols-[minmax(0,1fr)_8rem_12rem_13rem_10rem]">
        <div className="py-1.5">
          {figure.label}
          <span className="block text-xs text-soft lg:hidden">
            {SORTS[figure.sort]}, {own ? "the studio's" : figure.provenance}
          </span>
          {own && (
            <span className="block text-sm text-soft">
              Ours: {figure.reason}. The program's is {textOf(figure.built_in as Quantity, system)}.
            </span>
          )}
        </div>
        <div className={`py-1.5 ${own ? "font-semibold" : ""}`}>
          {textOf(figure.quantity as Quantity, system)}
        </div>
        <div className="py-1.5 text-sm text-soft max-lg:hidden">
          {SORTS[figure.sort]}
          {figure.sort === "measure" && `, give or take ${Math.round(figure.spread * 100)} %`}
        </div>
        <div className="py-1.5 text-sm max-lg:hidden">
          {own ? "the studio's" : figure.provenance}
          {figure.source && !own && <span className="text-soft"> ({figure.source})</span>}
        </div>
        <div className="no-print">
          {figure.sort !== "standard" && (
            <Button
              look="quiet"
              onClick={() => setOpen(!open)}
              aria-expanded={open}
              aria-label={`Set our own: ${figure.label}`}
            >
              {own ? "Change" : "Our own"}
            </Button>
          )}
          {own && (
            <Button
              look="quiet"
              onClick={() => onUnset(figure)}
              aria-label={`Back to the program's: ${figure.label}`}
            >
              Back
            </Button>
          )}
        </div>
      </div>
      {open && <OwnFigure figure={figure} onSet={onSet} onDone={() => setOpen(false)} />}
    </li>
  );
}

function OwnFigure({ figure, onSet, onDone }: Omit<Props, "onUnset"> & { onDone: () => void }) {
  const { system } = useSettings();
  const [text, setText] = useState(textOf(figure.quantity as Quantity, system));
  const [reason, setReason] = useState(figure.reason ?? "");
  const [said, setSaid] = useState<{ path: string; words: string } | null>(null);
  const [numberId, reasonId] = [useId(), useId()];
  const save = async () => {
    const value = parseFigure(
      text,
      figure.quantity.kind,
      system,
      textOf(figure.quantity as Quantity, system),
    );
    if (value === null) {
      setSaid({ path: "value", words: askForFigure(figure.built_in as Quantity, system) });
      return;
    }
    const problem = await onSet(figure, value, reason.trim());
    if (!problem) onDone();
    else {
      const words = `${render(problem.message, system)} ${render(problem.limit, system)}`;
      setSaid({ path: problem.path === "reason" ? "reason" : "value", words });
    }
  };
  const span =
    figure.sort === "standard"
      ? ""
      : `${textOf(figure.least as Quantity, system)} to ${textOf(figure.most as Quantity, system)}`;
  return (
    <form
      className="no-print mb-3 flex flex-wrap items-start gap-3 border-l-2 border-leaf pl-3"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
    >
      <div className="w-56">
        <label htmlFor={numberId} className="block text-xs text-soft">
          Our figure, {span}
        </label>
        <input
          id={numberId}
          // biome-ignore lint/a11y/noAutofocus: the field was just asked for
          autoFocus
          autoComplete="off"
          className={`h-11 w-full rounded border bg-sheet px-2 ${said?.path === "value" ? "border-berry" : "border-line"}`}
          value={text}
          aria-invalid={said?.path === "value"}
          aria-describedby={said?.path === "value" ? `${numberId}-said` : undefined}
          onFocus={(event) => event.target.select()}
          onChange={(event) => setText(event.target.value)}
        />
        {said?.path === "value" && (
          <p id={`${numberId}-said`} role="alert" className="m-0 text-sm text-berry">
            {said.words}
          </p>
        )}
      </div>
      <div className="min-w-48 flex-1">
        <label htmlFor={reasonId} className="block text-xs text-soft">
          How we know it
        </label>
        <input
          id={reasonId}
          autoComplete="off"
          maxLength={200}
          placeholder="weighed ten of them"
          className={`h-11 w-full rounded border bg-sheet px-2 ${said?.path === "reason" ? "border-berry" : "border-line"}`}
          value={reason}
          aria-invalid={said?.path === "reason"}
          aria-describedby={said?.path === "reason" ? `${reasonId}-said` : undefined}
          onChange={(event) => setReason(event.target.value)}
        />
        {said?.path === "reason" && (
          <p id={`${reasonId}-said`} role="alert" className="m-0 text-sm text-berry">
            {said.words}
          </p>
        )}
      </div>
      <div className="flex gap-1 pt-4.5">
        <Button look="solid" type="submit">
          Use it
        </Button>
        <Button look="quiet" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </form>
  );
}
