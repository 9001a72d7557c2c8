const FRAMES = 240;
/** Until then a field's own screen may still be on its way, and nothing near it is taken in its place. */
const SETTLED = 20;
const FIELD = "input, select, textarea, button";

/** Puts the keyboard into the field of a path once it is on the screen, or into what is nearest to it there. */
export function openField(path: string): void {
  let near: HTMLElement | null = null;
  let frames = 0;
  const look = () => {
    const own = shown(document, `[data-path="${CSS.escape(path)}"]`);
    if (own) {
      enter(own);
      return;
    }
    if (near && document.activeElement !== near) return;
    if (!near && frames > SETTLED) {
      near = nearest(path);
      if (near) enter(near);
    }
    frames += 1;
    if (frames < FRAMES) requestAnimationFrame(look);
  };
  look();
}

/** The nearest field to a path: inside what it is a part of, which is unfolded, or the first of its kind. */
function nearest(path: string): HTMLElement | null {
  const parts = path.split(".");
  for (let kept = parts.length - 1; kept > 0; kept -= 1) {
    const start = CSS.escape(parts.slice(0, kept).join("."));
    const rest = CSS.escape(parts.slice(kept).join("."));
    const around = shown(document, `[data-path="${start}"]`) ?? shown(document, `[data-path^="${start}."]`);
    if (!around) continue;
    if (around.matches(FIELD)) return around;
    around.querySelector<HTMLElement>("[data-unfolds][aria-expanded=false]")?.click();
    return shown(around, `[data-path$="${rest}"]`) ?? shown(around, FIELD);
  }
  return null;
}

/** The keyboard goes into a field; of what only holds fields, into the first. */
function enter(at: HTMLElement): void {
  const field = at.matches(FIELD) ? at : (shown(at, FIELD) ?? at);
  field.scrollIntoView({ block: "center" });
  field.focus();
}

function shown(root: ParentNode, selector: string): HTMLElement | null {
  return [...root.querySelectorAll<HTMLElement>(selector)].find((each) => each.checkVisibility()) ?? null;
}
