import { type KeyboardEvent, useEffect, useId, useState } from "react";
import type { Problem } from "../api/types";
import {
  ambiguous,
  parseCount,
  parseForce,
  parseHours,
  parseLength,
  parseMass,
  parsePercent,
  parseTemperature,
  parseVolume,
  type UnitSystem,
  unitShown,
} from "../units/parse";
import { render, textOf } from "../units/text";
import { useSettings } from "./settings";

export type FieldKind =
  | "length"
  | "mass"
  | "volume"
  | "temperature"
  | "percent"
  | "count"
  | "angle"
  | "ratio"
  | "force"
  | "duration";

type Props = {
  label: string;
  kind: FieldKind;
  value: number | null;
  onCommit: (value: number | null) => void;
  /** Dotted path of the quantity; a problem with this path is said beside the field. */
  path?: string;
  problem?: Problem | null;
  cellM?: number | undefined;
  /** An empty field commits null: "not known". */
  optional?: boolean;
  placeholder?: string;
  hideLabel?: boolean;
  className?: string;
  inputClass?: string;
  /** Side of the field its sentence lines up with. */
  side?: "left" | "right";
};

const ASK: Record<FieldKind, string> = {
  length: "Type a length, such as 36 cm, 14 1/4 in or 12 cells.",
  mass: "Type a weight, such as 880 g or 2 lb.",
  temperature: "Type a temperature, such as 22 °C or 72 °F.",
  percent: "Type a share, such as 50 %.",
  count: "Type a whole number, such as 12.",
  force: "Type a force, such as 60 N or 13 lbf.",
  duration: "Type a time, such as 2 h 30 min.",
  volume: "Type a volume, such as 1.5 L or 500 ml.",
  angle: "Type an angle in degrees, such as 90.",
  ratio: "Type a number, such as 0.7.",
};

function parse(
  kind: FieldKind,
  text: string,
  system: UnitSystem,
  cellM: number | undefined,
  shown: string,
): number | null {
  const bare = unitShown(shown);
  switch (kind) {
    case "length":
      return parseLength(text, system, cellM, bare);
    case "mass":
      return parseMass(text, system, bare);
    case "volume":
      return parseVolume(text, system, bare);
    case "angle": {
      const degrees = parseCount(text.replace(/°/, ""));
      return degrees === null ? null : (degrees * Math.PI) / 180;
    }
    case "temperature":
      return parseTemperature(text, system);
    case "force":
      return parseForce(text, system);
    case "duration":
      return parseHours(text);
    case "percent":
      return parsePercent(text);
    default:
      return parseCount(text);
  }
}

/** What to type instead of what cannot be read; of "1,200", which of its two meanings it has. */
function askFor(kind: FieldKind, text: string): string {
  const grouped = ambiguous(text);
  if (!grouped) return ASK[kind];
  return `Is that ${grouped.replaceAll(",", "")} or ${grouped.replace(",", ".")}? Type it without the comma.`;
}

function show(kind: FieldKind, value: number | null, system: UnitSystem): string {
  if (value === null) return "";
  if (kind === "percent") return `${Math.round(value * 100)} %`;
  return textOf({ kind, value }, system);
}

function stepOf(kind: FieldKind, system: UnitSystem): number {
  if (kind === "length") return system === "metric" ? 0.005 : 0.00635;
  if (kind === "mass") return system === "metric" ? 0.02 : 0.028349523125;
  if (kind === "volume") return system === "metric" ? 0.1 : 0.0295735295625;
  if (kind === "angle") return Math.PI / 36;
  if (kind === "ratio") return 0.1;
  if (kind === "duration") return 0.25;
  if (kind === "force") return system === "metric" ? 5 : 4.4482216152605;
  return kind === "percent" ? 0.05 : 1;
}

/** A number that can be typed in any unit and stepped with the arrow keys; it says what is wrong beside itself. */
export function QuantityField(props: Props) {
  const { label, kind, value, onCommit, path, problem, cellM, optional, hideLabel } = props;
  const { system } = useSettings();
  const [text, setText] = useState(show(kind, value, system));
  const [typing, setTyping] = useState(false);
  const [unread, setUnread] = useState<string | null>(null);
  const id = useId();
  const refused = problem && path !== undefined && problem.path === path ? problem : null;

  useEffect(() => {
    if (!typing && !refused) setText(show(kind, value, system));
  }, [kind, value, system, typing, refused]);

  const commit = () => {
    setTyping(false);
    if (text.trim() === "" && optional) {
      setUnread(null);
      if (value !== null) onCommit(null);
      return;
    }
    if (text === show(kind, value, system)) {
      setUnread(null);
      return;
    }
    const read = parse(kind, text, system, cellM, show(kind, value, system));
    setUnread(read === null ? askFor(kind, text) : null);
    if (read !== null) onCommit(read);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Enter") commit();
    if (event.key === "Escape") {
      setText(show(kind, value, system));
      setUnread(null);
      setTyping(false);
    }
    if ((event.key === "ArrowUp" || event.key === "ArrowDown") && value !== null) {
      event.preventDefault();
      const step = stepOf(kind, system) * (event.shiftKey ? 4 : 1) * (event.key === "ArrowUp" ? 1 : -1);
      onCommit(Math.round((value + step) / 1e-5) * 1e-5);
    }
  };
  const said =
    unread ?? (refused ? `${render(refused.message, system)} ${render(refused.limit, system)}` : null);
  return (
    <div className={`relative ${props.className ?? ""}`}>
      <label htmlFor={id} className={hideLabel ? "sr-only" : "block text-[13px] text-soft"}>
        {label}
      </label>
      <input
        id={id}
        inputMode={kind === "length" ? "text" : "decimal"}
        autoComplete="off"
        className={`h-11 w-full rounded border bg-sheet px-2 ${said ? "border-berry" : "border-line"} ${props.inputClass ?? ""}`}
        value={text}
        placeholder={props.placeholder}
        aria-invalid={said !== null}
        aria-describedby={said ? `${id}-said` : undefined}
        onChange={(event) => {
          setTyping(true);
          setText(event.target.value);
        }}
        onFocus={(event) => event.target.select()}
        onBlur={commit}
        onKeyDown={onKeyDown}
      />
      {said && (
        <p
          id={`${id}-said`}
          role="alert"
          className={`absolute top-full z-30 mt-1 w-60 ${props.side === "right" ? "right-0" : "left-0"} rounded border border-berry bg-sheet p-2 text-sm leading-snug text-berry shadow`}
        >
          {said}
        </p>
      )}
    </div>
  );
}
