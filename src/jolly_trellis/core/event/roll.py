"""The roll: everything an event cuts from netting, spools and sticks, as one cut plan for each material."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from jolly_trellis.core.books.figures import rule
from jolly_trellis.core.event.cut_plan import cut
from jolly_trellis.core.event.cutting import Cutting, Placed, Progress, Sheet, Used
from jolly_trellis.core.event.needs import Needs
from jolly_trellis.core.event.roll_problems import (
    CutStock,
    Larder,
    MaterialPlan,
    Problem,
    left_out_of,
    length_problems,
    netting_problems,
)
from jolly_trellis.core.quantities import Phrase, length, phrase

KEPT_LENGTH = rule("A remnant is worth keeping from a length of", "length", 0.25)

KEPT_WIDTH = rule("A remnant is worth keeping from a width of", "length", 0.12)

SECONDS = 10.0


@dataclass(frozen=True, slots=True, kw_only=True)
class CutPlan:
    """The cut plan of an event: one for each material, nettings first. `done` is how far a search had come, 0 to 1.

    `left_out` says what is cut for the event and is in no plan, and why.
    """

    materials: tuple[MaterialPlan, ...]
    done: float = 1.0
    left_out: tuple[Phrase, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class CutAct:
    """One cut, in order: on which stock, across it at a place or along a strip, and what falls off."""

    stock: int
    say: Phrase


def cut_plan(
    needs: Needs,
    larder: Larder,
    *,
    seconds: float = SECONDS,
    tell: Callable[[CutPlan], None] | None = None,
    stop: Callable[[], bool] | None = None,
) -> CutPlan:
    """Plan every cut of an event.

    Args:
        seconds: how long to look in all; small materials take little of it.
        tell: called with each better plan; stop: ends the search with the best so far.
    """
    problems = [*netting_problems(needs, larder), *length_problems(needs, larder)]
    left_out = left_out_of(needs, larder)
    done: list[MaterialPlan] = []
    halt = stop or (lambda: False)
    weight = {id(each): 1 + sum(item.count for item in each.items) for each in problems}
    total = sum(weight.values()) or 1
    passed = 0
    for problem in problems:
        share = passed / total

        def told(cutting: Cutting, problem: Problem = problem, share: float = share) -> None:
            if tell is not None:
                tell(CutPlan(materials=(*done, _plan_of(problem, cutting)), done=share, left_out=left_out))

        mine = seconds * weight[id(problem)] / total
        cutting = cut(
            problem.items,
            problem.sheets,
            kerf=problem.shell.lost,
            seconds=max(mine, 0.2),
            progress=Progress(tell=told, stop=halt),
        )
        done.append(_plan_of(problem, cutting))
        passed += weight[id(problem)]
    return CutPlan(materials=tuple(done), left_out=left_out)


def keeping_cut(plan: CutPlan, cut: Iterable[MaterialPlan]) -> CutPlan:
    """A plan in which what was cut already stays as it was cut; where the event needs other pieces now, that is said.

    Args:
        cut: the plans by which materials were cut.
    """
    was = {(each.material, each.key): each for each in cut}
    now = {(each.material, each.key): each for each in plan.materials}
    changed = tuple(
        phrase(
            "{old} was cut for other pieces than are needed now, and stays as it was cut. Press “Not "
            "cut after all” there, then plan the cuts again.",
            old=old.name,
        )
        for of, old in was.items()
        if _sizes(now.get(of)) != _sizes(old)
    )
    return replace(plan, materials=tuple((now | was).values()), left_out=(*plan.left_out, *changed))


def _sizes(plan: MaterialPlan | None) -> list[tuple[float, float]]:
    """Every piece of a material by its size to the millimetre, m."""
    items = () if plan is None else plan.items
    return sorted((round(each.width_m, 3), round(each.length_m, 3)) for each in items for _ in range(each.quantity))


def acts_of(plan: MaterialPlan) -> tuple[CutAct, ...]:
    """The order of cuts: across each stock strip by strip, then along the strip, then across its columns.

    Source: how the plan is made; each strip's far edge is cut first so that the rest of the roll stays whole.
    """
    acts: list[CutAct] = []
    for place, stock in enumerate(plan.stocks):
        if plan.row_m == 0:
            acts += _stick_acts(plan, place, stock)
            continue
        start = 0
        for end in stock.strips:
            inside = [each for each in stock.pieces if start <= each.y < end]
            names = _listed(plan, inside)
            say = phrase("Across at {at}, row {end}: {names}.", at=length(end * plan.row_m), end=end, names=names)
            acts.append(CutAct(stock=place, say=say))
            edges = sorted({each.x for each in inside if each.x > 0})
            if edges and plan.cell_m:
                cells = ", ".join(str(each) for each in edges)
                acts.append(CutAct(stock=place, say=phrase("Along that strip after cell {cells}.", cells=cells)))
            for x in sorted({each.x for each in inside}):
                column = sorted((each for each in inside if each.x == x), key=lambda each: each.y)
                if len(column) > 1:
                    rows = ", ".join(str(each.y + each.along - start) for each in column[:-1])
                    say = phrase(
                        "The part from cell {x} across after its row {rows}: {listed}.",
                        x=x + 1,
                        rows=rows,
                        listed=_listed(plan, column),
                    )
                    acts.append(CutAct(stock=place, say=say))
            start = end
    return tuple(acts)


def _stick_acts(plan: MaterialPlan, place: int, stock: CutStock) -> list[CutAct]:
    acts = []
    for row in sorted({each.y for each in stock.pieces}):
        inside = [each for each in stock.pieces if each.y == row]
        acts.append(
            CutAct(stock=place, say=phrase("Stick {row}: {listed}.", row=row + 1, listed=_listed(plan, inside)))
        )
    return acts


def _listed(plan: MaterialPlan, placed: Iterable[Placed]) -> str:
    counts: dict[str, int] = {}
    for each in placed:
        label = plan.items[each.item].label
        counts[label] = counts.get(label, 0) + 1
    return ", ".join(f"{number} × {label}" if number > 1 else label for label, number in counts.items())


def _plan_of(problem: Problem, cutting: Cutting) -> MaterialPlan:
    shell = problem.shell
    stocks = [_stock(problem, used) for used in cutting.used]
    bought = sum(each.count if shell.sticks else 1 for each in stocks if each.source == "to buy")
    waste = 1 - cutting.area_placed / cutting.area_used if cutting.area_used else 0.0
    least = cutting.bound
    bound_waste = None
    if least >= cutting.area_needed > 0 and not cutting.unplaced:
        bound_waste = min(1 - cutting.area_needed / least, waste)
    return replace(
        shell,
        stocks=tuple(stocks),
        missing=tuple(_missing(problem, item, count) for item, count in cutting.unplaced),
        waste=waste,
        bound_waste=bound_waste,
        to_buy=bought,
    )


def _stock(problem: Problem, used: Used) -> CutStock:
    shell, sheet = problem.shell, problem.sheets[used.sheet]
    source, number, wide, long = problem.sources[used.sheet]
    keep: list[tuple[float, float]] = []
    if shell.sticks:
        for row in range(used.rows):
            ends = [each.x + each.across for each in used.placed if each.y == row]
            left = long - max(ends, default=0) * shell.cell_m
            if left >= KEPT_LENGTH.value:
                keep.append((0.0, left))
        used_m = used.rows * long
    else:
        used_m = min(used.rows * shell.row_m, long)
        if long - used_m >= KEPT_LENGTH.value:
            keep.append((wide, long - used_m))
        if shell.material == "netting":
            keep += _offcuts(problem, used, sheet, wide)
    return CutStock(
        source=source,
        remnant=number,
        width_m=wide,
        length_m=long,
        used_m=used_m,
        count=used.rows if shell.sticks else 1,
        strips=used.strips,
        pieces=used.placed,
        keep=tuple(keep),
    )


def _offcuts(problem: Problem, used: Used, sheet: Sheet, wide: float) -> list[tuple[float, float]]:
    """What is left beside the last column of each strip, where it is worth keeping; whole cells, the lost one off."""
    shell, start, found = problem.shell, 0, []
    for end in used.strips:
        inside = [each for each in used.placed if start <= each.y < end]
        taken = max((each.x + each.across for each in inside), default=0)
        cells, rows = sheet.across - taken - shell.lost, end - start - shell.lost
        size = (min(cells * shell.cell_m, wide), rows * shell.row_m)
        if size[0] >= KEPT_WIDTH.value and size[1] >= KEPT_LENGTH.value:
            found.append(size)
        start = end
    return found


def _missing(problem: Problem, item: int, count: int) -> Phrase:
    """Why a piece could not be cut, and what would be right."""
    what = problem.shell.items[item]
    number = f"{count} × " if count > 1 else ""
    if problem.shell.material == "netting":
        widest = max((wide for _, _, wide, _ in problem.sources), default=0.0)
        if what.width_m > widest:
            return phrase(
                "{number}{what}: {w} wide, and the widest roll is {r}. Sew it from two widths, or "
                "choose netting on a wider roll.",
                w=length(what.width_m),
                r=length(widest),
                number=number,
                what=what.label,
            )
    longest = max((long for _, _, _, long in problem.sources), default=0.0)
    if what.length_m > longest:
        return phrase(
            "{number}{what}: {w} long, and the longest is {r}. Join it from two, or get a longer one.",
            w=length(what.length_m),
            r=length(longest),
            number=number,
            what=what.label,
        )
    return phrase(
        "{number}{what}: nothing is left to cut it from. Count more into the stores, or buy more.",
        number=number,
        what=what.label,
    )
