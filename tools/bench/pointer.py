"""From a pointer's move to the paint that shows what was told of it, in a page."""

import httpx2
from playwright.sync_api import Page

from jolly_trellis.demo.loading import demo_plan
from jolly_trellis.store import codec
from tests import ordinary
from tools.bench.timing import spread
from tools.running import Served, chromium

# In the page: from a pointer's move to the paint that shows what was told of it.
WATCH = """
(() => {
  let moved = 0, due = 0;
  window.__repaints = [];
  addEventListener('pointermove', () => { moved = performance.now(); }, true);
  const fetched = window.fetch;
  window.fetch = async (...asked) => {
    const begun = moved;
    const answer = await fetched(...asked);
    if (/(evaluate.changed|settle)$/.test(String(asked[0]))) due = begun;
    return answer;
  };
  addEventListener('DOMContentLoaded', () => {
    new MutationObserver(() => {
      if (!due) return;
      const begun = due;
      due = 0;
      requestAnimationFrame(() => {
        const painted = new MessageChannel();
        painted.port1.onmessage = () => window.__repaints.push(performance.now() - begun);
        painted.port2.postMessage(0);
      });
    }).observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
  });
})();
"""


# A handle that nothing else lies over.
FREE = """
[...document.querySelectorAll("[data-handle]")].find((each) => {
  const { x, y, width, height } = each.getBoundingClientRect();
  return document.elementFromPoint(x + width / 2, y + height / 2)?.closest("[data-handle]") === each;
}).dataset.handle
"""

DRAG = """
async ([handle, x, y, steps]) => {
  const held = document.querySelector(`[data-handle="${handle}"]`);
  const upright = held.getAttribute("aria-orientation") === "vertical";
  const before = window.__repaints.length;
  for (let step = 0; step < steps; step += 1) {
    await new Promise((go) => requestAnimationFrame(() => setTimeout(go, 0)));
    const by = 4 + 3 * (step % 4);
    held.dispatchEvent(new PointerEvent("pointermove", {
      bubbles: true, pointerId: 1, buttons: 1, clientX: upright ? x : x + by, clientY: upright ? y + by : y,
    }));
    const given_up = performance.now() + 10000;
    while (window.__repaints.length <= before + step) {
      if (performance.now() > given_up) throw new Error(`nothing was drawn for step ${step} of ${handle}`);
      await new Promise((go) => setTimeout(go, 2));
    }
  }
  return window.__repaints.slice(before + 3);
}
"""


def drags(page: Page, handle: str, runs: int) -> list[float]:
    """Pointer move to the paint that shows what is told of it, each step of one drag, which is then given up."""
    page.wait_for_timeout(1500)
    grip = page.locator(f'[data-handle="{handle}"]').first
    grip.wait_for()
    box = grip.bounding_box()
    if box is None:
        raise RuntimeError(f"the handle {handle} is not on the screen")
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    times = page.evaluate(DRAG, [handle, x, y, runs + 3])
    page.keyboard.press("Escape")
    page.mouse.up()
    return [float(each) for each in times]


TURN = """
async (steps) => {
  const ring = document.querySelector(".turn-ring");
  const times = [];
  for (let step = 0; step < steps; step += 1) {
    const begun = performance.now();
    ring.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true }));
    await new Promise((go) => requestAnimationFrame(() => setTimeout(go, 0)));
    times.push(performance.now() - begun);
  }
  return times;
}
"""


def turns(page: Page, steps: int) -> list[float]:
    """One step of the turn to the paint of both views, standing and close, on the page that the drags left open."""
    looks = page.get_by_role("combobox", name="Look at it")
    looks.first.select_option("standing")
    looks.nth(1).select_option("close")
    return [float(each) for each in page.evaluate(TURN, steps)][2:]


def pointer(server: Served) -> dict[str, object]:
    """On the demo's bowl with 60 stems, on its largest piece, on the rig with most lines."""
    piece = codec.to_plain(ordinary.stems(demo_plan().pieces[0].part, 60))
    saved = httpx2.post(f"{server.url}/api/events/1/parts", json={"base_revision": 1, "part": piece}).json()["added"]
    largest = max(demo_plan().pieces, key=lambda each: sum(line.count for line in each.part.recipe)).id
    rig = max(demo_plan().rigs, key=lambda each: len(each.part.lines))
    with chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.add_init_script(WATCH)
        found: dict[str, object] = {}
        for name, part in (("60_stems", saved), ("largest", largest)):
            page.goto(f"{server.url}/events/1/pieces/{part}")
            for handle in ("water", "rim", "envelope-width"):
                found[f"pointer_to_repaint_{handle}_{name}"] = spread(drags(page, handle, 60), aim_ms=60.0)
            found[f"turn_to_repaint_{name}"] = spread(turns(page, 40), aim_ms=50.0)
        page.goto(f"{server.url}/events/1/rigs/{rig.id}")
        page.locator('[data-id="point-0"]').first.click()
        page.locator("[data-handle]").first.wait_for()
        point = str(page.evaluate(FREE))
        return found | {"pointer_to_repaint_point_of_a_rig": spread(drags(page, point, 60), aim_ms=60.0)}
