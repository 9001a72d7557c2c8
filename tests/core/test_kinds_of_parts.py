"""What kind of part something is, is asked of the kinds: nowhere else is a class of them looked at."""

import ast
from pathlib import Path

import jolly_trellis
from jolly_trellis.core.event.parts import KINDS, hangs, in_vessels
from jolly_trellis.core.plan.kinds import PIECES, is_carried, is_held, is_worn, stands
from tests.ordinary import bound, bouquet, piece
from tests.rigs import run

ROOT = Path(jolly_trellis.__file__).parent
CLASSES = {"Piece", "Part", "Bound", *(each.__name__ for each in KINDS.values())}
TELLS = {ROOT / "core" / "event" / "parts.py", *(ROOT / "core" / "plan").glob("*.py")}


def looked_at(path: Path) -> list[str]:
    """Lines that ask whether something is of a class of parts."""
    return [
        f"{path.relative_to(ROOT)}:{node.lineno}"
        for node in ast.walk(ast.parse(path.read_text("utf-8")))
        if isinstance(node, ast.Call)
        and isinstance(node.func, ast.Name)
        and node.func.id in ("isinstance", "issubclass")
        and CLASSES & {each.id for each in ast.walk(node.args[1]) if isinstance(each, ast.Name)}
    ]


def test_only_the_kinds_themselves_are_asked_what_they_are() -> None:
    found = [line for path in sorted(ROOT.rglob("*.py")) if path not in TELLS for line in looked_at(path)]
    assert found == []
    assert [line for path in TELLS for line in looked_at(path)]


def test_every_kind_is_told_from_every_other() -> None:
    parts = (piece(), bouquet(), bound("corsage"), run())
    assert [in_vessels(each) for each in parts] == [True, True, True, False]
    assert [hangs(each) for each in parts] == [False, False, False, True]
    assert [stands(each) for each in parts[:3]] == [True, False, False]
    assert [is_carried(each) for each in parts[:3]] == [False, True, True]
    assert [is_held(each) for each in parts[:3]] == [False, True, False]
    assert [is_worn(each) for each in parts[:3]] == [False, False, True]
    assert {each.kind for each in parts} == set(KINDS)
    assert set(PIECES) < set(KINDS)


def test_what_a_kind_does_not_have_a_reader_finds_none_of() -> None:
    bare = piece()
    assert (bare.carried_h, bare.collar) == (None, False)
    posy = bouquet()
    assert (posy.companions, posy.spill, posy.counterweight, posy.dealt) == ((), None, None, None)
    assert posy.dealt_afresh() == posy.without_spill() == posy.with_seats(None, ()) == posy
    assert posy.vessels() == (posy.vessel,)


def test_a_netting_in_the_place_of_another_wherever_it_is() -> None:
    bowl = piece()
    own = bowl.mechanic.netting
    assert own is not None
    assert bowl.cut_from(own, "other").mechanic.netting == "other"
    assert bowl.cut_from("none of it", "other") == bowl
    rig = run()
    assert rig.armature.netting is not None
    assert rig.cut_from(rig.armature.netting, "other").armature.netting == "other"
    assert rig.cut_from("none of it", "other") is rig
