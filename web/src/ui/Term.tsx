import type { ReactNode } from "react";
import { useMeaning } from "./useMeaning";

/** A word of the glossary in running text or in a row; its meaning comes up when it is pointed at or its row has the keyboard. */
export function Term({ word, children }: { word: string; children?: ReactNode }) {
  const meaning = useMeaning(word);
  return (
    <span data-meaning={meaning} className={meaning ? "term" : undefined}>
      {children ?? word}
    </span>
  );
}
