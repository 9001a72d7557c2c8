import { useId } from "react";
import { FieldLabel, type Hidden } from "./FieldLabel";

type Props<T extends string> = {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onCommit: (value: T) => void;
  /** Dotted path of what is chosen, by which a missing fact finds it. */
  path?: string;
  hideLabel?: Hidden;
  className?: string;
};

/** One of a few; the platform's own list, which works with wet hands and with a keyboard. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onCommit,
  path,
  hideLabel,
  className,
}: Props<T>) {
  const id = useId();
  return (
    <div className={className}>
      <FieldLabel htmlFor={id} label={label} hidden={hideLabel} />
      <select
        id={id}
        data-path={path}
        className="h-11 w-full truncate rounded border border-line bg-sheet pr-0.5 pl-1"
        value={value}
        onChange={(event) => onCommit(event.target.value as T)}
      >
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </div>
  );
}
