const FOCUSED = "button, a[href], input, select, textarea, summary, [tabindex='0']";

/**
 * Keeps the keyboard where the work is: when what has it is taken away or cannot be used any more, whoever stands in its
 * place gets it. Returns what ends that.
 */
export function keepFocus(root: HTMLElement): () => void {
  let chain: Element[] = [];
  let place = 0;
  const remember = () => {
    const now = document.activeElement;
    if (!now || now === document.body) return;
    chain = [];
    for (let each: Element | null = now; each && each !== root; each = each.parentElement) chain.push(each);
    place = focusable(chain.find((each) => focusable(each).length > 1) ?? root).indexOf(now as HTMLElement);
  };
  const forget = () => {
    chain = [];
  };
  const mend = () => {
    if (chain.length === 0 || (document.activeElement && document.activeElement !== document.body)) return;
    const [last] = chain;
    if (last?.isConnected) {
      if (usable(last)) (last as HTMLElement).focus({ preventScroll: true });
      return;
    }
    const round = chain.find((each) => each.isConnected && focusable(each).length > 0);
    const among = round ? focusable(round) : [];
    among[Math.min(Math.max(place, 0), among.length - 1)]?.focus({ preventScroll: true });
  };
  const observer = new MutationObserver(mend);
  observer.observe(root, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ["disabled", "hidden", "data-state"],
  });
  document.addEventListener("focusin", remember);
  document.addEventListener("pointerdown", forget, true);
  return () => {
    observer.disconnect();
    document.removeEventListener("focusin", remember);
    document.removeEventListener("pointerdown", forget, true);
  };
}

function usable(each: Element): boolean {
  return !(each as HTMLButtonElement).disabled && (each as HTMLElement).checkVisibility();
}

function focusable(within: Element): HTMLElement[] {
  return [...within.querySelectorAll<HTMLElement>(FOCUSED)].filter(usable);
}
