"""The screen reads and writes quantities exactly as the Python side does: one table for both."""

import json
import shutil
import subprocess
from pathlib import Path
from typing import Any

import pytest

ROOT = Path(__file__).parents[2]
WEB = ROOT / "web"

HARNESS = """
import { ambiguous, parseHours, parseLength, parseMass } from "PARSE";
import { cutLengthText, textOf } from "TEXT";
const cases = JSON.parse(require("node:fs").readFileSync(0, "utf8"));
console.log(JSON.stringify({
  parse_length: cases.parse_length.map(([text, system, cell, , bare]) =>
    parseLength(text, system, cell ?? undefined, bare)),
  parse_mass: cases.parse_mass.map(([text, system, , bare]) => parseMass(text, system, bare)),
  parse_hours: cases.parse_hours.map(([text]) => parseHours(text)),
  ambiguous: cases.ambiguous.map(([text]) => ambiguous(text)),
  text_of: cases.text_of.map(([kind, value, system]) => textOf({ kind, value }, system)),
  cut_length: cases.cut_length.map(([value, system]) => cutLengthText(value, system)),
}));
"""


@pytest.fixture(scope="module")
def table() -> dict[str, list[list[Any]]]:
    text = (ROOT / "tests" / "units_cases.json").read_text(encoding="utf-8")
    loaded: dict[str, list[list[Any]]] = json.loads(text)
    return loaded


@pytest.fixture(scope="module")
def screen(table: dict[str, list[list[Any]]], tmp_path_factory: pytest.TempPathFactory) -> dict[str, list[Any]]:
    """What the screen's own modules, bundled and run in Node, answer for the whole table."""
    folder = tmp_path_factory.mktemp("units")
    source = HARNESS.replace("PARSE", str(WEB / "src/units/parse.ts")).replace("TEXT", str(WEB / "src/units/text.ts"))
    (folder / "harness.ts").write_text(source, encoding="utf-8")
    bundler = WEB / "node_modules" / ".bin" / "rolldown"
    command = [str(bundler), "harness.ts", "--file", "out.cjs", "--format", "cjs", "--platform", "node"]
    subprocess.run(command, cwd=folder, check=True, capture_output=True)
    node = shutil.which("node")
    assert node
    ran = subprocess.run(
        [node, "out.cjs"], cwd=folder, input=json.dumps(table), text=True, check=True, capture_output=True
    )
    answers: dict[str, list[Any]] = json.loads(ran.stdout)
    return answers


def test_lengths_are_read_alike(table: dict[str, list[list[Any]]], screen: dict[str, list[Any]]) -> None:
    for case, answer in zip(table["parse_length"], screen["parse_length"], strict=True):
        expected = case[3]
        assert answer == (None if expected is None else pytest.approx(expected, abs=1e-9)), case


@pytest.mark.parametrize(("name", "at"), [("parse_mass", 2), ("parse_hours", 1), ("ambiguous", 1)])
def test_what_is_typed_is_read_as_people_mean_it_or_asked_about(
    table: dict[str, list[list[Any]]], screen: dict[str, list[Any]], name: str, at: int
) -> None:
    """A bare number has the unit the field shows; "1,200 g" is neither 1.2 g nor 1 200 g before it is asked."""
    for case, answer in zip(table[name], screen[name], strict=True):
        expected = case[at]
        assert answer == (pytest.approx(expected) if isinstance(expected, float) else expected), case


@pytest.mark.parametrize("name", ["text_of", "cut_length"])
def test_quantities_are_written_alike(
    table: dict[str, list[list[Any]]], screen: dict[str, list[Any]], name: str
) -> None:
    for case, answer in zip(table[name], screen[name], strict=True):
        assert answer == case[-1], case
