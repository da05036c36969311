"""The tasks of all steps in the order they are done, with the fewest walks between the places."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import NamedTuple

from inlet.core.piecing import Step
from inlet.core.planning import UnitPlan
from inlet.core.project import Measure, Rates
from inlet.core.schedule.tasks import PLACES, Place, Task, plain_tasks, step_tasks

MOST_STATES = 48
"""Orders kept in mind at each walk; more would hardly be shorter."""


class Batch(NamedTuple):
    """What is done in one go at a place."""

    place: Place
    tasks: tuple[Task, ...]

    @property
    def minutes(self) -> float:
        return sum(task.minutes for task in self.tasks)

    @property
    def chain(self) -> float:
        return sum(task.chain for task in self.tasks)


def batches(
    steps: Sequence[Step], plain: Sequence[UnitPlan], rates: Rates, measure: Measure
) -> tuple[Batch, ...]:
    """Every task of the steps, and of the units that are one patch, once: each after those of what
    it needs and those before it in its own step, in as few walks from place to place as were found.

    Whatever can be done at a place is done there before walking on: leaving something for later
    never saves a walk. So only the places are to be chosen; all their orders are followed side by
    side, those that have done no more than another forgotten.
    """
    work = _work_of(steps, plain, rates, measure)
    start, end = tuple(0 for _ in work.tasks), tuple(len(row) for row in work.tasks)
    paths: dict[_State, tuple[Place, ...]] = {start: ()}
    while end not in paths:
        found: dict[_State, tuple[Place, ...]] = {}
        for state, walked in paths.items():
            for place in PLACES:
                new = work.done_at(place, state)
                if new != state and new not in found:
                    found[new] = (*walked, place)
        paths = {state: found[state] for state in _farthest(found)}
    return tuple(_told(work, start, paths[end]))


_State = tuple[int, ...]
"""How many of its tasks are done, of each row."""


def _farthest(states: Iterable[_State]) -> list[_State]:
    """States that have not done less than another in every row, those that have done most first."""
    best: list[_State] = []
    for state in sorted(states, key=lambda s: -sum(s)):
        if not any(all(a >= b for a, b in zip(o, state, strict=True)) for o in best):
            best.append(state)
    return best[:MOST_STATES]


class _Work(NamedTuple):
    """Rows of tasks, one a step or a unit that is one patch, and the rows each needs done."""

    tasks: Sequence[Sequence[Task]]
    needs: Sequence[Sequence[int]]

    def done_at(self, place: Place, state: _State, tasks: list[Task] | None = None) -> _State:
        """The state after everything that can be done at a place, listed in ``tasks``."""
        done = list(state)
        going = True
        while going:
            going = False
            for i, row in enumerate(self.tasks):
                while done[i] < len(row) and row[done[i]].place == place:
                    if not self._ready(i, done):
                        break
                    if tasks is not None:
                        tasks.append(row[done[i]])
                    done[i] += 1
                    going = True
        return tuple(done)

    def _ready(self, i: int, done: Sequence[int]) -> bool:
        """Can the next task of a row be done? Cutting needs nothing; sewing, what is sewn
        together."""
        first_sewn = next((k for k, t in enumerate(self.tasks[i]) if t.place == "machine"), 0)
        return done[i] < first_sewn or all(done[j] == len(self.tasks[j]) for j in self.needs[i])


def _work_of(
    steps: Sequence[Step], plain: Sequence[UnitPlan], rates: Rates, measure: Measure
) -> _Work:
    tasks = [plain_tasks(unit, rates) for unit in plain]
    made_by = {unit.unit.label: i for i, unit in enumerate(plain)}
    needs: list[list[int]] = [[] for _ in plain]
    for step in steps:
        needs.append([made_by[n] for n in dict.fromkeys(step.needs) if n in made_by])
        # What comes out of another unit's runs is there when those are done.
        leader = step.unit.in_use.made_with if step.unit else None
        made_by[step.makes] = made_by.get(leader or "", len(tasks))
        made_by.update(dict.fromkeys(step.gives, len(tasks)))
        tasks.append(step_tasks(step, rates, measure))
    return _Work(tasks, needs)


def _told(work: _Work, state: _State, walked: Sequence[Place]) -> Iterator[Batch]:
    """What is done at each place of a walk."""
    for place in walked:
        tasks: list[Task] = []
        state = work.done_at(place, state, tasks)
        yield Batch(place, tuple(tasks))
