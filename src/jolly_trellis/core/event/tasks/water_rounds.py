"""Water rounds: when, which piece, how much, how many litres in all, and who carries them."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.books.water import needed_hours
from jolly_trellis.core.event.job import Job, Made, PieceWork
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.setting import TopUp
from jolly_trellis.core.provenance import COMMON_PRACTICE

TOGETHER = rule("Top-ups this close are done in one round", "duration", 0.5, COMMON_PRACTICE)


@dataclass(frozen=True, slots=True, kw_only=True)
class Pour:
    """Water for one piece in a round: litres into each of so many; `vessel` names one of several, "" the only one."""

    piece_id: int
    piece: str
    vessel: str
    each_l: float
    quantity: int

    @property
    def litres(self) -> float:
        """Litres for all of them."""
        return self.each_l * self.quantity


@dataclass(frozen=True, slots=True, kw_only=True)
class Round:
    """One round: when it begins, what is poured, how much in all, L."""

    at: datetime
    pours: tuple[Pour, ...]
    litres: float


@dataclass(frozen=True, slots=True, kw_only=True)
class DryPiece:
    """A piece that runs dry before the end as it is planned, and when: still to settle."""

    piece_id: int
    piece: str
    at: datetime


@dataclass(frozen=True, slots=True, kw_only=True)
class WaterRounds:
    """All water poured at the place: at first, round by round, in all, L; who does it, None nobody; what runs dry.

    `not_worked_out` names pieces whose filling is not known, and is in no sum.
    """

    filled_at: datetime | None
    fill: tuple[Pour, ...]
    fill_l: float
    rounds: tuple[Round, ...]
    total_l: float
    who: str | None
    dry: tuple[DryPiece, ...]
    not_worked_out: tuple[str, ...]


def water_rounds(job: Job, made: Made, conditions: Conditions) -> WaterRounds:
    """Gather every pour of an event: top-ups within half an hour of one another make one round, at the first's time.

    Source: top-ups and first dry stem as each piece's Drink.
    """
    start = job.filled_at
    fill = first_fill(made)
    fill_l = sum(each.litres for each in fill)
    rounds = () if start is None else rounds_of(made, start)
    return WaterRounds(
        filled_at=start,
        fill=fill,
        fill_l=fill_l,
        rounds=rounds,
        total_l=fill_l + sum(each.litres for each in rounds),
        who=job.topped_up_by,
        dry=tuple(_dry(made, conditions, start)) if start is not None else (),
        not_worked_out=tuple(
            work.piece.name for work in made.pieces if work.report is None and not work.piece.carried
        ),
    )


def rounds_of(made: Made, start: datetime) -> tuple[Round, ...]:
    """Top-ups within half an hour of one another make one round, at the first's time. Source: top-ups of the plan."""
    rounds: list[Round] = []
    for at, pour in sorted(_pours(made, start), key=lambda each: (each[0], each[1].piece_id)):
        if rounds and (at - rounds[-1].at) <= timedelta(hours=TOGETHER.value):
            last = rounds[-1]
            rounds[-1] = Round(at=last.at, pours=(*last.pours, pour), litres=last.litres + pour.litres)
        else:
            rounds.append(Round(at=at, pours=(pour,), litres=pour.litres))
    return tuple(rounds)


def first_fill(made: Made) -> tuple[Pour, ...]:
    """What is poured at the place before guests: into every vessel what it comes short of its level on show, into a
    support its ballast; bouquets are carried. Source: levels on show and on the road.
    """
    return tuple(
        Pour(piece_id=work.id, piece=work.piece.name, vessel=vessel, each_l=litres, quantity=work.piece.quantity)
        for work in made.pieces
        if work.report is not None and not work.piece.carried
        for vessel, litres in (*work.report.poured_l, *_ballast(work))
    )


def _ballast(work: PieceWork) -> tuple[tuple[str, float], ...]:
    support = work.piece.support
    return () if support is None or support.water_l <= 0 else ((support.name, support.water_l),)


def _pours(made: Made, start: datetime) -> list[tuple[datetime, Pour]]:
    found = []
    for work in made.pieces:
        vessels: list[tuple[str, tuple[TopUp, ...]]] = [("", work.piece.top_ups)]
        vessels += [(each.name, each.top_ups) for each in work.piece.companions]
        for vessel, top_ups in vessels:
            for each in top_ups:
                at = _floored((start.astimezone(UTC) + timedelta(hours=each.after_h)).astimezone(start.tzinfo))
                pour = Pour(
                    piece_id=work.id,
                    piece=work.piece.name,
                    vessel=vessel,
                    each_l=each.volume_l,
                    quantity=work.piece.quantity,
                )
                found.append((at, pour))
    return found


def _dry(made: Made, conditions: Conditions, start: datetime) -> list[DryPiece]:
    needed = needed_hours(conditions)
    if needed is None:
        return []
    return [
        DryPiece(piece_id=work.id, piece=work.piece.name, at=_floored(_after(start, dry)))
        for work in made.pieces
        if not work.piece.carried and (dry := _first_dry_h(work)) is not None and dry < needed
    ]


def _first_dry_h(work: PieceWork) -> float | None:
    """Hours to the first dry stem in the worst case that Drink judges; None where none was judged."""
    if work.report is None:
        return None
    drink = next((each for each in work.report.verdicts if each.verb == "drink"), None)
    hours = [] if drink is None else [each.value.value for each in drink.findings if each.check == "lasts"]
    return min(hours, default=None)


def _after(start: datetime, hours: float) -> datetime:
    return (start.astimezone(UTC) + timedelta(hours=hours)).astimezone(start.tzinfo)


def _floored(at: datetime) -> datetime:
    return at.replace(minute=at.minute - at.minute % 5, second=0, microsecond=0)
