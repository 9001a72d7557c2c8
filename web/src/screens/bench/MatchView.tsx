import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { api } from "../../api/client";
import type { HeadMark, Piece, Report, Stock, Wish } from "../../api/types";
import { stemsOf } from "../../drawing/stems";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { PictureButton } from "../../ui/PictureButton";
import { QuantityField } from "../../ui/QuantityField";
import { useSettings } from "../../ui/settings";
import { render } from "../../units/text";
import type { PieceDesk } from "./usePieceDesk";

type Props = {
  eventId: number;
  desk: PieceDesk;
  piece: Piece;
  report: Report | null;
  stock: Stock | undefined;
};
type Mode = "foot" | "top" | "head";

const MODES = [
  ["foot", "where it stands"],
  ["top", "its top"],
  ["head", "a head"],
] as const;
const STEP = 0.01;

/** A picture that the piece is to look like, the plan over it at one scale, and what the two differ in. */
export function MatchView({ eventId, desk, piece, report, stock }: Props) {
  const { system } = useSettings();
  const sheet = useRef<SVGSVGElement>(null);
  const [mode, setMode] = useState<Mode>("foot");
  const [named, setNamed] = useState("");
  const [over, setOver] = useState(0.6);
  /** The key of a picture that this studio does not have, as after an event was read from a file. */
  const [lost, setLost] = useState("");
  const wish = piece.wish;
  const match = useQuery({
    queryKey: ["matching", eventId, piece],
    queryFn: () => api.matching(eventId, piece),
    enabled: wish !== null,
    placeholderData: (before) => before,
    retry: false,
    gcTime: 0,
  }).data;
  const put = (next: Wish | null, label: string) => void desk.commit({ ...piece, wish: next }, label);
  const begin = async (picture: string) => {
    const image = new Image();
    image.src = `/api/pictures/${picture}`;
    await image.decode();
    put(
      {
        picture,
        width_px: image.naturalWidth,
        height_px: image.naturalHeight,
        foot_x: 0.5,
        foot_y: 0.95,
        top_x: 0.5,
        top_y: 0.05,
        apart_m: piece.envelope.height_m,
        heads: [],
      },
      "Lay a picture beside it",
    );
  };
  if (!wish)
    return (
      <div className="p-4">
        <p className="mt-0 max-w-prose">
          The client’s wish, last year’s piece or the shop’s card: lay a picture beside the drawing, mark
          where it stands and its top, and the heads it shows. It stays with this studio’s data, without its
          place data.
        </p>
        <PictureButton label="A picture to match" onKept={(key) => void begin(key)}>
          Choose a picture
        </PictureButton>
      </div>
    );
  const mark = async (x: number, y: number) => {
    if (mode === "foot") return put({ ...wish, foot_x: x, foot_y: y }, "Mark where it stands");
    if (mode === "top") return put({ ...wish, top_x: x, top_y: y }, "Mark its top");
    const { colour } = await api.pictureColour(wish.picture, x, y);
    return put({ ...wish, heads: [...wish.heads, { x, y, colour, variety: named }] }, "Mark a head");
  };
  const press = (event: PointerEvent<SVGSVGElement>) => {
    const box = sheet.current?.getScreenCTM();
    if (!box) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(box.inverse());
    const [x, y] = [at.x / wish.width_px, at.y / wish.height_px];
    if (x >= 0 && x <= 1 && y >= 0 && y <= 1) void mark(x, y);
  };
  /** Arrow keys move a mark, Delete takes a head away. */
  const moveBy = (event: KeyboardEvent, x: number, y: number, set: (x: number, y: number) => void) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!by) return;
    event.preventDefault();
    set(clamped(x + STEP * (by[0] ?? 0)), clamped(y + STEP * (by[1] ?? 0)));
  };
  const putHead = (at: number, next: Partial<HeadMark> | null) =>
    put(
      {
        ...wish,
        heads: wish.heads.flatMap((each, nth) => (nth !== at ? [each] : next ? [{ ...each, ...next }] : [])),
      },
      next ? "Change a mark" : "Take a mark away",
    );
  const scale = match?.metres_to_px ?? 0;
  const dot = Math.max(wish.width_px, wish.height_px) / 90;
  const own = piece.recipe.map(
    (line) => [line.variety, stock?.varieties[line.variety]?.name ?? line.variety] as const,
  );
  const names = [["", "not named"], ...new Map(own)] as [string, string][];
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1fr)_320px] max-md:grid-cols-1">
      <svg
        ref={sheet}
        role="application"
        aria-label="The picture with the plan over it; press to mark"
        viewBox={`0 0 ${wish.width_px} ${wish.height_px}`}
        className="h-full w-full touch-none bg-sheet p-2 max-md:h-90"
        onPointerDown={press}
      >
        <image
          href={`/api/pictures/${wish.picture}`}
          width={wish.width_px}
          height={wish.height_px}
          onError={() => setLost(wish.picture)}
        />
        {scale > 0 && report && (
          <g opacity={over} pointerEvents="none">
            {outline(piece, wish, scale).map((points) => (
              <polyline key={points} points={points} fill="none" stroke="#20301c" strokeWidth={dot / 4} />
            ))}
            {stemsOf(report.stems)
              .filter(({ form }) => form !== "leaf")
              .map((stem, nth) => (
                <circle
                  // biome-ignore lint/suspicious/noArrayIndexKey: stems are known by their place
                  key={nth}
                  cx={wish.foot_x * wish.width_px + stem.tip_x_m / scale}
                  cy={wish.foot_y * wish.height_px - (stem.tip_z_m - stem.droop_m) / scale}
                  r={Math.max(stem.head_radius_m / scale, 1)}
                  fill={stem.colour}
                  fillOpacity={0.35}
                  stroke={stem.colour}
                  strokeWidth={dot / 5}
                />
              ))}
          </g>
        )}
        {(["foot", "top"] as const).map((end) => (
          <rect
            key={end}
            tabIndex={0}
            role="button"
            aria-label={end === "foot" ? "Where it stands" : "Its top"}
            x={wish[`${end}_x`] * wish.width_px - dot}
            y={wish[`${end}_y`] * wish.height_px - dot / 4}
            width={2 * dot}
            height={dot / 2}
            fill="#fffdf4"
            stroke="#20301c"
            strokeWidth={dot / 5}
            onKeyDown={(event) =>
              moveBy(event, wish[`${end}_x`], wish[`${end}_y`], (x, y) =>
                put({ ...wish, [`${end}_x`]: x, [`${end}_y`]: y }, "Move a mark"),
              )
            }
          />
        ))}
        {wish.heads.map((head, nth) => (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: marks are known by their place
            key={nth}
            tabIndex={0}
            role="button"
            aria-label={`Head ${nth + 1}`}
            cx={head.x * wish.width_px}
            cy={head.y * wish.height_px}
            r={dot}
            fill={head.colour}
            stroke="#20301c"
            strokeWidth={dot / 4}
            onKeyDown={(event) => {
              if (event.key === "Delete" || event.key === "Backspace") putHead(nth, null);
              else moveBy(event, head.x, head.y, (x, y) => putHead(nth, { x, y }));
            }}
          />
        ))}
      </svg>
      <section aria-label="Picture and plan" className="overflow-y-auto border-l border-line p-3">
        <div className="grid grid-cols-2 gap-2">
          <Choice label="A press marks" value={mode} options={MODES} onCommit={setMode} />
          <Choice label="Taken for" value={named} options={names} onCommit={setNamed} />
          <QuantityField
            label="From foot to top"
            kind="length"
            value={wish.apart_m}
            path="wish.apart_m"
            problem={null}
            onCommit={(value) =>
              value !== null && value > 0 && put({ ...wish, apart_m: value }, "Say its size")
            }
          />
          <label className="text-xs text-soft">
            Plan over it
            <input
              type="range"
              min={0}
              max={1}
              step={0.1}
              value={over}
              className="block h-11 w-full accent-leaf"
              onChange={(event) => setOver(Number(event.target.value))}
            />
          </label>
        </div>
        {lost === wish.picture && (
          <p role="alert" className="mt-2 mb-0 text-berry">
            This picture is not in this studio’s data: choose it again.
          </p>
        )}
        <h3 className="mt-3 mb-0 text-lg">What differs</h3>
        <ul className="m-0 list-none p-0 leading-snug">
          {match?.say.map((each) => (
            <li key={render(each, system)} className="py-0.5">
              {render(each, system)}
            </li>
          ))}
          {match && match.say.length === 0 && <li>Nothing that is marked.</li>}
        </ul>
        <h3 className="mt-3 mb-0 text-lg">{wish.heads.length} heads marked</h3>
        <ul className="m-0 list-none p-0">
          {wish.heads.map((head, nth) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: marks are known by their place
            <li key={nth} className="flex items-center gap-2 py-0.5">
              <span className="w-6 text-right text-soft">{nth + 1}</span>
              <span
                aria-hidden="true"
                className="h-5 w-5 flex-none rounded-full border border-ink/40"
                style={{ background: head.colour }}
              />
              <Choice
                label={`Head ${nth + 1} is taken for`}
                hideLabel
                value={head.variety}
                options={names}
                onCommit={(variety) => putHead(nth, { variety })}
                className="min-w-0 flex-1"
              />
              <Button look="quiet" onClick={() => putHead(nth, null)}>
                Away<span className="sr-only"> with head {nth + 1}</span>
              </Button>
            </li>
          ))}
        </ul>
        <div className="mt-3 flex flex-wrap gap-2">
          <PictureButton label="Another picture to match" onKept={(key) => void begin(key)}>
            Another picture
          </PictureButton>
          <Button onClick={() => put(null, "Take the picture away")}>Take it away</Button>
        </div>
      </section>
    </div>
  );
}

function clamped(share: number): number {
  return Math.min(1, Math.max(0, share));
}

/** The vessel and the size that is wanted, as lines over the picture. */
function outline(piece: Piece, wish: Wish, scale: number): string[] {
  const at = (x: number, z: number) =>
    `${wish.foot_x * wish.width_px + x / scale},${wish.foot_y * wish.height_px - z / scale}`;
  const raised = piece.support?.height_m ?? 0;
  const right = piece.vessel.profile.map((point) => at(point.width_m / 2, raised + point.height_m));
  const left = piece.vessel.profile.map((point) => at(-point.width_m / 2, raised + point.height_m));
  const half = piece.envelope.width_m / 2;
  const rim = raised + (piece.vessel.profile.at(-1)?.height_m ?? 0);
  const dome = Array.from({ length: 25 }, (_, step) => {
    const turn = (Math.PI * step) / 24;
    return at(half * Math.cos(turn), rim + (piece.envelope.height_m - rim) * Math.sin(turn));
  });
  return [[...left.toReversed(), ...right].join(" "), dome.join(" ")];
}
