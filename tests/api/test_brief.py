"""What the brief of a job takes: people with hours and skills, suppliers, a day of building; a sentence else."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

EVENT = "/api/events/1"
MEMBER = {
    "name": "Wren",
    "skills": ["drives"],
    "comes": "09:00",
    "goes": "17:30",
    "does": "strike",
    "rate_per_h": "28.00",
}
SUPPLIER = {"name": "Market", "opens": "05:00", "closes": "11:00", "days": ["mon"], "sells": ["rose"]}


def put(client: TestClient, **changes: Any) -> Any:
    event = client.get(EVENT).json()
    body = {"base_revision": event["revision"], "brief": event["brief"] | changes}
    return client.put(f"{EVENT}/brief", json=body)


def test_people_and_suppliers_are_kept_as_they_are_said(client: TestClient) -> None:
    kept = put(client, crew=[MEMBER], suppliers=[SUPPLIER], builds_from="2027-05-14T12:00", builds_to=None)
    assert kept.status_code == 200
    brief = client.get(EVENT).json()["brief"]
    assert brief["crew"] == [MEMBER | {"key": "wren"}]
    assert brief["suppliers"] == [SUPPLIER | {"key": "market"}]
    assert brief["builds_from"] == "2027-05-14T12:00"


@pytest.mark.parametrize(
    ("changes", "path", "words"),
    [
        ({"crew": [MEMBER | {"goes": "09:00"}]}, "crew.0.goes", "goes when they come"),
        ({"suppliers": [SUPPLIER | {"closes": "05:00"}]}, "suppliers.0.closes", "closes before it opens"),
        ({"suppliers": [SUPPLIER | {"days": []}]}, "suppliers.0.days", ""),
        ({"suppliers": [SUPPLIER | {"sells": ["moon flower"]}]}, "suppliers.0.sells", "is no variety of the stores"),
        ({"builds_from": "2027-05-14T12:00", "builds_to": "2027-05-14T11:00"}, "builds_to", "ends before it begins"),
        ({"builds_from": "2027-05-15T09:00", "builds_to": None}, "builds_from", "goes on after the place opens"),
    ],
    ids=["no length", "shut", "closed all week", "unknown", "backwards", "on the day"],
)
def test_what_cannot_be_is_answered_beside_its_field(
    client: TestClient, changes: dict[str, Any], path: str, words: str
) -> None:
    before = client.get(EVENT).json()["brief"]
    refused = put(client, **changes)
    assert refused.status_code == 422
    said = refused.json()
    assert said["path"].removeprefix("brief.").removeprefix("body.") == path
    assert words in said["message"]["text"]
    assert client.get(EVENT).json()["brief"] == before


def test_one_end_of_a_persons_hours_is_enough(client: TestClient) -> None:
    assert put(client, crew=[MEMBER | {"goes": None}]).status_code == 200
    assert put(client, crew=[MEMBER | {"comes": None}]).status_code == 200


def test_each_of_the_crew_has_a_calendar_of_their_own(client: TestClient) -> None:
    text = client.get(f"{EVENT}/day.ics", params={"person": "sorrel"})
    assert text.status_code == 200
    assert "BEGIN:VALARM" in text.text
    assert "X-WR-CALNAME:Reopening supper, Sorrel" in text.text.replace("\r\n ", "")
    assert client.get(f"{EVENT}/day.ics", params={"person": "Nobody"}).status_code == 404
