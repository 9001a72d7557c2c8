"""Every fact that can be missing leads to its field: pressed where it is said, it has the keyboard there."""

from collections.abc import Iterable
from contextlib import closing
from dataclasses import replace

import pytest
from playwright.sync_api import Error, Page, expect

from jolly_trellis.core.event.job import Costing, Hire
from jolly_trellis.core.event.parts import Part
from jolly_trellis.core.missing import FACTS, Missing
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.rigging.rig import Rig
from jolly_trellis.services import planning, stores
from jolly_trellis.services.opening import open_studio
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Brief
from tests.facts_missing import BLANK, FILLED, missed_of, works
from tests.ordinary import piece
from tools.running import Served

pytestmark = pytest.mark.browser

# Nothing is typed for these: another part is to be mended first; an event that is filled at an hour is loaded at one.
ELSEWHERE = {"beam-others", "not-worked-out", "loaded-at"}
# Where the fact has no field of its own yet, since what it is of is not there: the field that brings it.
BRINGS = {"stands-out": "mount", "beam-rating": "beams"}
# Everything with a path that the keyboard is in, from the inside out.
WAY = """() => {
  const found = [];
  for (let at = document.activeElement; at; at = at.parentElement) if (at.dataset?.path) found.push(at.dataset.path);
  return found;
}"""
AT = "() => document.activeElement?.closest('[data-path]')?.dataset.path ?? null"


def begun(served: Served, part: Part, around: Conditions) -> str:
    """The address of a part in an event of which no more is said than that."""
    brief = Brief(
        name="Net loft tea",
        place="Old net loft",
        time_zone="Europe/London",
        filled_at=None if around is BLANK else "2027-05-15T12:00",
        ends_at=None if around in (BLANK, FILLED) else "2027-05-15T22:00",
    )
    with closing(open_studio(served.folder)) as conn:
        number = planning.new_event(conn, brief, (part,)).event.id
    return f"{served.url}/events/{number}/{'rigs' if isinstance(part, Rig) else 'pieces'}/1"


def press_each(page: Page, here: str, facts: Iterable[Missing], done: set[str]) -> set[str]:
    """Press each fact where it is said, but those that are done; the keyboard is in its field then. Gives their keys.

    Two facts of one field are asked for once, by the one or the other.
    """
    asked: dict[tuple[str, str], set[str]] = {}
    for each in facts:
        asked.setdefault((each.of, each.path), set()).add(each.key)
    pressed: set[str] = set()
    for (_, path), keys in asked.items():
        if keys <= done | pressed:
            continue
        if page.url.split("?")[0] != here:
            page.goto(here)
        shown = page.locator(", ".join(f"[data-fact={key}]" for key in keys)).first
        expect(shown).to_be_visible()
        key = shown.get_attribute("data-fact") or ""
        wanted = BRINGS.get(key, path)
        shown.click()
        try:
            page.wait_for_function(f"path => ({AT})() === path", arg=wanted, timeout=20_000)
        except Error:
            pytest.fail(f"{key}: the keyboard is at {page.evaluate(AT)}, not at {wanted}, on {page.url}")
        pressed |= keys
    return pressed


def test_every_fact_that_a_part_misses_leads_to_its_field(page: Page, empty: Served) -> None:
    pressed: set[str] = set()
    for part, around in works().values():
        missed = [each for each in missed_of(part, around) if each.key not in ELSEWHERE]
        if {each.key for each in missed} - pressed:
            here = begun(empty, part, around)
            page.goto(here)
            pressed |= press_each(page, here, missed, pressed)
    of_events = {key for key, each in FACTS.items() if key not in pressed | ELSEWHERE}
    assert of_events == {
        "water-goes-in",
        "drive",
        "access",
        "crew",
        "place-air",
        "air-of-workshop",
        "price",
        "prices-in",
        "hire-price",
        "hour-price",
    }


def test_what_an_event_misses_leads_to_its_field(page: Page, empty: Served) -> None:
    hire = Hire(name="urn", number=2, lender="Osterlay Hire", comes="2027-05-14", goes_back="2027-05-16")
    brief = Brief(name="Net loft tea", place="Old net loft", time_zone="Europe/London", hires=(hire,))
    own = replace(piece(), vessel=replace(piece().vessel, name="grandmother's bowl", key=""))
    elsewhere = replace(brief, costing=Costing(currency="kr"))
    with closing(open_studio(empty.folder)) as conn:
        net = stock.nettings(conn)["coated-25-09"]
        stores.put(conn, "netting", net.key, replace(net, price=None))
        here, other = (planning.new_event(conn, each, (own,)).event.id for each in (brief, elsewhere))
    pressed: set[str] = set()
    for address in (f"{here}/day", f"{here}/cost", f"{other}/cost"):
        screen = f"{empty.url}/events/{address}"
        page.goto(screen)
        expect(page.locator("[data-fact]").first).to_be_visible()
        keys = {each.get_attribute("data-fact") or "" for each in page.locator("[data-fact]").all()}
        for key in sorted(keys - pressed - ELSEWHERE - {"price"}):
            page.goto(screen)
            page.locator(f"[data-fact={key}]").first.click()
            path = FACTS[key].path.format(0)
            page.wait_for_function(f"path => ({AT})() === path", arg=path, timeout=20_000)
            pressed.add(key)
    assert {"water-goes-in", "drive", "access", "crew", "air-of-workshop"} <= pressed
    assert {"prices-in", "hire-price", "hour-price"} <= pressed
    for words, ways in ((net.name, ["price", f"netting.{net.key}"]), (own.vessel.name, ["vessel"])):
        page.goto(f"{empty.url}/events/{here}/cost")
        page.get_by_role("button", name=f"the price of {words}").click()
        page.wait_for_function(
            f"paths => JSON.stringify(({WAY})()) === JSON.stringify(paths)", arg=ways, timeout=20_000
        )
