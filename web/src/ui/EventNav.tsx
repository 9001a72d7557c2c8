import { NavLink } from "react-router";

const SCREENS = [
  ["", "Line-up"],
  ["/roll", "Roll"],
  ["/lists", "Lists"],
  ["/cost", "Cost"],
  ["/day", "Day"],
] as const;

/** The screens of one event, in the order of work. */
export function EventNav({ eventId }: { eventId: number }) {
  return (
    <nav
      aria-label="Screens of the event"
      className="no-print flex h-11 flex-none gap-1 overflow-x-auto border-b border-line px-3"
    >
      {SCREENS.map(([ending, words]) => (
        <NavLink
          key={ending}
          to={`/events/${eventId}${ending}`}
          end
          className={({ isActive }) =>
            `serif flex min-h-11 flex-none items-center -outline-offset-4 border-0 border-b-3 px-3 text-base no-underline ${
              isActive ? "border-leaf text-ink" : "border-transparent text-soft"
            }`
          }
        >
          {words}
        </NavLink>
      ))}
    </nav>
  );
}
