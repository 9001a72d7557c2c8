import type { Saving } from "./useWriteLine";

const WORDS: Record<Saving, string> = {
  saved: "Saved",
  saving: "Saving…",
  "not saved": "Not saved: trying again",
  asked: "Not saved: which is meant?",
};

/** Whether what is on the screen is kept: said truly, and in words. */
export function SavedMark({ saving }: { saving: Saving }) {
  const lost = saving === "not saved" || saving === "asked";
  return (
    <span
      role="status"
      className={`flex-none text-right text-sm ${lost ? "font-bold text-berry" : "min-w-14 text-soft"}`}
    >
      {WORDS[saving]}
    </span>
  );
}
