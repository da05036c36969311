"""What is to be done at one place in one go: the parts of all steps, in the order of the schedule.

Cutting is done fabric by fabric, so what the schedule gives to cutting the pieces of each step is
put together, and shared out over the fabrics by their cuts.
"""

from __future__ import annotations

import re
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence, Set
from typing import Literal, NamedTuple

from inlet.core.bench.progress import Progress, progress
from inlet.core.bench.things import Plan, SewnThing, Thing, block_things, quilt_things, sewn_things
from inlet.core.layout import FabricPlan, begun_at, cuts_of, piece_names
from inlet.core.memo import Latest
from inlet.core.piecing import Step
from inlet.core.plan import QuiltPlan, QuiltStep, SewnBlock
from inlet.core.project import LaidFabric, Project
from inlet.core.schedule import Task
from inlet.core.words import measured_text, size_text

BenchPlace = Literal["mat", "machine", "iron", "floor"]
BENCH_PLACES: tuple[BenchPlace, ...] = ("mat", "machine", "iron", "floor")
ALL_BUT_DONE = 0.999
"""The most that is done while anything is left."""
CUT_DOWN = "Cut down"
"""The verb of jobs that make pieces smaller which are cut already."""
CUTS_DOWN = 2
"""Cuts that make a piece smaller both ways."""
ON_FLOOR = ("Lay it out", "Check that it is square")
"""Steps of a quilt that are done where there is room."""


class LaidFor(NamedTuple):
    """A piece of fabric to cut up, for so many ``copies`` of a block (no block: for the quilt)."""

    block: str
    copies: int
    fabric: str | None
    laid: LaidFabric


class BenchJob(NamedTuple):
    """Part of a step, at a ``place``: what is done (``verb``) to ``what``, ``times`` to do,
    ``done`` of them by the log, each taking so many ``minutes`` by the maker's rates; ``size`` is
    what it is checked by, ``seam`` how long what is sewn for one is. It is ticked as a ``part`` of
    a ``thing``, or as cuts of fabric that is ``laid`` out. ``needs`` are the names of the things
    that come before it, ``stacks`` the labels of what is cut for it."""

    place: BenchPlace
    verb: str
    what: str
    times: int
    done: int
    minutes: float
    thing: Thing | None = None
    part: str = ""
    size: str = ""
    seam: float = 0.0
    laid: LaidFor | None = None
    needs: tuple[str, ...] = ()
    stacks: tuple[str, ...] = ()

    @property
    def left(self) -> int:
        return self.times - self.done

    @property
    def named(self) -> tuple[str, str, str]:
        """What tells it apart from others of its plan, wherever it stands among them: another
        layout of the fabric has more jobs before it, or fewer."""
        return self.verb, self.thing.name if self.thing is not None else self.what, self.part

    def number_text(self, number: int) -> str:
        """How many it is done to: ``34 cuts``, ``14 runs``, ``112``; nothing where it is done
        once."""
        if self.laid is not None:
            return f"{number} {'cut' if number == 1 else 'cuts'}"
        several = _MASS.match(self.what)
        if several:
            return f"{number} {several[1]}{'s' if number > 1 else ''}"
        return str(number) if self.times > 1 else ""

    def title(self, number: int) -> str:
        """What is done so many times: ``Press 112 × Skiff A``, ``Sew 14 runs of Skiff A``, ``Fog,
        34 cuts``, ``Sew row 1``."""
        if self.laid is not None:
            return f"{self.verb} {self.what}, {self.number_text(number)}"
        if self.times == 1:
            return f"{self.verb} {self.what}"
        several = _MASS.match(self.what)
        if several:
            return f"{self.verb} {self.number_text(number)}{several[2]}{several[3]}"
        return f"{self.verb} {number} × {self.what}"


_MASS = re.compile(r"(run|strip set|segment)s( of | for )(.*)$")


class _Outline(NamedTuple):
    """Jobs of a plan without what the log says, and the plan's things with their parts, its fabric
    being ``laid`` out so."""

    jobs: tuple[BenchJob, ...]
    things: tuple[Thing, ...]
    laid: tuple[FabricPlan, ...]


_OUTLINES: Latest[Plan, _Outline] = Latest(4)


def jobs(plan: Plan, project: Project) -> tuple[BenchJob, ...]:
    """All jobs of a plan in the order of its schedule, with what of them is done by the log of a
    project: that of the plan, or one in which only more was logged or cut. What is sewn is no
    longer cut down."""
    outline = _outline_of(plan)
    progressed = progress(project.log, outline.things)
    all_jobs = [job._replace(done=_done(job, progressed, project)) for job in outline.jobs]
    to_sew = {
        label for job in all_jobs if job.verb != CUT_DOWN and job.left for label in job.stacks
    }
    return tuple(
        job._replace(done=job.times)
        if job.verb == CUT_DOWN and job.stacks and to_sew.isdisjoint(job.stacks)
        else job
        for job in all_jobs
    )


def job_of(plan: Plan, project: Project, name: str, verb: str) -> BenchJob | None:
    """The last job in which something (``Press``) is done to a thing, by its name; None where
    nothing is."""
    of = [
        job for job in jobs(plan, project)
        if job.thing is not None and (job.thing.name, job.verb) == (name, verb)
    ]  # fmt: skip
    return of[-1] if of else None


def things_of(plan: Plan) -> tuple[Thing, ...]:
    """What a plan makes, with the parts its steps are ticked in."""
    return _outline_of(plan).things


def _outline_of(plan: Plan) -> _Outline:
    """The outline of a plan as its fabric is laid out by now."""
    outline, laid = _OUTLINES.get(plan), plan.fabric_plans.now
    if outline is None or outline.laid is not laid:
        outline = _OUTLINES.keep(plan, _outlined(plan, laid))
    return outline


def _done(job: BenchJob, progressed: Progress, project: Project) -> int:
    if job.laid is not None:
        at = begun_at(project, *job.laid)
        cutting = project.cutting
        done = 0 if at is None or cutting is None else cutting.begun[at].done
        return min(job.times, done)
    if job.thing is None:
        return 0
    done = progressed.done.get(job.thing.name, 0)
    if job.part:
        done = progressed.through(job.thing, job.part)
    return min(job.times, done * job.times // max(1, job.thing.times))


def _outlined(plan: Plan, laid: tuple[FabricPlan, ...]) -> _Outline:
    things = quilt_things(plan.steps) if isinstance(plan, QuiltPlan) else block_things(plan)
    of_step = {sewn[2].number: sewn for sewn in sewn_things(plan)}
    maker = _Maker(plan, of_step)
    all_jobs = list(maker.sewing())
    parted = {name: tuple(parts[:-1]) for name, parts in maker.parts.items()}
    things = tuple(thing._replace(parts=parted.get(thing.name, ())) for thing in things)
    if isinstance(plan, QuiltPlan):
        all_jobs += _joining(plan, things)
    by_name = {thing.name: thing for thing in things}
    jobs_ = []
    for job in all_jobs:
        if job.thing is not None:
            part = "" if job.part not in by_name[job.thing.name].parts else job.part
            size = job.size if not part else ""
            job = job._replace(thing=by_name[job.thing.name], part=part, size=size)
        jobs_.append(job)
    sewn_stacks = {label for job in jobs_ for label in job.stacks}
    cutting = tuple(_cutting(plan, laid, maker.cutting + _more_cutting(plan), sewn_stacks))
    cut_down = [job.thing for job in cutting if job.thing is not None]
    return _Outline((*cutting, *jobs_), (*things, *cut_down), laid)


class _Maker:
    """The jobs of a plan's sewn steps; the minutes its ``cutting`` takes, and the ``parts`` of each
    step by its thing's name, once they are gone through."""

    def __init__(self, plan: Plan, of_step: dict[int, SewnThing]) -> None:
        self.plan, self.of_step = plan, of_step
        self.cutting = 0.0
        self.parts: dict[str, list[str]] = {}

    def sewing(self) -> Iterator[BenchJob]:
        named = {
            label: thing.name
            for thing, _, step in self.of_step.values()
            for label in (step.makes, *step.gives)
        }
        batches = self.plan.batches if isinstance(self.plan, QuiltPlan) else self.plan.work.batches
        for batch in batches:
            for task in batch.tasks:
                sewn_thing = self.of_step.get(task.step)
                if sewn_thing is None or task.verb == "take":
                    self.cutting += task.minutes
                    continue
                yield from self._job(task, *sewn_thing, named)

    def _job(
        self, task: Task, thing: Thing, sewn: SewnBlock, step: Step, named: dict[str, str]
    ) -> Iterator[BenchJob]:
        """The job of a task; nothing where it only cuts the pieces."""
        verb, minutes = task.verb, task.minutes
        if task.pieces:
            marking = sewn.rates.mark * task.marks / 60
            self.cutting += minutes - marking
            if not task.marks:
                return
            verb, minutes = "mark", marking
        times = max(1, task.times)
        parts = self.parts.setdefault(thing.name, [])
        before = sum(part.split(" #")[0] == verb for part in parts)
        part = f"{verb} #{before + 1}" if before else verb
        parts.append(part)
        needs = tuple(dict.fromkeys(named[n] for n in step.needs if n in named))
        units = [step.unit.unit.label] if step.unit else [n for n in step.needs if n not in named]
        stacks = dict.fromkeys(stack for unit in units for stack in sewn.stacks.get(unit, ()))
        labels = tuple(label for stack in stacks for label in stack.split(", "))
        size = measured_text(step.measures, sewn.measure) if step.measures else ""
        yield BenchJob(
            task.place, f"{verb[0].upper()}{verb[1:]}", _what(thing.name, task), times, 0,
            minutes / times, thing, part, size, task.length, None, needs if len(parts) == 1 else (),
            labels if len(parts) == 1 else (),
        )  # fmt: skip


def _what(name: str, task: Task) -> str:
    """``Skiff A``, ``strip sets for Skiff A``: a task's words, under the thing's name."""
    _, _, product = name.partition(" ")
    return f"{task.what.removesuffix(task.makes)}{product}" if task.makes in task.what else product


def _more_cutting(plan: Plan) -> float:
    """Minutes of cutting what lies between the blocks and round them."""
    if not isinstance(plan, QuiltPlan):
        return 0.0
    return sum(t.minutes for b in plan.joining for t in b.tasks if t.verb == "cut")


def _cutting(
    plan: Plan, fabric_plans: tuple[FabricPlan, ...], minutes: float, sewn_stacks: Set[str]
) -> Iterator[BenchJob]:
    """Each piece of fabric to cut up, its share of the minutes by its cuts; then what is cut down
    of stacks that are sewn in some step."""
    project = plan.project
    is_for = ("", 1) if isinstance(plan, QuiltPlan) else (plan.block.id, plan.copies)
    laid = [LaidFor(*is_for, each.fabric, laid) for each in fabric_plans for laid in each.laid]
    names = [name for each in fabric_plans for name in piece_names(each, project)]
    numbers = [len(cuts_of(each.laid, project)) for each in laid]
    per_cut = minutes / max(1, sum(numbers))
    for each, name, number in zip(laid, names, numbers, strict=True):
        if number:
            yield BenchJob("mat", "Cut", name, number, 0, per_cut, laid=each)
    for fabric_plan in fabric_plans:
        for down in fabric_plan.cut_down:
            what = f"{down.label} to {size_text(down.size, project.measure)}"
            thing = Thing(f"Cut down {what}", down.number)
            each_minutes = CUTS_DOWN * plan.rates.cut / 60
            stacks = (down.label,) if down.label in sewn_stacks else ()
            yield BenchJob(
                "mat", CUT_DOWN, what, down.number, 0, each_minutes, thing, stacks=stacks
            )


def _joining(plan: QuiltPlan, things: Sequence[Thing]) -> Iterator[BenchJob]:
    """The steps that put a quilt together, with what the schedule says of each."""
    minutes: dict[int, float] = defaultdict(float)
    seams: dict[int, float] = defaultdict(float)
    steps = plan.steps
    for batch in plan.joining:
        for task in batch.tasks:
            if task.verb != "cut":
                for i, share in _shared(plan, task).items():
                    minutes[i] += task.minutes * share
                    seams[i] += task.chain * share
    before: tuple[str, ...] = ()
    for i, (step, thing) in enumerate(zip(steps, things, strict=True)):
        if step.sewn is None:
            each = minutes[i] / max(1, thing.times)
            verb, _, what = step.name.partition(" ")
            seam = seams[i] / max(1, thing.times)
            yield BenchJob(_place(step), verb, what, thing.times, 0, each, thing, "", step.measures,
                      seam, needs=before)  # fmt: skip
        if step.sewn is None or step.name.startswith("Make "):
            before = (step.name,)


def _shared(plan: QuiltPlan, task: Task) -> dict[int, float]:
    """By the step it is done in, counted from 0, the share of a task; of a task that is done to
    all rows, each row's by its seams."""
    steps, at = plan.steps, task.step - 1
    if not steps[at].alike:
        return {at: 1.0}
    seams = {card.label: len(card.items) - 1 for card in plan.rows}
    rows = {
        i: sum(seams.get(label, 1) for label in step.alike)
        for i, step in enumerate(steps)
        if step.alike
    }
    number = sum(rows.values())
    return {i: many / number for i, many in rows.items()}


def _place(step: QuiltStep) -> BenchPlace:
    if step.title in ON_FLOOR:
        return "floor"
    return "mat" if step.title.startswith("Trim ") else "machine"


def share_done(jobs_: Sequence[BenchJob]) -> float:
    """How much of some jobs is done, from 0 to 1, by the minutes they take; by their number where
    none takes any."""
    whole = sum(job.times * job.minutes for job in jobs_)
    if whole <= 0:
        number = sum(job.times for job in jobs_)
        return sum(job.done for job in jobs_) / number if number else 0.0
    if all(not job.left for job in jobs_):
        return 1.0
    return min(1 - minutes_left(jobs_) / whole, ALL_BUT_DONE)


def minutes_left(jobs_: Iterable[BenchJob]) -> float:
    """What is left of some jobs takes, by the maker's rates."""
    return sum(job.left * job.minutes for job in jobs_)
