import { useEffect, useId, useState } from "react";
import type { Problem } from "../api/types";
import { render } from "../units/text";
import { FieldLabel, type Hidden } from "./FieldLabel";
import { useSettings } from "./settings";
import { useLeaving } from "./useLeaving";
import { useRefused } from "./useRefused";

type Props = {
  label: string;
  value: string;
  onCommit: (value: string) => void;
  path?: string;
  problem?: Problem | null;
  type?: "text" | "date" | "datetime-local" | "time";
  list?: string;
  placeholder?: string;
  hideLabel?: Hidden;
  className?: string;
  inputClass?: string;
};

/** A line of text, committed on leaving it or on Enter. */
export function TextField(props: Props) {
  const { label, value, onCommit, path, problem, type = "text", hideLabel } = props;
  const { system } = useSettings();
  const [text, setText] = useState(value);
  const id = useId();
  const { refused, takenBack } = useRefused(path, problem);
  useEffect(() => {
    if (!refused) setText(value);
  }, [value, refused]);
  const commit = () => {
    if (text !== value) onCommit(text);
    else takenBack();
  };
  useLeaving(text !== value && !refused ? commit : null);
  return (
    <div className={`relative ${props.className ?? ""}`}>
      <FieldLabel htmlFor={id} label={label} hidden={hideLabel} />
      <input
        id={id}
        type={type}
        list={props.list}
        autoComplete="off"
        placeholder={props.placeholder}
        className={`h-11 w-full rounded border bg-sheet px-2 ${refused ? "border-berry" : "border-line"} ${props.inputClass ?? ""}`}
        value={text}
        title={text.length > 10 ? text : undefined}
        aria-invalid={refused !== null}
        data-typing={text !== value}
        data-path={path}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit();
          if (event.key === "Escape") {
            setText(value);
            takenBack();
          }
        }}
      />
      {refused && (
        <p
          role="alert"
          className="absolute top-full left-0 z-30 mt-1 w-64 rounded border border-berry bg-sheet p-2 text-sm leading-snug text-berry shadow"
        >
          {render(refused.message, system)} {render(refused.limit, system)}
        </p>
      )}
    </div>
  );
}
