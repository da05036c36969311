"""Strips filled at once: the longest pieces first, each where it fits best."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from inlet.core.cutting.patterns import Bit, Kind, Pattern, Row, Segment, in_order
from inlet.core.stopping import check


@dataclass
class _Strips:
    """``number`` equal strips still being filled, with ``left`` of their length free."""

    high: int
    left: int
    number: int
    segments: list[Segment] = field(default_factory=list)

    def split(self, number: int) -> _Strips:
        """The last ``number`` of them, on their own from now on."""
        self.number -= number
        return _Strips(self.high, self.left, number, list(self.segments))


def filled_at_once(kinds: Sequence[Kind], room: int) -> list[tuple[Pattern, int]]:
    """Strips of cloth ``room`` across that hold everything, kind by kind, widest strips first. A
    kind fills what is free in strips cut already, several in a stack where they fit; what is over
    gets strips of its own. Kinds that fit neither way must have been taken out before."""
    strips: list[_Strips] = []
    order = sorted(
        range(len(kinds)),
        key=lambda i: (-min(h for w, h, _ in _fitting(kinds[i], room)), -kinds[i].area, i),
    )
    for i in order:
        left = kinds[i].number
        for wide, high, turned in _fitting(kinds[i], room):
            left = _into_free(strips, i, wide, high, turned, left)
        if left:
            strips += _new(kinds[i], i, room, left)
    return [(Pattern(s.high, in_order(s.segments)), s.number) for s in strips if s.number]


def _fitting(kind: Kind, room: int) -> list[tuple[int, int, bool]]:
    """The ways a kind may lie across the cloth, the narrowest strip first."""
    return sorted((way for way in kind.ways() if way[0] <= room), key=lambda way: way[1])


def _into_free(
    strips: list[_Strips], kind: int, wide: int, high: int, turned: bool, left: int
) -> int:
    """Fill what is free in strips with pieces of a kind; how many are left over."""
    for strip in list(strips):
        check()
        each = strip.high // high
        across = strip.left // wide
        while left and each and across:
            most = each * across
            if left >= most:
                whole, segments = min(strip.number, left // most), across
            else:
                whole, segments = 1, left // each
            if not segments:  # a last segment that is not full
                each, segments = left, 1
            part = strip if whole == strip.number else strip.split(whole)
            if part is not strip:
                strips.append(part)
            row = Row(high, (Bit(kind, turned, 1),))
            part.segments.append(Segment(wide, (row,) * each, segments))
            part.left -= wide * segments
            left -= whole * each * segments
            if part is strip:
                break
            across, each = strip.left // wide, strip.high // high
    return left


def _new(kind: Kind, which: int, room: int, left: int) -> list[_Strips]:
    """Strips for pieces of one kind alone, as narrow as they may be."""
    wide, high, turned = _fitting(kind, room)[0]
    segment = Segment(wide, (Row(high, (Bit(which, turned, 1),)),))
    each = room // wide
    out = []
    for number, segments in ((left // each, each), (1, left % each)):
        if number and segments:
            full = [segment._replace(number=segments)]
            out.append(_Strips(high, room - wide * segments, number, full))
    return out
