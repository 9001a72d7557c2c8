"""The same number wherever it is read: headline, cost, lists, day, water rounds, calendar, pack."""

import re
from datetime import datetime
from decimal import Decimal
from html import unescape
from typing import Any

import icalendar
import pytest
from fastapi.testclient import TestClient

EVENT = "/api/events/1"


@pytest.fixture
def read(client: TestClient) -> dict[str, Any]:
    """Everything that the screens of the demo's event show."""
    day: dict[str, Any] = client.get(f"{EVENT}/day?wait_s=60").json()
    assert not day["running"]
    return {
        "day": day,
        "headline": client.get(f"{EVENT}/standing").json()["headline"],
        "lists": client.get(f"{EVENT}/lists").json(),
        "cost": client.get(f"{EVENT}/cost").json()["cost"],
        "calendar": client.get(f"{EVENT}/day.ics").text,
        "pack": client.get(f"{EVENT}/pack.html").text,
    }


def test_minutes_are_one_sum_on_the_sheet_in_the_price_and_over_the_line_up(read: dict[str, Any]) -> None:
    sheet = sum(each["task"]["minutes"] * each["task"]["hands"] for each in read["day"]["day"]["timed"])
    assert read["cost"]["minutes"] == sheet
    assert read["headline"]["minutes"] == sheet
    assert sum(each["minutes"] for each in read["cost"]["pieces"]) == sheet


def test_money_is_one_sum(read: dict[str, Any]) -> None:
    cost, headline = read["cost"], read["headline"]
    assert (headline["cost"], headline["price"]) == (cost["cost"], cost["asked"])
    for field in ("cost", "price"):
        assert sum(Decimal(each[field]) for each in (*cost["pieces"], *cost["lines"])) == Decimal(cost[field])


def test_stems_that_are_bought_are_those_that_are_fetched_and_conditioned(read: dict[str, Any]) -> None:
    bought = sum(each["bunches"] * each["bunch_size"] + each["singles"] for each in read["lists"]["shopping"]["stems"])
    tasks = [each["task"] for each in read["day"]["day"]["timed"]]
    named = (re.search(r"Fetch (\d+) stems", each["name"]) for each in tasks if each["stage"] == "collect")
    fetched = [int(found[1]) for found in named if found is not None]
    assert sum(fetched) == bought
    assert read["headline"]["stems"] == sum(each["in_recipes"] for each in read["lists"]["shopping"]["stems"])


def test_each_variety_is_fetched_on_the_day_that_the_lists_say(read: dict[str, Any]) -> None:
    fetched = {
        key: (each["starts_at"][:10], each["task"]["name"].split(": ")[1])
        for each in read["day"]["day"]["timed"]
        if each["task"]["stage"] == "collect"
        for key in each["task"]["varieties"]
    }
    listed = {each["variety"]: (each["buy_on"], each["supplier"]) for each in read["lists"]["days"] if each["buy_on"]}
    assert fetched == listed


def test_water_is_filled_topped_up_and_named_alike(read: dict[str, Any]) -> None:
    water, timed = read["day"]["water"], read["day"]["day"]["timed"]
    assert read["headline"]["water_l"] == pytest.approx(water["fill_l"])
    rounds = [each for each in timed if each["task"]["stage"] == "top up"]
    at = [datetime.fromisoformat(each["starts_at"]) for each in rounds]
    assert at == [datetime.fromisoformat(each["at"]) for each in water["rounds"]]
    assert {each["task"]["by"] for each in rounds} == {water["who"]}


def test_the_calendar_and_the_pack_have_every_task_at_its_time(read: dict[str, Any]) -> None:
    calendar: Any = icalendar.Calendar.from_ical(read["calendar"])
    told = {str(each["uid"]).split("@")[0]: each["dtstart"].dt.timestamp() for each in calendar.walk("VEVENT")}
    sheet = {
        f"1.{each['task']['key']}": datetime.fromisoformat(each["starts_at"]).timestamp()
        for each in read["day"]["day"]["timed"]
    }
    assert told == sheet
    for each in read["day"]["day"]["timed"]:
        assert each["task"]["name"] in unescape(read["pack"])
