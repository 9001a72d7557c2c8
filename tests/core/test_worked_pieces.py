"""Ordinary work worked out whole: no figure moves unseen. Figures that are meant to move are written anew and read."""

import pytest

from tests import worked


@pytest.mark.parametrize("name", list(worked.worked()))
def test_no_figure_moved_unseen(name: str) -> None:
    was, now = worked.kept()[name], worked.figures_of(name)
    assert was.keys() == now.keys()
    moved = [f"{path}: {was[path]} → {now[path]}" for path in was if not worked.same(was[path], now[path])]
    assert not moved, "\n".join(moved)


def test_every_piece_of_work_has_its_figures() -> None:
    assert worked.kept().keys() == worked.worked().keys()
