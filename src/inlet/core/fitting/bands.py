"""Bands fitted to the ruler's marks: unequal ones that add up to the size wished for."""

from __future__ import annotations

from collections.abc import Sequence
from heapq import nsmallest
from itertools import product
from operator import itemgetter, mul

from inlet.core.draft import set_bands
from inlet.core.numbers import Exact, Fraction, floor_exact, nearest_mark
from inlet.core.project import Block, replace, total

REACH = ((3, 3), (1, 5), (0, 10))
"""Marks that a band may come out narrower or wider than it is drawn, besides the next one either
way, where so many bands at most are chosen freely, those that mirror one another taken as one."""
MOST_TRIED = 60
"""Ways to set the bands of a block that are tried."""
Bands = tuple[Fraction, ...]


def bands_on_marks(block: Block, mark: Fraction) -> Sequence[tuple[Bands, Bands]]:
    """Widths across and down that are whole numbers of marks, finished, and add up to the block's
    size (or the nearest that can be had); the nearest to how it is drawn first. What is drawn alike
    on either side of the middle stays so, and the same bands both ways stay the same."""
    widths = [
        [band * scale for band in bands]
        for bands, scale in zip((block.columns, block.rows), block.scale, strict=True)
    ]
    columns = _choices(widths[0], mark)
    if widths[0] == widths[1]:
        return [(bands, bands) for _, bands in columns]
    rows = _choices(widths[1], mark)
    # A pair has (i + 1)(j + 1) pairs at least as near, itself and those of nearer bands.
    both = [
        (round(off + other_off, 9), across, down)
        for i, (off, across) in enumerate(columns)
        for other_off, down in rows[: MOST_TRIED // (i + 1)]
    ]
    return [(across, down) for _, across, down in sorted(both, key=itemgetter(0))[:MOST_TRIED]]


def on_bands(block: Block, across: Bands, down: Bands) -> Block | None:
    """``block`` on other bands, finished, its grid units as long as they are; None where they are
    the same, or a seam would be left out."""
    columns, rows = (
        tuple(width / scale for width in bands)
        for bands, scale in zip((across, down), block.scale, strict=True)
    )
    if (columns, rows) == (block.columns, block.rows):
        return None
    regridded = set_bands(block, columns, rows)
    if regridded.left_out:
        return None
    return replace(regridded.block, finished=(total(across), total(down)))


def _choices(widths: Sequence[Exact], mark: Fraction) -> list[tuple[float, Bands]]:
    """The nearest ways to set bands on the marks, with how far each is from how they are drawn (its
    squares added up): the nearest first, of equal ones those with wider bands outside. Each group
    of mirrored ones comes out within reach, the last as the whole asks for."""
    whole = floor_exact(nearest_mark(total(tuple(widths)), mark) / mark)
    groups = _groups(widths, whole)
    # The group in the middle, or the widest, takes what the others leave.
    rest = min(groups, key=lambda group: (len(group), -float(widths[group[0]])))
    free = [group for group in groups if group != rest]
    reach = next((reach for reach, most in REACH if len(free) <= most), None)
    if reach is None:
        return []
    lows = [floor_exact(widths[group[0]] / mark) for group in free]
    spans = [range(max(1, low - reach), low + reach + 2) for low in lows]
    drawn = [float(widths[group[0]]) for group in (*free, rest)]
    numbers_of = [len(group) for group in (*free, rest)]
    place = {i: k for k, group in enumerate((*free, rest)) for i in group}
    step = float(mark)
    choices: list[tuple[float, list[int]]] = []
    for numbers in product(*spans):
        left = whole - sum(map(mul, numbers, numbers_of))
        share, uneven = divmod(left, len(rest))
        if uneven or share < 1:
            continue
        marks = (*numbers, share)
        off = sum(
            many * (number * step - width) ** 2
            for number, width, many in zip(marks, drawn, numbers_of, strict=True)
        )
        choices.append((round(off, 9), [-marks[place[i]] for i in range(len(widths))]))
    nearest = nsmallest(MOST_TRIED, choices)
    return [(off, tuple(-number * mark for number in marks)) for off, marks in nearest]


def _groups(widths: Sequence[Exact], whole: int) -> list[tuple[int, ...]]:
    """Bands that mirror one another, by their places, and those that mirror none; where all do, and
    an odd number of marks is shared out, the middle ones do not."""
    last = len(widths) - 1
    groups: list[tuple[int, ...]] = []
    for i in range(len(widths)):
        mirrored = widths[i] == widths[last - i]
        if not mirrored or i == last - i:
            groups.append((i,))
        elif i < last - i:
            groups.append((i, last - i))
    if whole % 2 and all(len(group) == 2 for group in groups):
        *groups, (left, right) = groups
        groups += [(left,), (right,)]
    return groups
