"""What a change does to the verdicts of an event before anybody makes it."""

from collections.abc import Iterator, Mapping
from dataclasses import replace

from jolly_trellis.core.event.parts import Part
from jolly_trellis.services.event_work import EventWork
from jolly_trellis.store.plan import Plan, Planned

_RANK = {"not needed": 0, "holds": 0, "tight": 1, "cannot say": 2, "fails": 3}
States = Mapping[tuple[int, str, str], str]


def with_part(plan: Plan, part_id: int, part: Part) -> Plan:
    """A plan with another part in the place of one."""
    parts = tuple(Planned(id=each.id, part=part if each.id == part_id else each.part) for each in plan.parts)
    return replace(plan, parts=parts)


def states_of(work: EventWork) -> States:
    """The state of every verdict, by the number and name of its part and its verb."""
    found: dict[tuple[int, str, str], str] = {}
    for each in work.made.pieces:
        if each.report is None:
            found[each.id, each.piece.name, "it"] = "cannot say"
            continue
        for verdict in each.report.verdicts:
            found[each.id, each.piece.name, verdict.verb] = verdict.state
    for hung in work.made.rigs:
        state = "cannot say" if hung.report is None else hung.report.verdict.state
        found[hung.id, hung.rig.name, "hang"] = state
    return found


def worse_of(now: States, then: States) -> Iterator[str]:
    """What is worse than it was, in words."""
    for (part, name, verb), state in then.items():
        before = now.get((part, name, verb), "holds")
        if _RANK[state] > _RANK[before]:
            yield f"{name}: {verb} {state} ({before} now)"
