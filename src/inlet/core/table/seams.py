"""A seam as it is sewn: where it starts and stops, and the lines and marks that show it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from itertools import groupby, pairwise

from inlet.core.assembly import Join, Leg
from inlet.core.geometry import Curve, Point, curve_length, exact_chain
from inlet.core.numbers import Exact, Fraction
from inlet.core.table.moves import DrawnLine


def seam_lines(join: Join) -> tuple[DrawnLine, ...]:
    """A seam's stretches in the order they are sewn, numbered where there are several, but for
    those that finish another seam; a dot where it turns or stops an allowance short of the edge; a
    stop where it is left open."""
    lines: list[DrawnLine] = []
    legs = [leg for leg in join.legs if not leg.finishes]
    for number, leg in enumerate(legs, 1):
        lines += _leg_lines(join, leg)
        if len(legs) > 1:
            at = _middle(join, leg)
            lines.append(DrawnLine("leg", at, at, number))
    for v in (*join.pivots, *join.dots):
        lines.append(DrawnLine("dot", join.at(v), join.at(v)))
    return tuple(lines)


def finish_lines(join: Join) -> tuple[DrawnLine, ...]:
    """What finishes the seams left open before: what was left of each, and on over the new
    piece."""
    lines = [d for leg in join.legs if leg.finishes for d in _leg_lines(join, leg)]
    for finish in join.finishes:
        rest = _left_open(finish.join, finish.vertex)
        lines += [DrawnLine("seam", *pair) for pair in _chords(rest)]
        lines.append(DrawnLine("stop", rest[-1].end, rest[-1].end))
    return tuple(lines)


def _leg_lines(join: Join, leg: Leg) -> Iterator[DrawnLine]:
    curves = list(_along(join, leg))
    for finish in join.left_open:
        rest = _left_open(join, finish.vertex)
        if join.vertices[leg.begin] == finish.vertex:
            curves = _back(_cut(_back(curves), rest))
        elif join.vertices[leg.end] == finish.vertex:
            curves = _cut(curves, rest)
        else:
            continue
        yield DrawnLine("stop", rest[-1].end, rest[-1].end)
    for pair in _chords(curves):
        yield DrawnLine("seam", *pair)


def _along(join: Join, leg: Leg) -> Iterator[Curve]:
    """The edges of a leg, from its beginning."""
    if leg.begin < leg.end:
        yield from (join.curves[i] for i in range(leg.begin, leg.end))
    else:
        yield from _back(join.curves[leg.end : leg.begin])


def _back(curves: Sequence[Curve]) -> list[Curve]:
    """The same way back."""
    return [Curve(curve.end, curve.start, curve.centre) for curve in reversed(curves)]


def _cut(curves: list[Curve], rest: Sequence[Curve]) -> list[Curve]:
    """A leg's edges, the last of which lead to the open end, as far as the stop."""
    stop, whole = rest[-1].end, len(curves) - len(rest)
    last = curves[whole]
    return curves[:whole] + [Curve(last.start, stop, last.centre)] * (last.start != stop)


def _left_open(join: Join, vertex: int) -> list[Curve]:
    """The end of a seam that is left open, from ``vertex`` inward to the stop: half of the last
    leg; a third where both its ends are left open."""
    leg = next(g for g in join.legs if vertex in (join.vertices[g.begin], join.vertices[g.end]))
    if join.vertices[leg.end] == vertex:
        leg = Leg(leg.end, leg.begin)
    curves = list(_along(join, leg))
    both = {f.vertex for f in join.left_open} >= {join.vertices[i] for i in leg[:2]}
    share = Fraction(1, 3) if both else Fraction(1, 2)
    total = sum(map(curve_length, curves))
    far, out = total * float(share), []
    for curve in curves:
        length = curve_length(curve)
        if length >= far - 1e-9:
            out.append(Curve(curve.start, _part_way(curve, far / length), curve.centre))
            break
        out.append(curve)
        far -= length
    return out


def _part_way(curve: Curve, share: float) -> Point:
    """A point of a curve about so far along it, exact on a straight one."""
    if curve.centre is not None:
        chain = (*exact_chain(curve), curve.end)
        return chain[max(1, min(len(chain) - 2, round(share * (len(chain) - 1))))]
    k = Fraction(round(share * 240), 240)
    step = curve.end.minus(curve.start)
    return curve.start.plus(step.scaled(k, k))


def open_length(join: Join, vertex: int) -> float:
    """How much of a seam is left open at an end, finished length."""
    return sum(map(curve_length, _left_open(join, vertex)))


def sewn_first(join: Join) -> float:
    """How much of a seam is sewn before its open ends are finished."""
    return join.length - sum(open_length(join, f.vertex) for f in join.left_open)


def too_short(join: Join, seam: Exact) -> bool:
    """Is a partial seam too short to be one? What is sewn must hold, and what is left open must
    fold clear of the next seam's allowance: both take twice the allowance."""
    least = 2 * float(seam) - 1e-9
    opened = [open_length(join, f.vertex) for f in join.left_open]
    return bool(opened) and min(*opened, sewn_first(join)) < least


def _chords(curves: Sequence[Curve]) -> Iterator[tuple[Point, Point]]:
    """The lines to draw for curves without a corner: one for straight ones that go on into one
    another, so that dashes run on, and chords for arcs."""
    for straight, found in groupby(curves, lambda curve: curve.centre is None):
        together = list(found)
        if straight:
            yield together[0].start, together[-1].end
        else:
            for curve in together:
                yield from pairwise((*exact_chain(curve), curve.end))


def _middle(join: Join, leg: Leg) -> Point:
    curves = list(_along(join, leg))
    return _part_way(curves[len(curves) // 2], 0.5)
