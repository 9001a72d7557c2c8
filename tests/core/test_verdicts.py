"""Utilisation, states, and how findings conclude a verdict."""

import pytest

from jolly_trellis.core.checks.verdicts import Finding, conclude, finding, state_of, utilisation
from jolly_trellis.core.plan import facts
from jolly_trellis.core.quantities import length, phrase


def found(used: float) -> Finding:
    return finding(
        check="sway", case="typical", value=length(used), limit=length(1), sense="at most", reason=phrase(str(used))
    )


def test_an_at_most_limit_divides_value_by_limit_and_an_at_least_limit_the_reverse() -> None:
    assert utilisation(value=3, limit=4, sense="at most") == 0.75
    assert utilisation(value=4, limit=3, sense="at least") == 0.75


def test_nothing_against_an_at_least_limit_reads_over_9_99() -> None:
    assert utilisation(value=0, limit=3, sense="at least") > 9.99
    assert utilisation(value=-1, limit=3, sense="at least") > 9.99


def test_a_limit_of_zero_is_no_limit() -> None:
    with pytest.raises(ValueError, match="positive"):
        utilisation(value=1, limit=0, sense="at most")


@pytest.mark.parametrize(("used", "word"), [(0.79, "holds"), (0.8, "tight"), (1.0, "tight"), (1.001, "fails")])
def test_the_word_for_a_utilisation(used: float, word: str) -> None:
    assert state_of(used) == word


def test_the_worst_finding_governs() -> None:
    verdict = conclude("hold", [found(0.3), found(0.9), found(0.5)])
    assert verdict.state == "tight"
    assert verdict.utilisation == 0.9
    assert verdict.reason.text == "0.9"


def test_a_missing_fact_is_never_a_pass() -> None:
    verdict = conclude("hold", [found(0.3)], missing=[facts.VESSEL_WEIGHT.missing()])
    assert verdict.state == "cannot say"
    assert verdict.utilisation is None
    assert "the weight" in verdict.reason.text


def test_what_is_certainly_broken_fails_even_where_a_fact_is_missing() -> None:
    assert conclude("hold", [found(1.3)], missing=[facts.VESSEL_WEIGHT.missing()]).state == "fails"


def test_a_check_with_nothing_to_say_is_a_mistake_of_ours() -> None:
    with pytest.raises(ValueError, match="at least one finding"):
        conclude("hold", [])


def test_not_needed_is_said_with_its_reason() -> None:
    verdict = conclude("stand", [], not_needed=phrase("It slides first."))
    assert (verdict.state, verdict.reason.text) == ("not needed", "It slides first.")
