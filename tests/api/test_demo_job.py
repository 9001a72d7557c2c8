"""The demo job, laid beside the studio's own: an event like any other, with the survey of its place."""

from fastapi.testclient import TestClient


def test_the_demo_job_is_laid_beside_and_put_away_like_any_other(client: TestClient) -> None:
    own = client.post("/api/events", json={"name": "Slipway lunch", "time_zone": "Europe/Paris"}).json()
    begun = client.post("/api/events/demo")
    assert begun.status_code == 201
    laid = begun.json()
    assert laid["brief"]["name"] == "Reopening supper"
    listed = client.get("/api/events").json()
    assert {each["id"] for each in listed} == {1, own["id"], laid["id"]}
    assert laid in listed
    full = client.get(f"/api/events/{laid['id']}").json()
    assert len(full["parts"]) > 10
    survey = client.get(f"/api/events/{laid['id']}/survey").json()
    assert survey["survey"]["points"]
    assert client.delete(f"/api/events/{laid['id']}").status_code == 204
    assert {each["id"] for each in client.get("/api/events").json()} == {1, own["id"]}
    assert [each["id"] for each in client.get("/api/events/deleted").json()] == [laid["id"]]


def test_a_second_demo_job_is_another_event_at_the_same_place(client: TestClient) -> None:
    first, second = (client.post("/api/events/demo").json() for _ in range(2))
    assert first["id"] != second["id"]
    assert first["brief"]["place"] == second["brief"]["place"]
    points = [client.get(f"/api/events/{each['id']}/survey").json()["survey"] for each in (first, second)]
    assert points[0] == points[1]
