"""Every paper of the demo read back with a PDF library: faces, sizes, what it is of, nothing over anything else.

Each in one system of units; the other one is in the long part.
"""

import io
import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pdfplumber
import pytest
from fastapi.testclient import TestClient

from jolly_trellis.api.app import make_app

PIECES, RIGS = range(1, 10), range(10, 16)
PAPERS = (
    *(f"parts/{number}/card.pdf" for number in (*PIECES, *RIGS)),
    *(f"parts/{number}/patterns.pdf" for number in PIECES),
    "cuts.pdf",
    "shopping.pdf",
)
SPARE_PT = 1.0


@pytest.fixture(scope="module")
def studio(laid_out: dict[bool, Path], tmp_path_factory: pytest.TempPathFactory) -> TestClient:
    """The demo as event 1; what is added to it is taken back."""
    folder = tmp_path_factory.mktemp("papers")
    shutil.copytree(laid_out[True], folder, dirs_exist_ok=True)
    return TestClient(make_app(folder, web_build=folder / "none", hosts=("testserver",)))


def pages(studio: TestClient, which: str, **query: str) -> Iterator[Any]:
    answer = studio.get(f"/api/events/1/{which}", params=query)
    assert answer.status_code == 200, answer.text
    with pdfplumber.open(io.BytesIO(answer.content)) as pdf:
        yield from pdf.pages


def lying_over(page: Any) -> list[tuple[str, str]]:
    """Pairs of words of a page of which one covers a part of the other."""
    words = sorted(page.extract_words(keep_blank_chars=False, use_text_flow=True), key=lambda each: each["x0"])
    found = []
    for at, one in enumerate(words):
        for other in words[at + 1 :]:
            if other["x0"] >= one["x1"] - SPARE_PT:
                break
            across = min(one["x1"], other["x1"]) - max(one["x0"], other["x0"])
            # a box is as high as its face, of which the letters take less
            down = (
                min(one["bottom"], other["bottom"])
                - max(one["top"], other["top"])
                - 0.3 * (one["bottom"] - one["top"])
            )
            if across > SPARE_PT and down > 0:
                found.append((one["text"], other["text"]))
    return found


@pytest.mark.parametrize(
    ("paper", "system"),
    [
        pytest.param(paper, system, marks=() if at % 2 == nth else pytest.mark.long)
        for at, paper in enumerate(PAPERS)
        for nth, system in enumerate(("metric", "inch"))
    ],
)
def test_every_paper_can_be_read_and_says_what_it_is_of(studio: TestClient, paper: str, system: str) -> None:
    size = {"metric": "A4", "inch": "Letter"}[system]
    for number, page in enumerate(pages(studio, paper, system=system, paper=size), start=1):
        assert page.chars
        small = {each["text"] for each in page.chars if each["size"] < 8 - 1e-6}
        assert not small
        outside = [
            each["text"]
            for each in page.chars
            if min(each["x0"], each["top"]) < 0 or each["x1"] > page.width or each["bottom"] > page.height
        ]
        assert not outside
        assert not lying_over(page)
        faces = {each["fontname"].split("+")[-1] for each in page.chars}
        assert not any("Helvetica" in each or "Times" in each for each in faces)
        said = " ".join((page.extract_text() or "").split())
        assert "Reopening supper" in said
        assert "revision 1" in said
        assert f"page {number} of" in said


def odd(which: str, bowl: dict[str, Any]) -> dict[str, Any]:
    """The demo's low bowl, made odd."""
    vessel, recipe = bowl["vessel"], bowl["recipe"]
    first, last = vessel["profile"][0], vessel["profile"][-1]
    tall = last["height_m"]
    if which == "two points":
        return bowl | {"vessel": vessel | {"profile": [first, last]}}
    if which == "forty points":
        points = [
            last | {"height_m": tall * at / 39, "width_m": 0.2 + 0.01 * (at % 2), "depth_m": 0.2 + 0.01 * (at % 2)}
            for at in range(40)
        ]
        return bowl | {"vessel": vessel | {"profile": points}}
    if which == "a step":
        step = [first, last | {"height_m": tall / 2, "width_m": 0.12, "depth_m": 0.12}, last | {"height_m": tall / 2}]
        return bowl | {"vessel": vessel | {"profile": [*step, last]}}
    if which == "240 stems":
        counts = [each | {"count": 48} for each in recipe[:5]]
        return bowl | {"recipe": counts}
    if which == "a head larger than its vessel":
        small = [each | {key: 0.5 * each[key] for key in ("width_m", "depth_m")} for each in vessel["profile"]]
        return bowl | {
            "vessel": vessel | {"profile": small},
            "recipe": [recipe[0] | {"variety": "hydrangea", "count": 1, "clump": 1, "role": "focal"}],
        }
    return bowl | {"name": "Δείπνο " + 113 * "W"}


@pytest.mark.parametrize(
    "which",
    ["two points", "forty points", "a step", "240 stems", "a head larger than its vessel", "the longest name"],
)
def test_an_odd_piece_is_drawn_and_its_papers_can_be_read(studio: TestClient, which: str) -> None:
    event = studio.get("/api/events/1").json()
    part = odd(which, event["parts"][0]["part"])
    made = studio.post("/api/events/1/parts", json={"base_revision": event["revision"], "part": part})
    assert made.status_code == 201, made.text
    number = made.json()["added"]
    report = studio.post("/api/events/1/evaluate", json={"piece": part, "with_fixes": False}).json()
    assert {each["verb"]: each["state"] for each in report["verdicts"]}["hold"] in ("holds", "tight", "fails")
    for paper in ("card.pdf", "patterns.pdf"):
        for page in pages(studio, f"parts/{number}/{paper}"):
            assert not lying_over(page)
            assert min(each["size"] for each in page.chars) >= 8 - 1e-6
            assert max(each["x1"] for each in page.chars) <= page.width
    studio.post("/api/events/1/undo", json={"base_revision": made.json()["revision"]})


def test_a_name_of_200_letters_is_refused_in_a_sentence(studio: TestClient) -> None:
    event = studio.get("/api/events/1").json()
    part = event["parts"][0]["part"] | {"name": 200 * "n"}
    refused = studio.post("/api/events/1/parts", json={"base_revision": event["revision"], "part": part})
    assert refused.status_code == 422
    assert refused.json()["path"].endswith("name")
    assert "120" in refused.json()["limit"]["text"] + refused.json()["message"]["text"]


def test_the_longest_run_comes_to_rest_and_its_card_can_be_read(studio: TestClient) -> None:
    """60 m on 60 points; one point more is refused in a sentence."""
    event = studio.get("/api/events/1").json()
    part = next(each["part"] for each in event["parts"] if each["part"]["name"] == "Run over the long table")
    points = [part["points"][0] | {"name": f"beam {at}", "x_m": 1.0 * at - 30, "surveyed": None} for at in range(60)]
    places = [part["attachments"][0] | {"x_m": each["x_m"], "along_m": None} for each in points]
    lines = [part["lines"][0] | {"point": at, "attachment": at} for at in range(60)]
    armature = part["armature"] | {"length_m": 60.0, "sections": 12}
    long = part | {"points": points, "attachments": places, "lines": lines, "armature": armature, "bond": None}
    made = studio.post("/api/events/1/parts", json={"base_revision": event["revision"], "part": long})
    assert made.status_code == 201, made.text
    kept = next(each for each in made.json()["parts"] if each["id"] == made.json()["added"])
    assert len(kept["report"]["rest"]["at_m"]) > 100
    more = long | {"points": [*points, points[0] | {"x_m": 35.0}]}
    body = {"base_revision": made.json()["revision"], "part": more}
    assert "60" in str(studio.post("/api/events/1/parts", json=body).json()["limit"])
    for page in pages(studio, f"parts/{made.json()['added']}/card.pdf"):
        assert not lying_over(page)
        assert min(each["size"] for each in page.chars) >= 8 - 1e-6
