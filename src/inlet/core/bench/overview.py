"""How far everything is: what is cut, sewn, pressed and trimmed of each unit, block and row."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.bench.jobs import BenchJob
from inlet.core.bench.sharing import stacks_cut
from inlet.core.project import Project

HEAD = ("Step", "Cut", "Sewn", "Pressed", "Trimmed", "Done")
VERBS = {"Sewn": ("Sew",), "Pressed": ("Press", "Fold"), "Trimmed": ("Trim",)}
ALL = "✓"


class StepLine(NamedTuple):
    """A line of the overview: its cells, in the order of ``HEAD``, and which of the jobs is the
    next to do of it, counted from 0; of a step that is done its last."""

    cells: tuple[str, ...]
    which: int


def step_lines(jobs: Sequence[BenchJob], project: Project) -> list[StepLine]:
    """A line for each piece of fabric to cut and each step, in the order of the schedule."""
    cut = stacks_cut(jobs, project)
    of: dict[str, list[int]] = {}
    lines = []
    for i, job in enumerate(jobs):
        if job.thing is None:
            number = _number(job.done, job.times)
            lines.append(StepLine((job.title(job.times), number, "", "", "", number), i))
        else:
            of.setdefault(job.thing.name, []).append(i)
    for name, at in of.items():
        some = [jobs[i] for i in at]
        stacks = [label for job in some for label in job.stacks if label in cut]
        there = ALL if all(cut[label] for label in stacks) else "no"
        cells = [name, there if stacks else ""]
        for verbs in VERBS.values():
            last = [job for job in some if job.verb in verbs]
            cells.append(_number(last[-1].done, last[-1].times) if last else "")
        times = some[-1].thing.times if some[-1].thing is not None else some[-1].times
        done = some[-1].done * times // max(1, some[-1].times)
        open_ = [i for i in at if jobs[i].left]
        lines.append(StepLine((*cells, _number(done, times)), open_[0] if open_ else at[-1]))
    return lines


def _number(done: int, times: int) -> str:
    """``24 of 112``; a tick where all are done."""
    return f"{ALL} {times}" if done >= times else f"{done} of {times}"
