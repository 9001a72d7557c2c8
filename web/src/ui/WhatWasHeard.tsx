import { Fragment, type ReactNode } from "react";
import type { Asked, Heard, Words } from "../api/types";
import { render } from "../units/text";
import { worded } from "../units/worded";
import { Button } from "./Button";
import { useSettings } from "./settings";

type Props = {
  text: string;
  heard: readonly Heard[];
  unheard: readonly Words[];
  asked: readonly Asked[];
  /** The text with the chosen words in the place of those that were asked about. */
  onMend: (text: string) => void;
};

/** What was understood of some words; what was not is marked where it stands, what is asked has its answers to press. */
export function WhatWasHeard({ text, heard, unheard, asked, onMend }: Props) {
  const { system } = useSettings();
  const marks = [...unheard, ...asked].toSorted((a, b) => a.start - b.start);
  return (
    <>
      {heard.length > 0 && (
        <ul className="m-0 grid list-none gap-0.5 p-0">
          {heard.map((each) => (
            <li key={`${each.start}-${each.meaning.text}`}>
              <span className="text-soft">“{each.words}”</span> {render(each.meaning, system)}
            </li>
          ))}
        </ul>
      )}
      {marks.length > 0 && (
        <p className="mt-2 mb-0 [overflow-wrap:anywhere]">
          {unheard.length > 0 ? "Not understood, as marked: " : "Asked, as marked: "}
          {marked(text, marks)}
        </p>
      )}
      {asked.map((each) => (
        <div key={each.start} className="mt-2 flex flex-wrap items-center gap-1.5">
          <span>
            {worded(each.choices.length === 1 ? "Did you mean, for “{words}”:" : "Which, for “{words}”:", {
              words: each.words,
            })}
          </span>
          {each.choices.map((choice) => (
            <Button key={choice} onClick={() => onMend(replaced(text, each, choice))}>
              {choice}
            </Button>
          ))}
        </div>
      ))}
    </>
  );
}

/** The text with marks under some of its words; places are counted in characters, not in what JavaScript counts. */
function marked(text: string, marks: readonly Words[]): ReactNode[] {
  const letters = Array.from(text);
  const found: ReactNode[] = [];
  let at = 0;
  for (const { start, end } of marks) {
    if (start < at) continue;
    found.push(<Fragment key={`before-${start}`}>{letters.slice(at, start).join("")}</Fragment>);
    found.push(
      <mark key={start} className="rounded-sm bg-berry/15 text-berry underline decoration-wavy">
        {letters.slice(start, end).join("")}
      </mark>,
    );
    at = end;
  }
  found.push(<Fragment key="rest">{letters.slice(at).join("")}</Fragment>);
  return found;
}

/** Other words in the place of some; a count before them stays. */
function replaced(text: string, { start, end }: Words, words: string): string {
  const letters = Array.from(text);
  return [...letters.slice(0, start), words, ...letters.slice(end)].join("");
}
