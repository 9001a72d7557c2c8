"""Money, decimal and to the cent."""

from collections.abc import Sequence
from decimal import ROUND_HALF_UP, Decimal

CENT = Decimal("0.01")
NOTHING = Decimal("0.00")


def money(price: float) -> Decimal:
    """A price as it was typed, to the cent. Source: definition; halves go up."""
    return to_cent(Decimal(str(price)))


def to_cent(amount: Decimal) -> Decimal:
    """An amount to the cent, halves up. Source: definition."""
    return amount.quantize(CENT, rounding=ROUND_HALF_UP)


def share(part: float) -> Decimal:
    """A share as it was typed, decimal. Source: definition."""
    return Decimal(str(part))


def price_at_margin(cost: Decimal, margin: float) -> Decimal:
    """What to ask so that a share of the price is kept: cost ÷ (1 − margin), to the cent.

    Args:
        margin: share of the price, 0 ≤ margin < 1.
    Source: definition of a margin on the price.
    """
    return to_cent(cost / (1 - share(margin)))


def shared_out(amount: Decimal, weights: Sequence[float]) -> tuple[Decimal, ...]:
    """An amount shared out by weight in whole cents that add up to it again: the largest remainders get the odd cents.

    Args:
        weights: each ≥ 0, one at least > 0.
    Source: method of largest remainders.
    """
    total = sum(Decimal(str(each)) for each in weights)
    exact = [amount * Decimal(str(each)) / total for each in weights]
    cents = [each.quantize(CENT, rounding="ROUND_FLOOR") for each in exact]
    odd = int((amount - sum(cents)) / CENT)
    order = sorted(range(len(cents)), key=lambda index: (cents[index] - exact[index], index))
    for index in order[:odd]:
        cents[index] += CENT
    return tuple(cents)
