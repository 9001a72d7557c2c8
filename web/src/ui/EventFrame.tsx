import type { ReactNode } from "react";
import { Link } from "react-router";
import type { Problem } from "../api/types";
import { render } from "../units/text";
import { ConflictStrip } from "./ConflictStrip";
import { EventNav } from "./EventNav";
import { PrintTitle } from "./PrintTitle";
import { useSettings } from "./settings";
import { TopBar } from "./TopBar";
import { useTitle } from "./useTitle";
import type { Conflict } from "./useWriteLine";

type Props = {
  eventId: number;
  name: string;
  title: string;
  problem: Problem | null;
  children: ReactNode;
  undo?: string | null;
  redo?: string | null;
  onUndo?: () => void;
  onRedo?: () => void;
  conflict?: Conflict | null;
  onTakeTheirs?: () => void;
};

/** What every screen of an event has round it: the bar, the screens, and what was refused last. */
export function EventFrame(props: Props) {
  const { eventId, name, title, problem, children } = props;
  const { system } = useSettings();
  useTitle(title, name);
  const goes = props.onUndo ? { undo: props.undo ?? null, redo: props.redo ?? null } : {};
  return (
    <div className="flex h-full flex-col">
      <TopBar
        {...goes}
        {...(props.onUndo ? { onUndo: props.onUndo } : {})}
        {...(props.onRedo ? { onRedo: props.onRedo } : {})}
      >
        <Link
          to={`/events/${eventId}`}
          className="flex min-h-11 items-center text-soft underline decoration-line underline-offset-4 max-md:hidden"
        >
          {name || "The event"}
        </Link>
        <span className="text-line max-md:hidden" aria-hidden="true">
          /
        </span>
        <h1 className="m-0 truncate text-xl">{title}</h1>
      </TopBar>
      <PrintTitle>{`${name}: ${title}`}</PrintTitle>
      <EventNav eventId={eventId} />
      {props.conflict && props.onTakeTheirs && (
        <ConflictStrip conflict={props.conflict} onTakeTheirs={props.onTakeTheirs} />
      )}
      {problem && (
        <p role="alert" className="m-0 flex-none border-b border-berry bg-sheet px-4 py-2 text-berry">
          {render(problem.message, system)} {render(problem.limit, system)}
        </p>
      )}
      {children}
    </div>
  );
}
