"""What the making view shows: every step with its margins, gates between, the pull list, read-outs of balance."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import numpy.typing as npt

from jolly_trellis.core.books.bodies import CASES, in_hand
from jolly_trellis.core.building.build import Build, build
from jolly_trellis.core.checks import hold_swing, lift_hand, making_order, stand, stand_ledge, stand_making
from jolly_trellis.core.checks.balance import compass
from jolly_trellis.core.checks.fixing import Candidate, proven
from jolly_trellis.core.checks.making_order import TIP_MAKING, Margins, Order, Work
from jolly_trellis.core.checks.making_phases import PHASES
from jolly_trellis.core.checks.verdicts import Finding, Fix, State, Verdict, conclude, state_of
from jolly_trellis.core.geometry import Array
from jolly_trellis.core.making.pull_list import PullLine, pull_list
from jolly_trellis.core.making.shares import Shares, shares_of
from jolly_trellis.core.missing import Missing
from jolly_trellis.core.plan.conditions import Conditions
from jolly_trellis.core.plan.kinds import is_worn
from jolly_trellis.core.plan.piece import Piece, StemRef
from jolly_trellis.core.quantities import Phrase, count, level_least, mass, moment, phrase
from jolly_trellis.core.units import round_up

_MOST_DRAWN = 5.0
Rows = npt.NDArray[np.intp]
MarginKind = Literal["tip angle", "ledge ratio", "wrist moment"]
GateKey = Literal[
    "tucked",
    "dry when taped",
    "bonded",
    "weighted",
    "water in",
    "rim covered",
    "bound",
    "seen from all sides",
    "nudged",
]


@dataclass(frozen=True, slots=True, kw_only=True)
class Gate:
    """Something to see to before going on: before which step it comes (the number of steps for the end)."""

    key: GateKey
    before: int
    say: Phrase
    passed: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Moment:
    """How it stands at one moment: balance point, least tip angle and where to, ledge ratio (None on no ledge).

    `use` is the worst of all margins against their limits while making, 1.0 at the limit; `falls` tells that it has
    gone over. `seat_use` is the mechanic's moment over what it takes.
    """

    mass_kg: float
    x_m: float
    y_m: float
    height_m: float
    tip_angle_rad: float
    towards: str
    ledge_ratio: float | None
    seat_use: float
    use: float
    state: State
    falls: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class MakingStep:
    """One stem or clump going in: which, cut how long, and how it all stands after it.

    `lay` says how a bouquet's stem is laid. `row` is its place among the report's stems. `sway_use` is the worst
    head's sway over what is allowed of the stems so far (judged at the end only); `crowding` the share of the
    mechanic's capacity taken; `water_level_m` in its own vessel. `moment` is None where nobody has measured what it
    stands by.
    """

    ref: StemRef
    row: int
    variety: str
    name: str
    colour: str
    role: str
    phase: str
    nth: int
    of: int
    stems: int
    cut_length_m: float
    side: str
    lay: str
    moment: Moment | None
    sway_use: float
    crowding: float
    water_level_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class MakingReport:
    """The making order of a piece as it is kept, or the usual one: `kept` tells which.

    `left_out` says what a kept order leaves out, None where it is whole; `curve` is the margin nearest the limit after
    each step and before the first, in the unit of `margin`, with `limit`, empty where it cannot be said. `fails_at` is
    the first step past its limit, `falls_at` the first at which it has gone over.
    """

    kept: bool
    propped: bool
    left_out: Phrase | None
    start: Moment | None
    steps: tuple[MakingStep, ...]
    gates: tuple[Gate, ...]
    margin: MarginKind
    limit: float
    curve: tuple[float, ...]
    fails_at: int | None
    falls_at: int | None
    say: Phrase
    state: State
    fixes: tuple[Fix, ...]
    pull: tuple[PullLine, ...]
    shares: Shares | None


def making_of(piece: Piece, conditions: Conditions, *, with_fixes: bool = True) -> MakingReport:
    """Work out the making order of a piece.

    Args:
        piece, conditions: as for `evaluate`.
        with_fixes: also search for a better order and for weights where a step falls past its limit.
    Raises: CoreError: the plan cannot be computed, or the recipe is empty.
    """
    with conditions.figures.open():
        return _making_of(piece, conditions, with_fixes)


def _making_of(piece: Piece, conditions: Conditions, with_fixes: bool) -> MakingReport:
    made = build(piece, conditions)
    work = making_order.lay_out(made)
    order, left = making_order.kept_order(work, piece.making.order)
    unknown = [] if piece.carried or not len(order) else stand.unknown(made)
    if unknown:
        return _without_balance(made, work, order, left, unknown)
    margins = making_order.walk(work, order)
    margin, curve, limit = _curve(made, order, margins)
    if margin == "wrist moment":
        upright = np.full(len(curve), np.pi / 2)
        bare_kg = sum(each.mass_kg for each in in_hand(made, "typical") if each.thing == "mechanic")
        mass_kg = bare_kg + np.concatenate([[0.0], np.cumsum(made.rows.mass_kg[order])])
        margins = replace(margins, use=curve / limit, tip_angle_rad=upright, mass_kg=mass_kg)
    moments: list[Moment | None] = [_moment(margins, step) for step in range(len(order) + 1)]
    found = stand_making.judge_making(made)
    fixes = _fixes(made, found) if with_fixes and stand_making.first_over(margins) is not None else ()
    return MakingReport(
        kept=bool(piece.making.order),
        propped=piece.making.propped,
        left_out=_left_out(left) if piece.making.order and left else None,
        start=moments[0],
        steps=_steps(made, work, order, moments),
        gates=_gates(made, work, order),
        margin=margin,
        limit=limit,
        curve=tuple(curve.tolist()),
        fails_at=stand_making.first_over(margins),
        falls_at=None if made.piece.carried else stand_making.first_fall(margins),
        say=_say(made, found, moments, curve),
        state=state_of(float(margins.use.max())),
        fixes=fixes,
        pull=pull_list(made, work, order),
        shares=shares_of(made),
    )


def _without_balance(made: Build, work: Work, order: Order, left: int, unknown: list[Missing]) -> MakingReport:
    """The order, its gates and what to pull, of a piece whose balance nobody can know yet."""
    making, on_ledge = made.piece.making, made.piece.setting.where == "ledge"
    verdict = conclude("stand", [], missing=unknown)
    return MakingReport(
        kept=bool(making.order),
        propped=making.propped,
        left_out=_left_out(left) if making.order and left else None,
        start=None,
        steps=_steps(made, work, order, [None] * (len(order) + 1)),
        gates=_gates(made, work, order),
        margin="ledge ratio" if on_ledge else "tip angle",
        limit=stand_ledge.MAKING_FACTOR.value if on_ledge else float(np.degrees(TIP_MAKING.value)),
        curve=(),
        fails_at=None,
        falls_at=None,
        say=verdict.reason,
        state=verdict.state,
        fixes=(),
        pull=pull_list(made, work, order),
        shares=shares_of(made),
    )


def _fixes(made: Build, found: list[Finding]) -> tuple[Fix, ...]:
    """What would keep it up while it is being made; the finished piece has its own verdict."""
    if not found:
        return ()

    def judge(each: Build) -> Verdict:
        findings = stand_making.judge_making(each)
        return conclude("stand", findings, not_needed=phrase("Propped until the last stem is in."))

    candidates: list[Candidate] = stand_making.candidates(made)
    if made.piece.setting.where == "ledge":
        reach = stand.widest_reach_height_m(made)
        needed = max(stand_ledge.needed_kg(made, case, reach) for case in CASES)
        candidates += stand_ledge.candidates(made, least_kg=needed)
    return proven(candidates, made, judge)


def _say(made: Build, found: list[Finding], moments: list[Moment | None], curve: Array) -> Phrase:
    if not moments[1:]:
        return phrase("The recipe is empty: add stems, and the order builds up here.")
    if made.piece.making.propped:
        return phrase("Propped or held until the last stem is in: the steps show what the prop carries.")
    if made.piece.carried:
        words = "In the hand it turns the wrist with up to {m}; {limit} is the most for a short while."
        return phrase(words, m=moment(float(curve.max())), limit=lift_hand.WRIST_SHORT.quantity)
    return found[0].reason


def _curve(made: Build, order: Order, margins: Margins) -> tuple[MarginKind, Array, float]:
    """The margin that is drawn over the steps, and its limit: wrist moment, ledge ratio, or tip angle in degrees."""
    if made.piece.carried:
        return "wrist moment", lift_hand.wrist_so_far_n_m(made, order), lift_hand.WRIST_SHORT.value
    if made.piece.setting.where == "ledge":
        return "ledge ratio", np.minimum(margins.ledge_ratio, _MOST_DRAWN), stand_ledge.MAKING_FACTOR.value
    return "tip angle", np.degrees(margins.tip_angle_rad), float(np.degrees(TIP_MAKING.value))


def _moment(margins: Margins, step: int) -> Moment:
    held = float(margins.ledge_ratio[step])
    use = float(margins.use[step])
    return Moment(
        mass_kg=float(margins.mass_kg[step]),
        x_m=float(margins.x_m[step]),
        y_m=float(margins.y_m[step]),
        height_m=float(margins.height_m[step]),
        tip_angle_rad=float(margins.tip_angle_rad[step]),
        towards=compass(int(margins.towards[step])),
        ledge_ratio=held if np.isfinite(held) else None,
        seat_use=float(margins.seat_use[step]),
        use=use,
        state=state_of(use),
        falls=stand_making.falls(margins, step),
    )


def _steps(made: Build, work: Work, order: Order, moments: list[Moment | None]) -> tuple[MakingStep, ...]:
    builds = (made, *made.companions)
    starts = np.cumsum([0, *(len(each.placement.stems) for each in builds)])
    running = [
        _Running(each, [int(row - starts[at]) for row in order if starts[at] <= row < starts[at + 1]])
        for at, each in enumerate(builds)
    ]
    colours = [each.placement.stems.colours(each.placement.tip_m[:, 0], each.placement.tip_m[:, 1]) for each in builds]
    steps, counted = [], stand_making.counted(work, order)
    for step, row in enumerate(order.tolist(), start=1):
        ref = work.refs[row]
        each, own = builds[ref.vessel], int(row - starts[ref.vessel])
        now = running[ref.vessel].at(own)
        variety = each.placement.stems.variety_of(own)
        nth, of = counted[step - 1]
        steps.append(
            MakingStep(
                ref=ref,
                row=row,
                variety=variety.key,
                name=variety.name,
                colour=colours[ref.vessel][own],
                role=each.placement.stems.role_of(own),
                phase=PHASES[work.phase[row]],
                nth=nth,
                of=of,
                stems=int(each.placement.stems.stems_in_row[own]),
                cut_length_m=round_up(float(each.placement.cut_length_m[own]), 0.02),
                side=_side(each, own),
                lay=_lay(each, own),
                moment=moments[step],
                sway_use=now[0],
                crowding=now[1],
                water_level_m=now[2],
            )
        )
    return tuple(steps)


class _Running:
    """Free play, crowding and water of one vessel after each of its own stems, worked out once."""

    def __init__(self, build_: Build, order: list[int]) -> None:
        rows = np.array(order, dtype=np.intp)
        stems = build_.placement.stems
        self._place = {row: index for index, row in enumerate(order)}
        number = np.cumsum(stems.stems_in_row[rows]) if len(rows) else np.zeros(0)
        self._crowding = number / max(build_.mechanic.capacity, 1)
        self._sway = _sway_so_far(build_, rows)
        self._water = _levels_so_far(build_, rows)

    def at(self, row: int) -> tuple[float, float, float]:
        """(worst sway over its limit, share of the capacity, water level in metres) once a row is in."""
        place = self._place[row]
        return float(self._sway[place]), float(self._crowding[place]), float(self._water[place])


def _sway_so_far(build_: Build, rows: Rows) -> Array:
    """Worst sway over its limit among the stems in so far: fewer stems crowd and lock less, so heads swing wider."""
    if len(rows) == 0:
        return np.zeros(0)
    step_of = np.zeros(len(build_.placement.stems), dtype=np.intp)
    step_of[rows] = np.arange(len(rows))
    among = step_of <= np.arange(len(rows))[:, None]
    play = hold_swing.stems_play(build_, among)
    return np.asarray(np.where(among, play.sway_m / play.sway_limit_m, -np.inf).max(axis=1))


def _levels_so_far(build_: Build, rows: Rows) -> Array:
    """Water level after each stem: stems in push it up to where it stands at the end, by their sections' share."""
    if len(rows) == 0:
        return np.zeros(0)
    level = build_.piece.water_level_m
    stems, found = build_.placement.stems, build_.placement.found
    under = (
        np.clip(level - build_.placement.end_height_m, 0.0, None) * found.slant * build_.placement.stems.from_vessel
    )
    pushed = np.cumsum((np.pi / 4 * stems.diameter_m**2 * under)[rows])
    area = float(np.interp(level, build_.water.level_m, build_.water.area_m2))
    return np.asarray(level - (pushed[-1] - pushed) / max(area, 1e-6))


def _side(build_: Build, row: int) -> str:
    x, y = (float(build_.placement.tip_m[row, axis]) for axis in (0, 1))
    if np.hypot(x, y) < 0.03:
        return "middle"
    names = ("front", "front right", "right", "back right", "back", "back left", "left", "front left")
    return names[round(float(np.arctan2(x, -y)) / (np.pi / 4)) % 8]


def _lay(build_: Build, row: int) -> str:
    """How a bouquet's next stem is laid, in words; empty for a piece in a vessel."""
    if not build_.piece.carried:
        return ""
    if not build_.mechanic.crosses:
        return "through the armature"
    front = float(build_.placement.tip_m[row, 1]) <= 0
    return "in front, foot to the left" if front else "behind, foot to the right"


def _left_out(left: int) -> Phrase:
    return phrase(
        "The order leaves out {n} {n|stem|stems} of the recipe: they come last until you place them, "
        "or take the usual order again.",
        n=count(left),
    )


def _gates(made: Build, work: Work, order: Order) -> tuple[Gate, ...]:
    piece, mechanic, end = made.piece, made.mechanic, len(order)
    greened = [step for step, row in enumerate(order.tolist()) if work.phase[row] <= PHASES.index("greens")]
    covered = max(greened, default=-1) + 1
    gates: list[tuple[GateKey, int, Phrase]] = []
    if mechanic.flat:
        gates.append(("tucked", 0, phrase("Cut ends tucked in all round: feel for them, gloved.")))
    if mechanic.tape_strips or mechanic.putty_ring_m:
        gates.append(("dry when taped", 0, phrase("Rim clean and dry when tape or putty goes on; water after.")))
    if piece.support is not None and piece.support.putty:
        gates.append(("bonded", 0, phrase("The joint is bonded, and does not turn under a hand.")))
    if piece.counterweight is not None:
        weight = mass(piece.counterweight.mass_kg)
        gates.append(("weighted", 0, phrase("The weight of {m} is tied on before the first stem.", m=weight)))
    if is_worn(piece):
        gates.append(("bound", end, phrase("Every wire end folded over and taped: nothing scratches or catches.")))
    elif piece.carried:
        gates.append(("bound", end, phrase("Bound at one point, tight, dry, and taped over.")))
        gates.append(("rim covered", end, phrase("Underside and back covered: look up from below.")))
    else:
        level = level_least(piece.water_level_m)
        place = end if piece.making.water_last else 0
        gates.append(("water in", place, phrase("Water in, to stand at {l} once all stems are in.", l=level)))
        gates.append(("rim covered", covered, phrase("Rim and wire covered before flowers go in.")))
    seen = "Turned once round, seen from below and from a seat."
    if is_worn(piece):
        seen = "Held up where it is worn, and seen from all sides."
    gates.append(("seen from all sides", end, phrase(seen)))
    if not piece.carried:
        gates.append(("nudged", end, phrase("Nudged at the widest reach: nothing slides, nothing swings on.")))
    passed = set(piece.making.gates_passed)
    found = [Gate(key=key, before=before, say=say, passed=key in passed) for key, before, say in gates]
    return tuple(sorted(found, key=lambda each: each.before))
