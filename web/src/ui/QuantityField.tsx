import { type KeyboardEvent, useId, useState } from "react";
import type { Problem } from "../api/types";
import { askFor, type FieldKind, readField, showField, stepped } from "../units/field";
import { render } from "../units/text";
import { FieldLabel, type Hidden } from "./FieldLabel";
import { useSettings } from "./settings";
import { useLeaving } from "./useLeaving";
import { useRefused } from "./useRefused";

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
  hideLabel?: Hidden;
  className?: string;
  inputClass?: string;
  /** Side of the field its sentence lines up with. */
  side?: "left" | "right";
};

/** What is typed, and what stood there before. */
type Typed = { readonly text: string; readonly over: string };

/** A number that can be typed in any unit and stepped with the arrow keys; it says what is wrong beside itself. */
export function QuantityField(props: Props) {
  const { label, kind, value, onCommit, path, problem, cellM, optional, hideLabel } = props;
  const { system } = useSettings();
  const shown = showField(kind, value, system);
  const [typed, setTyped] = useState<Typed | null>(null);
  const [typing, setTyping] = useState(false);
  const [unread, setUnread] = useState<string | null>(null);
  const id = useId();
  const { refused, takenBack } = useRefused(path, problem);

  // what cannot be read or was refused stays, with its sentence, until it is mended or taken back
  const stays = typed && (typing || unread || (refused && typed.over === shown));
  const text = stays ? typed.text : shown;

  const commit = () => {
    setTyping(false);
    if (text.trim() === "" && optional) {
      setUnread(null);
      if (value !== null) onCommit(null);
      return;
    }
    if (text === shown) {
      setUnread(null);
      takenBack();
      return;
    }
    const read = readField(kind, text, system, shown, cellM);
    setUnread(read === null ? askFor(kind, text) : null);
    if (read !== null) onCommit(read);
  };
  useLeaving(typing ? commit : null);
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Enter") commit();
    if (event.key === "Escape") {
      setTyped(null);
      setUnread(null);
      setTyping(false);
      takenBack();
    }
    if ((event.key === "ArrowUp" || event.key === "ArrowDown") && value !== null && !typing) {
      event.preventDefault();
      const by = (event.shiftKey ? 4 : 1) * (event.key === "ArrowUp" ? 1 : -1);
      onCommit(stepped(kind, value, by, system));
    }
  };
  const said =
    unread ?? (refused ? `${render(refused.message, system)} ${render(refused.limit, system)}` : null);
  return (
    <div className={`relative ${props.className ?? ""}`}>
      <FieldLabel htmlFor={id} label={label} hidden={hideLabel} />
      <input
        id={id}
        inputMode={kind === "length" ? "text" : "decimal"}
        autoComplete="off"
        className={`h-11 w-full rounded border bg-sheet px-2 ${said ? "border-berry" : "border-line"} ${props.inputClass ?? ""}`}
        value={text}
        placeholder={props.placeholder}
        aria-invalid={said !== null}
        data-typing={typing}
        data-path={path}
        aria-describedby={said ? `${id}-said` : undefined}
        onChange={(event) => {
          setTyping(true);
          setTyped({ text: event.target.value, over: shown });
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
