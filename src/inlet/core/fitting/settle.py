"""Which marks lengths are cut at so that what meets fits: each near its exact length, and what is
as long as several others together cut as long as they come out."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from typing import NamedTuple

from inlet.core.fitting.runs import Run
from inlet.core.fitting.stretches import SewnStretch
from inlet.core.numbers import Exact, Fraction, floor_exact, nearest_mark

PASSES = 4
"""How often every length is looked at again."""

ROUND = 1e-9


class _Row(NamedTuple):
    """A stretch: its difference is the sum of each length's share, and ``rest``."""

    shares: tuple[tuple[Exact, float], ...]
    rest: float


def settled(
    runs: Sequence[Run],
    stretches: Iterable[SewnStretch],
    seam: Exact,
    mark: Fraction,
    thread: Fraction,
    thorough: bool = False,
) -> dict[Exact, Fraction]:
    """Where to cut every length (allowances included) that decides a run, on a ``mark``: so that no
    stretch differs by more than a ``thread``, as far as that can be, then as near their exact
    length as can be.

    From the shortest on, a length takes what the stretches whose other lengths are settled leave
    for it, else its nearest mark; then each is moved by a mark where that is better. ``thorough``:
    what still differs then is left to an integer program.
    """
    rows = _rows(runs, stretches, seam)
    # No longer than its two allowances, all of it would be seam.
    least = floor_exact(2 * seam / mark) + 1
    rows_of: dict[Exact, list[_Row]] = defaultdict(list)
    for row in rows:
        for length, _ in row.shares:
            rows_of[length].append(row)
    lengths = sorted({run.length for run in runs if run.length is not None}, key=float)
    at: dict[Exact, Fraction] = {}
    for length in lengths:
        wanted = [w for row in rows_of[length] if (w := _left_for(length, row, at)) is not None]
        if wanted:
            near = round(sum(wanted) / len(wanted) / float(mark)) * mark
        else:
            near = nearest_mark(length, mark)
        at[length] = max(near, least * mark)
    for _ in range(PASSES):
        moved = False
        for length in lengths:

            def cost(cut: Fraction, length: Exact = length) -> tuple[float, float]:
                tried = {**at, length: cut} if cut != at[length] else at
                worst = max((abs(_differs(row, tried)) for row in rows_of[length]), default=0.0)
                return max(0.0, worst - float(thread) - ROUND), abs(float(cut - length))

            near_marks = (at[length] + step * mark for step in (0, -1, 1))
            best = min((cut for cut in near_marks if cut >= least * mark), key=cost)
            moved |= best != at[length]
            at[length] = best
        if not moved:
            break
    worst = max((abs(_differs(row, at)) for row in rows), default=0.0)
    if thorough and worst > float(thread) + ROUND:
        # Few blocks need SciPy, and it takes a while to load.
        from inlet.core.fitting.lengths_program import least_difference

        at |= least_difference(
            [(row.shares, row.rest) for row in rows], lengths, mark, thread, least
        )
    return at


def _rows(runs: Sequence[Run], stretches: Iterable[SewnStretch], seam: Exact) -> list[_Row]:
    """The stretches that lengths have a share in, each sort once."""
    rows: dict[tuple[object, int], _Row] = {}
    for stretch in stretches:
        shares: dict[Exact, float] = defaultdict(float)
        rest = 0.0
        for side, sign in ((stretch.one, 1), (stretch.other, -1)):
            for i in side:
                run = runs[i]
                if run.length is None:
                    rest += sign * run.made
                else:
                    shares[run.length] += sign * run.share
                    rest -= sign * run.share * 2 * float(seam)
        if any(runs[i].loose for i in (*stretch.one, *stretch.other)):
            continue
        left = tuple(sorted(((x, s) for x, s in shares.items() if abs(s) > ROUND), key=str))
        if left:
            key = tuple((x, round(s * 10**6)) for x, s in left), round(rest * 10**6)
            rows[key] = _Row(left, rest)
    return list(rows.values())


def _differs(row: _Row, at: Mapping[Exact, Fraction]) -> float:
    return row.rest + sum(share * float(at[length]) for length, share in row.shares)


def _left_for(length: Exact, row: _Row, at: Mapping[Exact, Fraction]) -> float | None:
    """What a length must be for a stretch to fit; None while others in it are not settled."""
    if any(other not in at for other, _ in row.shares if other != length):
        return None
    own = next(share for other, share in row.shares if other == length)
    rest = sum(share * float(at[other]) for other, share in row.shares if other != length)
    return -(row.rest + rest) / own
