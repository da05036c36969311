"""What is taken along to sew somewhere else: the stacks and parts of the next few steps."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.bench.jobs import BenchJob
from inlet.core.bench.things import Plan
from inlet.core.cutlist import Cut
from inlet.core.project import Project
from inlet.core.words import fabric_name, size_text

USUAL_STEPS = 4


class Kit(NamedTuple):
    """The steps it is for, the stacks to pack with what each label says, and parts that are made
    already."""

    steps: tuple[str, ...]
    stacks: tuple[str, ...]
    parts: tuple[str, ...]


def kit(jobs: Sequence[BenchJob], plan: Plan, project: Project, steps: int = USUAL_STEPS) -> Kit:
    """The kit for the next so many steps that are sewn. What one of them makes for another is not
    packed."""
    chosen: list[BenchJob] = []
    for job in jobs:
        new = job.place == "machine" and job.thing is not None and job.left
        if new and all(job.thing != other.thing for other in chosen) and len(chosen) < steps:
            chosen.append(job)
    names = {job.thing.name for job in chosen if job.thing is not None}
    first: dict[str, BenchJob] = {}
    for job in jobs:
        if job.thing is not None:
            first.setdefault(job.thing.name, job)
    wanted = dict.fromkeys(label for name in first if name in names for label in first[name].stacks)
    cuts = {cut.label: cut for cut in plan.cuts}
    ready = dict.fromkeys(
        needed for name in first if name in names for needed in first[name].needs
        if needed not in names and needed in first
    )  # fmt: skip
    return Kit(
        tuple(job.title(job.left) for job in chosen),
        tuple(stack_text(cuts[label], project) for label in wanted if label in cuts),
        tuple(needed.partition(" ")[2] for needed in ready),
    )


def stack_text(cut: Cut, project: Project) -> str:
    """``Stack A 1: 14 squares of Fog, 3 7/8 in``."""
    shape = f"{cut.shape}s" if cut.number > 1 else cut.shape
    size = size_text(cut.cut, project.measure)
    return f"Stack {cut.label}: {cut.number} {shape} of {fabric_name(project, cut.fabric)}, {size}"
