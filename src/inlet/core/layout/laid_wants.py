"""Pieces that are still to be laid out, as they may lie on the fabric."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.cutlist import Cut, Standing
from inlet.core.layout.patterns import Bit, Chosen
from inlet.core.numbers import Exact, Fraction, next_mark
from inlet.core.project import Fabric, LaidPieces, LaidRow, LaidSegment, LaidStrip, Project
from inlet.core.templates import Angled, angled


class LaidWant(NamedTuple):
    """Pieces of a cut that lie one way: ``number`` left to be laid out; in each of them as many as
    it ``holds``."""

    cut: Cut
    wide: Fraction
    high: Fraction
    turns: bool
    number: int
    holds: int = 1


def angled_of(want: LaidWant, project: Project) -> Angled | None:
    """How a want is cut head to tail, as some of them are turned half round: not of a print with a
    top, nor of a stripe."""
    fabric = project.fabric(want.cut.fabric or "")
    if want.cut.shape != "template" or (fabric is not None and fabric.direction):
        return None
    return angled(want.cut.outline, project.measure)


def lying(want: LaidWant, turned: bool) -> tuple[Exact, Exact]:
    return (want.high, want.wide) if turned else (want.wide, want.high)


def one_piece(want: LaidWant, wide: Exact, high: Exact, turned: bool) -> LaidSegment:
    pieces = LaidPieces(label=want.cut.label, size=(wide, high), turned=turned)
    return LaidSegment(width=wide, rows=(LaidRow(width=high, pieces=(pieces,)),))


def wants_of(cut: Cut, fabric: Fabric, width: Exact, standing: Standing) -> Iterator[LaidWant]:
    """A cut's pieces as they may lie: the long side across the fabric, or turned; of a print with a
    direction, each as it stands in the block; strips across the fabric where it is wide enough."""
    low, high = cut.cut
    if fabric.lengthwise and low != high:
        yield LaidWant(cut, low, high, False, cut.number)
        return
    if not fabric.direction or low == high:
        across = cut.shape == "strip" and high <= width
        yield LaidWant(cut, high, low, not across, cut.number)
        return
    upright = min(cut.number, standing.get(cut.label, 0))
    for wide, along, number in ((high, low, cut.number - upright), (low, high, upright)):
        if number:
            yield LaidWant(cut, wide, along, False, number)


def head_to_tail(want: LaidWant, room: Exact, project: Project) -> Iterator[LaidWant]:
    """A want in pieces that hold several templates head to tail, none longer than ``room``, and
    what is left; as it is where none do."""
    angle = angled_of(want, project)
    most = min(angle.from_strip(room), want.number) if angle is not None else 0
    if angle is None or most < 2:
        yield want
        return
    mark = project.measure.mark
    pieces, rest = divmod(want.number, most)
    for holds, number in ((most, pieces), (rest, 1)):
        if holds == 1:
            yield want._replace(number=1)
        elif holds:
            wide = next_mark(Fraction(angle.room_for(holds)).limit_denominator(10**6), mark)
            yield LaidWant(want.cut, wide, angle.strip_mark, True, number, holds)


def strips_of(chosen: Chosen, wants: Sequence[LaidWant], unit: Fraction) -> Iterator[LaidStrip]:
    """Patterns, whose lengths are counted in ``unit``, as strips with the pieces of the wants that
    are their kinds, in this order."""

    def pieces(bit: Bit) -> LaidPieces:
        want = wants[bit.kind]
        return LaidPieces(
            label=want.cut.label, size=lying(want, bit.turned), count=bit.number,
            turned=bit.turned, holds=want.holds,
        )  # fmt: skip

    for pattern, times in chosen:
        segments = tuple(
            LaidSegment(
                width=segment.wide * unit,
                count=segment.number,
                rows=tuple(
                    LaidRow(width=row.high * unit, pieces=tuple(map(pieces, row.bits)))
                    for row in segment.rows
                ),
            )
            for segment in pattern.segments
        )
        yield LaidStrip(width=pattern.high * unit, segments=segments, count=times)
