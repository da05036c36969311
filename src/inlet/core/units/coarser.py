"""Coarser ways to split a part whose units a fine grid cuts up: seams inside them run through by
chance."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Callable, Collection, Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple

from inlet.core.assembly import Faces
from inlet.core.draft import Draft
from inlet.core.units.rows import Rows
from inlet.core.units.splitting import Splitter

NEAR = 1e-6

MOST_IN_ROW, MOST_TURNED = 16, 64
"""Parts of a row, and their patches, that are looked through for what is alike when turned."""
LARGEST_UNITED = 64
"""Patches of a unit that is put together again."""


class CoarseRow(NamedTuple):
    """Parts in a row, and parallel seams (lines) the first of which is one they are split along."""

    lines: Sequence[int]
    parts: list[Faces]


def coarser_rows(
    rows: Sequence[CoarseRow],
    splitter: Splitter,
    known_rows: Rows,
    one_unit: Callable[[Faces], bool],
    is_unit: Callable[[Faces], bool],
    widths: Collection[int],
) -> Iterator[CoarseRow]:
    """For each way to split a part: split along lines of coarser bands only; its parts together
    where they are divided alike, or where they make the same thing turned; and together where they
    make one unit, as many of them as can. ``one_unit`` says whether patches make one, ``is_unit``
    whether a part of a row is one; ``widths`` are the coarser bands worth trying."""
    for row in rows:
        parts = _divided_alike(row, known_rows, is_unit)
        if 1 < len(parts) < len(row.parts):
            yield CoarseRow(row.lines, parts)
        for parts in _alike_turned(row, known_rows, is_unit):
            yield CoarseRow(row.lines, parts)
        plain = [
            len(part) > 1 and not is_unit(part) and all(known_rows.is_box[f] for f in part)
            for part in row.parts
        ]
        if not any(one and other for one, other in pairwise(plain)):
            continue
        for lines in splitter.coarser(row.lines, widths):
            parts = splitter.split(frozenset().union(*row.parts), lines, False)
            if len(parts) > 1:
                yield CoarseRow(lines, parts)
        parts = _united(row.parts, plain, one_unit)
        made = [part for part in parts if part not in row.parts]
        if made and len(parts) > 1 and _fewer_sorts(made, known_rows):
            yield CoarseRow(row.lines, parts)


def coarse_widths(
    draft: Draft, known_rows: Rows, one_unit: Callable[[Faces], bool]
) -> tuple[int, ...]:
    """How many bands a coarser one could be of: where squares of so many bands hold units that are
    fewer sorts than their patches. Only for a block of equal bands."""
    block = draft.block
    across, down = len(block.columns), len(block.rows)
    if len(set(block.columns)) > 1 or len(set(block.rows)) > 1:
        return ()
    wide, high = (float(side) for side in block.finished)
    widths = []
    for bands in range(2, min(across, down) // 2 + 1):
        if across % bands or down % bands:
            continue
        cell_wide, cell_high = wide * bands / across, high * bands / down
        cells: dict[tuple[int, int], set[int]] = defaultdict(set)
        spoilt = set()
        for face, (left, top, right, bottom) in enumerate(known_rows.boxes):
            x, y = int(left / cell_wide + NEAR), int(top / cell_high + NEAR)
            cells[x, y].add(face)
            inside = right <= (x + 1 + NEAR) * cell_wide and bottom <= (y + 1 + NEAR) * cell_high
            if not inside or not known_rows.is_box[face]:
                spoilt.add((x, y))
        units = [
            frozenset(faces)
            for at, faces in cells.items()
            if at not in spoilt and len(faces) > 3 and one_unit(frozenset(faces))
        ]
        if _fewer_sorts(units, known_rows):
            widths.append(bands)
    return tuple(widths)


def _fewer_sorts(units: Sequence[Faces], known_rows: Rows) -> bool:
    """Are units fewer sorts of thing than the patches they are made of?"""
    sorts = {known_rows.likeness(faces) for faces in units}
    return 0 < len(sorts) < len({known_rows.looks[f] for faces in units for f in faces})


def _divided_alike(
    row: CoarseRow, known_rows: Rows, is_unit: Callable[[Faces], bool]
) -> list[Faces]:
    """Neighbouring parts together, no units by themselves, whose patches begin and end at the same
    levels; where each part so made comes more than once, as the corners of a block do."""
    groups: list[Faces] = []
    joined: set[int] = set()
    before: object = None
    for part in row.parts:
        levels = None if is_unit(part) else known_rows.levels(part, row.lines[0])
        if groups and levels is not None and levels == before:
            groups[-1] |= part
            joined.add(len(groups) - 1)
        else:
            groups.append(part)
        before = levels
    sorts = Counter(known_rows.likeness(groups[i]) for i in joined)
    return groups if all(number > 1 for number in sorts.values()) else list(row.parts)


def _alike_turned(
    row: CoarseRow, known_rows: Rows, is_unit: Callable[[Faces], bool]
) -> Iterator[list[Faces]]:
    """So many neighbouring parts together, the most first, where that makes one thing more than
    once, turned: as the corners of a block are that lie in quarter turns."""
    number = len(row.parts)
    if number > MOST_IN_ROW or sum(map(len, row.parts)) > MOST_TURNED:
        return
    whole = [len(part) == 1 or is_unit(part) for part in row.parts]
    for size in range(number // 2, 1, -1):
        runs: dict[tuple[float, ...], list[int]] = defaultdict(list)
        for i in range(number - size + 1):
            if not all(whole[i : i + size]):
                together = frozenset().union(*row.parts[i : i + size])
                begun = runs[tuple(known_rows.pattern(together, turned_only=True))]
                if not begun or begun[-1] + size <= i:
                    begun.append(i)
        alike = max(runs.values(), key=len, default=[])
        if len(alike) > 1:
            parts: list[Faces] = []
            i = 0
            while i < number:
                step = size if i in alike else 1
                parts.append(frozenset().union(*row.parts[i : i + step]))
                i += step
            yield parts


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
    groups: list[Faces] = []
    i = len(parts)
    while i:
        j = best[i][1]
        groups.append(frozenset().union(*parts[j:i]))
        i = j
    return groups[::-1]
