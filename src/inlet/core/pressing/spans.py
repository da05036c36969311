"""The seams of a block as they are decided: what goes one way over all its length.

A plain seam does from end to end. At a corner it may change, since the stitches stop there and each
leg lies as it likes; at a centre that can be whirled it may change as well. A seam that is finished
later goes the way its beginning went.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from math import cos
from typing import NamedTuple

from inlet.core.assembly import Join
from inlet.core.draft import Draft, points_of
from inlet.core.pressing.junctions import Arm, Junction, find_junctions, pressing_order

Toward = int | None
"""Which of its two sides (0 or 1) a seam is pressed to; None where it is pressed open."""


class SpanPiece(NamedTuple):
    """Edges ``begin`` up to ``end`` of a join; ``swapped`` if its first side is the second of the
    span it is a piece of."""

    join: Join
    begin: int
    end: int
    swapped: bool


class Span(NamedTuple):
    """Pieces of seam that go one way; it is pressed to side 0 or 1 of its first piece's join."""

    pieces: tuple[SpanPiece, ...]

    @property
    def join(self) -> Join:
        return self.pieces[0].join


class PressedSeams(NamedTuple):
    """The seams of a block: its joins in the order they are pressed, where they meet, and all
    spans. ``of`` says for each edge of each join, by the join's number and the edge's place in it,
    which span it is of and whether the two count their sides the other way round; ``at`` are the
    junctions by their vertex."""

    draft: Draft
    joins: tuple[Join, ...]
    junctions: tuple[Junction, ...]
    spans: tuple[Span, ...]
    of: dict[tuple[int, int], tuple[int, bool]]
    at: dict[int, Junction]

    def toward(self, ways: Sequence[Toward], join: Join, place: int) -> Toward:
        """Which side of a join an edge of it is pressed to, where the spans go ``ways``."""
        span, swapped = self.of[join.number, place]
        way = ways[span]
        return 1 - way if way is not None and swapped else way


def find_seams(draft: Draft, last: Join) -> PressedSeams:
    """The seams of the block that ``last`` makes."""
    junctions = find_junctions(draft, last, points_of(draft))
    order = pressing_order(last)
    spans, of = _spans(sorted(order, key=lambda join: join.number), junctions)
    return PressedSeams(draft, order, junctions, spans, of, {j.vertex: j for j in junctions})


def _spans(
    joins: Sequence[Join], junctions: Iterable[Junction]
) -> tuple[tuple[Span, ...], dict[tuple[int, int], tuple[int, bool]]]:
    cuts: dict[int, set[int]] = {}
    finishing: dict[tuple[int, int], tuple[Arm, Arm]] = {}
    for junction in junctions:
        if junction.spin:
            for arm in junction.spin.arms:
                cuts.setdefault(arm.join.number, set()).add(junction.vertex)
        for later, early in _finished(junction):
            finishing[later.join.number, later.place] = (later, early)
    spans: list[list[SpanPiece]] = []
    of: dict[tuple[int, int], tuple[int, bool]] = {}
    for join in joins:
        for leg in join.legs:
            low, high = sorted((leg.begin, leg.end))
            own = cuts.get(join.number, ())
            inner = [i for i in range(low + 1, high) if join.vertices[i] in own]
            for begin, end in zip([low, *inner], [*inner, high], strict=True):
                number, swapped = len(spans), False
                ends = [finishing.get((join.number, place)) for place in (begin, end - 1)]
                arms = next((pair for pair in ends if pair), None)
                if arms and leg.finishes:
                    later, early = arms
                    number, swap = of[early.join.number, early.place]
                    # Going on in one line, what was clockwise of the early arm is not of the later.
                    swapped = swap ^ (early.side(True) != later.side(False))
                if number == len(spans):
                    spans.append([])
                spans[number].append(SpanPiece(join, begin, end, swapped))
                for place in range(begin, end):
                    of[join.number, place] = number, swapped
    return tuple(Span(tuple(pieces)) for pieces in spans), of


def _finished(junction: Junction) -> Iterable[tuple[Arm, Arm]]:
    """Arms of seams that go on from one left open there, each with that one's."""
    arms = list(junction.arms)
    for later in arms:
        for finish in later.join.finishes:
            if finish.vertex == junction.vertex:
                for early in arms:
                    if early.join is finish.join and _one_line(later, early):
                        yield later, early


def _one_line(later: Arm, early: Arm) -> bool:
    return cos(later.angle - early.angle) < -1 + 1e-9
