"""History against a model: any sequence of changes, undos and redos is a list of plans and a place in it."""

import tempfile
from dataclasses import replace
from pathlib import Path

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, invariant, precondition, rule

from jolly_trellis.services import planning
from jolly_trellis.services.opening import open_studio
from jolly_trellis.store.plan import Brief, Plan
from tests.generated import examples
from tests.ordinary import piece


class History(RuleBasedStateMachine):
    """A studio that is changed, walked back and forth and restarted, beside the list it should be."""

    def __init__(self) -> None:
        super().__init__()
        self.folder = tempfile.TemporaryDirectory()
        self.conn = open_studio(Path(self.folder.name))
        self.seen = planning.new_event(self.conn, Brief(name="Quay lunch", time_zone="Europe/London"), (piece(),))
        self.plans: list[Plan] = [self.seen.plan]
        self.at = 0

    def teardown(self) -> None:
        self.conn.close()
        self.folder.cleanup()

    def _did(self, state: planning.EventState) -> None:
        """A change drops what could have been redone; saving what is already so is no step."""
        if state.plan != self.seen.plan:
            self.plans = [*self.plans[: self.at + 1], state.plan]
            self.at += 1
        self.seen = state

    @rule(level=st.sampled_from([0.05, 0.06, 0.07, 0.08]), which=st.integers(0, 9))
    @precondition(lambda self: self.seen.plan.pieces)
    def set_water(self, level: float, which: int) -> None:
        planned = self.seen.plan.pieces[which % len(self.seen.plan.pieces)]
        changed = replace(planned.part, water_level_m=level)
        base = self.seen.event.revision
        self._did(planning.put_part(self.conn, 1, planned.id, changed, base_revision=base, label=f"Water to {level}"))

    @rule(name=st.sampled_from(["Quay lunch", "Quay supper"]))
    def rename(self, name: str) -> None:
        brief = replace(self.seen.plan.brief, name=name)
        self._did(planning.put_brief(self.conn, 1, brief, base_revision=self.seen.event.revision))

    @rule()
    @precondition(lambda self: len(self.seen.plan.pieces) < 4)
    def add(self) -> None:
        before = self.seen.plan.by_id()
        state, _ = planning.add_part(self.conn, 1, piece(), base_revision=self.seen.event.revision)
        assert len(state.plan.by_id()) == len(before) + 1
        self._did(state)

    @rule(which=st.integers(0, 9))
    @precondition(lambda self: self.seen.plan.pieces)
    def remove(self, which: int) -> None:
        number = self.seen.plan.pieces[which % len(self.seen.plan.pieces)].id
        self._did(planning.remove_part(self.conn, 1, number, base_revision=self.seen.event.revision))

    @rule()
    @precondition(lambda self: self.at > 0)
    def undo(self) -> None:
        self.seen = planning.undo(self.conn, 1, base_revision=self.seen.event.revision)
        self.at -= 1

    @rule()
    @precondition(lambda self: self.at + 1 < len(self.plans))
    def redo(self) -> None:
        self.seen = planning.redo(self.conn, 1, base_revision=self.seen.event.revision)
        self.at += 1

    @rule()
    def restart(self) -> None:
        self.conn.close()
        self.conn = open_studio(Path(self.folder.name))
        self.seen = planning.state(self.conn, 1)

    @invariant()
    def the_plan_is_the_one_in_the_list(self) -> None:
        assert self.seen.plan == self.plans[self.at]
        assert planning.state(self.conn, 1) == self.seen

    @invariant()
    def there_is_something_to_undo_only_after_the_first_and_to_redo_only_before_the_last(self) -> None:
        assert (self.seen.undo is not None) == (self.at > 0)
        assert (self.seen.redo is not None) == (self.at + 1 < len(self.plans))


TestHistory = History.TestCase
TestHistory.settings = settings(examples(12), stateful_step_count=25)
