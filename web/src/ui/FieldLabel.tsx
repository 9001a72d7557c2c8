import { useMeaning } from "./useMeaning";

type Props = { htmlFor: string; label: string; hidden?: boolean | undefined };

/** What a field asks for; a word of the glossary has its meaning at hand. */
export function FieldLabel({ htmlFor, label, hidden }: Props) {
  const meaning = useMeaning(label);
  return (
    <label
      htmlFor={htmlFor}
      data-meaning={meaning}
      className={hidden ? "sr-only" : `block text-xs text-soft ${meaning ? "term" : ""}`}
    >
      {label}
    </label>
  );
}
