"""How a strip is filled: segments across it, rows in a segment, pieces side by side in a row.

A strip is cut off across the fabric, segments are cut off the strip, rows off a segment, pieces off
a row: every cut goes from edge to edge. Lengths are whole numbers of a unit all sizes share, so
that nothing is rounded while strips are looked for.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from itertools import accumulate, chain
from typing import NamedTuple


class Kind(NamedTuple):
    """``number`` rectangles of one size: ``wide`` across the fabric, ``high`` along its length;
    ``turns``: they may lie the other way too, or, where ``turned``, that way only."""

    wide: int
    high: int
    number: int
    turns: bool = True
    turned: bool = False

    @property
    def area(self) -> int:
        return self.wide * self.high

    def ways(self) -> tuple[tuple[int, int, bool], ...]:
        """(across, along, turned) for each way it may lie."""
        if not self.turns or self.wide == self.high:
            return ((self.wide, self.high, False),)
        if self.turned:
            return ((self.high, self.wide, True),)
        return (self.wide, self.high, False), (self.high, self.wide, True)


class Bit(NamedTuple):
    """``number`` pieces of a kind side by side, turned or not."""

    kind: int
    turned: bool
    number: int


class PatternRow(NamedTuple):
    """Pieces side by side in a row ``high``."""

    high: int
    bits: tuple[Bit, ...]


class Room(NamedTuple):
    """What a strip may be: ``across`` long, and segments wider than ``reach``, which no ruler cuts
    through lengthwise, of one row only."""

    across: int
    reach: int


class PatternSegment(NamedTuple):
    """``number`` equal segments, each ``wide`` with its rows one below the other."""

    wide: int
    rows: tuple[PatternRow, ...]
    number: int = 1


class Pattern(NamedTuple):
    """A strip ``high`` with its segments from the squared end on."""

    high: int
    segments: tuple[PatternSegment, ...]

    def counts(self) -> Counter[int]:
        """How many of each kind it gives."""
        counts: Counter[int] = Counter()
        for segment in self.segments:
            for row in segment.rows:
                for bit in row.bits:
                    counts[bit.kind] += bit.number * segment.number
        return counts

    @property
    def wide(self) -> int:
        """How much of the strip's length is in segments."""
        return sum(segment.wide * segment.number for segment in self.segments)

    @property
    def strokes(self) -> int:
        """Cuts from edge to edge to release its pieces, the one that cuts the strip off included:
        one a segment, and what its rows take, once for equal segments side by side."""
        return 1 + sum(s.number + _inside(s) for s in self.segments)


def _inside(segment: PatternSegment) -> int:
    """Strokes inside equal segments side by side: one between two rows; where a row holds several
    pieces, one between two of them in each segment."""
    between = len(segment.rows) - 1
    beside = sum(sum(b.number for b in row.bits) - 1 for row in segment.rows)
    return between + segment.number * beside


def in_order(segments: Iterable[PatternSegment]) -> tuple[PatternSegment, ...]:
    """Equal segments taken together, those with the highest single pieces first."""
    counts: Counter[tuple[int, tuple[PatternRow, ...]]] = Counter()
    for segment in segments:
        if segment.rows:
            counts[segment.wide, segment.rows] += segment.number
    pattern_segments = [
        PatternSegment(wide, rows, number) for (wide, rows), number in counts.items()
    ]
    return tuple(
        sorted(pattern_segments, key=lambda s: (-max(r.high for r in s.rows), -s.wide, s.rows))
    )


Chosen = list[tuple[Pattern, int]]
"""Patterns with how many strips are cut so."""


class Price(NamedTuple):
    """What is to be kept small: ``fabric`` a unit of its length, ``stroke`` a cut, ``strip`` what
    is lost a strip besides its width, ``width`` another width to set the ruler to; ``beyond`` a
    strip wider than so much, as it is harder to measure, for each limit."""

    fabric: float = 1.0
    stroke: float = 0.0
    strip: float = 0.0
    width: float = 0.0
    beyond: tuple[tuple[int, float], ...] = ()

    def of(self, pattern: Pattern) -> float:
        return self.of_strip(pattern.high) + self.stroke * pattern.strokes

    def of_strip(self, high: int) -> float:
        """Of a strip so wide, without its cuts."""
        harder = sum(cost for limit, cost in self.beyond if high > limit)
        return self.fabric * (high + self.strip) + harder


def without_surplus(chosen: Chosen, kinds: Sequence[Kind]) -> list[tuple[Pattern, int]]:
    """The same strips without pieces that nobody wants, and none that is empty then; each strip no
    higher than its pieces are."""
    surplus: Counter[int] = Counter()
    for pattern, times in chosen:
        for which, number in pattern.counts().items():
            surplus[which] += number * times
    for which, kind in enumerate(kinds):
        surplus[which] -= kind.number
    counts: Counter[Pattern] = Counter()
    narrow_first = sorted(chosen, key=lambda c: (_filled(c[0], kinds), c[0]))
    for pattern, times in narrow_first:
        for _ in range(times):
            left = pattern
            if any(surplus[k] > 0 for k in pattern.counts()):
                left = _without(pattern, surplus, kinds)
            if left.segments:
                counts[left] += 1
    return sorted(counts.items(), key=lambda c: (-c[0].high, c[0]))


def _filled(pattern: Pattern, kinds: Sequence[Kind]) -> float:
    used = sum(kinds[k].area * n for k, n in pattern.counts().items())
    return used / pattern.high


def _without(pattern: Pattern, surplus: Counter[int], kinds: Sequence[Kind]) -> Pattern:
    kept: list[PatternSegment] = []
    for segment in reversed(pattern.segments):
        for _ in range(segment.number):
            rows = tuple(row for row in _rows_kept(segment.rows, surplus))
            if rows:
                kept.append(PatternSegment(_across(rows, kinds), rows))
    segments = in_order(kept)
    high = max((sum(r.high for r in s.rows) for s in segments), default=0)
    return Pattern(high, segments)


def _across(rows: Iterable[PatternRow], kinds: Sequence[Kind]) -> int:
    """How wide the pieces of the widest row are together."""
    return max(
        sum((kinds[b.kind].high if b.turned else kinds[b.kind].wide) * b.number for b in row.bits)
        for row in rows
    )


def _rows_kept(rows: Iterable[PatternRow], surplus: Counter[int]) -> Iterator[PatternRow]:
    for row in rows:
        bits = []
        for bit in row.bits:
            spare = min(bit.number, max(0, surplus[bit.kind]))
            surplus[bit.kind] -= spare
            if bit.number > spare:
                bits.append(bit._replace(number=bit.number - spare))
        if bits:
            yield PatternRow(row.high, tuple(bits))


def parted(chosen: Chosen, price: Price, widest: int) -> list[Chosen]:
    """The same rows in the same length of fabric, strips wider than a limit of the ruler's parted
    into some within it where all their segments have an edge there, within the least limit that
    does: only those wider than the ``widest`` ruler; and all of them."""
    limits = sorted({widest, *(limit for limit, _ in price.beyond)})
    ways: list[Chosen] = []
    for always in (False, True):
        counts: Counter[Pattern] = Counter()
        for pattern, times in chosen:
            wide = always or pattern.high > widest
            for part in _parted(pattern, limits) if wide else [pattern]:
                counts[part] += times
        if list(counts.items()) not in ways:
            ways.append(list(counts.items()))
    return ways


def _parted(pattern: Pattern, limits: Sequence[int]) -> list[Pattern]:
    if not limits or pattern.high <= limits[0]:
        return [pattern]
    ends = [list(accumulate(row.high for row in s.rows)) for s in pattern.segments]
    edges = [
        y for y in sorted({pattern.high, *chain(*ends)})
        if all(y in of_rows or y > of_rows[-1] for of_rows in ends)
    ]  # fmt: skip
    for limit in limits:
        parts, top = [], 0
        while top < pattern.high:
            within = [edge for edge in edges if top < edge <= top + limit]
            if not within:
                break
            parts.append(_between(pattern, top, within[-1]))
            top = within[-1]
        if top == pattern.high:
            return [part for part in parts if part.segments]
    return [pattern]


def _between(pattern: Pattern, top: int, bottom: int) -> Pattern:
    """The rows of a strip from one edge to another."""
    segments = []
    for segment in pattern.segments:
        y, rows = 0, []
        for row in segment.rows:
            if top <= y < bottom:
                rows.append(row)
            y += row.high
        if rows:
            segments.append(segment._replace(rows=tuple(rows)))
    return Pattern(bottom - top, in_order(segments))


MOST_EVENED = 60
"""Strips of one fabric looked at in pairs."""


def evened(chosen: Chosen, across: int) -> Chosen:
    """The same segments for folded fabric, in which they come off in pairs: where two strips of one
    width each have an odd one of a kind, it moves to the other if there is room, so that neither
    must be opened at the fold for it."""
    strips = [
        (p.high, Counter({(s.wide, s.rows): s.number for s in p.segments}))
        for p, number in chosen
        for _ in range(number)
    ]
    if len(strips) > MOST_EVENED:
        return chosen
    for i, (high, one) in enumerate(strips):
        for other_high, other_counts in strips[i + 1 :]:
            if high != other_high:
                continue
            for key in [key for key in one if one[key] % 2 and other_counts[key] % 2]:
                for giver, taker in ((other_counts, one), (one, other_counts)):
                    used = sum(wide * n for (wide, _), n in taker.items())
                    if used + key[0] <= across:
                        giver[key] -= 1
                        taker[key] += 1
                        break
    out: Counter[Pattern] = Counter()
    for high, counts in strips:
        segments = [PatternSegment(wide, rows, n) for (wide, rows), n in counts.items() if n]
        if segments:
            out[Pattern(high, in_order(segments))] += 1
    return list(out.items())
