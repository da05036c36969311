"""The answers to an awkward size, side by side: what each takes, and what the block comes to."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import accumulate
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.cancellation import check
from inlet.core.cutlist import RulerFriendly, ruler_friendly
from inlet.core.draft import draft, in_fabric
from inlet.core.fitting.bands import Bands, bands_on_marks, on_bands
from inlet.core.fitting.remedies import Fit, Fitting, Remedy
from inlet.core.fitting.words import (
    NAMES,
    bands_answer_text,
    block_text,
    done_text,
    size_answer_text,
)
from inlet.core.geometry import bounds
from inlet.core.planning import UnitPlan, plan_units, with_inside
from inlet.core.project import Block, Measure, Project, replace
from inlet.core.units import break_down

NEAR = 1e-9
Floats = NDArray[np.float64]

SQUARE = frozenset(
    (
        "half-square-triangle", "quarter-square-triangle", "three-triangle", "square-in-square",
        "four-patch", "eight-point-star", "nine-patch",
    )
)  # fmt: skip
"""Kinds of unit that are squares."""


class Answer(NamedTuple):
    """One way out: how the block is cut and what comes of it; in words what is done, and, where
    the drawing or its size is another then, the new ``block``."""

    remedy: Remedy
    fit: Fit
    done: str
    measure: Measure
    block: Block | None = None

    @property
    def comes_out(self) -> str:
        """What the block shows: “10 3/4 in, generous by 1/64 in”."""
        return block_text(self.fit, self.measure)

    @property
    def text(self) -> str:
        """What is done and what comes of it."""
        comes_out = "" if self.remedy == "size" else f" The block comes out {self.comes_out}."
        return f"{NAMES[self.remedy]}: {self.done}{comes_out}"


def answers(
    fitting: Fitting, project: Project, block: Block, copies: int, sizes: RulerFriendly
) -> tuple[Answer, ...]:
    """Every way to make a block that does not fit as it is; none where it does."""
    return () if fitting.fits else tuple(_answers(fitting, project, block, copies, sizes))


def _answers(
    fitting: Fitting, project: Project, block: Block, copies: int, sizes: RulerFriendly
) -> Iterator[Answer]:
    measure = project.measure
    ways = [fitting.finer, fitting.trimmed, fitting.usual._replace(remedy="leave")]
    for fit in ways:
        if fit is not None:
            yield Answer(fit.remedy, fit, done_text(fit, measure), measure)
    bands = with_bands(fitting, project, block, copies)
    if bands is not None:
        fit, new_block = bands.usual._replace(remedy="bands"), bands.draft.block
        yield Answer("bands", fit, bands_answer_text(block, new_block, measure), measure, new_block)
    for size in (sizes.smaller, sizes.larger):
        if size is not None:
            new_block = replace(block, finished=size)
            fit = at_size(fitting, new_block).usual._replace(remedy="size")
            yield Answer("size", fit, size_answer_text(size, measure), measure, new_block)


def at_size(fitting: Fitting, block: Block) -> Fitting:
    """The same drawing at another size: it breaks down in the same way."""
    k = block.finished[0] / fitting.draft.block.finished[0]
    units = with_inside(plan.scaled(k) for plan in fitting.units)
    drawn = in_fabric(block, fitting.draft.homes)
    return Fitting(drawn, fitting.root, units, fitting.measure, True)


def fitting_of(project: Project, block: Block, copies: int) -> Fitting:
    """A block broken down, and the ways to cut it."""
    drawn = draft(block)
    root = break_down(drawn)
    units = plan_units(project, block, drawn, root, copies)
    sizes = ruler_friendly(units, block, project.measure)
    return Fitting(drawn, root, units, project.measure, not sizes.misses)


def with_bands(fitting: Fitting, project: Project, block: Block, copies: int) -> Fitting | None:
    """The block with its bands on the ruler's marks, as near to how they are drawn as makes it fit;
    None where nothing does, or units in them would be of other kinds."""
    kinds = _kinds(fitting.units)
    stay_square = _Squares(fitting, block)
    for across, down in bands_on_marks(block, project.measure.mark):
        check()
        if not stay_square.on(across, down):
            continue
        new_block = on_bands(block, across, down)
        if new_block is not None:
            other_fitting = fitting_of(project, new_block, copies)
            if _kinds(other_fitting.units) == kinds and other_fitting.fits:
                return other_fitting
    return None


class _Squares:
    """Units that must be squares: how much of each band lies along each of their sides."""

    def __init__(self, fitting: Fitting, block: Block) -> None:
        boxes = [
            tuple(map(float, bounds(place.part.outline)))
            for plan in fitting.units
            if plan.unit.kind in SQUARE and len(plan.unit.part.faces) > 1
            for place in plan.unit.places
        ]
        left, top, right, bottom = np.array(boxes).reshape(-1, 4).T
        lines: list[Floats] = [
            np.array([0.0, *accumulate(float(band * scale) for band in bands)])
            for bands, scale in zip((block.columns, block.rows), block.scale, strict=True)
        ]
        self._wide = _shares(left, right, lines[0])
        self._high = _shares(top, bottom, lines[1])

    def on(self, across: Bands, down: Bands) -> bool:
        """Are all still squares where the bands are so wide?"""
        wide = self._wide @ np.array(across, dtype=float)
        high = self._high @ np.array(down, dtype=float)
        return bool((abs(wide - high) <= NEAR).all())


def _shares(first: Floats, last: Floats, lines: Floats) -> Floats:
    """The share of each band, between ``lines``, that lies from ``first`` to ``last``: one row for
    each of these."""
    ends = np.minimum(last[:, None], lines[1:]) - np.maximum(first[:, None], lines[:-1])
    shares: Floats = np.maximum(ends, 0.0) / np.diff(lines)
    return shares


def _kinds(units: Sequence[UnitPlan]) -> Counter[str]:
    """How many units of each kind; a square may become a rectangle."""
    kinds: Counter[str] = Counter()
    for plan in units:
        plain = plan.unit.kind in ("square", "rectangle")
        kinds["rectangle" if plain else plan.unit.kind] += plan.count
    return kinds
