/* What a page lays out, in CSS pixels, for `measured.py`: an object of functions, evaluated in the page. */
({
  visible(element) {
    if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return false;
    if (element.closest(".sr-only, option, title, desc, script, style")) return false;
    for (let round = element; round && round !== document.body; round = round.parentElement) {
      // what is only read out is clipped away whole
      if (getComputedStyle(round).clipPath === "inset(50%)") return false;
    }
    return true;
  },

  /** A box cut to every part round it that scrolls or hides. */
  cut(element, box) {
    let { left, top, right, bottom } = box;
    for (let round = element; round && round !== document.documentElement; round = round.parentElement) {
      const style = getComputedStyle(round);
      const hides = !/visible/.test(style.overflowX) || !/visible/.test(style.overflowY);
      if (hides) {
        const edge = round.getBoundingClientRect();
        left = Math.max(left, edge.left);
        right = Math.min(right, edge.right);
        top = Math.max(top, edge.top);
        bottom = Math.min(bottom, edge.bottom);
      }
      if (style.position === "fixed") break;
    }
    return { left, top, right, bottom };
  },

  /** Words and fields that can be seen, with the sheet they lie on: 0 for the page. */
  boxes() {
    const found = [];
    const over = "[role=dialog], [data-radix-popper-content-wrapper]";
    const put = (element, words, box, run) => {
      const seen = this.cut(element, box);
      if (seen.right - seen.left > 2 && seen.bottom - seen.top > 2)
        found.push({ words, run, ...seen, layer: element.closest(over) ? 1 : 0 });
    };
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    let run = 0;
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const words = node.textContent.trim();
      const element = node.parentElement;
      if (!words || !element || !this.visible(element)) continue;
      run += 1;
      const range = document.createRange();
      range.selectNodeContents(node);
      for (const box of range.getClientRects()) put(element, words.slice(0, 40), box, run);
    }
    for (const element of document.querySelectorAll("input:not([type=hidden]), select, textarea")) {
      if (!this.visible(element)) continue;
      run += 1;
      const name = element.getAttribute("aria-label") || element.id || element.tagName;
      put(element, `${name}: ${element.value}`.slice(0, 40), element.getBoundingClientRect(), run);
    }
    return found;
  },

  /** Pairs of those that lie over one another by more than the spare both ways. */
  overlaps(spare) {
    const lying = this.boxes().toSorted((a, b) => a.left - b.left);
    const found = [];
    lying.forEach((one, at) => {
      for (const other of lying.slice(at + 1)) {
        if (other.left >= one.right - spare) break;
        if (one.layer !== other.layer || one.run === other.run) continue;
        const across = Math.min(one.right, other.right) - other.left;
        const down = Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top);
        if (across > spare && down > spare) found.push([one.words, other.words]);
      }
    });
    return found;
  },

  /** What is pressed, by its name, with its size; a tick by the label round it. */
  targets() {
    const pressed = "button, a[href], input:not([type=hidden]), select, summary, textarea, [role=tab], [role=slider]";
    return [...document.querySelectorAll(pressed)].filter((each) => this.visible(each) && !each.closest("[aria-hidden=true]")).map((each) => {
      const tick = each.matches("input[type=checkbox], input[type=radio]");
      const box = ((tick && each.closest("label")) || each).getBoundingClientRect();
      const name = each.getAttribute("aria-label") || each.textContent || each.id || "";
      return {
        name: `${each.tagName.toLowerCase()} ${name.trim().slice(0, 40)}`,
        width: box.width,
        height: box.height,
        running: getComputedStyle(each).display === "inline" || each.closest("[data-drawing]") !== null,
      };
    }).filter(({ width }) => width > 0);
  },

  /** What is written and cut off at its side. */
  clipped() {
    const field = "input:not([type=checkbox]):not([type=radio]):not([type=file]):not([type=hidden])";
    return [...document.querySelectorAll("body *")].filter((each) => {
      if (!this.visible(each) || each.scrollWidth <= each.clientWidth + 1) return false;
      // a field of free text scrolls, and says all of it in its title; a number is never cut
      if (each.matches(field)) return !each.title;
      const written = [...each.childNodes].some((node) => node.nodeType === 3 && node.textContent.trim());
      return written && getComputedStyle(each).overflowX !== "visible";
    }).map((each) => `${each.getAttribute("aria-label") || each.textContent || ""} ${each.value || ""}`.trim().slice(0, 60));
  },

  /** By how much the page is wider than its window. */
  wider() {
    return document.documentElement.scrollWidth - document.documentElement.clientWidth;
  },

  /** Turn the piece once round by 30°, wait for every paint, and tell what lies over what on the way. */
  async round(spare) {
    const ring = document.querySelector(".turn-ring");
    const found = [];
    for (let step = 0; step < 24; step += 1) {
      ring.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true }));
      await new Promise((go) => requestAnimationFrame(() => setTimeout(go, 0)));
      if (step % 2 === 1) found.push(...this.overlaps(spare).map((pair) => [15 * (step + 1), ...pair]));
    }
    return found;
  },
})
