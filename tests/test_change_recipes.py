"""Each recipe of the page of change recipes, made in a copy by the text of the page."""

import os
import re
import shutil
import subprocess
import sys
from dataclasses import dataclass
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[1]
PAGE = (ROOT / "docs" / "change-recipes.md").read_text(encoding="utf-8")
_BLOCK = re.compile(r"^```(?:python|sql)\n(?:#|--) (.*?)\n(.*?)^```$", re.MULTILINE | re.DOTALL)
_FIGURES = re.compile(r"^\| (A .*?) \| (\d) \|$", re.MULTILINE)


@dataclass(frozen=True, slots=True, kw_only=True)
class Recipe:
    """What is done, block by block: what its first line says, and the rest; and what is looked at afterwards."""

    name: str
    blocks: tuple[tuple[str, str], ...]
    proof: str

    @property
    def files(self) -> set[str]:
        return {block.split(": ")[1] for block, _ in self.blocks}


def _recipes() -> list[Recipe]:
    found = []
    for section in PAGE.split("\n## ")[1:]:
        blocks = [(head, body) for head, body in _BLOCK.findall(section)]
        proof = "".join(body for head, body in blocks if head == "proof")
        found.append(
            Recipe(
                name=section.splitlines()[0],
                blocks=tuple((head, body) for head, body in blocks if head != "proof"),
                proof=proof,
            )
        )
    return found


RECIPES = _recipes()


def test_every_recipe_touches_no_more_files_than_the_page_says() -> None:
    promised = {name: int(number) for name, number in _FIGURES.findall(PAGE)}
    assert {each.name: len(each.files) for each in RECIPES} == promised
    assert all(each.proof for each in RECIPES)


def made(root: Path, block: str, body: str) -> None:
    """One block in the copy: a new file, or lines before, after or instead of one that begins so."""
    way, path, *begins = block.split(": ", 2)
    file = root / path
    if way == "new":
        assert not file.exists(), f"{path} is there already"
        file.write_text(body, encoding="utf-8")
        return
    lines = file.read_text(encoding="utf-8").splitlines(keepends=True)
    places = [at for at, line in enumerate(lines) if line.strip().startswith(begins[0].strip())]
    assert len(places) == 1, f"{len(places)} lines of {path} begin with {begins[0]}"
    first, last = {
        "before": (places[0], places[0]),
        "after": (places[0] + 1, places[0] + 1),
        "instead of": (places[0], places[0] + 1),
        "instead of the next": (places[0] + 1, places[0] + 2),
    }[way]
    file.write_text("".join([*lines[:first], body, *lines[last:]]), encoding="utf-8")


@pytest.mark.long
@pytest.mark.parametrize("recipe", RECIPES, ids=lambda each: each.name)
def test_a_recipe_that_is_followed_gives_what_it_promises(recipe: Recipe, tmp_path: Path) -> None:
    shutil.copytree(ROOT / "src", tmp_path / "src", ignore=shutil.ignore_patterns("__pycache__"))
    for head, body in recipe.blocks:
        made(tmp_path, head, body)
    around = {**os.environ, "PYTHONPATH": os.pathsep.join((str(tmp_path / "src"), str(ROOT)))}
    ran = subprocess.run(
        [sys.executable, "-c", recipe.proof],
        check=False,
        env=around,
        cwd=tmp_path,
        capture_output=True,
        text=True,
        timeout=300,
    )
    assert ran.returncode == 0, ran.stderr[-3000:]
