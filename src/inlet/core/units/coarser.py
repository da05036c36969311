"""Coarser ways to split a part whose units a fine grid cuts up: seams inside them run through by
chance."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple

from inlet.core.assembly.net import Faces
from inlet.core.units.rows import Rows
from inlet.core.units.splitting import Splitter

LARGEST_UNITED = 64
"""Patches of a unit that is put together again."""


class Row(NamedTuple):
    """Parts in a row, and parallel seams (lines) the first of which is one they are split along."""

    lines: Sequence[int]
    parts: list[Faces]


def coarser_rows(
    rows: Sequence[Row],
    splitter: Splitter,
    known: Rows,
    one_unit: Callable[[Faces], bool],
    is_unit: Callable[[Faces], bool],
) -> Iterator[Row]:
    """For each way to split a part: split along lines of coarser bands only; its parts together
    where they are divided alike; and together where they make one unit, as many of them as can.
    ``one_unit`` says whether patches make one, ``is_unit`` whether a part of a row is one."""
    for row in rows:
        parts = _divided_alike(row, known, is_unit)
        if 1 < len(parts) < len(row.parts):
            yield Row(row.lines, parts)
        plain = [
            len(part) > 1 and not is_unit(part) and all(known.is_box[f] for f in part)
            for part in row.parts
        ]
        if not any(one and other for one, other in pairwise(plain)):
            continue
        for lines in splitter.coarser(row.lines):
            parts = splitter.split(frozenset().union(*row.parts), lines, False)
            if len(parts) > 1:
                yield Row(lines, parts)
        parts = _united(row.parts, plain, one_unit)
        if 1 < len(parts) < len(row.parts):
            yield Row(row.lines, parts)


def _divided_alike(row: Row, known: Rows, is_unit: Callable[[Faces], bool]) -> list[Faces]:
    """Neighbouring parts together, no units by themselves, whose patches begin and end at the same
    levels; where each part so made comes more than once, as the corners of a block do."""
    out: list[Faces] = []
    joined: set[int] = set()
    before: object = None
    for part in row.parts:
        levels = None if is_unit(part) else known.levels(part, row.lines[0])
        if out and levels is not None and levels == before:
            out[-1] |= part
            joined.add(len(out) - 1)
        else:
            out.append(part)
        before = levels
    sorts = Counter(known.likeness(out[i]) for i in joined)
    return out if all(number > 1 for number in sorts.values()) else list(row.parts)


def _united(
    parts: Sequence[Faces], plain: Sequence[bool], one_unit: Callable[[Faces], bool]
) -> list[Faces]:
    """Neighbouring parts together where their patches make one unit; in the fewest groups. Those
    that are ``plain`` are of rectangles, and no units themselves."""
    best: list[tuple[int, int]] = [(0, 0)]  # (groups, where the last one starts)
    for i in range(1, len(parts) + 1):
        choice = (best[i - 1][0] + 1, i - 1)
        j, number = i - 1, len(parts[i - 1])
        while j > 0 and plain[i - 1] and plain[j - 1] and i - j < len(parts) - 1:
            j -= 1
            number += len(parts[j])
            if number > LARGEST_UNITED:
                break
            if best[j][0] + 1 < choice[0] and one_unit(frozenset().union(*parts[j:i])):
                choice = (best[j][0] + 1, j)
        best.append(choice)
    out: list[Faces] = []
    i = len(parts)
    while i:
        j = best[i][1]
        out.append(frozenset().union(*parts[j:i]))
        i = j
    return out[::-1]
