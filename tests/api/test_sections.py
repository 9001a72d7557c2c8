"""A report in sections: what comes is laid over what was there, and is then the whole report; little comes."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from jolly_trellis.demo.loading import demo_plan
from jolly_trellis.store import codec
from tests import ordinary

WHOLE, CHANGED = "/api/events/1/evaluate", "/api/events/1/evaluate/changed"


class Known:
    """Somebody who asks again and again, and has what was sent before."""

    def __init__(self, client: TestClient) -> None:
        self.client = client
        self.sections: dict[str, tuple[str, Any]] = {}
        self.came: list[str] = []

    def ask(self, piece: dict[str, Any]) -> bytes:
        body = {"piece": piece, "have": {name: mark for name, (mark, _) in self.sections.items()}}
        answer = self.client.post(CHANGED, json=body)
        assert answer.status_code == 200, answer.text
        told = answer.json()
        self.came = list(told["sections"])
        self.sections = {
            name: (mark, told["sections"].get(name, self.sections.get(name, ("", None))[1]))
            for name, mark in told["marks"].items()
        }
        return bytes(answer.content)

    def report(self) -> dict[str, Any]:
        """All sections laid together by their names."""
        found: dict[str, Any] = {}
        for name, (_, value) in self.sections.items():
            path, _, part = name.partition("/")
            field, _, within = path.partition(".")
            holder = found.setdefault(field, {}) if within else found
            if part:
                holder[within or field] = [*holder.get(within or field, []), *value]
            else:
                holder[within or field] = value
        return found


@pytest.fixture
def known(client: TestClient) -> Known:
    return Known(client)


def pieces() -> list[tuple[str, dict[str, Any]]]:
    return [(each.part.name, codec.to_plain(each.part)) for each in demo_plan().pieces]


def test_laid_together_sections_are_the_whole_report(client: TestClient, known: Known) -> None:
    """Each piece of the demo, by one who has the sections of the one before."""
    for name, piece in pieces():
        known.ask(piece)
        assert known.report() == client.post(WHOLE, json={"piece": piece, "with_fixes": False}).json(), name


def test_what_has_not_changed_does_not_come_again(client: TestClient, known: Known) -> None:
    bowl = pieces()[0][1]
    known.ask(bowl)
    assert len(known.ask(bowl)) < 4_000
    assert known.came == []
    known.ask(bowl | {"lining": True})
    assert "stems" not in known.came
    assert "verdicts/hide" not in known.came  # nothing shows through a bowl that is not clear
    known.ask(bowl | {"water_level_m": bowl["water_level_m"] - 0.002})
    assert {"water", "verdicts/drink", "picture.primitives/water"} <= set(known.came)
    assert not {"stems", "verdicts/hide", "picture.primitives/vessel-wall"} & set(known.came)
    whole = client.post(WHOLE, json={"piece": bowl | {"water_level_m": bowl["water_level_m"] - 0.002}}).json()
    assert known.report()["water"] == whole["water"]


def test_a_step_of_the_water_of_sixty_stems_is_a_small_answer(known: Known) -> None:
    """By counting: at most 30 kB; the whole is more than twice that."""
    piece = ordinary.stems(ordinary.piece(), 60)
    whole = known.ask(codec.to_plain(piece))
    changed = known.ask(codec.to_plain(piece) | {"water_level_m": piece.water_level_m - 0.003})
    assert len(changed) <= 30_000 < len(whole) / 2


def test_marks_of_nothing_that_is_known_bring_everything(client: TestClient, known: Known) -> None:
    bowl = pieces()[0][1]
    known.ask(bowl)
    of_others = dict.fromkeys(known.sections, "0" * 16) | {"no such section": "1"}
    told = client.post(CHANGED, json={"piece": bowl, "have": of_others}).json()
    assert set(told["sections"]) == set(told["marks"]) == set(known.sections)


@pytest.mark.parametrize("have", [{"stems": "x" * 17}, {"": "1"}, {str(at): "1" for at in range(401)}, ["stems"], 3])
def test_marks_that_are_none_are_refused(client: TestClient, have: object) -> None:
    answer = client.post(CHANGED, json={"piece": pieces()[0][1], "have": have})
    assert answer.status_code == 422
    assert answer.json()["path"].startswith("have")
