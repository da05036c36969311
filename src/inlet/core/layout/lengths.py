"""A long cut of fabric in lengths that a person can handle: each is taken off in turn, squared, and
cut up before the next. Equal pieces of fabric there are, taken together."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import accumulate, islice

from inlet.core.layout.laid_places import length_used
from inlet.core.numbers import Exact, Fraction, next_mark
from inlet.core.project import LaidFabric, LaidStrip, replace

MOST_OVER, LEAST_LENGTH = Fraction(5, 4), Fraction(3, 5)
"""Of the length the maker handles: how long one is at most, unless one strip is longer, and how
short where that spares squaring the edge again."""
STACKED = ("strips", "squares", "scrap", "fat-quarter", "panel")
"""Kinds of fabric of which equal pieces are cut on top of one another."""


def in_lengths(laid: LaidFabric, handled: Exact, stacked: int) -> list[LaidFabric]:
    """The same strips in their order on several lengths, each as long as it is cut up. A length
    ends where equal strips, of which so many are ``stacked``, need no stack more for it; where the
    edge would be squared again, so that nothing is lost; and near to what is handled: in this
    order."""
    strips = [replace(strip, count=1) for strip in laid.strips for _ in range(strip.count)]
    ends = list(accumulate(strip.count for strip in laid.strips))
    runs = [(end - strip.count, end) for strip, end in zip(laid.strips, ends, strict=True)]
    lengths: list[LaidFabric] = []
    at = 0
    while at < len(strips):
        number = _length_from(laid, strips, runs, at, handled, stacked)
        lengths.append(_with(laid, strips[at : at + number]))
        at += number
    return lengths


def _length_from(
    laid: LaidFabric, strips: Sequence[LaidStrip], runs: Sequence[tuple[int, int]],
    at: int, handled: Exact, stacked: int,
) -> int:  # fmt: skip
    """How many of the strips the next length has, of which equal ones are in ``runs``."""
    used, within = laid.squaring, 1
    choices: list[tuple[int, bool, Exact, int]] = []
    for number, strip in enumerate(islice(strips, at, None), 1):
        if laid.every and number > 1 and (number - 1) % laid.every == 0:
            used += laid.squaring
        used += strip.width
        if used > handled * MOST_OVER:
            break
        if at + number == len(strips):
            return number
        within = number if used <= handled else within
        if used >= handled * LEAST_LENGTH:
            more = sum(_more_stacks(run, at, at + number, stacked) for run in runs)
            squared_again = laid.every > 0 and number % laid.every == 0
            choices.append((more, not squared_again, abs(used - handled), number))
    return min(choices)[-1] if choices else within


def _more_stacks(run: tuple[int, int], start: int, end: int, stacked: int) -> int:
    """How many stacks more equal strips make where a length that began at ``start`` ends."""
    first, last = max(run[0], start), run[1]
    if not first < end < last:
        return 0
    here, there = end - first, last - end
    return -(-here // stacked) - (-there // stacked) - -(-(here + there) // stacked)


def _with(laid: LaidFabric, strips: Iterable[LaidStrip]) -> LaidFabric:
    """A length with some strips, equal ones told once."""
    together: list[LaidStrip] = []
    for strip in strips:
        if together and replace(together[-1], count=1) == strip:
            together[-1] = replace(together[-1], count=together[-1].count + 1)
        else:
            together.append(strip)
    return replace(laid, strips=tuple(together))


def ready_to_cut(laid: LaidFabric) -> LaidFabric:
    """A length, just as long as it needs to be."""
    return replace(laid, length=length_used(laid) + laid.squaring)


def least_bought(lengths: Iterable[LaidFabric]) -> Exact:
    """The least fabric to cut the lengths from: what is cut up, and enough beyond the last strip of
    each that its far edge is cut, too."""
    return sum((ready_to_cut(laid).length for laid in lengths), Fraction(0))


def taken_off(
    lengths: Sequence[LaidFabric], fabric: Exact, coarse: Fraction
) -> Iterator[LaidFabric]:
    """The lengths as they are taken off so much ``fabric``: to a ``coarse`` mark as far as there is
    enough, the last with all that is left."""
    spare = fabric - least_bought(lengths)
    for laid in lengths[:-1]:
        least = ready_to_cut(laid).length
        more = min(spare, next_mark(least, coarse) - least)
        spare -= more
        yield replace(laid, length=least + more)
    last = ready_to_cut(lengths[-1])
    yield replace(last, length=last.length + spare)


def equal_ones_together(laid: Sequence[LaidFabric]) -> Iterator[LaidFabric]:
    """Pieces of fabric laid out alike, one after the other, as so many of one."""
    for i, piece in enumerate(laid):
        if piece.kind in STACKED and i and replace(laid[i - 1], count=1) == piece:
            continue
        number = 1
        while (piece.kind in STACKED and i + number < len(laid)
               and replace(laid[i + number], count=1) == piece):  # fmt: skip
            number += 1
        yield replace(piece, count=number)
