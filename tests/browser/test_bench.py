"""The bench as a florist uses it: by pointer, by keyboard, in both unit systems, in two windows."""

import re

import pytest
from playwright.sync_api import Browser, BrowserContext, Locator, Page, expect

from tools.running import Served, until

pytestmark = pytest.mark.browser


def bench(page: Page, served: Served) -> None:
    page.goto(f"{served.url}/events/1/pieces/1")
    expect(rung(page, "drink")).to_be_visible()


def rung(page: Page, verb: str) -> Locator:
    return page.locator(f"[data-verb={verb}]")


def drag(page: Page, handle: str, dx: float, dy: float, *, release: bool = True) -> None:
    box = page.locator(f"[data-handle={handle}]").bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + dx / 2, y + dy / 2)
    page.mouse.move(x + dx, y + dy, steps=4)
    if release:
        page.mouse.up()


def saved(page: Page) -> None:
    """Everything that was typed is kept."""
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def add_stems(page: Page, words: str) -> None:
    """A line more in the recipe, as "5 ruscus"."""
    to_add = page.get_by_label("Add a variety")
    expect(to_add).to_be_visible()
    before = page.get_by_role("combobox", name="Variety", exact=True).count()
    to_add.fill(words)
    page.keyboard.press("Enter")
    expect(page.get_by_role("combobox", name="Variety", exact=True)).to_have_count(before + 1)


def field(page: Page, label: str) -> Locator:
    return page.get_by_role("textbox", name=label, exact=True)


def test_the_bench_fits_1280_by_800_without_page_scroll(page: Page, served: Served) -> None:
    bench(page, served)
    size = page.evaluate("[document.documentElement.scrollWidth, document.documentElement.scrollHeight]")
    assert size == [1280, 800]


def test_all_eight_verdicts_have_their_place(page: Page, served: Served) -> None:
    bench(page, served)
    states = page.locator("[data-verb]").evaluate_all("all => all.map(e => [e.dataset.verb, e.dataset.state])")
    assert [verb for verb, _ in states] == ["hold", "stand", "drink", "travel", "hang", "hide", "see", "lift"]
    assert dict(states)["hang"] == "not needed"


# React tells whoever stands here of every time that it has written to the page.
COMMITS = """
window.__commits = 0;
window.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
  supportsFiber: true, inject: () => 1, checkDCE() {}, onCommitFiberUnmount() {}, onPostCommitFiberRoot() {},
  onCommitFiberRoot() { window.__commits += 1; },
};
"""
# A screen that draws by itself where an answer is slow to come does not do so here, however busy the machine is.
PATIENT = "(wait => { window.setTimeout = (act, ms) => ms === 100 ? 0 : wait(act, ms); })(window.setTimeout)"


def test_a_move_of_the_pointer_is_drawn_once_and_the_handle_stays_under_it(
    window: BrowserContext, served: Served
) -> None:
    page = window.new_page()
    page.add_init_script(COMMITS)
    bench(page, served)
    expect(page.get_by_text("Looking for what would mend it")).to_have_count(0)
    page.evaluate(PATIENT)
    handle = page.locator("[data-handle=water]").first
    before = handle.bounding_box()
    drag(page, "water", 0, 8, release=False)
    assert before
    x, y = before["x"] + before["width"] / 2, before["y"] + before["height"] / 2
    for step in range(4):
        page.wait_for_load_state("networkidle")
        page.wait_for_timeout(100)
        begun = page.evaluate("window.__commits")
        with page.expect_response("**/evaluate/changed"):
            page.mouse.move(x, y + 12 + 4 * step)
            now = handle.bounding_box()
            assert now
            assert abs(now["y"] + now["height"] / 2 - (y + 12 + 4 * step)) < 3  # whole millimetres
        until(page, "begun => window.__commits > begun", begun)
        page.wait_for_timeout(100)
        assert page.evaluate("window.__commits") == begun + 1
    page.keyboard.press("Escape")
    expect(rung(page, "drink")).to_have_attribute("data-state", "fails")
    assert handle.bounding_box() == before
    page.close()


def test_dragging_the_water_line_moves_drink_and_letting_go_is_one_undo_step(page: Page, served: Served) -> None:
    bench(page, served)
    expect(rung(page, "drink")).to_have_attribute("data-state", "fails")
    expect(rung(page, "drink")).to_contain_text("First dry stem", ignore_case=True)
    drag(page, "water", 0, -14, release=False)
    expect(rung(page, "drink")).to_have_attribute("data-state", re.compile("tight|holds"))
    page.mouse.up()
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    page.keyboard.press("Control+z")
    expect(rung(page, "drink")).to_have_attribute("data-state", "fails")
    expect(field(page, "Water level")).to_have_value("6 cm")
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()


def test_escape_in_the_middle_of_a_drag_leaves_everything_as_it_was(page: Page, served: Served) -> None:
    bench(page, served)
    drag(page, "envelope-height", 0, -60, release=False)
    expect(field(page, "Height of the flowers")).not_to_have_value("28 cm")
    page.keyboard.press("Escape")
    page.mouse.up()
    expect(field(page, "Height of the flowers")).to_have_value("28 cm")
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()


HANDLES = (
    ("rim", -20, 0, "Inside width of the mouth"),
    ("depth", 0, -20, "Inside depth of the vessel"),
    ("envelope-height", 0, -40, "Height of the flowers"),
    ("envelope-width", 40, 0, "Width of the flowers"),
    ("layer-gap", 0, 12, "Gap between layers"),
)


def test_every_handle_changes_the_real_quantity(page: Page, served: Served) -> None:
    bench(page, served)
    was = {label: field(page, label).input_value() for *_, label in HANDLES}
    for handle, dx, dy, label in HANDLES:
        with page.expect_response(lambda answer: answer.request.method == "PUT" and "/parts/" in answer.url):
            drag(page, handle, dx, dy)
        expect(field(page, label)).not_to_have_value(was[label])
        saved(page)
    page.reload()
    for *_, label in HANDLES:
        expect(field(page, label)).not_to_have_value(was[label])
        assert float(field(page, label).input_value().split()[0]) > float(was[label].split()[0]), label
    for _ in HANDLES:
        page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()


def test_a_fix_is_one_act(page: Page, served: Served) -> None:
    bench(page, served)
    rung(page, "drink").get_by_role("button", name=re.compile("^Top up")).click()
    expect(rung(page, "drink")).to_have_attribute("data-state", re.compile("tight|holds"))
    page.get_by_role("tab", name="Room and water").click()
    expect(page.get_by_text(re.compile(r"\d+ ml, .* after filling"))).to_be_visible()


def test_everything_by_keyboard(page: Page, served: Served) -> None:
    bench(page, served)
    page.locator("[data-handle=water]").focus()
    page.keyboard.press("ArrowUp")
    expect(field(page, "Water level")).to_have_value("6.5 cm")
    page.locator("[data-handle=water]").focus()
    page.keyboard.press("ArrowDown")
    expect(field(page, "Water level")).to_have_value("6 cm")
    field(page, "Height of the flowers").focus()
    page.keyboard.press("ArrowUp")
    expect(field(page, "Height of the flowers")).to_have_value("28.5 cm")
    page.get_by_role("tab", name="Cut tray").focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("tab", name="Stems")).to_have_attribute("data-state", "active")
    reached = set()
    for _ in range(80):
        page.keyboard.press("Tab")
        reached.add(page.evaluate("document.activeElement.dataset.handle || document.activeElement.innerText"))
    assert {"rim", "depth", "envelope-height", "layer-gap"} <= reached


def test_a_number_can_be_typed_in_any_unit_or_in_cells(page: Page, served: Served) -> None:
    bench(page, served)
    for typed, shown in (
        ("11 3/4 in", "29.8 cm"),
        ("36cm", "36 cm"),
        ("12 cells", "32.16 cm"),
        ("330 mm", "33 cm"),
        ("31", "31 cm"),
    ):
        field(page, "Height of the flowers").fill(typed)
        page.keyboard.press("Enter")
        expect(field(page, "Height of the flowers")).to_have_value(shown)


def test_one_touch_switches_units_everywhere(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("button", name=re.compile("^Units")).click()
    expect(field(page, "Inside width of the mouth")).to_have_value("7 7/8 in")
    expect(page.get_by_text(re.compile("Cut one sheet .* in × .* in"))).to_be_visible()
    expect(rung(page, "drink")).to_contain_text("fl oz")


def test_a_bad_height_gets_its_sentence_beside_the_field_and_nothing_is_lost(page: Page, served: Served) -> None:
    bench(page, served)
    height = field(page, "Height of the flowers")
    for typed, said in (
        ("0", "is too small. Give more than"),
        ("-3 in", "is too small. Give more than"),
        ("tall", "Type a length, such as 36 cm"),
        ("5", "The flowers end at 5 cm, which is too small. Give at least"),
        ("NaN", "Type a length, such as 36 cm"),
    ):
        height.fill(typed)
        page.keyboard.press("Enter")
        alert = page.get_by_role("alert").filter(has_text=said)
        expect(alert.first).to_be_visible()
        beside, at = alert.first.bounding_box(), height.bounding_box()
        assert beside
        assert at
        assert 0 <= beside["y"] - (at["y"] + at["height"]) < 12, typed
        height.fill("28 cm")
        page.keyboard.press("Enter")
        expect(alert).to_have_count(0)
    height.fill("5")
    page.keyboard.press("Enter")
    page.reload()
    expect(field(page, "Height of the flowers")).to_have_value("28 cm")


def test_a_misspelt_variety_is_offered_the_nearest(page: Page, served: Served) -> None:
    bench(page, served)
    page.get_by_role("tab", name=re.compile("Stems")).click()
    page.get_by_role("combobox", name="Variety").first.fill("ruskus")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("The nearest is “ruscus”.")


def test_two_windows_on_one_piece_are_both_offered(page: Page, browser: Browser, served: Served) -> None:
    bench(page, served)
    other = browser.new_page()
    bench(other, served)
    field(other, "Water level").fill("7 cm")
    other.keyboard.press("Enter")
    expect(other.get_by_role("button", name="Undo")).to_be_enabled()
    field(page, "Water level").fill("6.3 cm")
    page.keyboard.press("Enter")
    strip = page.get_by_role("alert").filter(has_text="Changed in another window")
    expect(field(page, "Water level")).to_have_value("6.3 cm")
    asked = strip.get_by_role("group", name="Water level")
    expect(asked.get_by_role("button", name="Mine: 6.3 cm")).to_have_attribute("aria-pressed", "true")
    asked.get_by_role("button", name="The other: 7 cm").click()
    strip.get_by_role("button", name="Save it so").click()
    expect(field(page, "Water level")).to_have_value("7 cm")
    field(other, "Water level").fill("7.5 cm")
    other.keyboard.press("Enter")
    expect(other.get_by_text("Saved", exact=True)).to_be_visible()
    field(page, "Water level").fill("6.3 cm")
    page.keyboard.press("Enter")
    strip.get_by_role("button", name="Save it so").click()
    expect(field(page, "Water level")).to_have_value("6.3 cm")
    expect(strip).to_have_count(0)
    saved(page)
    other.reload()
    expect(field(other, "Water level")).to_have_value("6.3 cm")
    other.close()


def test_what_is_saved_outlives_a_restart_and_can_still_be_undone(page: Page, served: Served) -> None:
    bench(page, served)
    field(page, "Width of the flowers").fill("40 cm")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    served.stop()
    served.start()
    bench(page, served)
    expect(field(page, "Width of the flowers")).to_have_value("40 cm")
    page.get_by_role("button", name="Undo").click()
    expect(field(page, "Width of the flowers")).to_have_value("38 cm")


def test_the_printed_page_has_the_drawing_the_cuts_and_no_controls(page: Page, served: Served) -> None:
    bench(page, served)
    page.emulate_media(media="print")
    expect(page.get_by_text(re.compile("Cut one sheet"))).to_be_visible()
    expect(page.get_by_role("heading", name=re.compile("Reopening supper: Long-table low bowl × 12"))).to_be_visible()
    expect(page.get_by_role("button", name="Undo")).to_be_hidden()
    assert page.pdf(format="A4")[:5] == b"%PDF-"


def test_nothing_is_fetched_from_anywhere_else(page: Page, served: Served) -> None:
    asked: list[str] = []
    page.on("request", lambda request: asked.append(request.url))
    bench(page, served)
    page.goto(f"{served.url}/events/1")
    page.wait_for_load_state("networkidle")
    assert asked
    assert all(url.startswith((served.url, "data:")) for url in asked)
