const FRAMES = 240;

/** Puts the keyboard into the field of a label, the first one inside `within`, once it is on the screen. */
export function openField(label: string, within = "body"): void {
  let frames = 0;
  const look = () => {
    const found = [...document.querySelectorAll<HTMLLabelElement>(`${within} label`)].find(
      (each) => names(each.textContent?.trim() ?? "", label) && each.checkVisibility(),
    );
    const field = found && (document.getElementById(found.htmlFor) ?? found.querySelector("input, select"));
    if (field) {
      field.scrollIntoView({ block: "center" });
      field.focus();
    } else if (frames < FRAMES) {
      frames += 1;
      requestAnimationFrame(look);
    }
  };
  look();
}

/** A choice says more after a colon: "A second bond: its own steel line" is found as "A second bond". */
function names(words: string, label: string): boolean {
  return words === label || words.startsWith(`${label}:`);
}
