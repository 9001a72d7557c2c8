import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { api, Refused } from "../../api/client";
import type { Book, BookFigure, OwnFigure, Problem, Quantity } from "../../api/types";
import { PrintTitle } from "../../ui/PrintTitle";
import { useSettings } from "../../ui/settings";
import { TopBar } from "../../ui/TopBar";
import { useRefusal } from "../../ui/useRefusal";
import { useTitle } from "../../ui/useTitle";
import { render } from "../../units/text";
import { FigureRow } from "./FigureRow";

const NONE: Book["topics"] = [];

/** The book of figures: every constant of the method, whose it is, where it comes from; one's own in its place. */
export function FiguresScreen() {
  useTitle("Figures");
  const { system } = useSettings();
  const client = useQueryClient();
  const book = useQuery({ queryKey: ["figures"], queryFn: api.figures });
  const { problem, attempt } = useRefusal();
  const [query] = useSearchParams();
  const [sought, setSought] = useState(query.get("find") ?? "");
  const [ownOnly, setOwnOnly] = useState(false);
  const show = (next: Book) => {
    client.setQueryData(["figures"], next);
    void client.invalidateQueries({ queryKey: ["event"] });
  };
  const set = async (figure: BookFigure, value: number, reason: string): Promise<Problem | null> => {
    try {
      show(await api.setFigure(figure.key, { value, reason }, ownOf(figure)));
      return null;
    } catch (reason_) {
      if (!(reason_ instanceof Refused)) throw reason_;
      if (reason_.problem.code === "stale") await book.refetch();
      return reason_.problem;
    }
  };
  const unset = async (figure: BookFigure) => {
    const next = await attempt(() => api.unsetFigure(figure.key, ownOf(figure)));
    if (next) show(next);
    else await book.refetch();
  };
  const words = sought.trim().toLowerCase();
  const topics = (book.data?.topics ?? NONE)
    .map((topic) => ({
      ...topic,
      figures: topic.figures.filter(
        (each) =>
          (!ownOnly || each.owner === "studio") &&
          (each.label.toLowerCase().includes(words) || topic.topic.toLowerCase().includes(words)),
      ),
    }))
    .filter((topic) => topic.figures.length > 0);
  const unused = Object.entries(book.data?.unused ?? {});
  return (
    <div className="flex h-full flex-col">
      <TopBar>
        <h1 className="m-0 min-w-0 truncate text-xl">Where every figure comes from</h1>
      </TopBar>
      <PrintTitle>Where every figure comes from</PrintTitle>
      {problem && (
        <p role="alert" className="m-0 flex-none border-b border-berry bg-sheet px-4 py-2 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a region that scrolls must be reachable by keyboard */}
      <main tabIndex={0} className="min-h-0 flex-1 overflow-y-auto p-6 max-md:p-3 print:overflow-visible">
        <p className="mt-0 max-w-3xl">
          <strong>Published</strong> figures name their source. <strong>Common practice</strong> is what the
          trade does, with no source. <strong>From memory</strong> was written down without the book at hand.
          An <strong>estimate</strong> is ours, to be replaced by your own weighings. A{" "}
          <strong>measure</strong> is of the world, and you can measure it; a <strong>rule</strong> is a limit
          or a convention. Events keep the figures they were planned with until they take newer ones.
        </p>
        <div className="no-print mb-4 flex flex-wrap items-end gap-4">
          <div className="w-72">
            <label htmlFor="find-figure" className="block text-xs text-soft">
              Find a figure
            </label>
            <input
              id="find-figure"
              type="search"
              autoComplete="off"
              className="h-11 w-full rounded border border-line bg-sheet px-2"
              value={sought}
              onChange={(event) => setSought(event.target.value)}
            />
          </div>
          <label className="flex min-h-11 items-center gap-2">
            <input
              type="checkbox"
              checked={ownOnly}
              onChange={(event) => setOwnOnly(event.target.checked)}
              className="size-5"
            />
            only our own
          </label>
        </div>
        {book.isPending && <p role="status">Opening the book…</p>}
        {book.data && topics.length === 0 && (
          <p role="status">
            {ownOnly && !words ? "No figure of your own yet." : "No figure is called that."}
          </p>
        )}
        {topics.map((topic) => (
          <section key={topic.topic} className="mb-6 max-w-5xl">
            <h2 className="mb-1 text-lg">{topic.topic}</h2>
            <ul className="m-0 list-none p-0">
              {topic.figures.map((figure) => (
                <FigureRow key={figure.key} figure={figure} onSet={set} onUnset={(key) => void unset(key)} />
              ))}
            </ul>
          </section>
        ))}
        {unused.length > 0 && (
          <section className="mb-6 max-w-5xl">
            <h2 className="mb-1 text-lg">Set by you, and not read by this version</h2>
            <ul>
              {unused.map(([key, reason]) => (
                <li key={key}>
                  {key.replaceAll("-", " ")}: {reason}
                </li>
              ))}
            </ul>
          </section>
        )}
      </main>
    </div>
  );
}

/** The studio's own figure as this window knows it. */
function ownOf(figure: BookFigure): OwnFigure | null {
  return figure.owner === "studio"
    ? { value: (figure.quantity as Quantity).value, reason: figure.reason ?? "" }
    : null;
}
