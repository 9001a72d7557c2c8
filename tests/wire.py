"""What the tests send to the application and take from its answers."""

from typing import Any

import httpx2 as httpx
from fastapi.testclient import TestClient

Json = dict[str, Any]
# Where the application behind doors is asked.
HERE = "127.0.0.1:8420"


def pieces(event: Json) -> list[Json]:
    """The parts of an answer that stand or are carried."""
    return [each for each in event["parts"] if each["part"]["kind"] != "rig"]


def rigs(event: Json) -> list[Json]:
    """The parts of an answer that hang or are mounted."""
    return [each for each in event["parts"] if each["part"]["kind"] == "rig"]


def put(part: Json, *, base: int = 1, label: str | None = None) -> Json:
    """The body that saves a part, or adds one."""
    return {"part": part, "base_revision": base} | ({} if label is None else {"label": label})


def based(client: TestClient, path: str) -> str:
    """The address of a write to the stores, based on them as they stand."""
    return f"{path}?base_revision={client.get('/api/stock').json()['revision']}"


def refusal(answer: httpx.Response) -> Json:
    """The body of a refusal, which is of one shape."""
    body: Json = answer.json()
    assert {"code", "path", "message", "limit"} <= body.keys()
    assert set(body["message"]) == set(body["limit"]) == {"text", "quantities"}
    assert body["message"]["text"]
    return body
