"""A seam in words: how it is sewn, its ends, legs, marks and pins.

``sewing_text`` says it for a move of a unit, ``join_text`` for a step, with the names of the parts.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from inlet.core.assembly import Join
from inlet.core.geometry import circle_of
from inlet.core.numbers import Exact, Fraction, nearest_mark
from inlet.core.project import Measure
from inlet.core.table.pins import all_pins, arcs_of
from inlet.core.table.seams import open_length, sewn_first
from inlet.core.words import length_text

EDGE = "Right sides together, sew {seam} from the edge."
ONE_DOT = "Mark a dot {seam} from both edges at the corner."
EACH_DOT = "Mark dots {seam} from both edges at each corner."
DOT = f"{ONE_DOT} Sew from the edge to the dot and take a backstitch."
DOTS = f"{EACH_DOT} Sew from dot to dot, a backstitch at both."
FINISH = "Go back to the seam left open and sew the rest of it, on over the new piece."
SET_IN = "Set in: sew one side from the dot outward, swing the piece round, sew the other."
CURVE = (
    "Mark the centre of both curves. Pin centre and ends, the convex piece on top, and sew {seam} "
    "from the edge, easing; do not stretch."
)


def sewing_text(join: Join, seam: Exact) -> str:
    """What to do for a seam, as a sentence for a move: lengths are left to ``move_text``."""
    if join.kind == "partial":
        say = "{{length:{:.4f}}}".format
        return f"Right sides together, sew {{seam}} from the edge. {_partly(join, seam, say)}"
    if join.kind in _TEXTS:
        return _TEXTS[join.kind]
    return (EDGE, DOT, DOTS)[len(join.dots)]


_TEXTS = {"set-in": SET_IN, "curve": CURVE}


def _partly(join: Join, seam: Exact, say: Callable[[float], str]) -> str:
    """Where a partial seam starts and stops on its pieces as they lie, measured from their raw
    edges: an allowance more than along the seam; from the dot, where it begins at one."""
    opened = [open_length(join, left.vertex) + float(seam) for left in join.left_open]
    if len(opened) == 2:
        first, second = (_which_end(join, left.vertex) for left in join.left_open)
        return (
            f"Start {say(opened[0])} from the {first} edge, stop {say(opened[1])} from the "
            f"{second} one, a backstitch at both: the middle third only."
        )
    # A seam round a patch that meets the rest in one point ends where it begins.
    closed = next((v for v in join.ends if v != join.left_open[0].vertex), join.ends[0])
    at, far = "dot", sewn_first(join)
    if closed not in join.dots:
        at, far = "edge", far + float(seam)
    start = f"{_which_end(join, closed)} {at}".strip()
    return (
        f"Start at the {start}, stop {say(far)} from it, take a "
        f"backstitch: the last {say(opened[0])} stay open."
    )


def _which_end(join: Join, vertex: int) -> str:
    """“top”, “left”, “bottom right”: where an end of a seam lies, as the block is drawn; nothing
    where both lie in one place."""
    other = join.ends[0] if vertex == join.ends[1] else join.ends[1]
    if other == vertex:
        return ""
    x, y = join.at(vertex).minus(join.at(other)).floats()
    down = "" if abs(y) * 2 < abs(x) else "bottom" if y > 0 else "top"
    across = "" if abs(x) * 2 < abs(y) else "right" if x > 0 else "left"
    return f"{down} {across}".strip()


def about(length: float, measure: Measure) -> str:
    """A length to stop at or to look for, to the nearest ruler mark."""
    mark = nearest_mark(_exact(length), measure.mark)
    return length_text(mark, measure)


def _exact(length: float) -> Exact:
    return Fraction(round(length * 4096), 4096)


def ends_text(join: Join, measure: Measure) -> str:
    """“edge to edge”, “edge to dot”, “dot to dot”, “edge to edge, round a corner”; of a partial
    seam where it stops."""
    names = sorted(_end(join, v) for v in join.ends)[::-1]
    stops = [name for name in names if name == "stop"]
    if stops:
        first = next((name for name in names if name != "stop"), "stop")
        sewn = about(sewn_first(join), measure)
        left = about(open_length(join, join.left_open[0].vertex), measure)
        return f"partial: from the {first} {sewn} along, then stop; {left} stays open"
    ends = f"{names[0]} to {names[1]}"
    if join.pivots:
        corners = "a corner" if len(join.pivots) == 1 else f"{len(join.pivots)} corners"
        return f"{ends}, round {corners}"
    return ends


def _end(join: Join, vertex: int) -> str:
    if any(f.vertex == vertex for f in join.left_open):
        return "stop"
    return "dot" if vertex in join.dots else "edge"


def join_text(join: Join, one: str, other: str, measure: Measure) -> str:
    """What to do, with the names of the two parts."""
    seam = length_text(measure.seam, measure)
    if join.kind == "partial":
        where = _partly(join, measure.seam, lambda length: about(length, measure))
        text = f"Lay {other} on {one}, right sides together. {where}"
        return text + " Press it flat for now."
    if join.kind == "set-in":
        dots = (ONE_DOT if len(join.pivots) == 1 else EACH_DOT).format(seam=seam)
        return f"Set {other} into {one}. {dots} {' '.join(_legs_text(join))}"
    if join.kind == "curve":
        text = f"Sew {other} to {one} along the curve, the convex piece on top."
    else:
        text = f"Lay {other} on {one}, right sides together, and sew {ends_text(join, measure)}."
        if join.dots:
            text += f" A dot lies {seam} from both edges; take a backstitch there."
    if join.finishes:
        text += f" {_finish_text(join)}"
    return text


def _legs_text(join: Join) -> Iterator[str]:
    """The legs of a set-in seam in their order, each from where it begins to where it ends."""
    legs = [leg for leg in join.legs if not leg.finishes]
    for number, leg in enumerate(legs):
        begin, end = (_leg_end(join, i) for i in (leg.begin, leg.end))
        if begin == "edge" and end == "dot":  # from the dot outward
            begin, end = end, begin
        swing = "Swing the piece round the dot. " if number else ""
        yield f"{swing}{number + 1}: sew from the {begin} to the {end}."
    if join.finishes:
        yield _finish_text(join)


def _finish_text(join: Join) -> str:
    many = "seam" if len(join.finishes) == 1 else f"{len(join.finishes)} seams"
    return f"Then fold the {many} left open flat again and sew on to the end, over the new piece."


def _leg_end(join: Join, i: int) -> str:
    vertex = join.vertices[i]
    if 0 < i < len(join.vertices) - 1:
        return "dot" if vertex in join.pivots else "edge"
    return _end(join, vertex)


def seam_notes(join: Join, measure: Measure) -> Iterator[str]:
    """Marks and pins for a curve; what holds for a set-in seam; what a partial seam waits for."""
    arcs = arcs_of(join)
    if arcs:
        radius = min(float(circle_of(c).squared) ** 0.5 for c in arcs)
        number = all_pins(join, measure.seam)
        yield (
            f"Fold both curves to find their centres and mark them. {number} pins for a radius of "
            f"{about(radius, measure)}: both ends, the centre, the others evenly between. Ease, do "
            "not stretch, and take each pin out before it reaches the needle."
        )
    if join.pivots:
        yield "Clip the inside corner to its dot, no farther, before you swing the piece round it."
        yield "Sew no stitch past a dot, and keep the allowances out of the way of the next leg."
    if join.left_open:
        yield "The flap that stays open must fold clear of the next seam."
