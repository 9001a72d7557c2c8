import { api } from "../../api/client";
import type { Brief, EventChange, ListsOut } from "../../api/types";
import { Button } from "../../ui/Button";

type Props = {
  offers: ListsOut["offers"];
  reused: Brief["reused"];
  /** What parts are called, by their numbers. */
  named: ReadonlyMap<number, string>;
  onAct: (does: (id: number, revision: number) => Promise<EventChange>) => void;
};

/** Finished armatures of the stores that would do for a part, and those that are taken. */
export function Offers({ offers, reused, named, onAct }: Props) {
  if (offers.length + reused.length === 0) return null;
  return (
    <section aria-label="Used again" className="mb-4">
      <h2 className="m-0 text-xl">Used again</h2>
      <ul className="m-0 list-none p-0">
        {reused.map((each) => (
          <li
            key={`${each.part} ${each.armature}`}
            className="flex flex-wrap items-center gap-2 border-t border-line py-1"
          >
            <span className="text-leaf">
              ✓ {each.number} of “{named.get(each.part) ?? each.part}” from finished armatures
            </span>
            <Button onClick={() => onAct((id, base) => api.reuse(id, base, each.part, each.armature, 0))}>
              Make them anew
            </Button>
          </li>
        ))}
        {offers.map((each) => {
          const number = Math.min(each.free, each.wanted);
          return (
            <li
              key={`${each.part} ${each.armature}`}
              className="flex flex-wrap items-center gap-2 border-t border-line py-1"
            >
              <span>
                <strong>{each.name}</strong> would do for “{each.piece}”: {each.free} free, {each.wanted}{" "}
                wanted
              </span>
              <Button
                onClick={() => onAct((id, base) => api.reuse(id, base, each.part, each.armature, number))}
              >
                Use {number}
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
