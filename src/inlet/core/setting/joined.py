"""Strips longer than the fabric is wide: joined from several, and cut from the band they make.

Sewn end to end with straight seams a join takes the allowance of both ends, 2s; with diagonal ones,
two strips w wide at right angles, it takes w. So n strips of L give n·L - (n - 1)·lost, and the
middle of join k lies at k(L - lost) + lost/2. Strips are cut one after the other from the band, in
an order, and after as much cut off as there is to spare, such that no join lies at the end of one,
where a corner comes, or in its middle, where it is seen.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.numbers import Exact, Fraction, ceil_exact

ZERO = Fraction(0)
KEPT_OFF = Fraction(2)
"""Inches that a join is kept off the ends and the middle."""


class BandPiece(NamedTuple):
    """A strip cut from a band: its ``name``, the raw ``length`` it is cut, how far from its left
    end the middles of its joins lie, and how much is cut ``off`` the band before it."""

    name: str
    length: Exact
    joins: tuple[Exact, ...]
    off: Exact = ZERO


class Band(NamedTuple):
    """``strips`` of a ``fabric``, ``width`` wide and ``long``, joined end to end, with diagonal
    seams where ``slanted``, and the ``pieces`` that are cut from them, in this order. ``kept_off``:
    no join lies at an end or in the middle of one."""

    label: str
    fabric: str
    width: Fraction
    long: Fraction
    strips: int
    slanted: bool
    pieces: tuple[BandPiece, ...]
    kept_off: bool = True

    @property
    def kinds(self) -> tuple[tuple[BandPiece, int], ...]:
        """Its pieces, those of one name, length and joins counted."""
        return tuple(Counter(piece._replace(off=ZERO) for piece in self.pieces).items())


def number_joined(length: Exact, room: Exact, lost: Exact) -> int:
    """How many strips ``room`` long make one of ``length`` where a join takes ``lost``; of fabric
    that is hardly wider, half of it is kept."""
    return max(1, ceil_exact((length - lost) / max(room - lost, room / 2)))


def band(
    label: str,
    fabric: str,
    width: Fraction,
    long: Fraction,
    wanted: Sequence[tuple[str, Exact]],
    slanted: bool,
    seam: Exact,
    kept_off: Exact,
) -> Band:
    """The band from which all ``wanted`` strips (names and raw lengths) are cut: of as few strips
    as reach, or of one more where joins would lie badly else."""
    lost = width if slanted else 2 * seam
    total = sum((length for _, length in wanted), ZERO)
    number = number_joined(total, long, lost)
    tries = ((number, kept_off, True), (number, kept_off, False), (number + 1, kept_off, True))
    for strips, off, middles in tries:
        pieces = _cut_off(_Joins(strips, long, lost, slanted), wanted, off, middles)
        if pieces is not None:
            return Band(label, fabric, width, long, strips, slanted, pieces, middles)
    pieces = _cut_off(_Joins(number, long, lost, slanted), wanted, None, False)
    assert pieces is not None
    return Band(label, fabric, width, long, number, slanted, pieces, False)


class _Joins:
    """The joins of so many strips: where their middles lie in the band, and how far they reach to
    either side."""

    def __init__(self, strips: int, long: Exact, lost: Exact, slanted: bool) -> None:
        self.reach = lost / 2 if slanted else ZERO
        self.length = strips * long - (strips - 1) * lost
        self.at = [k * (long - lost) + lost / 2 for k in range(1, strips)]

    def within(self, begin: Exact, end: Exact) -> Iterator[Exact]:
        return (x for x in self.at if begin < x + self.reach and x - self.reach < end)


def _cut_off(
    joins: _Joins, wanted: Sequence[tuple[str, Exact]], off: Exact | None, middles: bool
) -> tuple[BandPiece, ...] | None:
    """The strips one after the other, that first which takes least cut off before it; None where
    the band is too short for that. ``off`` None: wherever the joins lie."""
    left = Counter(wanted)
    pieces = []
    begin: Exact = ZERO
    spare = joins.length - sum((length for _, length in wanted), ZERO)
    while left:
        check()
        starts = {
            strip: begin if off is None else _start(joins, begin, strip[1], off, middles)
            for strip in left
        }
        name, length = min(starts, key=lambda strip: (float(starts[strip]), -float(strip[1])))
        start = starts[name, length]
        cut_off = start - begin
        spare -= cut_off
        if off is not None and spare < 0:
            return None
        begin = start + length
        inside = tuple(x - start for x in joins.within(start, begin))
        pieces.append(BandPiece(name, length, inside, cut_off))
        left[name, length] -= 1
        left += Counter()
    return tuple(pieces)


def _start(joins: _Joins, begin: Exact, length: Exact, off: Exact, middles: bool) -> Exact:
    """Where a strip may begin at the earliest: each join that lies badly in it comes to lie before
    the place it must be kept off."""
    start = begin
    moved = True
    while moved:
        moved = False
        for x in joins.within(start, start + length):
            first, last = x - joins.reach - start, x + joins.reach - start
            if first < off:
                start, moved = start + last, True
            elif last > length - off:
                start, moved = start + last - (length - off), True
            elif middles and first < length / 2 + off and last > length / 2 - off:
                start, moved = start + last - (length / 2 - off), True
            if moved:
                break
    return start
