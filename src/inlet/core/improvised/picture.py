"""An improvised square as it shows.

Scraps are sewn over the corners one after the other, clockwise from the top left. Each covers all
that lies beyond its seam, what was sewn before it too; the square is trimmed to itself each time,
so it stays as large as it was cut.
"""

from __future__ import annotations

from inlet.core.geometry import Picture, Point, Polygon, clip
from inlet.core.improvised.seams import CornerSeam, ImprovisedSquare, line_of, shows
from inlet.core.memo import memo
from inlet.core.numbers import Exact
from inlet.core.project import Measure, Pair


def square_picture(
    square: ImprovisedSquare, finished: Pair, measure: Measure, background: str | None
) -> Picture:
    """What shows of a square once its allowances are turned in: patches from its finished top left,
    those sewn later last."""
    fabrics = (background, *square.fabrics)
    return tuple(
        (outline, fabrics[number])
        for outline, number in _outlines(square.seams, finished, measure.seam)
    )


@memo(20_000)
def _outlines(
    seams: tuple[CornerSeam, ...], finished: Pair, allowance: Exact
) -> tuple[tuple[Polygon, int], ...]:
    """The patches of a square, each with its number: 0 of the square itself, then the corners."""
    (wide, high), low = finished, allowance - allowance
    shown: Polygon = (Point(low, low), Point(wide, low), Point(wide, high), Point(low, high))
    patches: list[tuple[Polygon, int]] = [(shown, 0)]
    for number, seam in enumerate(seams, 1):
        if not shows(seam.along, seam.down, allowance):
            continue
        beyond = line_of(_inside(seam, allowance), finished)
        opposite = beyond.opposite()
        kept = []
        for outline, of in patches:
            apart = of and not _meet(seams[of - 1], seam, finished)
            left = outline if apart else clip(outline, opposite)
            if left:
                kept.append((left, of))
        corner = clip(shown, beyond)
        patches = [*kept, (corner, number)] if corner else kept
    return tuple(patches)


def _inside(seam: CornerSeam, allowance: Exact) -> CornerSeam:
    """The same seam by where it meets the edges of the finished square: x/a + y/b = 1 at y = s is x
    = a - as/b, an allowance farther from the corner than it is inside."""
    a, b, s = seam.along, seam.down, allowance
    return seam._replace(along=a - a * s / b - s, down=b - b * s / a - s)


def _meet(earlier: CornerSeam, seam: CornerSeam, finished: Pair) -> bool:
    """Can the corners of two seams overlap? Not where both reach less than half way."""
    return any(
        leg * 2 > side
        for each in (earlier, seam)
        for leg, side in zip((each.along, each.down), finished, strict=True)
    )
