"""The steps as sittings: what is done at the mat, the machine and the iron, with the fewest walks
between them, in the time the maker has."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.methods.method import effort_of
from inlet.core.piecing.step import Step
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.project.measure import Measure, Rates
from inlet.core.table.moves import Move

PLACES = ("mat", "machine", "iron")
_PLACE_OF = {"sew": "machine", "open": "iron", "fold": "iron"}
_VERBS = {
    "cut": "cut", "crosscut": "cut across", "mark": "mark", "cut-apart": "cut apart",
    "trim": "trim", "lay": "lay out", "sew": "sew", "open": "press", "fold": "fold",
}  # fmt: skip

MOST_STATES = 48
"""Orders kept in mind at each walk; more would hardly be shorter."""


class Task(NamedTuple):
    """Part of a step done at one place: ``times`` over, ``minutes`` in all; ``seams`` are sewn for
    each, ``length`` long together with what the thread takes at their ends. ``what`` is what it is
    done to so often."""

    step: int
    makes: str
    what: str
    place: str
    verb: str
    times: int
    minutes: float
    seams: float = 0.0
    length: float = 0.0

    @property
    def chain(self) -> float:
        """How long the chain is when all are sewn without cutting the thread."""
        return self.times * self.length


class Batch(NamedTuple):
    """What is done in one go at a place."""

    place: str
    tasks: tuple[Task, ...]

    @property
    def minutes(self) -> float:
        return sum(task.minutes for task in self.tasks)

    @property
    def chain(self) -> float:
        return sum(task.chain for task in self.tasks)


class Sitting(NamedTuple):
    """Batches that fit the time there is."""

    batches: tuple[Batch, ...]

    @property
    def minutes(self) -> float:
        return sum(batch.minutes for batch in self.batches)


def step_tasks(step: Step, rates: Rates, measure: Measure) -> list[Task]:
    """What a step takes, in order, neighbouring things at one place taken together."""
    each = measure.system.rate_length
    gap = measure.system.thread_gap
    if step.unit is None:
        all_seams = step.seams * step.times
        sewing = (rates.seam * all_seams + rates.length * step.length * step.times / each) / 60
        pressing = rates.press * all_seams / 60
        length = step.length + gap * step.seams
        return [
            _task(step, "sew", step.times, sewing, step.seams, length),
            _task(step, "open", step.times, pressing),
        ]
    method = step.unit.in_use
    if method.made_with is not None:
        return []
    runs = method.runs
    out: list[Task] = []
    for move in method.moves:
        place = _PLACE_OF.get(move.do, "mat")
        times, per, length, minutes = _of_move(move, step, rates, measure, runs)
        if move.do == "cut":
            minutes = rates.cut * sum(piece.number for piece in method.pieces) / 60
        length += gap * per
        if out and out[-1].place == place:
            last = out.pop()
            most = max(last.times, times)
            out.append(
                last._replace(
                    verb=_both(last.verb, _VERBS[move.do]),
                    times=most,
                    minutes=last.minutes + minutes,
                    seams=(last.seams * last.times + per * times) / most,
                    length=(last.chain + length * times) / most,
                )
            )
        else:
            out.append(_task(step, move.do, times, minutes, per, length))
    if method.trim_to and method.trim is None:
        out.append(_task(step, "trim", step.times, rates.trim * step.times / 60))
    return out


def _of_move(
    move: Move, step: Step, rates: Rates, measure: Measure, runs: int
) -> tuple[int, float, float, float]:
    """How often a move is made, the seams and their length each time, and the minutes in all."""
    each = effort_of([move._replace(times=1, of_set=None)])
    times = -(-runs * move.times // 1)
    if move.of_set is not None and step.unit is not None:
        times = step.unit.in_use.sets[move.of_set].number
    if move.do == "trim":
        times = step.times
    seconds = (
        rates.seam * each.seams
        + rates.length * each.length / measure.system.rate_length
        + rates.cut * each.apart
        + rates.mark * each.marks
        + rates.press * each.presses
        + (rates.trim if move.do == "trim" else 0)
    )
    return int(times), float(each.seams), each.length, float(seconds) * float(times) / 60


def _task(
    step: Step, do: str, times: int, minutes: float, seams: float = 0.0, length: float = 0.0
) -> Task:
    what = "the block" if step.makes == "block" else step.makes
    method = step.unit.in_use if step.unit else None
    if method is not None and method.method.makes > 1 and times == method.runs != step.times:
        what = f"runs of {what}"
    place = _PLACE_OF.get(do, "mat")
    return Task(step.number, step.makes, what, place, _VERBS[do], times, minutes, seams, length)


def _both(one: str, other: str) -> str:
    return one if other in one.split(", ") else f"{one}, {other}"


def plain_tasks(plan: UnitPlan, rates: Rates) -> list[Task]:
    """Cutting the pieces of a unit that is one patch, and has no step."""
    number = sum(piece.number for piece in plan.in_use.pieces)
    label = plan.unit.label
    return [Task(0, label, label, "mat", "cut", number, rates.cut * number / 60)]


def batches(
    steps: Sequence[Step], plain: Sequence[UnitPlan], rates: Rates, measure: Measure
) -> tuple[Batch, ...]:
    """Every task of the steps, and of the units that are one patch, once: each after those of what
    it needs and those before it in its own step, in as few walks from place to place as were found.

    Whatever can be done at a place is done there before walking on: leaving something for later
    never saves a walk. So only the places are to be chosen; all their orders are followed side by
    side, those that have done no more than another forgotten.
    """
    tasks = [plain_tasks(unit, rates) for unit in plain]
    made_by = {unit.unit.label: i for i, unit in enumerate(plain)}
    needs: list[list[int]] = [[] for _ in plain]
    for step in steps:
        needs.append([made_by[n] for n in dict.fromkeys(step.needs) if n in made_by])
        # What comes out of another unit's runs is there when those are done.
        leader = step.unit.in_use.made_with if step.unit else None
        made_by[step.makes] = made_by.get(leader or "", len(tasks))
        tasks.append(step_tasks(step, rates, measure))
    start = tuple(0 for _ in tasks)
    end = tuple(len(row) for row in tasks)
    paths: dict[tuple[int, ...], tuple[str, ...]] = {start: ()}
    while end not in paths:
        found: dict[tuple[int, ...], tuple[str, ...]] = {}
        for state, walked in paths.items():
            for place in PLACES:
                new = _work(state, place, tasks, needs)
                if new != state and new not in found:
                    found[new] = (*walked, place)
        kept = sorted(found, key=lambda s: -sum(s))
        best: list[tuple[int, ...]] = []
        for state in kept:
            if not any(_covers(other, state) for other in best):
                best.append(state)
        paths = {state: found[state] for state in best[:MOST_STATES]}
    return tuple(_told(start, paths[end], tasks, needs))


def _covers(one: tuple[int, ...], other: tuple[int, ...]) -> bool:
    return all(a >= b for a, b in zip(one, other, strict=True))


def _work(
    state: tuple[int, ...],
    place: str,
    tasks: Sequence[Sequence[Task]],
    needs: Sequence[Sequence[int]],
    told: list[Task] | None = None,
) -> tuple[int, ...]:
    """The state after everything that can be done at a place, listed in ``told``."""
    done = list(state)
    going = True
    while going:
        going = False
        for i, row in enumerate(tasks):
            while done[i] < len(row) and row[done[i]].place == place:
                if not _ready(i, done, tasks, needs):
                    break
                if told is not None:
                    told.append(row[done[i]])
                done[i] += 1
                going = True
    return tuple(done)


def _ready(
    i: int, done: Sequence[int], tasks: Sequence[Sequence[Task]], needs: Sequence[Sequence[int]]
) -> bool:
    """Can the next task of a step be done? Cutting needs nothing; sewing, what is sewn together."""
    first_sewn = next((k for k, t in enumerate(tasks[i]) if t.place == "machine"), 0)
    return done[i] < first_sewn or all(done[j] == len(tasks[j]) for j in needs[i])


def _told(
    state: tuple[int, ...],
    walked: Sequence[str],
    tasks: Sequence[Sequence[Task]],
    needs: Sequence[Sequence[int]],
) -> Iterator[Batch]:
    for place in walked:
        told: list[Task] = []
        state = _work(state, place, tasks, needs, told)
        yield Batch(place, tuple(told))


def sittings(found: Sequence[Batch], minutes: float) -> tuple[Sitting, ...]:
    """Batches shared out over sittings of so many minutes; a task that does not fit the time left
    is begun if at least one of it does, and goes on in the next sitting. One that takes longer
    than a whole sitting each has one to itself."""
    out: list[list[Batch]] = [[]]
    left = minutes
    for batch in found:
        here: list[Task] = []
        for task in batch.tasks:
            rest: Task | None = task
            while rest is not None:
                each = rest.minutes / max(1, rest.times)
                fit = rest.times if rest.minutes <= left + 1e-9 else int((left + 1e-9) / each)
                if fit <= 0 and left < minutes:  # nothing more fits: next sitting
                    if here:
                        out[-1].append(Batch(batch.place, tuple(here)))
                    here, left = [], minutes
                    out.append([])
                    continue
                fit = max(1, fit)
                done = rest._replace(times=fit, minutes=each * fit)
                here.append(done)
                left -= done.minutes
                more = rest.times - fit
                rest = rest._replace(times=more, minutes=each * more) if more else None
        if here:
            out[-1].append(Batch(batch.place, tuple(here)))
    return tuple(Sitting(tuple(row)) for row in out if row)
