import type { Passed, Problem } from "../api/types";
import { Choice } from "../ui/Choice";
import { QuantityField } from "../ui/QuantityField";
import { useSettings } from "../ui/settings";
import { TextField } from "../ui/TextField";
import { textOf } from "../units/text";
import { worded } from "../units/worded";

type Chosen = {
  readonly made: "the workshop" | "its place" | "sections";
  readonly greened_h: number;
  readonly cooled: Cooled | null;
  readonly weight: "there" | "at the bench and there" | null;
  readonly handover: Handover | null;
  readonly afterwards: "home" | "stays" | "given" | "compost";
};
type Cooled = {
  readonly days: number;
  readonly temperature_c: number | null;
  readonly door_height_m: number | null;
  readonly door_width_m: number | null;
};
type Handover = { readonly to: string; readonly where: string; readonly at: string | null };
type Props = {
  passage: Chosen;
  acts: readonly Passed[];
  /** What the part is: whether it hangs, is carried, counts on a weight. */
  hung: boolean;
  carried: boolean;
  weighted: boolean;
  problem: Problem | null;
  onCommit: (passage: Chosen, label: string) => void;
};

const MADE = [
  ["the workshop", "in the workshop"],
  ["its place", "where it stands"],
] as const;
const WEIGHT = [
  ["at the bench and there", "at the bench, and again there"],
  ["there", "there only"],
] as const;

/** What becomes of a part from the workshop to the end: the choices its acts follow from, and the acts as a line. */
export function Passage({ passage, acts, hung, carried, weighted, problem, onCommit }: Props) {
  const put = (next: Partial<Chosen>) =>
    onCommit({ ...passage, ...next }, "Change what becomes of it from the workshop to the end");
  const { cooled, handover } = passage;
  const cool = (next: Partial<Cooled>) => cooled && put({ cooled: { ...cooled, ...next } });
  const hand = (next: Partial<Handover>) =>
    put({ handover: { to: "", where: "", at: null, ...handover, ...next } });
  return (
    <div className="p-3">
      <div className="mb-3 grid grid-cols-5 content-start gap-3 max-lg:grid-cols-2">
        <Choice
          label="Made"
          path="passage.made"
          value={passage.made}
          options={MADE}
          onCommit={(made) => put({ made })}
        />
        <QuantityField
          label="Greens in, before its flowers"
          kind="duration"
          value={passage.greened_h}
          path="passage.greened_h"
          problem={problem}
          onCommit={(greened_h) => greened_h !== null && put({ greened_h })}
        />
        {weighted && (
          <Choice
            label="Its weight is laid"
            value={passage.weight ?? "at the bench and there"}
            options={WEIGHT}
            onCommit={(weight) => put({ weight })}
          />
        )}
        {!hung && (
          <>
            <QuantityField
              label="Days in the cool room"
              kind="count"
              optional
              placeholder="none"
              value={cooled?.days ?? null}
              path="passage.cooled.days"
              problem={problem}
              onCommit={(days) =>
                put({
                  cooled:
                    days === null
                      ? null
                      : {
                          temperature_c: null,
                          door_height_m: null,
                          door_width_m: null,
                          ...cooled,
                          days,
                        },
                })
              }
            />
            {cooled && (
              <>
                <QuantityField
                  label="The cool room is at"
                  kind="temperature"
                  optional
                  placeholder="as a flower cooler"
                  value={cooled.temperature_c}
                  path="passage.cooled.temperature_c"
                  problem={problem}
                  onCommit={(temperature_c) => cool({ temperature_c })}
                />
                <QuantityField
                  label="Its door, high"
                  kind="length"
                  optional
                  placeholder="not measured"
                  value={cooled.door_height_m}
                  path="passage.cooled.door_height_m"
                  problem={problem}
                  onCommit={(door_height_m) => cool({ door_height_m })}
                />
                <QuantityField
                  label="Its door, wide"
                  kind="length"
                  optional
                  placeholder="not measured"
                  value={cooled.door_width_m}
                  path="passage.cooled.door_width_m"
                  problem={problem}
                  onCommit={(door_width_m) => cool({ door_width_m })}
                />
              </>
            )}
          </>
        )}
        {carried && (
          <>
            <TextField
              label="Handed to"
              value={handover?.to ?? ""}
              placeholder="nobody named"
              path="passage.handover.to"
              problem={problem}
              onCommit={(to) => (to.trim() ? hand({ to: to.trim() }) : put({ handover: null }))}
            />
            {handover && (
              <>
                <TextField
                  label="Handed over at"
                  value={handover.where}
                  placeholder="which room, which door"
                  path="passage.handover.where"
                  problem={problem}
                  onCommit={(where) => hand({ where: where.trim() })}
                />
                <TextField
                  label="By"
                  type="datetime-local"
                  value={handover.at ?? ""}
                  path="passage.handover.at"
                  problem={problem}
                  onCommit={(at) => hand({ at: at || null })}
                />
              </>
            )}
          </>
        )}
      </div>
      <PassageLine acts={acts} />
    </div>
  );
}

/** The acts in order, under the place where each is done; of stems and water what an act changes. */
function PassageLine({ acts }: { acts: readonly Passed[] }) {
  const { system } = useSettings();
  const stretches: { place: string; acts: { act: Passed; before: Passed | undefined }[] }[] = [];
  acts.forEach((act, nth) => {
    const last = stretches.at(-1);
    const told = { act, before: acts[nth - 1] };
    if (last?.place === act.place) last.acts.push(told);
    else stretches.push({ place: act.place, acts: [told] });
  });
  if (acts.length === 0) return <p className="m-0 text-soft">Its acts are told once it can be judged.</p>;
  return (
    <ol aria-label="From the workshop to the end" className="m-0 flex list-none flex-wrap gap-y-2 p-0">
      {stretches.map((stretch, nth) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a place may come twice; its turn is its name
        <li key={nth} className="passage-stretch">
          <span className="block px-2 text-sm text-soft">{stretch.place}</span>
          <ol className="m-0 flex list-none flex-wrap p-0">
            {stretch.acts.map(({ act, before }) => (
              <li key={act.kind} className="passage-act">
                <span className="block">{act.kind}</span>
                {act.stems !== (before?.stems ?? 0) && (
                  <span className="block text-sm text-soft">
                    {act.stems > 0 ? worded("{n} {n|stem|stems} in it", { n: act.stems }) : "no stems"}
                  </span>
                )}
                {act.level_m !== (before?.level_m ?? 0) && (
                  <span className="block text-sm text-soft">
                    {act.level_m > 0
                      ? worded("water {l}", { l: textOf({ kind: "length", value: act.level_m }, system) })
                      : "dry"}
                  </span>
                )}
              </li>
            ))}
          </ol>
        </li>
      ))}
    </ol>
  );
}
