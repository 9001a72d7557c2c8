"""Reports kept by what they came from: found after a restart, never for anything else, done without where lost."""

import sqlite3
import zlib
from collections.abc import Iterator
from contextlib import closing
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from jolly_trellis.core.errors import InvalidMeasure
from jolly_trellis.core.judging.evaluate import evaluate
from jolly_trellis.core.materials.air import Air
from jolly_trellis.core.method import PROGRAM
from jolly_trellis.demo.loading import load_demo
from jolly_trellis.services import judging, kept_reports, planning, stores
from jolly_trellis.services.conditions import conditions_of
from jolly_trellis.services.judging import Judged
from jolly_trellis.services.kept_reports import FILE_NAME
from jolly_trellis.services.opening import open_studio
from jolly_trellis.services.rigging import Where
from jolly_trellis.store import stock
from jolly_trellis.store.plan import Brief


class Counted:
    """`evaluate`, counted."""

    def __init__(self) -> None:
        self.times = 0

    def __call__(self, *args: Any, **named: Any) -> Any:
        self.times += 1
        return evaluate(*args, **named)


@pytest.fixture
def demo(studio: sqlite3.Connection) -> sqlite3.Connection:
    load_demo(studio)
    return studio


@pytest.fixture
def worked(monkeypatch: pytest.MonkeyPatch) -> Iterator[Counted]:
    counted = Counted()
    monkeypatch.setattr(judging, "evaluate", counted)
    kept_reports.forget()
    yield counted
    kept_reports.forget()


def all_of(conn: sqlite3.Connection, brief: Brief | None = None) -> dict[int, Judged]:
    plan = planning.state(conn, 1).plan
    brief = brief or plan.brief
    return judging.judge_all(conn, 1, brief, plan.parts, conditions_of(conn, brief))


def test_what_was_judged_is_found_again_after_a_restart(
    demo: sqlite3.Connection, worked: Counted, tmp_path: Path
) -> None:
    first = all_of(demo)
    assert worked.times == 9
    kept_reports.forget()
    with closing(open_studio(tmp_path)) as again:
        assert all_of(again) == first
    assert worked.times == 9
    assert (tmp_path / FILE_NAME).stat().st_size < 250_000


def test_what_it_is_called_and_how_many_there_are_is_nothing_to_its_report(
    demo: sqlite3.Connection, worked: Counted
) -> None:
    first = all_of(demo)
    for part in (1, planning.state(demo, 1).plan.rigs[0].id):
        kept, _ = planning.part_of(demo, 1, part)
        named = replace(kept, name="Another name")
        if part == 1:
            named = replace(named, quantity=40)  # type: ignore[arg-type]
        revision = planning.state(demo, 1).event.revision
        planning.put_part(demo, 1, part, named, base_revision=revision, label="Rename")
    assert all_of(demo) == first
    assert worked.times == 9


def test_what_it_is_called_counts_where_it_cannot_be_called_so(demo: sqlite3.Connection, worked: Counted) -> None:
    all_of(demo)
    bowl, brief = planning.piece_of(demo, 1, 1)
    for wrong in (replace(bowl, name=200 * "n"), replace(bowl, name=""), replace(bowl, quantity=0)):
        with pytest.raises(InvalidMeasure):
            judging.judged(
                demo, Where(event=1, brief=brief, part=None), wrong, conditions_of(demo, brief), before=None
            )


def test_pictures_are_drawn_again_and_not_kept(demo: sqlite3.Connection, worked: Counted, tmp_path: Path) -> None:
    first = all_of(demo)
    kept_reports.forget()
    with closing(sqlite3.connect(tmp_path / FILE_NAME)) as file:
        bodies = [zlib.decompress(each[0]) for each in file.execute("SELECT body FROM report")]
    assert len(bodies) == len(first)
    assert not any(b'"primitives"' in each for each in bodies)
    assert all(b'"primitives"' in each.written for each in all_of(demo).values())


def test_another_plan_brief_store_or_book_is_judged_anew(demo: sqlite3.Connection, worked: Counted) -> None:
    all_of(demo)
    bowl, brief = planning.piece_of(demo, 1, 1)
    planning.put_part(demo, 1, 1, replace(bowl, water_level_m=0.055), base_revision=1, label="Lower")
    all_of(demo)
    assert worked.times == 10
    all_of(demo, replace(brief, air=Air(temperature_c=30, relative_humidity=0.3)))
    assert worked.times == 19
    rose = stock.varieties(demo)["rose"]
    stores.put(demo, "variety", "rose", replace(rose, mass_kg=rose.mass_kg * 1.1))
    all_of(demo)
    assert worked.times == 28
    key = next(iter(PROGRAM.values))
    with replace(PROGRAM, values={**PROGRAM.values, key: PROGRAM.values[key] * 1.01}).open():
        all_of(demo)
    assert worked.times == 37
    all_of(demo)
    assert worked.times == 37


@pytest.mark.parametrize("lost", ["deleted", "scribbled on", "a folder"])
def test_a_file_that_is_lost_is_done_without(
    demo: sqlite3.Connection, worked: Counted, tmp_path: Path, lost: str
) -> None:
    first = all_of(demo)
    kept_reports.forget()
    for each in tmp_path.glob(f"{FILE_NAME}*"):
        each.unlink()
    if lost == "scribbled on":
        (tmp_path / FILE_NAME).write_bytes(b"no database at all " * 300)
    if lost == "a folder":
        (tmp_path / FILE_NAME).mkdir()
    assert all_of(demo) == first
    assert worked.times == 18


def test_a_report_that_was_meddled_with_is_worked_out_anew(
    demo: sqlite3.Connection, worked: Counted, tmp_path: Path
) -> None:
    first = all_of(demo)
    kept_reports.forget()
    with closing(sqlite3.connect(tmp_path / FILE_NAME)) as file:
        file.execute("UPDATE report SET body = x'00'")
        file.commit()
    assert all_of(demo) == first


def test_nobody_is_told_of_work_that_is_done(demo: sqlite3.Connection) -> None:
    assert judging.progress_of(demo, 1) is None
    all_of(demo)
    assert judging.progress_of(demo, 1) is None


def test_how_far_it_has_come_is_told_while_it_goes_on(
    demo: sqlite3.Connection, worked: Counted, monkeypatch: pytest.MonkeyPatch
) -> None:
    seen: list[judging.Progress | None] = []

    def looking(*args: Any, **named: Any) -> Any:
        seen.append(judging.progress_of(demo, 1))
        return evaluate(*args, **named)

    monkeypatch.setattr(judging, "evaluate", looking)
    all_of(demo)
    assert [(each.done, each.of) for each in seen if each] == [(done, 15) for done in range(9)]
