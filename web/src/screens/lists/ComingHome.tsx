import { useState } from "react";
import type { Back, ListsOut } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { PictureButton } from "../../ui/PictureButton";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { CONDITIONS } from "../stores/ArmatureShelf";

const WHOLE = { condition: "good", note: "", picture: "" } as const;

type Props = {
  returns: ListsOut["returns"];
  onHome: (lines: readonly Back[]) => void;
  onTakeBack: () => void;
};

/** What comes home: how many can be used again, in which condition; counted into the stores in one act. */
export function ComingHome({ returns, onHome, onTakeBack }: Props) {
  const [said, setSaid] = useState<Readonly<Record<string, Back>>>({});
  if (returns.home) {
    const names = new Map(returns.lines.map((each) => [each.key, each.said]));
    return (
      <div className="max-w-4xl">
        <p className="mt-0 text-leaf">✓ Home since {returns.home.at.slice(0, 10)}: the stores have it.</p>
        <ul className="m-0 list-none p-0">
          {returns.home.lines.map((each) => (
            <li key={each.line} className="flex gap-3 border-t border-line py-1">
              <span className="flex-1">{names.get(each.line) ?? each.thing}</span>
              <span>
                {each.back} of {each.went} back
              </span>
              <span className="text-soft">{each.condition}</span>
            </li>
          ))}
        </ul>
        <Button className="mt-3" onClick={onTakeBack}>
          Not home after all
        </Button>
      </div>
    );
  }
  if (returns.lines.length === 0)
    return <p className="mt-0 text-soft">Nothing of this event returns to the stores.</p>;
  const of = (key: string, number: number): Back => said[key] ?? { ...WHOLE, line: key, back: number };
  const put = (key: string, number: number, next: Partial<Back>) =>
    setSaid((now) => ({
      ...now,
      [key]: { ...(now[key] ?? { ...WHOLE, line: key, back: number }), ...next },
    }));
  return (
    <div className="max-w-5xl">
      <p className="mt-0 text-soft">
        Count what can be used again. Each use is added up; what keeps its shape is offered to the next plan
        that it fits. What is hired goes back to its lender.
      </p>
      <ul className="m-0 list-none p-0">
        {returns.lines.map((line) => {
          const now = of(line.key, line.number);
          return (
            <li
              key={line.key}
              className="grid grid-cols-[minmax(0,1fr)_88px_64px_140px_minmax(0,1fr)_auto] items-center gap-x-3 border-t border-line py-1 max-lg:grid-cols-2"
            >
              <span>
                {line.said} {line.shape && <span className="text-soft">made for this event</span>}
              </span>
              <QuantityField
                label={`${line.said} back`}
                hideLabel
                kind="count"
                value={now.back}
                onCommit={(back) =>
                  back !== null &&
                  put(line.key, line.number, { back: Math.min(Math.max(Math.round(back), 0), line.number) })
                }
              />
              <span className="text-soft">of {line.number}</span>
              {line.kind === "armature" ? (
                <>
                  <Choice
                    label={`Condition of ${line.said}`}
                    hideLabel
                    value={now.condition}
                    options={CONDITIONS}
                    onCommit={(condition) => put(line.key, line.number, { condition })}
                  />
                  <TextField
                    label={`Note on ${line.said}`}
                    hideLabel
                    placeholder="note"
                    value={now.note}
                    onCommit={(note) => put(line.key, line.number, { note })}
                  />
                  <PictureButton
                    label={`Picture of ${line.said}`}
                    onKept={(picture) => put(line.key, line.number, { picture })}
                  >
                    {now.picture ? "✓ picture" : "Picture"}
                  </PictureButton>
                </>
              ) : (
                <span className="col-span-3" />
              )}
            </li>
          );
        })}
      </ul>
      <Button look="solid" className="mt-3" onClick={() => onHome(Object.values(said))}>
        All of this is home
      </Button>
    </div>
  );
}
