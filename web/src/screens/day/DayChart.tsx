import type { Brief, Timed } from "../../api/types";
import { worded } from "../../units/worded";
import { axisOf, Hours } from "./Hours";
import { LANE, TaskBlock } from "./TaskBlock";
import { clockOf, dateOf, localTime, minutesOf } from "./times";

const FOOT = 20;
/** Letters of a name that go in before the first hour. */
const NAME_MOST = 13;

type Props = {
  date: string;
  timed: readonly Timed[];
  crew: readonly string[];
  extra: number;
  times: Brief;
  picked: string | null;
  onPick: (key: string) => void;
  onMove: (key: string, at: string) => void;
};

/** The minute at which a lane is taken again after a task; the end of the day where it is not. */
function freeTo(today: readonly Timed[], onLane: (each: Timed) => boolean, timed: Timed): number {
  const later = today
    .filter((each) => each !== timed && onLane(each) && each.starts_at >= timed.starts_at)
    .map((each) => minutesOf(each.starts_at));
  return Math.min(...later, axisOf(today).to);
}

/** One day, a lane for each pair of hands. A task that is moved stays there; the rest moves round it. */
export function DayChart({ date, timed, crew, extra, times, picked, onPick, onMove }: Props) {
  const today = timed.filter((each) => dateOf(each.starts_at) === date);
  const others = [...new Set(today.map(({ task }) => task.by).filter(Boolean))];
  const own = [...crew, ...Array.from({ length: extra }, (_, nth) => worded("one more {n}", { n: nth + 1 }))];
  const lanes = [...own, ...others];
  const lanesOf = (each: Timed) => (each.task.by ? [own.length + others.indexOf(each.task.by)] : each.crew);
  const tall = lanes.length * LANE;
  const marks = (
    [
      ["opens to the crew", times.access_at],
      ["water in", times.filled_at],
      ["guests come", times.starts_at],
      ["ends", times.ends_at],
    ] as const
  ).flatMap(([words, at]) => (at && dateOf(at) === date ? [{ words, at }] : []));
  return (
    <Hours
      axis={axisOf(today)}
      height={tall + FOOT}
      label={worded("The day, {n} {n|lane|lanes}", { n: lanes.length })}
    >
      {(x, pxPerMin) => (
        <>
          {marks.map(({ words, at }) => (
            <g key={words}>
              <line x1={x(minutesOf(at))} x2={x(minutesOf(at))} y1={0} y2={tall} className="day-mark" />
              <text x={x(minutesOf(at)) + 3} y={tall + FOOT - 6} fontSize={12}>
                {clockOf(at)} {words}
              </text>
            </g>
          ))}
          {lanes.map((name, lane) => (
            <g key={name}>
              <line x1={0} x2="100%" y1={(lane + 1) * LANE} y2={(lane + 1) * LANE} className="day-line" />
              <text x={2} y={lane * LANE + LANE / 2 + 5} fontSize={15} className="day-name">
                <title>{name}</title>
                {name.length > NAME_MOST ? `${name.slice(0, NAME_MOST - 1)}…` : name}
              </text>
            </g>
          ))}
          {today.flatMap((each) =>
            lanesOf(each).map((person) => (
              <TaskBlock
                key={`${each.task.key}-${person}`}
                timed={each}
                person={person}
                first={lanesOf(each)[0] === person}
                picked={each.task.key === picked}
                x={x}
                pxPerMin={pxPerMin}
                freeTo={freeTo(today, (one) => lanesOf(one).includes(person), each)}
                onPick={() => onPick(each.task.key)}
                onMoveBy={(by) => onMove(each.task.key, localTime(date, minutesOf(each.starts_at) + by))}
              />
            )),
          )}
        </>
      )}
    </Hours>
  );
}
