"""A block sewn up from units that are made already, and came out otherwise than planned."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import NamedTuple

from inlet.core.fitting.remedies import EASED, Fit, Fitting
from inlet.core.planning import MadeSize, UnitPlan, with_inside
from inlet.core.project import Rates


def as_made(fit: Fit, fitting: Fitting, made_sizes: Mapping[str, MadeSize], rates: Rates) -> Fit:
    """A block of which some units, by their label, are made so: sewn up as it was to be cut, or, to
    match them, with all other lengths settled by what they are sewn to. Where it is matched its
    size is what comes of that, and no error."""
    units = with_inside(_made(plan, made_sizes) for plan in fit.units)
    matched = Fitting(fitting.draft, fitting.root, units, fitting.measure, False)
    if any(size.match for size in made_sizes.values()):
        return matched.best(rates) if not matched.fits else matched.usual
    return matched.usual._replace(
        remedy=fit.remedy, mark=fit.mark, trims=fit.trims, finer=fit.finer
    )


def _made(plan: UnitPlan, made_sizes: Mapping[str, MadeSize]) -> UnitPlan:
    size = made_sizes.get(plan.unit.label)
    return plan if size is None else replace(plan, made=size)


class Easing(NamedTuple):
    """The seam that takes most easing for its length: by how much its edges differ, how long it is,
    and how much can be eased in over that."""

    differs: float
    length: float

    @property
    def most(self) -> float:
        return self.length * float(EASED)


def worst_easing(fit: Fit) -> Easing:
    """The seam that is eased worst; one without length where there is no seam."""
    layout, long = fit.sewn.layout, fit.sewn.long
    seams = [
        Easing(differs, sum(long[i] for i in stretch.one))
        for stretch, differs in zip(layout.stretches, fit.sewn.differences, strict=True)
    ]
    return max(seams, key=lambda seam: seam.differs - seam.most, default=Easing(0.0, 0.0))
