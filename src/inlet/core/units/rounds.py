"""Rounds: strips built one after the other about a centre, read off the tree of a part."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from inlet.core.geometry import Point, cross
from inlet.core.units.parts import Part

FEWEST_STRIPS = 4


class Rounds(NamedTuple):
    """Strips in the order they are added round ``centre``; ``sides`` are where: (along the first
    direction or square to it, before or after)."""

    centre: Part
    strips: tuple[Part, ...]
    sides: tuple[tuple[bool, bool], ...]
    first: Point | None

    @property
    def whole(self) -> bool:
        """Is it rounds, not a few bars beside one another: on all four sides, or going about the
        centre by at least three turns."""
        if len(self.strips) < FEWEST_STRIPS:
            return False
        turns = sum(a[0] != b[0] for a, b in pairwise(self.sides))
        return len(set(self.sides)) == 4 or turns >= 3


def is_strip(part: Part) -> bool:
    return len(part.faces) == 1 and part.kind in ("square", "rectangle")


def flattened_bands(part: Part) -> tuple[Part, ...]:
    """A part's parts, with bands beside one another that were taken as one unit of strips told
    apart again."""
    bands: list[Part] = []
    for inner in part.parts:
        alike = inner.kind == "strips" and inner.across is not None and part.across is not None
        if alike and cross(inner.across, part.across) == 0:  # type: ignore[arg-type]
            bands += inner.parts
        else:
            bands.append(inner)
    return tuple(bands)


def read_rounds(part: Part, inner: Rounds | None) -> Rounds | None:
    """A part as rounds, whole or begun; None where it is not a core with a strip or more either
    side. ``inner`` are the core's own rounds."""
    bands = flattened_bands(part)
    if part.stuck or len(bands) < 2 or part.across is None:
        return None
    pieced = [i for i, band in enumerate(bands) if not is_strip(band)]
    if len(pieced) > 1:
        return None
    core = pieced[0] if pieced else _middle(bands)
    centre = bands[core]
    rounds = inner if pieced and inner is not None else Rounds(centre, (), (), None)
    if not rounds.strips and not is_strip(centre) and centre.kind is None:
        return None
    first = rounds.first or part.across
    square = cross(first, part.across) != 0
    added = [(bands[i], (square, False)) for i in reversed(range(core))]
    added += [(band, (square, True)) for band in bands[core + 1 :]]
    return Rounds(
        rounds.centre,
        rounds.strips + tuple(band for band, _ in added),
        rounds.sides + tuple(side for _, side in added),
        first,
    )


def _middle(bands: Sequence[Part]) -> int:
    """Which of plain bands is the core: the middle one, of two the one that is a square."""
    middle = (len(bands) - 1) // 2
    if len(bands) % 2 == 0 and bands[middle].kind != "square" == bands[middle + 1].kind:
        return middle + 1
    return middle


def _in_turn(rounds: Rounds) -> Rounds:
    """Rounds whose first strip may as well be the core, both being squares, read so that strips go
    on round it: the third lies across from the first."""
    both = rounds.strips and rounds.centre.kind == rounds.strips[0].kind == "square"
    if not both or len(rounds.strips) < 3 or rounds.sides[0] != rounds.sides[2]:
        return rounds
    (across, after), *others = rounds.sides
    return rounds._replace(
        centre=rounds.strips[0],
        strips=(rounds.centre, *rounds.strips[1:]),
        sides=((across, not after), *others),
    )


def rounds_of(part: Part) -> Rounds | None:
    """The rounds of a part that is built of them, from the centre out."""
    around: list[Part] = []  # each the core of the one before it
    while bands := flattened_bands(part):
        around.append(part)
        part = max(bands, key=lambda p: len(p.faces))
    rounds: Rounds | None = None
    for each in reversed(around):
        rounds = read_rounds(each, rounds)
    return rounds and _in_turn(rounds)
