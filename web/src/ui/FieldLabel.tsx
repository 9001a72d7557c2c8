import { useMeaning } from "./useMeaning";

/** Whether a label is only heard; "row": only where fields stand in columns under those of the row above. */
export type Hidden = boolean | "row";

type Props = { htmlFor: string; label: string; hidden?: Hidden | undefined };

/** What a field asks for; a word of the glossary has its meaning at hand. */
export function FieldLabel({ htmlFor, label, hidden }: Props) {
  const meaning = useMeaning(label);
  return (
    <label
      htmlFor={htmlFor}
      data-meaning={meaning}
      className={
        hidden === true
          ? "sr-only"
          : `block text-xs text-soft ${hidden ? "lg:sr-only" : ""} ${meaning ? "term" : ""}`
      }
    >
      {label}
    </label>
  );
}
