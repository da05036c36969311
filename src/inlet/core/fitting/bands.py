"""Bands fitted to the ruler's marks: unequal ones that add up to the size wished for."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.draft import set_bands
from inlet.core.numbers import Exact, Fraction, floor_exact, nearest_mark
from inlet.core.project import Block, replace, total


def fitted_bands(block: Block, mark: Fraction) -> Block | None:
    """``block`` with every band a whole number of marks wide, finished, and the size it has (or the
    nearest that can be had); None where they are so already, or one would come to nothing. The
    grid units stay as long as they are."""
    new = [
        tuple(width / scale for width in on_marks([band * scale for band in bands], mark))
        for bands, scale in zip((block.columns, block.rows), block.scale, strict=True)
    ]
    columns, rows = new
    if (columns, rows) == (block.columns, block.rows) or min(*columns, *rows) <= 0:
        return None
    regridded = set_bands(block, columns, rows)
    if regridded.left_out:
        return None
    finished = tuple(total(bands) * scale for bands, scale in zip(new, block.scale, strict=True))
    return replace(regridded.block, finished=(finished[0], finished[1]))


def on_marks(widths: Sequence[Exact], mark: Fraction) -> list[Fraction]:
    """Widths on the ruler's marks that add up to what these do, or to the mark nearest to it.

    Each is rounded down; the marks left over go to the bands that lost most, the outer ones first,
    and to bands of one width on either side of the middle together, so that what is symmetric
    stays so. Where that does not come out even, the widest band takes the last one.
    """
    whole = [floor_exact(width / mark) for width in widths]
    left = floor_exact(nearest_mark(total(tuple(widths)), mark) / mark) - sum(whole)
    last = len(widths) - 1
    pairs = sorted(
        {
            (i, last - i) if widths[i] == widths[last - i] and i != last - i else (i, i)
            for i in range(len(widths))
        },
        key=lambda pair: (-float(widths[pair[0]] / mark - whole[pair[0]]), min(pair)),
    )
    groups = list(dict.fromkeys(tuple(sorted(set(pair))) for pair in pairs))
    for group in groups:
        if len(group) <= left and any(widths[i] / mark != whole[i] for i in group):
            for i in group:
                whole[i] += 1
            left -= len(group)
    while left > 0:
        widest = max(range(len(whole)), key=lambda i: (whole[i], -abs(2 * i - last)))
        whole[widest] += 1
        left -= 1
    return [n * mark for n in whole]
