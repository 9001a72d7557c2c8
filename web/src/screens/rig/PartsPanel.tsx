import type { Rig, RigReport } from "../../api/types";
import { SidesPair } from "../../ui/SidesPair";
import { useSettings } from "../../ui/settings";
import { render, textOf } from "../../units/text";
import { worded } from "../../units/worded";

type Props = { rig: Rig; report: RigReport };

const STATES = { bare: "bare", "one face done": "one side done", finished: "finished" } as const;
/** Out of level by this much with one face done, faces are filled by turns. */
const ALTERNATE_RAD = (5 * Math.PI) / 180;

/** Under the verdict: what hangs by part, what is cut, what is covered, how it hangs while made, how it goes up. */
export function PartsPanel({ rig, report }: Props) {
  const { system } = useSettings();
  const mass = (value: number) => textOf({ kind: "mass", value }, system);
  const length = (value: number) => textOf({ kind: "length", value }, system);
  const cut = (value: number) => textOf({ kind: "cut_length", value }, system);
  const { sized } = report.take_off;
  const half = report.states.find((each) => each.name === "one face done");
  const share = report.coverage.needed_m2 > 0 ? report.coverage.covered_m2 / report.coverage.needed_m2 : 1;
  return (
    <>
      <Part title="What hangs" open>
        <table className="w-full border-collapse">
          <tbody>
            {report.take_off.parts.map((part) => (
              <tr key={part.name} className="border-t border-line">
                <td className="py-0.5">{part.name}</td>
                <td className="text-right">{mass(part.typical_kg)}</td>
                <td className="w-24 text-right text-soft">to {mass(part.heavy_kg)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-1 mb-0">
          Counted as {textOf({ kind: "pull", value: report.rest.load_n }, system)}: the heavy case, with what
          was forgotten and for handling. Proof load {mass(report.proof_kg)}.
        </p>
      </Part>
      {report.sides && (
        <Part title="Balance">
          <SidesPair title="Weight" sides={report.sides} />
        </Part>
      )}
      <Part title="To cut" open>
        <ul className="m-0 list-none p-0">
          <li>
            {worded("Netting {w} × {l}: {across} {across|cell|cells} across, {rows} {rows|row|rows}", {
              w: cut(sized.sheet.width_m),
              l: cut(sized.sheet.length_m),
              across: sized.sheet.cells_across,
              rows: sized.sheet.rows_along,
            })}
            {sized.sections > 1 &&
              worded(", in {n} sections of {l}", { n: sized.sections, l: cut(sized.section_m) })}
          </li>
          {sized.joints_m.length > 0 && (
            <li>Sections meet {sized.joints_m.map((each) => length(each)).join(", ")} along it</li>
          )}
          {sized.parts.map((part, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two parts may differ in size only
            <li key={at}>
              {part.quantity} {part.name}
              {part.sizes.map((size) => ` of ${cut(size.value)}`)}
            </li>
          ))}
          {report.core_bed_m2 > 0 && (
            <li>
              A core of {mass(rig.armature.core_kg)}, bedded on {Math.ceil(report.core_bed_m2 * 1e4)} cm² of
              sealant
            </li>
          )}
          <li className="text-soft">
            Finished{" "}
            {rig.armature.kind === "ring" ? length(sized.finished_thick_m) : length(sized.finished_length_m)}
            {rig.armature.kind === "panel" && ` × ${length(sized.finished_width_m)}`}
            {rig.armature.kind !== "panel" &&
              rig.armature.kind !== "ring" &&
              ` long, ${length(sized.finished_thick_m)} thick`}
            ; it reaches {length(report.top_m)} over the floor
          </li>
        </ul>
      </Part>
      {report.drops.length > 0 && (
        <Part title="Drop list">
          <table className="w-full border-collapse">
            <thead>
              <tr className="text-left text-soft">
                <th className="font-normal">hangs</th>
                <th className="text-right font-normal">down</th>
                <th className="text-right font-normal">cut to</th>
                <th className="text-right font-normal">hook wire</th>
              </tr>
            </thead>
            <tbody>
              {report.drops.map((each) => (
                <tr key={`${each.variety}-${each.length_m}-${each.stem_m}`} className="border-t border-line">
                  <td>
                    {each.count} {each.name}
                  </td>
                  <td className="text-right">{cut(each.length_m)}</td>
                  <td className="text-right">{cut(each.stem_m)}</td>
                  <td className="text-right">{cut(each.hook_m)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1 mb-0 text-soft">
            Hooks of wire {textOf({ kind: "length", value: report.take_off.hook_gauge_m }, system)} thick.
          </p>
        </Part>
      )}
      <Part
        title={worded("Covered: {share} % of what is seen", { share: Math.round(share * 100) })}
        open={share < 1}
      >
        <ul className="m-0 list-none p-0">
          {report.coverage.lines.map((line) => (
            <li key={line.variety} className="flex justify-between gap-2 border-t border-line">
              <span>{line.name}</span>
              <span className="text-soft">
                {Math.round((100 * line.covers_m2) / Math.max(report.coverage.needed_m2, 1e-9))} %
                {line.more > 0 &&
                  worded(" · {n} more of it alone {n|covers|cover} the rest", { n: line.more })}
                {line.more > 0 &&
                  line.bundles_more < line.more &&
                  worded(" ({n} {n|bundle|bundles})", { n: line.bundles_more })}
              </span>
            </li>
          ))}
          {report.coverage.lines.length === 0 && <li>Nothing covers it yet.</li>}
        </ul>
      </Part>
      {report.states.length > 0 && (
        <Part title="While it is made" open={(half?.tilt_rad ?? 0) > ALTERNATE_RAD}>
          <table className="w-full border-collapse">
            <tbody>
              {report.states.map((state) => (
                <tr key={state.name} className="border-t border-line">
                  <td>{STATES[state.name]}</td>
                  <td className="text-right">{textOf({ kind: "pull", value: state.load_n }, system)}</td>
                  <td className="text-right">lowest {length(state.lowest_m)}</td>
                  <td className="text-right">{textOf({ kind: "angle", value: state.tilt_rad }, system)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {half && half.tilt_rad > ALTERNATE_RAD && (
            <p className="mt-1 mb-0 text-marigold">
              △ Fill both sides in turn: with one done it{" "}
              {rig.armature.kind === "panel" || rig.armature.kind === "ring" ? "hangs" : "rolls"}{" "}
              {textOf({ kind: "angle", value: half.tilt_rad }, system)} out of level.
            </p>
          )}
        </Part>
      )}
      {report.standing && rig.mount && (
        <Part title={`How the ${rig.mount.kind} stands`} open>
          {report.standing.area_m2 > 0 && (
            <p className="m-0">
              Wind above Beaufort {rig.mount.comes_down_above} takes it down; at its top it pushes{" "}
              {textOf({ kind: "pull", value: report.standing.wind_n }, system)} at{" "}
              {length(report.standing.height_m)}.
            </p>
          )}
          <p className="m-0">
            Each of four feet needs {mass(report.standing.ballast_kg)} of ballast; it has{" "}
            {mass(rig.mount.ballast_kg)}.
          </p>
        </Part>
      )}
      {report.wind && (
        <Part title="In wind" open>
          <p className="m-0">
            Beaufort {report.wind.beaufort} at its top pushes it with{" "}
            {textOf({ kind: "pull", value: report.wind.push_n }, system)}:{" "}
            {textOf({ kind: "angle", value: report.wind.swing_rad }, system)} out of the vertical,{" "}
            {length(report.wind.aside_m)} aside. Above that it comes down.
          </p>
        </Part>
      )}
      {report.making.length > 0 && (
        <Part title="How it is made">
          <ol className="m-0 pl-6">
            {report.making.map((step, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a step is known by its place
              <li key={at}>{render(step.say, system)}</li>
            ))}
          </ol>
        </Part>
      )}
      {report.raising && (
        <Part title="How it goes up">
          <ol className="m-0 pl-6">
            {report.raising.stages.map((stage) => (
              <li key={stage.lines.join("-")}>
                {worded("{lines}: {n} {n|hauls|haul}, one watches and calls.", {
                  lines: stage.lines.map((each) => report.lines[each]?.name).join(" and "),
                  n: stage.hands - 1,
                })}{" "}
                {stage.pull_n === null
                  ? "It does not rest on these lines alone: bear it from below till the next."
                  : worded(
                      stage.limit_n !== null && stage.pull_n > stage.limit_n
                        ? "{n} {n|line then holds|lines then hold} it, {pull} on the worst, more than it may carry: bear it from below till the next."
                        : "{n} {n|line then holds|lines then hold} it, {pull} on the worst.",
                      {
                        n: stage.held_by.length,
                        pull: textOf({ kind: "pull", value: stage.pull_n }, system),
                      },
                    )}
              </li>
            ))}
          </ol>
          <p className="mt-1 mb-0 text-soft">
            Keep {length(report.raising.clear_width_m)} × {length(report.raising.clear_depth_m)} of floor
            clear under it; nobody goes in while it moves.
          </p>
        </Part>
      )}
      {report.tightening.length > 0 && (
        <Part title="Order of tightening">
          <ol className="m-0 pl-6">
            {report.tightening.map((step) => (
              <li key={step.line}>
                {report.lines[step.line]?.name}: {length(step.slack_m)} slack till then
              </li>
            ))}
          </ol>
          <p className="mt-1 mb-0 text-soft">Leave every line and tie loose until it hangs level.</p>
        </Part>
      )}
    </>
  );
}

function Part({ title, open, children }: { title: string; open?: boolean; children: React.ReactNode }) {
  return (
    <details open={open} className="mt-2 text-sm">
      <summary className="serif min-h-11 cursor-pointer text-base">{title}</summary>
      {children}
    </details>
  );
}
