"""Value: how light a fabric is, and where neighbours are too near in it to be told apart."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise
from typing import NamedTuple

from inlet.core.draft.patches import Draft, Patch
from inlet.core.geometry import Point, midpoint
from inlet.core.memo import memo
from inlet.core.project import Fabric, Project

CLASSES = ("light", "medium", "dark")
LIGHT_FROM, DARK_TO = 75.0, 45.0
"""L* from which a fabric counts as light, and up to which as dark."""
TOO_NEAR = 10.0
"""L* apart: nearer than this, two fabrics read as one."""


@memo(512)
def lightness(colour: str) -> float:
    """CIELAB L* of ``#rrggbb`` (sRGB, D65), 0 black to 100 white.

    Y is the weighed sum of the linear channels; L* = 116·∛Y - 16, and 903.3·Y near black.
    """

    def linear(channel: int) -> float:
        c = channel / 255
        return c / 12.92 if c <= 0.04045 else float(((c + 0.055) / 1.055) ** 2.4)

    red, green, blue = (linear(int(colour[i : i + 2], 16)) for i in (1, 3, 5))
    y = 0.2126 * red + 0.7152 * green + 0.0722 * blue
    return float(116 * y ** (1 / 3) - 16) if y > 0.008856 else 903.3 * y


def grey_of(colour: str) -> str:
    """The grey of the same lightness, ``#rrggbb``."""
    level = lightness(colour)
    y = ((level + 16) / 116) ** 3 if level > 8 else level / 903.3
    c = y * 12.92 if y <= 0.0031308 else 1.055 * y ** (1 / 2.4) - 0.055
    return f"#{round(c * 255):02x}" + f"{round(c * 255):02x}" * 2


def value_class(fabric: Fabric) -> str:
    """``light``, ``medium`` or ``dark``: as the maker says, else by lightness."""
    if fabric.value in CLASSES:
        return str(fabric.value)
    level = lightness(fabric.colour)
    return "light" if level >= LIGHT_FROM else "dark" if level <= DARK_TO else "medium"


def too_near(fabric: Fabric, other_fabric: Fabric) -> bool:
    """Do two fabrics read as one? Less than ``TOO_NEAR`` apart they do, unless the maker put either
    in a class of its own (a print may read unlike its mean colour)."""
    said = fabric.value in CLASSES or other_fabric.value in CLASSES
    if fabric.id == other_fabric.id or (said and value_class(fabric) != value_class(other_fabric)):
        return False
    return abs(lightness(fabric.colour) - lightness(other_fabric.colour)) < TOO_NEAR


class LostEdge(NamedTuple):
    """A seam between two fabrics too near in value: where it is, the middle of it, and the smaller
    of its patches, whose shape is lost."""

    edge: int
    at: Point
    patch: Patch
    beside: Patch


def lost_edges(draft: Draft, project: Project) -> Iterator[LostEdge]:
    """Every seam of the block that cannot be seen, fabric by fabric."""
    fabrics = {f.id: f for f in project.fabrics}
    near: dict[tuple[str, str], bool] = {}
    boxes = draft.arrangement.boxes
    for number, edge in enumerate(draft.arrangement.edges):
        if edge.right < 0 or edge.left < 0:
            continue
        right, left = draft.patches[edge.right], draft.patches[edge.left]
        fabric, other_fabric = fabrics.get(right.fabric or ""), fabrics.get(left.fabric or "")
        if fabric is None or other_fabric is None or fabric.id == other_fabric.id:
            continue
        pair = (min(fabric.id, other_fabric.id), max(fabric.id, other_fabric.id))
        if pair not in near:
            near[pair] = too_near(fabric, other_fabric)
        if near[pair]:
            points = draft.arrangement.points
            sizes = [
                (boxes[f][2] - boxes[f][0]) * (boxes[f][3] - boxes[f][1])
                for f in (edge.right, edge.left)
            ]
            small, large = (right, left) if sizes[0] <= sizes[1] else (left, right)
            at = midpoint(points[edge.start], points[edge.end])
            yield LostEdge(number, at, small, large)


def shape_name(patch: Patch) -> str:
    """What a patch is called by its outline."""
    if patch.arcs:
        return "curved patch"
    count = len(patch.outline)
    if count == 3:
        return "triangle"
    if count == 4:
        a, b, c, d = (p.floats() for p in patch.outline)
        sides = [((q[0] - p[0]), (q[1] - p[1])) for p, q in ((a, b), (b, c), (c, d), (d, a))]
        square_corners = all(abs(u[0] * v[0] + u[1] * v[1]) < 1e-9 for u, v in pairwise(sides))
        lengths = [x * x + y * y for x, y in sides]
        equal = max(lengths) - min(lengths) < 1e-9
        if square_corners:
            return "square" if equal else "rectangle"
        return "diamond" if equal else "four-sided patch"
    return f"{'five' if count == 5 else 'six' if count == 6 else 'many'}-sided patch"
