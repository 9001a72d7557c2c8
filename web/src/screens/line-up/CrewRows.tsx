import { X } from "lucide-react";
import { useState } from "react";
import type { Brief, Problem } from "../../api/types";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";

type Put = (change: (kept: Brief) => Partial<Brief>) => Promise<unknown>;
type Member = Brief["crew"][number];
type Props = { brief: Brief; problem: Problem | null; onPut: Put };

const SKILLS = [
  ["drives", "drives"],
  ["ladders", "ladders"],
  ["knots", "knots and proofs"],
] as const;

const PARTS = [
  ["all of it", "all of it"],
  ["setting up", "setting up"],
  ["strike", "the strike"],
] as const;

/** Who works: what each can do, from when to when they come, what an hour of theirs costs. */
export function CrewRows({ brief, problem, onPut }: Props) {
  const [name, setName] = useState("");
  const set = (index: number, next: Partial<Member>) =>
    void onPut((kept) => ({
      crew: kept.crew.map((each, at) => (at === index ? { ...each, ...next } : each)),
    }));
  const add = () => {
    if (!name.trim()) return;
    const added: Member = {
      name: name.trim(),
      skills: ["drives", "ladders", "knots"],
      comes: null,
      goes: null,
      does: "all of it",
      rate_per_h: null,
      key: "",
    };
    void onPut((kept) => ({ crew: [...kept.crew, added] }));
    setName("");
  };
  return (
    <section aria-label="Crew">
      <h3 className="mt-3 mb-1 text-md font-normal text-soft">
        Crew{brief.crew.length === 0 ? ": nobody yet, one pair of hands is taken" : ""}
      </h3>
      <ul className="m-0 grid list-none gap-2 p-0">
        {brief.crew.map((member, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
            key={index}
            className="rounded border border-line bg-sheet p-2 pl-3"
          >
            <div className="flex items-center justify-between">
              <strong className="[overflow-wrap:anywhere]">{member.name}</strong>
              <Button
                look="quiet"
                aria-label={`Take ${member.name} out of the crew`}
                onClick={() => void onPut((kept) => ({ crew: kept.crew.filter((_, at) => at !== index) }))}
              >
                <X size={16} aria-hidden="true" />
              </Button>
            </div>
            <div className="flex flex-wrap gap-x-4">
              {SKILLS.map(([skill, words]) => (
                <label key={skill} className="flex min-h-11 items-center gap-1.5 text-sm">
                  <input
                    type="checkbox"
                    className="h-5 w-5 accent-leaf"
                    aria-label={`${member.name}: ${words}`}
                    checked={member.skills.includes(skill)}
                    onChange={(event) =>
                      set(index, {
                        skills: event.target.checked
                          ? [...member.skills, skill]
                          : member.skills.filter((each) => each !== skill),
                      })
                    }
                  />
                  {words}
                </label>
              ))}
            </div>
            <div className="grid grid-cols-4 gap-2 max-md:grid-cols-2">
              <Choice
                label="On the day"
                value={member.does}
                options={PARTS}
                onCommit={(does) => set(index, { does: does as Member["does"] })}
              />
              {(
                [
                  ["comes", "Comes"],
                  ["goes", "Goes"],
                ] as const
              ).map(([field, label]) => (
                <TextField
                  key={field}
                  label={label}
                  type="time"
                  value={member[field] ?? ""}
                  path={`crew.${index}.${field}`}
                  problem={problem}
                  onCommit={(at) => set(index, { [field]: at || null })}
                />
              ))}
              <QuantityField
                label="An hour costs"
                kind="ratio"
                optional
                placeholder="as all"
                value={member.rate_per_h === null ? null : Number(member.rate_per_h)}
                path={`crew.${index}.rate_per_h`}
                problem={problem}
                onCommit={(rate) => set(index, { rate_per_h: rate === null ? null : rate.toFixed(2) })}
              />
            </div>
          </li>
        ))}
        <li className="flex gap-2">
          <input
            aria-label="Name of one more of the crew"
            data-path="crew"
            placeholder="name"
            className="h-11 w-32 rounded border border-line bg-sheet px-2"
            value={name}
            maxLength={40}
            onChange={(change) => setName(change.target.value)}
            onKeyDown={(key) => key.key === "Enter" && add()}
          />
          <Button onClick={add}>Add</Button>
        </li>
      </ul>
    </section>
  );
}
