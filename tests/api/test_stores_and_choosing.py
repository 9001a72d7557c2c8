"""The web interface of choosing, saying, patterns and the stores."""

from collections import Counter
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.wire import based, pieces

EVENT = "/api/events/1"


@pytest.fixture
def first(client: TestClient) -> dict[str, Any]:
    plan: dict[str, Any] = pieces(client.get(EVENT).json())[0]["part"]
    return plan


def test_the_demo_shows_the_range_of_the_work(client: TestClient) -> None:
    every = pieces(client.get(EVENT).json())
    kinds = {each["part"]["mechanic"]["kind"] for each in every}
    assert {"folded_cushion", "frog_with_wire", "stacked_pair", "cross_stick_roll", "cup_frog"} <= kinds
    assert any(each["part"]["insert"] for each in every)
    assert any(each["part"]["support"] for each in every)
    assert any(each["part"]["vessel"]["clear"] for each in every)
    assert not any(each["report"]["fixes_tried"] for each in every)
    reports = [
        client.post(f"{EVENT}/evaluate", json={"piece": each["part"], "with_fixes": True}).json() for each in every
    ]
    verdicts = [verdict for report in reports for verdict in report["verdicts"]]
    failing = [verdict for verdict in verdicts if verdict["state"] == "fails"]
    assert failing
    assert all(verdict["fixes"] for verdict in failing)


def test_choosing_gives_every_mechanic_once(client: TestClient, first: dict[str, Any]) -> None:
    options = client.post(f"{EVENT}/choose", json={"piece": first}).json()
    assert len({each["kind"] for each in options}) == len(options) == 26


def test_a_line_of_words_is_understood_and_saves_nothing(client: TestClient, first: dict[str, Any]) -> None:
    body = {"text": "bowl 8 in across 4 in deep, 12 in high, 9 roses, 3 peones", "system": "metric", "piece": first}
    heard = client.post(f"{EVENT}/say", json=body).json()
    assert heard["piece"]["vessel"]["profile"][-1]["width_m"] == pytest.approx(0.2032)
    asked = [(each["words"], each["choices"]) for each in heard["asked"]]
    assert asked == [("peones", ["peony"])]
    assert pieces(client.get(EVENT).json())[0]["part"] == first


@pytest.mark.parametrize(
    ("ending", "kind", "begins"),
    [("svg", "image/svg+xml", b"<?xml"), ("dxf", "image/vnd.dxf", b"  0"), ("pdf", "application/pdf", b"%PDF")],
)
def test_patterns_are_files(client: TestClient, ending: str, kind: str, begins: bytes) -> None:
    answer = client.get(f"{EVENT}/parts/1/patterns.{ending}?paper=Letter")
    assert answer.status_code == 200
    assert answer.headers["content-type"].startswith(kind)
    assert answer.content.startswith(begins)
    assert "long-table-low-bowl" in answer.headers["content-disposition"]


@pytest.mark.parametrize("path", ["pieces/99/patterns.svg", "pieces/1/patterns.doc"])
def test_patterns_that_are_not_there(client: TestClient, path: str) -> None:
    assert client.get(f"{EVENT}/{path}").status_code in (404, 422)


def test_the_trade_names_mechanics_and_schools(client: TestClient) -> None:
    trade = client.get("/api/trade").json()
    assert [each["of"] for each in trade["mechanics"]].count("standing") == 26
    assert Counter(each["of"] for each in trade["mechanics"] if each["of"] != "standing") == {"bouquet": 3, "worn": 3}
    assert {each["field"] for each in trade["schools"]} == {"wire", "fixing", "fill", "pattern", "frog"}
    assert all(each["why"] for each in trade["schools"])


def test_stock_is_whole(client: TestClient) -> None:
    stock = client.get("/api/stock").json()
    assert len(stock["varieties"]) >= 90
    assert len(stock["frogs"]) >= 10
    assert stock["holdings"]["vessel"]["low-bowl-20"]["on_hand"] == 14


def test_things_are_edited_copied_counted_and_retired(client: TestClient) -> None:
    frog = client.get("/api/stock").json()["frogs"]["pin-50"]
    body = {name: value for name, value in frog.items() if name != "key"}
    kept = client.put(based(client, "/api/stock/frog/pin-50"), json={"frog": body | {"mass_kg": 0.35}})
    assert kept.json() == {"key": "pin-50", "revision": client.get("/api/stock").json()["revision"]}
    copied = client.post(based(client, "/api/stock/frog/pin-50/copy")).json()["key"]
    counted = client.put(based(client, f"/api/stock/frog/{copied}/holding"), json={"on_hand": 3, "retired": True})
    assert counted.status_code == 200
    stock = client.get("/api/stock").json()
    assert stock["frogs"][copied]["mass_kg"] == 0.35
    assert stock["holdings"]["frog"][copied] == {
        "on_hand": 3,
        "retired": True,
        "lasts": None,
        "used": 0,
        "resale": None,
    }


@pytest.mark.parametrize(
    ("kind", "change", "path"),
    [
        ("frog", {"width_m": -1}, "width_m"),
        ("frog", {"name": ""}, "name"),
        ("netting", {"aperture_m": 3}, "aperture_m"),
        ("variety", {"colour": "red"}, "colour"),
        ("variety", {"sold_lengths_m": []}, "sold_lengths_m"),
    ],
)
def test_a_bad_thing_is_refused_at_its_field(client: TestClient, kind: str, change: dict[str, Any], path: str) -> None:
    plural = {"frog": "frogs", "netting": "nettings", "variety": "varieties"}[kind]
    key, thing = next(iter(client.get("/api/stock").json()[plural].items()))
    body = {name: value for name, value in thing.items() if name != "key"} | change
    answer = client.put(based(client, f"/api/stock/{kind}/{key}"), json={kind: body})
    assert answer.status_code == 422
    assert path in answer.json()["path"]
    assert client.get("/api/stock").json()[plural][key] == thing


def test_a_table_goes_out_and_comes_in(client: TestClient) -> None:
    text = client.get("/api/tables/variety.csv").text
    dry = client.post(based(client, "/api/tables/variety"), json={"text": text, "dry_run": True}).json()
    assert (dry["added"], dry["changed"], dry["refused"], dry["written"]) == ([], [], [], False)
    changed = text.replace("#c8566b", "#c8566c", 1)
    assert next(row for row in text.splitlines() if "#c8566b" in row).startswith("rose,")
    wet = client.post(based(client, "/api/tables/variety"), json={"text": changed, "dry_run": False}).json()
    assert wet["changed"] == ["rose"]
    assert client.get("/api/stock").json()["varieties"]["rose"]["colour"] == "#c8566c"


def test_a_table_of_another_kind_is_refused_in_a_sentence(client: TestClient) -> None:
    answer = client.post(based(client, "/api/tables/frog"), json={"text": "a;b;c\n1;2;3\n"})
    assert answer.status_code == 422
    assert "semicolons" in answer.json()["message"]["text"]


def test_a_hundred_thousand_rows_are_too_much_and_nothing_is_lost(client: TestClient) -> None:
    text = "key,name,kind\n" + "a,b,pin\n" * 100_000
    answer = client.post(based(client, "/api/tables/frog"), json={"text": text})
    assert answer.status_code in (413, 422)
    assert answer.json()["message"]["text"]
    assert len(client.get("/api/stock").json()["frogs"]) >= 10


def test_an_outline_is_read_from_a_table_and_a_drawing(client: TestClient) -> None:
    table = client.post("/api/outline", json={"text": "0 12\n9.5 20", "written_as": "table"}).json()
    assert table["profile"][1]["width_m"] == pytest.approx(0.20)
    svg = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 100 L30 100 L40 0"/></svg>'
    body = {"text": svg, "written_as": "svg", "inside_depth_m": 0.1, "half": True}
    assert client.post("/api/outline", json=body).json()["profile"][-1]["height_m"] == pytest.approx(0.1)
    asked = client.post("/api/outline", json=body | {"inside_depth_m": None})
    assert asked.status_code == 422
    assert asked.json()["path"] == "inside_depth_m"


def test_a_measured_fill_is_compared(client: TestClient, first: dict[str, Any]) -> None:
    answer = client.post("/api/fill-check", json={"vessel": first["vessel"], "poured_l": 9.0}).json()
    assert not answer["agrees"]
    assert "scaled" in answer["say"]["text"]


@pytest.mark.parametrize(
    ("path", "value", "field"),
    [
        (("support",), {"name": "s", "height_m": 0, "top_width_m": 0.1}, "support.height_m"),
        (("transport",), {"box_wall_m": -1}, "transport.box_wall_m"),
        (("setting", "comes_down_above"), 12, "setting.comes_down_above"),
        (("mechanic", "kind"), "glue", "mechanic.kind"),
        (("envelope", "form"), "spiral", "envelope.form"),
        (("hand_placed",), [{"variety": "rose", "tip_x_m": 99, "tip_y_m": 0, "tip_z_m": 0}], "hand_placed.0.tip_x_m"),
    ],
)
def test_new_measures_are_refused_at_their_place(
    client: TestClient, first: dict[str, Any], path: tuple[str, ...], value: Any, field: str
) -> None:
    changed = dict(first)
    if len(path) == 1:
        changed[path[0]] = value
    else:
        changed[path[0]] = {**first[path[0]], path[1]: value}
    answer = client.post(f"{EVENT}/evaluate", json={"piece": changed})
    assert answer.status_code == 422
    assert answer.json()["path"] == field


def test_practice_is_part_of_the_brief_and_is_undone_with_it(client: TestClient) -> None:
    event = client.get(EVENT).json()
    brief = event["brief"] | {"practice": event["brief"]["practice"] | {"no_single_use_plastic": True}}
    saved = client.put(f"{EVENT}/brief", json={"base_revision": event["revision"], "brief": brief}).json()
    assert saved["brief"]["practice"]["no_single_use_plastic"]
    back = client.post(f"{EVENT}/undo", json={"base_revision": saved["revision"]}).json()
    assert not back["brief"]["practice"]["no_single_use_plastic"]
