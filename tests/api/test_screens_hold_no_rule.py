"""The screens hold no number with a meaning in the trade: those are the core's, and come with the answers."""

import re
from collections import Counter
from pathlib import Path

WEB = Path(__file__).resolve().parents[2] / "web" / "src"
# What describes the program's answers, or turns them into ink or another unit, holds numbers of its own.
APART = ("api/schema.ts", "units/", "drawing/")
_NUMBER = r"-?(?:\d+\.\d+|[1-9]\d*)"
MEANING = (
    re.compile(rf'\b\w+_(?:m|kg|l|ml|h|min|n|c|rad|m_s|w|percent|humidity|each)\b"?\s*[:=]\s*\(?{_NUMBER}\b'),
    re.compile(rf"\?\?\s*{_NUMBER}\b"),
    re.compile(r"[-+*/]\s*\d*\.\d+"),
    re.compile(r"\b\d*\.\d+\s*[-+*/]"),
    re.compile(rf"useState(?:<[^>]*>)?\({_NUMBER}\)"),
)
# Lines with a number that is layout, a unit, or a bound of what a hand can draw: how many in which file, and why.
LAYOUT = {
    "screens/ProvenRecipes.tsx": (1, "square feet"),
    "screens/bench/BesideTab.tsx": (1, "three quarters of a turn"),
    "screens/bench/MakingDrawing.tsx": (1, "a mark round a head"),
    "screens/bench/MarginCurve.tsx": (2, "the height of the chart"),
    "screens/bench/MatchView.tsx": (1, "how far a picture shows through"),
    "screens/bench/handles.ts": (9, "where handles sit beside what they move"),
    "screens/day/Hours.tsx": (1, "the width of the chart before it is known"),
    "screens/line-up/BeamLine.tsx": (1, "the width of the sheet"),
    "screens/line-up/TableLine.tsx": (4, "the edges of the sheet"),
    "screens/rig/RigDrawing.tsx": (2, "dots and margins of the sheet"),
    "screens/rig/SnipStory.tsx": (1, "the place of nothing in a list"),
    "screens/rig/edits.ts": (3, "middles of stations of the brush, whose numbers are the core's"),
    "screens/roll/RollDrawing.tsx": (2, "the drawn end of a roll, the scale bar"),
    "screens/stores/VesselDrawing.tsx": (1, "a picture without depth"),
    "screens/stores/VesselEditor.tsx": (1, "inches"),
}


def found() -> dict[str, list[str]]:
    """Lines with a number that looks like one of the trade, by file."""
    lines: dict[str, list[str]] = {}
    for path in sorted(WEB.rglob("*.ts*")):
        name = str(path.relative_to(WEB))
        if name.startswith(APART):
            continue
        for line in path.read_text("utf-8").splitlines():
            code = re.sub(r'className=("[^"]*"|\{`[^`]*`\})|//.*', "", line)
            if any(each.search(code) for each in MEANING):
                lines.setdefault(name, []).append(line.strip())
    return lines


def test_no_screen_holds_a_number_of_the_trade() -> None:
    there = found()
    more = {name: each for name, each in there.items() if len(each) > LAYOUT.get(name, (0, ""))[0]}
    assert not more, "numbers with a meaning belong in the core (core/edits/usual.py, core/event/starting/usual.py)"
    assert Counter({name: len(each) for name, each in there.items()}) == {name: n for name, (n, _) in LAYOUT.items()}


def test_what_it_looks_for_it_finds() -> None:
    for line in (
        "const counterweight = { mass_kg: 0.5 };",
        "value={(line.cup_ml ?? 60) / 1000}",
        "away_m: Math.round((foot + 0.04) * 200) / 200,",
        "const [premium, setPremium] = useState(0.4);",
        "const long = 1.05 * path;",
    ):
        assert any(each.search(line) for each in MEANING), line
    for line in ("const by = index + 1;", "x_m: 0,", "gap={2}", "at ?? 0"):
        assert not any(each.search(line) for each in MEANING), line


def test_no_plural_is_put_together_on_a_screen() -> None:
    """Words that go by a number stand whole in `worded`, which knows the forms."""
    by_hand = re.compile(r"""(?:===?|>|!==?)\s*1\s*\?\s*["'`]\w*["'`]\s*:\s*["'`]\w*["'`]""")
    found = [
        f"{path.relative_to(WEB)}: {match[0]}"
        for path in sorted(WEB.rglob("*.ts*"))
        for match in by_hand.finditer(path.read_text(encoding="utf-8"))
    ]
    assert not found, "worded('{n} {n|stem|stems}', { n }) says it"
