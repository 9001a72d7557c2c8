import { useState } from "react";
import { useNavigate } from "react-router";
import { api, Refused } from "../../api/client";
import type { EventChange, EventOut, Problem, SaidPart } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { WhatWasHeard } from "../../ui/WhatWasHeard";
import { render } from "../../units/text";
import { worded } from "../../units/worded";

type Props = {
  event: EventOut;
  onAdd: (does: (revision: number) => Promise<EventChange>) => Promise<unknown>;
};

const EXAMPLE = "12 low bowls 20 across 10 deep, 9 roses, 5 ruscus; ring 90 cm, 60 baby’s breath";

/** What is to be made, said in one breath: several pieces at once, told back before any is added. */
export function SayParts({ event, onAdd }: Props) {
  const { system } = useSettings();
  const [text, setText] = useState("");
  const [said, setSaid] = useState<readonly SaidPart[] | null>(null);
  const [asked, setAsked] = useState("");
  const [problem, setProblem] = useState<Problem | null>(null);
  const go = useNavigate();
  const understood = said?.filter((each) => each.heard.length > 0) ?? [];
  const ask = async (words: string) => {
    if (!words.trim()) return;
    setAsked(words);
    try {
      setSaid(await api.sayParts(event.id, words, system));
      setProblem(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
      setSaid(null);
    }
  };
  const close = () => {
    setSaid(null);
    setProblem(null);
  };
  const add = async () => {
    let first: EventChange | null = null;
    await onAdd(async (revision) => {
      first = await api.addSaid(event.id, asked, system, revision);
      return first;
    });
    const done = first as EventChange | null;
    if (!done) return;
    setText("");
    close();
    const [only] = understood;
    if (only && understood.length === 1 && only.part.kind !== "rig")
      void go(`/events/${event.id}/pieces/${done.added}`);
  };
  return (
    <form
      className="no-print relative mb-2"
      onSubmit={(submitted) => {
        submitted.preventDefault();
        if (asked === text && understood.length > 0) void add();
        else void ask(text);
      }}
    >
      <input
        aria-label="Say what is to be made"
        className="h-11 w-full rounded border border-line bg-sheet px-3"
        placeholder={EXAMPLE}
        autoComplete="off"
        value={text}
        data-typing={text !== ""}
        onChange={(changed) => setText(changed.target.value)}
        onKeyDown={(pressed) => pressed.key === "Escape" && close()}
      />
      {(said || problem) && (
        <section aria-label="What was understood" className="mt-1 rounded border border-ink/40 bg-sheet p-3">
          {problem && (
            <p role="alert" className="m-0 text-berry">
              {render(problem.message, system)} {render(problem.limit, system)}
            </p>
          )}
          {said?.map((each, nth) => (
            <div
              // biome-ignore lint/suspicious/noArrayIndexKey: two things may be said in the same words
              key={`${nth}-${each.part.name}`}
              className="mt-2 border-t border-line pt-2 first:mt-0 first:border-0 first:pt-0"
            >
              <h3 className="serif m-0 text-lg">
                {each.heard.length > 0 ? each.part.name : "Not understood"}
                {"quantity" in each.part && each.part.quantity > 1 ? ` × ${each.part.quantity}` : ""}
              </h3>
              <WhatWasHeard
                text={asked}
                heard={each.heard}
                unheard={each.unheard}
                asked={each.asked}
                onMend={(mended) => {
                  setText(mended);
                  void ask(mended);
                }}
              />
            </div>
          ))}
          {said && (
            <div className="mt-2 flex flex-wrap gap-2">
              <Button look="solid" disabled={understood.length === 0} onClick={() => void add()}>
                {understood.length > 1
                  ? worded("Add all {n} (Enter)", { n: understood.length })
                  : "Add it (Enter)"}
              </Button>
              <Button onClick={close}>Leave it</Button>
            </div>
          )}
        </section>
      )}
    </form>
  );
}
