"""What a step takes, task by task: what is done to it at the mat, the machine and the iron."""

from __future__ import annotations

from typing import Any, Literal, NamedTuple

from inlet.core.methods import effort_of
from inlet.core.piecing import Step
from inlet.core.planning import MethodPlan, UnitPlan
from inlet.core.project import Measure, Rates
from inlet.core.table import DIAGONALS, Do, Move

Place = Literal["mat", "machine", "iron"]
PLACES: tuple[Place, ...] = ("mat", "machine", "iron")
_PLACE_OF: dict[Do, Place] = {"sew": "machine", "open": "iron", "fold": "iron"}
_VERBS: dict[Do, str] = {
    "cut": "cut", "crosscut": "cut across", "mark": "mark", "cut-apart": "cut apart",
    "trim": "trim", "lay": "lay out", "sew": "sew", "open": "press", "fold": "fold",
}  # fmt: skip


class Task(NamedTuple):
    """Part of a step done at one place: ``times`` over, ``minutes`` in all; ``seams`` are sewn for
    each, ``length`` long together with what the thread takes at their ends. ``what`` is what it is
    done to so often; ``pieces`` are those that are cut for it, ``marks`` how many of them lines are
    drawn on. ``begun`` says that it is part of more."""

    step: int
    makes: str
    what: str
    place: Place
    verb: str
    times: int
    minutes: float
    seams: float = 0.0
    length: float = 0.0
    pieces: str = ""
    marks: int = 0
    begun: bool = False

    @property
    def chain(self) -> float:
        """How long the chain is when all are sewn without cutting the thread."""
        return self.times * self.length


def step_tasks(step: Step, rates: Rates, measure: Measure) -> list[Task]:
    """What a step takes, in order, neighbouring things at one place taken together."""
    each = measure.system.rate_length
    gap = measure.system.thread_gap
    if step.cuts:
        minutes = rates.cut * step.cuts * step.times / 60
        return [_task(step, "cut-apart", step.times, minutes)]
    if step.unit is None:
        all_seams = step.seams * step.times
        sewing = (rates.seam * all_seams + rates.length * step.length * step.times / each) / 60
        pressing = rates.press * all_seams / 60
        length = step.length + gap * step.seams
        tasks = [
            _task(step, "sew", step.times, sewing, step.seams, length),
            _task(step, "open", step.times, pressing),
        ]
        if any(move.do == "trim" for move in step.moves):
            tasks.append(_task(step, "trim", step.times, rates.trim * step.times / 60))
        return tasks
    method = step.unit.in_use
    if method.made_with is not None:
        return []
    runs = method.runs
    tasks = []
    crossed = False
    for move in method.moves:
        place = _PLACE_OF.get(move.do, "mat")
        times, per, length, minutes = _of_move(move, step, rates, measure, runs)
        if move.do == "cut":
            minutes = rates.cut * sum(piece.number for piece in method.pieces) / 60
        elif move.do == "crosscut":
            minutes = 0.0 if crossed else rates.cut * crosscuts(method) / 60
            crossed = True
        length += gap * per
        pieces = _pieces_words(method) if move.do == "cut" else ""
        marks = times if move.do == "mark" else 0
        new = _task(step, move.do, times, minutes, per, length)
        new = new._replace(pieces=pieces, marks=marks, **_of_sets(move, step))
        if tasks and tasks[-1].place == place:
            tasks.append(_together(tasks.pop(), new, move.of_set is not None))
        else:
            tasks.append(new)
    made = step.unit.made
    trims = method.trim_to and not any(move.do == "trim" for move in method.moves)
    if trims or (made is not None and made.answer == "trim"):
        tasks.append(_task(step, "trim", step.times, rates.trim * step.times / 60))
    return tasks


def _together(last: Task, new: Task, of_set: bool) -> Task:
    """Two things done one after the other at one place, as one task."""
    most = max(last.times, new.times)
    if of_set and last.what == new.what:
        most = last.times + new.times
    elif last.what.startswith("runs of"):  # as often as there are runs, whatever is done then
        most = last.times
    return last._replace(
        verb=_both(last.verb, new.verb),
        times=most,
        minutes=last.minutes + new.minutes,
        seams=(last.seams * last.times + new.seams * new.times) / most,
        length=(last.chain + new.chain) / most,
        pieces=last.pieces or new.pieces,
        marks=last.marks + new.marks,
    )


def _of_move(
    move: Move, step: Step, rates: Rates, measure: Measure, runs: int
) -> tuple[int, float, float, float]:
    """How often a move is made, the seams and their length each time, and the minutes in all."""
    effort = effort_of([move._replace(times=1, of_set=None)])
    times = -(-runs * move.times // 1)
    if move.of_set is not None and step.unit is not None:
        times = step.unit.in_use.sets[move.of_set].number
    if move.do == "trim":
        times = step.times
    seconds = (
        rates.seam * effort.seams
        + rates.length * effort.length / measure.system.rate_length
        + rates.cut * effort.apart
        + rates.mark * effort.marks
        + rates.press * effort.presses
        + (rates.trim if move.do == "trim" else 0)
    )
    return int(times), float(effort.seams), effort.length, float(seconds) * float(times) / 60


def _task(
    step: Step, do: Do, times: int, minutes: float, seams: float = 0.0, length: float = 0.0
) -> Task:
    what = "the block" if step.makes == "block" else step.makes
    method = step.unit.in_use if step.unit else None
    if method is not None and method.method.makes > 1 and times == method.runs != step.times:
        what = f"runs of {what}"
    place = _PLACE_OF.get(do, "mat")
    return Task(step.number, step.makes, what, place, _VERBS[do], times, minutes, seams, length)


def _of_sets(move: Move, step: Step) -> dict[str, Any]:
    """What is done to strip sets is told of them, not of the units: sets sewn, segments cut."""
    sets = step.unit.in_use.sets if step.unit else ()
    if move.of_set is not None:
        return {"what": f"strip sets for {step.makes}"}
    if move.do != "cut-apart" or not sets:
        return {}
    runs = step.unit.in_use.runs if step.unit else 0  # a set may hold more than are cut
    needed = sum(each.strips.number * runs for each in sets)
    return {"what": f"segments for {step.makes}", "times": needed}


def _pieces_words(method: MethodPlan) -> str:
    """What is cut for a unit, in a word."""
    shapes = {piece.piece.shape for piece in method.pieces}
    return f"{shapes.pop()}s" if len(shapes) == 1 else "pieces"


def _both(one: str, other: str) -> str:
    return one if other in one.split(", ") else f"{one}, {other}"


def crosscuts(method: MethodPlan) -> int:
    """Diagonals to cut before sewing, of all the squares and rectangles."""
    return sum(piece.number * DIAGONALS[piece.piece.crosscut] for piece in method.pieces)


def plain_tasks(plan: UnitPlan, rates: Rates) -> list[Task]:
    """Cutting the pieces of a unit that is one patch, and has no step; or taking them of those that
    are over of other units."""
    number = sum(piece.number for piece in plan.in_use.pieces)
    if not number:
        spare = sum(piece.spare for piece in plan.in_use.pieces)
        return [Task(0, plan.unit.label, plan.unit.label, "mat", "take", spare, 0.0)]
    cuts = number + crosscuts(plan.in_use)
    label = plan.unit.label
    return [Task(0, label, label, "mat", "cut", number, rates.cut * cuts / 60)]
