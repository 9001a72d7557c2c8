"""Two hundred random plans are answered as before, to the last word and the ninth digit."""

import pytest

from tests import answers
from tests.generated import LONG

SHARES = 10


@pytest.mark.parametrize("share", range(SHARES))
def test_random_plans_are_answered_as_they_were(share: int) -> None:
    told = []
    for seed in range(share, answers.MANY, SHARES):
        name, *_ = answers.plan_of(seed)
        kept = answers.kept()[str(seed)]
        if not LONG:
            kept = {path: each for path, each in kept.items() if not path.startswith(answers.DEAR)}
        found = answers.differences(kept, answers.answer_of(seed, dear=LONG))
        told += [f"plan {seed} ({name}): {each}" for each in found]
    assert told == []


def test_the_plans_are_of_all_kinds_and_some_are_refused() -> None:
    kinds = [answers.plan_of(seed)[1].kind for seed in range(answers.MANY)]
    assert {kind: kinds.count(kind) >= 15 for kind in ("standing", "bouquet", "rig")} == dict.fromkeys(
        ("standing", "bouquet", "rig"), True
    )
    refused = [seed for seed, answer in answers.kept().items() if any(".refused" in path for path in answer)]
    assert 2 <= len(refused) <= 60


def test_what_differs_is_told() -> None:
    was: answers.Plain = {"a.say.metric": ["8 cm"], "b": [1.0, 2.0], "c": [True], "picture as sums": [1.0, 2.0, 3]}
    assert answers.differences(was, was) == []
    assert answers.differences(was, was | {"b": [1.0, 2.0 * (1 + 1e-10)]}) == []
    for path, value in (
        ("a.say.metric", ["9 cm"]),
        ("b", [1.0, 2.0 * (1 + 2e-9)]),
        ("b", [1.0]),
        ("c", [1]),
        ("picture as sums", [1.0, 2.0, 4]),
    ):
        assert len(answers.differences(was, was | {path: value})) == 1, (path, value)
    assert answers.differences(was, {key: each for key, each in was.items() if key != "c"}) != []
