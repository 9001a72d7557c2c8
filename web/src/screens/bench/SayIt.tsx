import { useState } from "react";
import { api, Refused } from "../../api/client";
import type { Piece, Problem, Understood } from "../../api/types";
import { Button } from "../../ui/Button";
import { useSettings } from "../../ui/settings";
import { useFirstFocus } from "../../ui/useFirstFocus";
import { WhatWasHeard } from "../../ui/WhatWasHeard";
import { render } from "../../units/text";

type Props = { eventId: number; piece: Piece; onApply: (piece: Piece) => void };

const EXAMPLES: Readonly<Record<Piece["kind"], string>> = {
  standing: "bowl 20 across 10 deep, 28 high, 5 ruscus, 7 rose",
  worn: "6 wide, 1 rose, 2 wax flower, 2 ruscus",
  bouquet: "28 wide, 9 garden rose, 12 ranunculus, 15 pittosporum",
};

/** A line of plain words that sets up or changes the piece; it says what it understood before anything changes. */
export function SayIt({ eventId, piece, onApply }: Props) {
  const { system } = useSettings();
  const [text, setText] = useState("");
  const [heard, setHeard] = useState<Understood | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  /** The words that `heard` is the answer to. */
  const [asked, setAsked] = useState("");
  const begins = useFirstFocus<HTMLInputElement>(piece.recipe.length === 0);
  const ask = async (said: string) => {
    if (!said.trim()) return;
    setAsked(said);
    try {
      setHeard(await api.say(eventId, said, system, piece));
      setProblem(null);
    } catch (reason) {
      if (!(reason instanceof Refused)) throw reason;
      setProblem(reason.problem);
      setHeard(null);
    }
  };
  const close = () => {
    setHeard(null);
    setProblem(null);
  };
  const apply = (next: Piece) => {
    onApply(next);
    setText("");
    close();
  };
  return (
    <form
      className="relative min-w-45 flex-1 max-lg:mb-1 max-md:basis-full"
      onSubmit={(event) => {
        event.preventDefault();
        if (heard && asked === text && heard.heard.length > 0) apply(heard.piece);
        else void ask(text);
      }}
    >
      <input
        ref={begins}
        aria-label="Say it: set up or change the piece in words"
        className="h-11 w-full rounded border border-line bg-sheet px-3"
        placeholder={`Say it: ${EXAMPLES[piece.kind]}…`}
        autoComplete="off"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === "Escape" && close()}
      />
      {(heard || problem) && (
        <section
          aria-label="What was understood"
          className="absolute top-full right-0 left-0 z-50 mt-1 min-w-[min(380px,100%)] rounded border border-ink/40 bg-sheet p-3 shadow-lg"
        >
          {problem && (
            <p role="alert" className="m-0 text-berry">
              {render(problem.message, system)} {render(problem.limit, system)}
            </p>
          )}
          {heard && (
            <>
              <WhatWasHeard
                text={asked}
                heard={heard.heard}
                unheard={heard.unheard}
                asked={heard.asked}
                onMend={(mended) => {
                  setText(mended);
                  void ask(mended);
                }}
              />
              <div className="mt-2 flex gap-2">
                <Button
                  look="solid"
                  disabled={heard.heard.length === 0}
                  onClick={() => {
                    apply(heard.piece);
                  }}
                >
                  Do it (Enter)
                </Button>
                <Button onClick={close}>Leave it</Button>
              </div>
            </>
          )}
        </section>
      )}
    </form>
  );
}
