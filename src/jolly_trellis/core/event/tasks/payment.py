"""What is paid before anything is bought, and what waits for it."""

from dataclasses import dataclass
from decimal import Decimal

from jolly_trellis.core.event.job import Job
from jolly_trellis.core.event.money import NOTHING, share, to_cent
from jolly_trellis.core.quantities import Phrase, phrase


@dataclass(frozen=True, slots=True, kw_only=True)
class Payment:
    """What is to be paid before, what has been, what is still due of it and of all; None while no price is known."""

    deposit: Decimal | None
    paid: Decimal
    deposit_due: Decimal | None
    due: Decimal | None


def payment_of(job: Job, asked: Decimal | None) -> Payment:
    """What is to be paid before anything is bought: a share of what was accepted, or of what would be asked now.

    Args:
        asked: today's price with tax, None not known.
    """
    whole = asked if job.quote is None else job.quote.asked
    paid = to_cent(job.costing.paid)
    deposit = None if whole is None else to_cent(whole * share(job.costing.deposit))
    return Payment(
        deposit=deposit,
        paid=paid,
        deposit_due=None if deposit is None else max(deposit - paid, NOTHING),
        due=None if whole is None else max(whole - paid, NOTHING),
    )


def buying_gate(job: Job) -> Phrase | None:
    """Why nothing is bought yet, where the studio waits for the deposit; None where it does not, or it is paid."""
    if not job.costing.waits:
        return None
    if job.quote is None:
        return phrase("Not before the client has accepted a price.")
    due = payment_of(job, None).deposit_due
    if not due:
        return None
    return phrase(
        "Not before the deposit is paid: {due} of {deposit} {currency} is still due.",
        due=f"{due}",
        deposit=f"{payment_of(job, None).deposit}",
        currency=job.quote.currency,
    )
