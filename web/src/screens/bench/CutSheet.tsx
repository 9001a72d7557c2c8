import { patternUrl } from "../../api/client";

type Props = { eventId: number; pieceId: number; revision: number };

/** The sheet flat, with cells, folds, tucks and dimensions; and the same at true size to print or to cut. */
export function CutSheet({ eventId, pieceId, revision }: Props) {
  const links = [
    ["PDF, A4", patternUrl(eventId, pieceId, "pdf", "A4")],
    ["PDF, Letter", patternUrl(eventId, pieceId, "pdf", "Letter")],
    ["SVG", patternUrl(eventId, pieceId, "svg")],
    ["DXF", patternUrl(eventId, pieceId, "dxf")],
  ] as const;
  return (
    <div className="flex h-full min-h-0 flex-col gap-2 p-3">
      <div className="flex flex-none flex-wrap items-center gap-2">
        <span className="mr-1 text-soft">At true size:</span>
        {links.map(([words, url]) => (
          <a
            key={words}
            href={url}
            target="_blank"
            rel="noreferrer"
            className="flex min-h-11 items-center rounded border border-line bg-sheet px-3 text-ink no-underline hover:border-ink"
          >
            {words}
          </a>
        ))}
        <span className="text-sm text-soft">
          Solid: cut. Dashed: fold or tuck. Print at 100 % and check the 50 mm bar.
        </span>
      </div>
      <div className="min-h-0 flex-1 rounded border border-line bg-white p-2">
        <img
          className="h-full w-full object-contain"
          alt="Flat patterns of this piece with cells, folds, tucks and dimensions"
          src={`${patternUrl(eventId, pieceId, "svg")}&at=${revision}`}
        />
      </div>
    </div>
  );
}
