import { Link } from "react-router";
import type { ListsOut } from "../../api/types";
import { shadesText } from "../../units/text";

/** For each piece exactly the stems of its recipe, no more on the bench; and the side shoots to save. */
export function PullLists({ lists, eventId }: { lists: ListsOut; eventId: number }) {
  const pieces = [...new Map(lists.pull.map((row) => [row.piece_id, row])).values()];
  return (
    <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,1fr)] gap-8 max-lg:grid-cols-1">
      <div className="columns-2 gap-8 max-md:columns-1">
        {pieces.length === 0 && <p className="mt-0 text-soft">No stems yet.</p>}
        {pieces.map((piece) => (
          <section key={piece.piece_id} className="mb-4 break-inside-avoid">
            <h2 className="m-0 text-lg">
              {piece.quantity > 1 ? `${piece.quantity} × ` : ""}
              {piece.piece}
            </h2>
            <ul className="m-0 list-none p-0">
              {lists.pull
                .filter((row) => row.piece_id === piece.piece_id)
                .map((row, index) => (
                  <li
                    // biome-ignore lint/suspicious/noArrayIndexKey: known by its place
                    key={index}
                    className="flex gap-2 border-t border-line py-1"
                  >
                    <span className="w-10 flex-none text-right">{row.each}</span>
                    <span className="flex-1">
                      {row.name}
                      {row.shades.length > 0 && (
                        <span className="text-soft"> ({shadesText(row.shades)})</span>
                      )}
                      {row.there && <span className="text-soft"> on site</span>}
                    </span>
                    {row.quantity > 1 && <span className="text-soft">{row.each * row.quantity} in all</span>}
                  </li>
                ))}
            </ul>
          </section>
        ))}
      </div>
      <section>
        <h2 className="m-0 text-lg">Side shoots to save</h2>
        <p className="mt-0 text-soft">They fill the rim low down: use them before buying more filler.</p>
        {lists.side_shoots.length === 0 && <p className="text-soft">These varieties give none.</p>}
        <ul className="m-0 list-none p-0">
          {lists.side_shoots.map((row) => (
            <li key={row.variety} className="flex gap-2 border-t border-line py-1">
              <span className="flex-1">{row.name}</span>
              <span>
                {row.shoots} from {row.stems} stems
                {row.planned > 0 && (
                  <span className={row.planned > row.shoots ? "text-berry" : "text-soft"}>
                    , {row.planned} planned
                  </span>
                )}
              </span>
            </li>
          ))}
        </ul>
        <p className="text-soft">
          Hung stems by their lengths are on each piece’s rig card; cut lengths of a piece in a vessel on its
          making view. <Link to={`/events/${eventId}`}>The line-up</Link>
        </p>
      </section>
    </div>
  );
}
