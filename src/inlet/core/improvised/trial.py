"""A scrap tried on a corner before it is sewn: does it cover, and what is the least that does?"""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.geometry import Polygon, area, flip
from inlet.core.improvised.coverage import (
    LeastScrap,
    coverage,
    least_scrap,
    scrap_over,
    to_cover,
)
from inlet.core.improvised.seams import CornerSeam, line_of, seam_length
from inlet.core.numbers import Exact, floor_exact, next_mark
from inlet.core.project import Measure, Pair
from inlet.core.words import length_text


class CornerTrial(NamedTuple):
    """A scrap laid over a corner of a raw square: as it ``lies`` before it is sewn and as it lies
    ``flipped``, what is ``wanted`` of it, whether it ``covers`` that. ``deeper`` is how far it
    reaches past the corner, ``longer`` past the ends of what it has to cover, at the shorter side;
    below 0 where it misses. ``least`` is the smallest that covers."""

    seam: CornerSeam
    size: Pair
    scrap: LeastScrap
    slide: Exact
    lies: Polygon
    flipped: Polygon
    wanted: Polygon
    covers: bool
    deeper: Exact
    longer: Exact
    least: LeastScrap


def tried(
    seam: CornerSeam, size: Pair, scrap: LeastScrap, measure: Measure, slide: Exact
) -> CornerTrial:
    """A scrap tried, slid by so much from the middle of the seam. A corner d deep, its seam c long,
    wants d + s by c(d + s)/d."""
    s = measure.seam
    lies = scrap_over(seam, size, scrap, s, slide)
    flipped = flip(lies if area(lies) > 0 else lies[::-1], line_of(seam, size))
    long = seam_length(seam)
    deep = seam.along * seam.down / long
    room = (scrap.length - long * (deep + s) / deep) / 2
    return CornerTrial(
        seam, size, scrap, slide, lies, flipped, to_cover(seam, size, s),
        coverage(lies, seam, size, s).covers,
        scrap.width - deep - s,
        room - slide if slide > 0 else room + slide,
        least_scrap(seam, measure),
    )  # fmt: skip


def trial_text(trial: CornerTrial, measure: Measure) -> str:
    """``It covers the corner: 3/8 in to spare.`` or what it misses."""
    fine = measure.system.thread

    def missing(length: Exact) -> str:
        return length_text(next_mark(length, fine), measure)

    if trial.covers:
        spare = min(trial.deeper, trial.longer)
        least = floor_exact(spare / fine) * fine
        return (
            f"It covers the corner: {length_text(least, measure)} to spare."
            if spare >= fine
            else "It just covers the corner."
        )
    misses = []
    if trial.deeper < 0:
        misses.append(f"{missing(-trial.deeper)} too narrow")
    if trial.longer < 0:
        misses.append(f"{missing(-trial.longer)} too short at an end")
    return f"It does not cover the corner: {' and '.join(misses) or 'it misses by a hair'}."


def corners_of_strip(trial: CornerTrial, length: Exact) -> int:
    """How many corners like this a strip of a length does, one after the other."""
    return floor_exact(length / trial.least.length)
