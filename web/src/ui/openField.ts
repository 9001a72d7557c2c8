const FRAMES = 30;

/** Puts the keyboard into the field of a label, once it is on the screen. */
export function openField(label: string): void {
  let frames = 0;
  const look = () => {
    const found = [...document.querySelectorAll("label")].find(
      (each) => each.textContent?.trim() === label && each.checkVisibility(),
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
