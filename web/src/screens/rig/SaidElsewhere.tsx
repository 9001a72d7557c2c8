import type { HangPoint, SurveyOut } from "../../api/types";
import { useSettings } from "../../ui/settings";
import { textOf } from "../../units/text";
import { AXES } from "./kinds";

/** What was stated of a hang point before it was moved: to be read, and counted nowhere. */
export function SaidElsewhere({ point, survey }: { point: HangPoint; survey: SurveyOut | null }) {
  const { system } = useSettings();
  const said = point.elsewhere;
  if (!said || point.rating_n !== null || point.surveyed !== null) return null;
  const place = AXES.map(([axis, words]) => {
    const at = textOf({ kind: "length", value: said[axis] }, system);
    return `${words.toLowerCase()} ${at}`;
  }).join(", ");
  const named = survey?.survey.points.find((each) => each.key === said.surveyed)?.name ?? said.surveyed;
  const stated = [
    said.surveyed !== null && `it was ${named} of the survey`,
    said.rating_n !== null && textOf({ kind: "force", value: said.rating_n }, system),
    said.pull_out_n !== null &&
      `${textOf({ kind: "force", value: said.pull_out_n }, system)} out of the wall`,
    said.made_for !== null && `made for ${said.made_for}`,
    said.stated_by !== null && `by ${said.stated_by}`,
    said.stated_on !== null && `on ${said.stated_on}`,
  ].filter(Boolean);
  return (
    <p className="m-0 pl-4 text-sm text-soft">
      Said of another place ({place}): {stated.join(", ")}. It counts for nothing here: ask again.
    </p>
  );
}
