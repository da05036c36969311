"""What to do where pieces cut at the ruler's marks do not fit: each way tried, the best taken."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from functools import cached_property
from itertools import islice
from typing import Literal, NamedTuple

from inlet.core.assembly import Faces
from inlet.core.draft import Draft
from inlet.core.fitting.runs import Run, runs_by_part, runs_of
from inlet.core.fitting.settle import settled
from inlet.core.fitting.sewn import Layout, SewnUp, Size, lengths_of
from inlet.core.geometry import is_rectangle
from inlet.core.numbers import Exact, Fraction
from inlet.core.planning import CutRule, UnitPlan, cut_area, usual_rule, with_inside
from inlet.core.project import Awkward, Measure, Rates
from inlet.core.units import Part

Remedy = Literal["none", "trim", "finer", "bands", "size", "leave"]

FINER_SECONDS = 3
"""What finding a finer mark takes, each time a piece is cut."""

HAIR = 1e-9

EASED = Fraction(1, 192)
"""Of a length: a sixteenth of an inch in a foot can be eased."""


class Fit(NamedTuple):
    """One way to cut a block, and what comes of it: ``finished`` is what the block shows, ``trims``
    how many units are trimmed for it, ``mark`` the finest mark that is cut at, ``finer`` how many
    shapes are cut at it where it is finer than the ruler's."""

    remedy: Remedy
    units: tuple[UnitPlan, ...]
    sewn: SewnUp
    finished: Size
    missed: float
    mark: Fraction
    trims: int = 0
    finer: int = 0

    @property
    def worst(self) -> float:
        """How far the edges of a seam differ at most."""
        return self.sewn.worst

    @property
    def fabric(self) -> float:
        """The fabric cut, squared."""
        return sum(cut_area(piece) for plan in self.units for piece in plan.in_use.pieces)

    def error(self, measure: Measure, most_off: float | None = None) -> float:
        """How far seams and the block are off, beyond what is eased and what is not seen, or, of
        the block, beyond ``most_off``."""
        system = measure.system
        seams = max(0.0, self.worst - float(system.thread) - HAIR)
        seen = float(system.checked_to + system.fine_mark / 2)  # to the finest that can be read
        if most_off is not None:
            seen = min(seen, most_off)
        return round(seams + max(0.0, self.missed - seen - HAIR), 6)

    @property
    def follows(self) -> bool:
        """Is it sewn of units that are made already?"""
        return any(plan.made is not None for plan in self.units)

    def minutes(self, rates: Rates) -> float:
        return (self.trims * rates.trim + self.finer * FINER_SECONDS) / 60


def _not_made(units: Iterable[UnitPlan], rule: CutRule) -> tuple[UnitPlan, ...]:
    """Units cut by another rule, but for those that are made already."""
    return tuple(plan if plan.made is not None else replace(plan, rule=rule) for plan in units)


def _whole_length(run: Run) -> bool:
    """Is a side all of a length that decides it?"""
    return run.length is not None and run.share > 1 - HAIR


class Fitting:
    """The ways to cut one block so that it fits; ``on_marks`` is whether its cuts land on marks,
    but for diagonals and for what lands at no size."""

    def __init__(
        self,
        draft: Draft,
        root: Part,
        units: Sequence[UnitPlan],
        measure: Measure,
        on_marks: bool,
        repeated: bool = False,
    ) -> None:
        """``repeated``: the block lies many times in one line, as in a border, and may be off by no
        more than can be eased there."""
        self._most_off = float(min(draft.block.finished) * EASED) if repeated else None
        self.draft, self.root, self.measure = draft, root, measure
        self.units, self.on_marks = tuple(units), on_marks
        self._follows = any(plan.made is not None for plan in self.units)

    @cached_property
    def usual(self) -> Fit:
        """Every piece at its own mark, nothing done."""
        runs = [run for runs in self._usual_runs.values() for run in runs]
        return self._fit("none", self.units, runs, Layout(self.draft, runs), self.measure.mark)

    @cached_property
    def _usual_runs(self) -> dict[Faces, Sequence[Run]]:
        """The sides of every part, each piece at its own mark."""
        return runs_by_part(self.draft, self.units)

    @cached_property
    def _by_length(self) -> dict[Faces, Sequence[Run]]:
        """Of those, the sides of parts that come out as their lengths are cut, by whatever rule."""
        trimmable = {
            place.part.faces
            for plan in self.units
            if self._can_be_trimmed(plan)
            for place in plan.unit.places
        }
        return {
            faces: runs
            for faces, runs in self._usual_runs.items()
            if faces not in trimmable and all(map(_whole_length, runs))
        }

    @property
    def fits(self) -> bool:
        """Can it be sewn as it is: seams that fit to a thread, and a block of its size? At a
        ruler-friendly size its size may be off as far as it is checked, by the craft's habits of
        rounding diagonals."""
        return self._off(self.usual) == 0

    @property
    def seams_fit(self) -> bool:
        """Do the edges of every seam meet to a thread, cut at the ruler's mark?"""
        return self.usual.worst <= float(self.measure.system.thread) + HAIR

    def _off(self, fit: Fit) -> float:
        if self._follows:  # the block is as large as what is made of it
            fit = fit._replace(missed=0.0)
        return fit.error(self.measure, self._most_off)

    @cached_property
    def trimmed(self) -> Fit | None:
        """Units that are cut on a slant trimmed to size before they are sewn on; None where there
        are none."""
        units = [plan for plan in self.units if self._can_be_trimmed(plan)]
        if not units:
            return None
        # On marks coarser than those all else needs it would not fit either.
        coarsest = self.measure.mark if self.on_marks else self.finer.mark
        marks = [mark for mark in self._marks if mark <= coarsest]
        return self._best(lambda mark: self._with_trims(units, mark), marks)

    @cached_property
    def finer(self) -> Fit:
        """Every piece cut so that it fits its neighbours, on a finer mark where needed."""
        return self._best(self._on_marks, self._marks)

    @property
    def _marks(self) -> list[Fraction]:
        """The ruler's mark, and the finest that a hand can set."""
        return [self.measure.mark, self.measure.finest]

    def chosen(self, rates: Rates) -> Fit:
        """How it is cut, as the maker wishes it where it does not fit (``measure.awkward``)."""
        return self.wished(self.measure.awkward, rates)

    def wished(self, awkward: Awkward, rates: Rates) -> Fit:
        """How it is cut where the maker wishes this; as it is where it fits."""
        if self.fits:
            return self.usual
        if awkward == "leave":
            return self.usual._replace(remedy="leave")
        if awkward == "finer":
            return self.finer
        if awkward == "trim" and self.trimmed is not None:
            return self.trimmed
        return self.best(rates)

    def best(self, rates: Rates) -> Fit:
        """Of trimming, finer marks and leaving it as it is: least error, then least work. At a
        ruler-friendly size every cut stays on its mark, and what comes out larger is trimmed."""
        if self.on_marks and self.trimmed and not self._off(self.trimmed):
            return self.trimmed
        ways = [self.finer, self.usual._replace(remedy="leave")]
        count = sum(plan.count for plan in self.units if self._can_be_trimmed(plan))
        least = count * rates.trim / 60  # trimming takes as long at least
        if self._off(ways[0]) or least < ways[0].minutes(rates):
            ways += [self.trimmed] if self.trimmed else []
        return min(ways, key=lambda fit: (self._off(fit), fit.minutes(rates)))

    def _best(self, way: Callable[[Fraction], Iterator[Fit]], marks: Sequence[Fraction]) -> Fit:
        """A way on the coarsest mark on which it fits, else that with the least error; the finest
        is tried thoroughly."""
        fits: list[Fit] = []
        for mark in marks:
            for fit in islice(way(mark), None if mark == marks[-1] else 1):
                if self._off(fit) == 0:
                    return fit
                fits.append(fit)
        return min(fits, key=lambda fit: self._off(fit))

    def _on_marks(self, mark: Fraction) -> Iterator[Fit]:
        """Every length cut on this mark, settled with those it meets."""
        rule = replace(usual_rule(self.measure), mark=mark, nearest=mark < self.measure.mark)
        units = _not_made(self.units, rule)
        runs = runs_of(self.draft, units, self._by_length)
        layout = self.usual.sewn.layout
        for at in self._settled(runs, layout, mark):
            fitted = with_inside(_not_made(units, replace(rule, fitted=at)))
            yield self._fit("finer", fitted, self._come_out(fitted, runs, at), layout, mark)

    def _with_trims(self, trimmed: Sequence[UnitPlan], mark: Fraction) -> Iterator[Fit]:
        """Some units trimmed, all else cut on this mark, settled with what it meets."""
        usual = usual_rule(self.measure)
        rule = replace(usual, mark=mark, nearest=mark < self.measure.mark)
        labels = {plan.unit.label for plan in trimmed}

        def planned(at: Mapping[Exact, Fraction]) -> tuple[UnitPlan, ...]:
            fitted = replace(rule, fitted=at)
            return with_inside(
                self._trimmed(plan, at, fitted) if plan.unit.label in labels
                else plan if plan.made is not None
                else replace(plan, rule=fitted)
                for plan in self.units
            )  # fmt: skip

        runs = runs_of(self.draft, planned({}), self._by_length)
        layout = Layout(self.draft, runs)
        for at in self._settled(runs, layout, mark):
            units = planned(at)
            yield self._fit("trim", units, self._come_out(units, runs, at), layout, mark)

    def _trimmed(self, plan: UnitPlan, at: Mapping[Exact, Fraction], rule: CutRule) -> UnitPlan:
        """A unit cut large enough to be trimmed to what ``at`` says of its sides."""
        sides = [side + 2 * self.measure.seam for side in plan.unit.size]
        to = tuple(at.get(side, rule.as_sewn(side)) for side in sides)
        over = max(float(cut - side) for cut, side in zip(to, sides, strict=True))
        slack = Fraction(0) if over <= 0 else self.measure.mark
        cut_large = replace(usual_rule(self.measure), fitted=at, slack=slack)
        return replace(plan, rule=cut_large, trimmed=(to[0], to[1]))

    def _can_be_trimmed(self, plan: UnitPlan) -> bool:
        """Is it a rectangle of several pieces, some of them cut on a slant?"""
        method = plan.in_use.method
        if plan.made is not None:
            return False
        rectangle = len(plan.unit.part.faces) > 1 and is_rectangle(plan.unit.outline)
        slanted = any(p.crosscut != "none" for p in method.pieces) or any(
            strips.slanted for strips in method.sets
        )
        return rectangle and slanted

    def _settled(
        self, runs: Sequence[Run], layout: Layout, mark: Fraction
    ) -> Iterator[dict[Exact, Fraction]]:
        """What the lengths are settled to, then, thoroughly, where that is something else."""
        seam = self.measure.seam
        # What meets units that are made already is cut to them, not only to a thread.
        thread = Fraction(0) if self._follows else self.measure.system.thread
        quick = settled(runs, layout.stretches, seam, mark, thread, False)
        yield quick
        thorough = settled(runs, layout.stretches, seam, mark, thread, True)
        if thorough != quick:
            yield thorough

    def _come_out(
        self, units: Sequence[UnitPlan], runs: list[Run], at: Mapping[Exact, Fraction]
    ) -> list[Run]:
        """Runs of units whose lengths are settled. Where a corner sewn on parts a side, how it is
        cut decides where."""
        parted = any(run.length is not None and run.share < 1 - HAIR for run in runs)
        if not parted:
            return self._made(runs, at)
        known = {faces: self._made(runs, at) for faces, runs in self._by_length.items()}
        return runs_of(self.draft, units, known)

    def _made(self, runs: Sequence[Run], at: Mapping[Exact, Exact]) -> list[Run]:
        """Runs as they come out once lengths are settled."""
        twice = 2 * float(self.measure.seam)
        return [
            run
            if run.length is None
            else run._replace(made=run.share * (float(at[run.length]) - twice))
            for run in runs
        ]

    def _fit(
        self,
        remedy: Remedy,
        units: tuple[UnitPlan, ...],
        runs: Sequence[Run],
        layout: Layout,
        mark: Fraction,
    ) -> Fit:
        sewn = SewnUp(layout, runs, lengths_of(runs, layout))
        wide, high = (float(side) for side in self.draft.block.finished)
        finished = sewn.block_size(self.root.faces, self.root.outline) or (wide, high)
        missed = max(abs(finished[0] - wide), abs(finished[1] - high))
        trims = sum(plan.count for plan in units if plan.trimmed is not None)
        finer = 0
        if mark < self.measure.mark:
            finer = sum(
                piece.number
                for plan in units
                for piece in plan.in_use.pieces
                if any(side % self.measure.mark for side in piece.cut)
            )
        return Fit(remedy, units, sewn, finished, missed, mark, trims, finer)
