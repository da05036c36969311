"""How long a quilt takes and how much thread: its blocks, then its rows, borders and binding, as
sittings.

Every seam of a top lies between two pieces, so their lengths together are half of all the pieces'
sides but those on its edge.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from functools import partial
from math import ceil, sqrt
from typing import NamedTuple, Protocol

from inlet.core.cancellation import check
from inlet.core.geometry import Point, edges, squared_length
from inlet.core.layout import FabricPlan, cuts_of, piece_names
from inlet.core.numbers import Fraction, show
from inlet.core.plan.assembly_steps import motif_title
from inlet.core.plan.edge_steps import band_title
from inlet.core.plan.quilt_step import BACKING, BINDING, JOIN_ROWS, QuiltStep
from inlet.core.project import Measure, Pair, Project, Quilt, Rates
from inlet.core.schedule import CUTS_OF, Batch, Task, Work, least_text, work_for
from inlet.core.setting import (
    BackingWay,
    BindingPlan,
    SettingCuts,
    Top,
    TopPiece,
    trims_of,
)
from inlet.core.staged import Staged

LAY_OUT = "Lay it out"
LAID_SECONDS, PIN_SECONDS, PIN_EVERY, BY_HAND = 20, 6, 4, 3
"""To lay a block in its place, to set a pin; inches between two pins of the layers; how many times
as long as at the machine a seam takes by hand."""


class QuiltedLines(Protocol):
    """What a quilt is quilted along."""

    @property
    def length(self) -> float: ...


class PlannedQuilt(Protocol):
    """What of a quilt's plan says how long it takes."""

    @property
    def top(self) -> Top: ...
    @property
    def quilt(self) -> Quilt: ...
    @property
    def measure(self) -> Measure: ...
    @property
    def rates(self) -> Rates: ...
    @property
    def batches(self) -> tuple[Batch, ...]: ...
    @property
    def joining(self) -> tuple[Batch, ...]: ...
    @property
    def quilted(self) -> QuiltedLines: ...
    @property
    def backing(self) -> BackingWay | None: ...
    @property
    def project(self) -> Project: ...
    @property
    def fabric_plans(self) -> Staged[tuple[FabricPlan, ...]]: ...
    @property
    def setting(self) -> SettingCuts: ...
    @property
    def binding(self) -> BindingPlan | None: ...
    @property
    def steps(self) -> tuple[QuiltStep, ...]: ...


def work_of(plan: PlannedQuilt) -> Work:
    """What the whole quilt takes, quilted and bound. It is cut fabric by fabric, as it is laid
    out, before anything is sewn."""
    every = (*plan.batches, *plan.joining)
    sewn = [batch for batch in map(partial(_without_cuts, plan.rates), every) if batch.tasks]
    minutes = sum(b.minutes for b in every) - sum(b.minutes for b in sewn)
    batches: list[Batch] = []
    for batch in (Batch("mat", tuple(_cutting_tasks(plan, minutes))), *sewn):
        if batches and batches[-1].place == batch.place:
            batches[-1] = Batch(batch.place, (*batches[-1].tasks, *batch.tasks))
        elif batch.tasks:
            batches.append(batch)
    return work_for(tuple(batches), plan.rates, plan.measure)


def _cutting_tasks(plan: PlannedQuilt, minutes: float) -> Iterator[Task]:
    """Each piece of fabric that is laid out, with its share of the minutes by its cuts."""
    laid = [
        (name, len(cuts_of(piece, plan.project)))
        for fabric_plan in plan.fabric_plans.best
        for piece, name in zip(
            fabric_plan.laid, piece_names(fabric_plan, plan.project), strict=True
        )
    ]
    whole = sum(number for _, number in laid)
    for name, number in laid:
        if number:
            what = f"{CUTS_OF}{name}"
            yield Task(0, name, what, "mat", "cut", number, minutes * number / whole)


def _without_cuts(rates: Rates, batch: Batch) -> Batch:
    """What is done besides cutting pieces from fabric; drawing lines on them stays."""
    tasks = []
    for task in batch.tasks:
        verbs = task.verb.split(", ")
        if verbs[0] != "cut":
            tasks.append(task)
        elif rest := verbs[1:]:
            marking = rates.mark * task.marks / 60
            tasks.append(task._replace(verb=", ".join(rest), minutes=marking, pieces=""))
    return Batch(batch.place, tuple(tasks))


class QuiltSeams(NamedTuple):
    """Seams of one kind, ``length`` long in all, as what they are sewn in: ``times`` ``what``.
    ``step`` is the title of the step they are first sewn in, or what that step is ``of``."""

    what: str
    times: int
    seams: int
    length: float
    step: str


def seams_of(top: Top, quilt: Quilt) -> Iterator[QuiltSeams]:
    """The seams inside the motifs of a top, inside its rows, between them, and of each border."""
    lying = Counter(p.lying.placed.block for p in top.pieces if p.lying is not None)
    for motif in quilt.motifs:
        check()
        number, size = lying[motif.id], top.sizes.get(motif.id)
        inner = motif.columns * motif.rows - 1
        if number and inner and size is not None:
            wide, high = size.in_use
            length = number * float((motif.rows - 1) * wide + (motif.columns - 1) * high)
            what = f"motif{'s' * (number > 1)} {motif.name or motif.id}"
            yield QuiltSeams(what, number, number * inner, length, motif_title(motif))
    rows = [row for row in top.rows if len(row.pieces) > 1]
    inside = sum(_between(row.pieces) for row in rows)
    if rows:
        many = sum(len(row.pieces) - 1 for row in rows)
        what = "rows" if len(rows) > 1 else "row"
        yield QuiltSeams(what, len(rows), many, inside, rows[0].label)
    pieces = [piece for row in top.rows for piece in row.pieces]
    middle = _sewn(pieces, top.middle)
    joins = len(top.rows) - 1
    if joins > 0:
        what = "seams between rows" if joins > 1 else "seam between rows"
        yield QuiltSeams(what, joins, joins, middle - inside, JOIN_ROWS)
    sizes = [*(each.inner for each in top.borders[1:]), top.size]
    for each, outer in zip(top.borders, sizes, strict=False):
        strips = [strip for pair in each.pairs for strip in pair]
        many = sum(len(strip.pieces) for strip in strips)
        length = (sum(map(_around, each.pieces)) + _edge(each.inner) - _edge(outer)) / 2
        yield QuiltSeams(f"{each.label.lower()} strips", len(strips), many, length, each.label)


def _between(pieces: Sequence[TopPiece]) -> float:
    """The length of the sides that two of the pieces share from corner to corner."""
    sides = {side for piece in pieces for side in edges(piece.outline)}
    return sum(_long(p, q) for p, q in sides if (q, p) in sides) / 2


def _sewn(pieces: Iterable[TopPiece], size: Pair) -> float:
    """The length of all seams between pieces that fill a rectangle."""
    return (sum(map(_around, pieces)) - _edge(size)) / 2


def _around(piece: TopPiece) -> float:
    return sum(_long(p, q) for p, q in edges(piece.outline))


def _long(p: Point, q: Point) -> float:
    return sqrt(squared_length(p, q))


def _edge(size: Pair) -> float:
    return 2 * float(size[0] + size[1])


def joining_of(plan: PlannedQuilt) -> Iterator[Batch]:
    """Cutting what lies between the blocks and around them, then the seams: sewn, and pressed."""
    number = sum(cut.number for cut in plan.setting.cuts)
    kinds = [*_joins_of_bands(plan.setting), *seams_of(plan.top, plan.quilt)]
    if plan.binding is not None:
        number += plan.binding.strips
    system, rates = plan.measure.system, plan.rates
    if number:
        what = "pieces besides the blocks"
        yield Batch("mat", (Task(0, what, what, "mat", "cut", number, number * rates.cut / 60),))
    steps = [(step.title, step.of) for step in plan.steps]
    blocks = sum(piece.lying is not None for piece in plan.top.pieces)
    if blocks:
        step = next((i for i, (title, _) in enumerate(steps, 1) if title == LAY_OUT), 0)
        what, minutes = "blocks", blocks * LAID_SECONDS / 60
        yield Batch("mat", (Task(step, what, what, "mat", "lay out", blocks, minutes),))
    trims = trims_of(plan.top).total()
    if trims:
        step = next(i for i, (title, _) in enumerate(steps, 1) if title.startswith("Trim "))
        what = "blocks to one size"
        minutes = trims * rates.trim / 60
        yield Batch("mat", (Task(step, what, what, "mat", "trim", trims, minutes),))
    for what, times, seams, length, of in kinds:
        step = next((i for i, each in enumerate(steps, 1) if of in each), len(steps))
        sewing = (rates.seam * seams + rates.length * length / system.rate_length) / 60
        per = seams / times
        long = length / times + system.thread_gap * per
        yield Batch(
            "machine", (Task(step, what, what, "machine", "sew", times, sewing, per, long),)
        )
        pressing = rates.press * seams / 60
        yield Batch("iron", (Task(step, what, what, "iron", "press", times, pressing),))
    yield from _finishing(plan, steps)


def _joins_of_bands(setting: SettingCuts) -> Iterator[QuiltSeams]:
    """Strips sewn end to end, before anything is cut from them."""
    for band in setting.bands:
        joins = band.strips - 1
        length = joins * float(band.width) * (sqrt(2) if band.slanted else 1)
        what = f"joins of {band.label.lower()}"
        yield QuiltSeams(what, 1, joins, length, band_title(band))


def _finishing(plan: PlannedQuilt, steps: Sequence[tuple[str, str]]) -> Iterator[Batch]:
    """Layering the quilt, quilting it along its lines, and its binding: joined, sewn on, and sewn
    down by hand."""
    system, rates = plan.measure.system, plan.rates

    def step_of(of: str) -> int:
        return next((i for i, each in enumerate(steps, 1) if of in each), len(steps))

    def along(length: float) -> float:
        return rates.length * length / system.rate_length / 60

    if plan.backing is not None:
        inch = float(system.per_inch)
        wide, high = (float(side) / inch for side in plan.top.size)
        minutes = wide * high / PIN_EVERY**2 * PIN_SECONDS / 60
        what = "backing, batting and top"
        yield Batch("mat", (Task(step_of(BACKING), what, what, "mat", "layer", 1, minutes),))
        length = plan.quilted.length
        if length:
            what = "the quilt"
            task = Task(step_of(BACKING), what, what, "machine", "quilt", 1, along(length))
            yield Batch("machine", (task,))
    if plan.binding is not None:
        length, what, step = float(plan.binding.length), "the binding", step_of(BINDING)
        joins = plan.binding.joins + 1
        long = length + system.thread_gap * joins
        sewing = rates.seam * joins / 60 + along(length)
        sew = Task(step, what, what, "machine", "sew", 1, sewing, joins, long)
        yield Batch("machine", (sew,))
        down = Task(step, what, what, "machine", "sew down", 1, BY_HAND * along(length))
        yield Batch("machine", (down,))


def work_text(work: Work, measure: Measure) -> str:
    """``About 14 h, in 14 sittings; 1 320 yd of thread``."""
    unit = measure.system.long_unit
    thread = show(Fraction(ceil(2 * work.thread.each / unit.length)))
    hours = max(1, round(work.minutes / 60))
    number = len(work.sittings)
    many = "1 sitting" if number == 1 else f"{number} sittings"
    return (
        f"About {hours} h of work, in {many} {least_text(work)}; "
        f"{thread} {unit.name} of thread, top and bobbin together"
    )
