import { X } from "lucide-react";
import { Link } from "react-router";
import type { HangPoint, Missing } from "../../api/types";
import { EditButton } from "../../desk/Editing";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { QuantityField } from "../../ui/QuantityField";
import { TextField } from "../../ui/TextField";
import { useHangPoints } from "../../ui/useTrade";
import { surveyedAt, UNRATED } from "./edits";
import { AXES } from "./kinds";
import { SaidElsewhere } from "./SaidElsewhere";
import type { RigTabProps } from "./types";

type RowProps = Pick<RigTabProps, "rig" | "problem" | "survey" | "onCommit"> & {
  point: HangPoint;
  /** What Hang still asks for, in words. */
  asked: readonly Missing[];
  index: number;
};

/** Where each hang point is, what it may carry and who states it: here, or in the survey of the place. */
export function PointsTab(props: RigTabProps) {
  const { eventId, rig, report, survey, problem, chosen, onChoose, onCommit, onEdit } = props;
  const taken = new Set(rig.points.map((each) => each.surveyed));
  const first = rig.points[0];
  const rated = first && first.surveyed === null && first.rating_n !== null && first.stated_by ? first : null;
  const free = (survey?.survey.points ?? []).filter((each) => !taken.has(each.key));
  return (
    <div className="p-2">
      {rig.points.length === 0 && <p className="mt-0 mb-2">No hang point yet.</p>}
      <ul className="m-0 list-none space-y-1 p-0">
        {rig.points.map((point, index) => (
          <li
            // biome-ignore lint/suspicious/noArrayIndexKey: a point is known by its place
            key={index}
            onFocusCapture={() => onChoose(`point-${index}`)}
            className={chosen === `point-${index}` ? "bg-sheet" : ""}
          >
            <Row
              rig={rig}
              point={point}
              index={index}
              survey={survey}
              asked={report?.verdict.missing ?? []}
              problem={problem}
              onCommit={onCommit}
            />
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <EditButton what={{ kind: "add point", surveyed: null }}>Add a hang point with its line</EditButton>
        <Button
          disabled={!rated || rig.points.length < 2}
          title="Only where the same person states the same for every point"
          onClick={() =>
            rated &&
            onCommit(
              {
                ...rig,
                points: rig.points.map((each) =>
                  each.surveyed === null
                    ? {
                        ...each,
                        rating_n: rated.rating_n,
                        pull_out_n: rated.pull_out_n,
                        rated_within_rad: rated.rated_within_rad,
                        stated_by: rated.stated_by,
                        stated_on: rated.stated_on,
                      }
                    : each,
                ),
              },
              "Rate every point like the first",
            )
          }
        >
          The same is stated for all
        </Button>
        {free.length > 0 && (
          <Choice
            label="Add one from the survey"
            hideLabel
            value=""
            options={[["", "add one from the survey"], ...free.map((each) => [each.key, each.name] as const)]}
            onCommit={(key) => {
              if (key) onEdit({ kind: "add point", surveyed: key });
            }}
          />
        )}
        <Link to={`/events/${eventId}/survey`} className="flex min-h-11 items-center text-sm">
          The survey of this place
        </Link>
        <span className="text-sm text-soft">
          Ratings are working loads straight down, as the owner or a competent person states them.
        </span>
      </div>
    </div>
  );
}

function Row({ rig, point, index, survey, asked, problem, onCommit }: RowProps) {
  const put = (next: Partial<HangPoint>, label: string) =>
    onCommit(
      { ...rig, points: rig.points.map((each, at) => (at === index ? { ...each, ...next } : each)) },
      label,
    );
  const found = survey?.survey.points.find((each) => each.key === point.surveyed);
  const shown = found ?? point;
  const own = point.surveyed === null;
  const kinds = useHangPoints();
  const about = kinds.about(point.kind);
  const aslant = asked.some(({ path }) => path === `points.${index}.rated_within_rad`);
  const bare = index > 0;
  return (
    <>
      <div
        data-point={index}
        className="grid grid-cols-[1.1fr_1.1fr_0.8fr_0.75fr_0.75fr_1.1fr_0.85fr_1.3fr_1.05fr_40px] items-end gap-1 max-lg:grid-cols-3 max-lg:border-t max-lg:border-line max-lg:py-2"
      >
        <TextField
          label="Name"
          hideLabel={bare && "row"}
          value={point.name}
          path={`points.${index}.name`}
          problem={problem}
          onCommit={(name) => put({ name }, "Rename a hang point")}
        />
        <Choice
          label="Kind"
          hideLabel={bare && "row"}
          value={shown.kind}
          options={own ? kinds.options : kinds.options.filter(([kind]) => kind === shown.kind)}
          onCommit={(kind) => put({ kind }, `Change ${point.name}`)}
        />
        {AXES.map(([axis, words]) => (
          <QuantityField
            key={axis}
            label={words}
            hideLabel={bare && "row"}
            kind="length"
            value={point[axis]}
            path={axis === "x_m" ? `points.${index}` : `points.${index}.${axis}`}
            problem={problem}
            onCommit={(value) => value !== null && put({ [axis]: value }, `Move ${point.name}`)}
            inputClass="px-1! text-md"
          />
        ))}
        <Choice
          label="In the survey"
          hideLabel={bare && "row"}
          value={point.surveyed ?? ""}
          options={[
            ["", "not in it"],
            ...(survey?.survey.points ?? []).map((each) => [each.key, each.name] as const),
            ...(point.surveyed && !found ? [[point.surveyed, `${point.surveyed}, gone`] as const] : []),
          ]}
          onCommit={(key) => {
            const there = survey?.survey.points.find((each) => each.key === key);
            put(
              there ? { ...surveyedAt(there) } : { ...UNRATED },
              key ? `Take ${point.name} from the survey` : `${point.name} is not in the survey`,
            );
          }}
        />
        {own ? (
          <>
            <QuantityField
              label="May carry"
              hideLabel={bare && "row"}
              kind="force"
              optional
              placeholder="not rated"
              value={point.rating_n}
              path={`points.${index}.rating_n`}
              problem={problem}
              onCommit={(rating_n) => put({ rating_n }, `Rate ${point.name}`)}
            />
            <TextField
              label="Stated by"
              hideLabel={bare && "row"}
              placeholder="nobody yet"
              value={point.stated_by ?? ""}
              path={`points.${index}.stated_by`}
              problem={problem}
              onCommit={(by) => put({ stated_by: by.trim() || null }, `Who rates ${point.name}`)}
            />
            <TextField
              label="On"
              hideLabel={bare && "row"}
              placeholder="date"
              value={point.stated_on ?? ""}
              path={`points.${index}.stated_on`}
              problem={problem}
              onCommit={(on) => put({ stated_on: on.trim() || null }, `When ${point.name} was rated`)}
            />
          </>
        ) : (
          <p className="col-span-3 m-0 flex min-h-11 items-center text-sm leading-tight max-lg:col-span-2">
            {found ? "Its rating is in the survey." : "The survey has it no more: it has no rating."}
          </p>
        )}
        <EditButton
          look="quiet"
          title={`Remove ${point.name} and its lines`}
          what={{ kind: "remove point", point: index }}
        >
          <X size={16} aria-hidden="true" />
          <span className="sr-only">Remove {point.name} and its lines</span>
        </EditButton>
      </div>
      <SaidElsewhere point={point} survey={survey} />
      {own && ((survey?.survey.beams.length ?? 0) > 0 || point.beam !== null) && (
        <div className="flex items-center gap-2 pl-4 text-sm">
          is on
          <Choice
            label={`Beam or truss of ${point.name}`}
            hideLabel
            value={point.beam ?? ""}
            options={[
              ["", "no beam named"],
              ...(survey?.survey.beams ?? []).map((each) => [each.key, each.name] as const),
              ...(point.beam && !survey?.survey.beams.some((each) => each.key === point.beam)
                ? [[point.beam, `${point.beam}, not in the survey`] as const]
                : []),
            ]}
            onCommit={(beam) => put({ beam: beam || null }, `Which beam ${point.name} is on`)}
            className="w-56"
          />
        </div>
      )}
      {own && (aslant || point.rated_within_rad !== null) && (
        <div className="flex items-center gap-2 pl-4 text-sm">
          its rating holds off plumb up to
          <QuantityField
            label={`${point.name}: rated off plumb up to`}
            hideLabel
            kind="angle"
            optional
            placeholder="ask: not stated"
            className="w-32"
            value={point.rated_within_rad}
            path={`points.${index}.rated_within_rad`}
            problem={problem}
            onCommit={(rated_within_rad) => put({ rated_within_rad }, `How ${point.name} is rated`)}
          />
        </div>
      )}
      {own && (about?.in_wall || about?.part) && (
        <div className="flex items-center gap-2 pl-4 text-sm">
          {about.in_wall ? (
            <>
              bears straight out of the wall
              <QuantityField
                label={`${point.name} straight out of the wall`}
                hideLabel
                kind="force"
                optional
                placeholder="not rated"
                className="w-28"
                value={point.pull_out_n}
                path={`points.${index}.pull_out_n`}
                problem={problem}
                onCommit={(pull_out_n) => put({ pull_out_n }, `Rate ${point.name}`)}
              />
            </>
          ) : (
            <>
              was made for
              <TextField
                label={`What ${point.name} was made for`}
                hideLabel
                placeholder="such as a sliding door of 60 kg"
                className="w-80"
                value={point.made_for ?? ""}
                path={`points.${index}.made_for`}
                problem={problem}
                onCommit={(made) => put({ made_for: made.trim() || null }, `What ${point.name} is for`)}
              />
            </>
          )}
        </div>
      )}
    </>
  );
}
