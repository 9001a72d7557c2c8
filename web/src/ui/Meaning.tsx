import { useEffect, useState } from "react";

const HOVER_MS = 350;
const FOCUS_MS = 700;
const WIDE = 280;
const GAP = 6;
/** Over a word there is room for four lines from here down, px. */
const ROOM = 120;

type Shown = { readonly text: string; readonly box: DOMRect; readonly pointed: boolean };

/** The meaning of the word that is pointed at, pressed, or whose field or row has the keyboard. Esc puts it away. */
export function Meaning() {
  const [shown, setShown] = useState<Shown | null>(null);
  useEffect(() => {
    let timer = 0;
    let of: Element | null = null;
    const hide = () => {
      window.clearTimeout(timer);
      of = null;
      setShown(null);
    };
    const later = (element: Element, ms: number, pointed: boolean) => {
      if (element === of) return;
      window.clearTimeout(timer);
      of = element;
      timer = window.setTimeout(() => {
        const text = element.getAttribute("data-meaning");
        if (text && element.isConnected) setShown({ text, box: element.getBoundingClientRect(), pointed });
      }, ms);
    };
    const onOver = (event: PointerEvent) => {
      const over = event.target instanceof Element ? event.target : null;
      if (over?.closest("[role=tooltip]")) return;
      const term = over?.closest("[data-meaning]");
      if (term) later(term, event.pointerType === "mouse" ? HOVER_MS : 0, true);
      else if (of && !over?.contains(document.activeElement)) hide();
    };
    const onFocus = (event: FocusEvent) => {
      const has = event.target instanceof HTMLElement ? event.target : null;
      const label =
        has instanceof HTMLInputElement || has instanceof HTMLSelectElement ? has.labels?.[0] : has;
      const term = label?.matches("[data-meaning]") ? label : label?.querySelector("[data-meaning]");
      hide();
      if (term && has?.matches(":focus-visible")) later(term, FOCUS_MS, false);
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "Tab" && event.key !== "Shift") hide();
    };
    document.addEventListener("pointerover", onOver);
    document.addEventListener("focusin", onFocus);
    document.addEventListener("keydown", onKey);
    document.addEventListener("scroll", hide, true);
    return () => {
      hide();
      document.removeEventListener("pointerover", onOver);
      document.removeEventListener("focusin", onFocus);
      document.removeEventListener("keydown", onKey);
      document.removeEventListener("scroll", hide, true);
    };
  }, []);
  if (!shown) return null;
  const { text, box, pointed } = shown;
  const above = box.top > ROOM;
  return (
    <p
      role="tooltip"
      className={`no-print fixed z-50 m-0 rounded border border-line bg-sheet px-2 py-1.5 text-md leading-snug shadow ${pointed ? "" : "pointer-events-none"}`}
      style={{
        width: "max-content",
        maxWidth: `min(${WIDE}px, calc(100vw - 16px))`,
        left: Math.max(8, Math.min(box.left, window.innerWidth - WIDE - 8)),
        ...(above ? { bottom: window.innerHeight - box.top + GAP } : { top: box.bottom + GAP }),
      }}
    >
      {text}
    </p>
  );
}
