"""What is hired for an event: how many of a thing on a day, what it costs, and what goes back too soon."""

from collections.abc import Iterable, Iterator
from datetime import date
from decimal import Decimal

from jolly_trellis.core.event.job import Hire
from jolly_trellis.core.event.money import to_cent
from jolly_trellis.core.quantities import Phrase, phrase


def hired_on(hires: Iterable[Hire], thing: str, day: date) -> int:
    """How many of a thing are there by hire on a day; the day it comes and the day it goes back are in it."""
    return sum(
        each.number
        for each in hires
        if each.of == thing and date.fromisoformat(each.comes) <= day <= date.fromisoformat(each.goes_back)
    )


def hired(hires: Iterable[Hire]) -> dict[str, int]:
    """How many of each thing are hired in all, by what tells it from others."""
    found: dict[str, int] = {}
    for each in hires:
        found[each.of] = found.get(each.of, 0) + each.number
    return found


def hire_cost(hire: Hire) -> Decimal | None:
    """What a hire comes to: number × each, and what the lender asks for damage; None where no price is known."""
    return None if hire.each is None else to_cent(hire.number * hire.each + hire.damage)


def out_of_time(hires: Iterable[Hire], span: tuple[date, date] | None) -> Iterator[Phrase]:
    """Hires that come after things leave for the event, or go back before they are home, in words.

    Args:
        span: the day that things leave, and the day they are home; None not known.
    """
    if span is None:
        return
    leaves, home = span
    for each in hires:
        comes, back = date.fromisoformat(each.comes), date.fromisoformat(each.goes_back)
        if comes > leaves:
            yield phrase(
                "{name} from {lender} comes on {comes}, and the van leaves on {leaves}: have it a day sooner.",
                name=each.name,
                lender=each.lender,
                comes=f"{comes:%d %b}",
                leaves=f"{leaves:%d %b}",
            )
        if back < home:
            yield phrase(
                "{name} goes back to {lender} on {back}, and is home from the event on {home}: ask for longer.",
                name=each.name,
                lender=each.lender,
                back=f"{back:%d %b}",
                home=f"{home:%d %b}",
            )
