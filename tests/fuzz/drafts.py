"""Random drafts in nine families, each meant to fall where exact geometry is hardest, and what must
hold of every one of them, by polygons (shapely) that share no code with the arrangement."""

from __future__ import annotations

import random
from math import atan2, cos, hypot, isqrt, pi, sin

import shapely

from inlet.core.draft.edit import is_drawn, paint_all
from inlet.core.draft.patches import Draft, draft
from inlet.core.geometry.curve import Curve, arc_fault
from inlet.core.geometry.inside import inside_point
from inlet.core.geometry.outline import Outline
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import Root2
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block, seam_along
from inlet.core.project.value import replace
from inlet.files.project.project_json import dumps, loads
from tests.blocks import project_of

FINE = 2e-4
"""How far chords of the witness's polygons may leave their arcs, in grid units."""


def _fraction(chance: random.Random, n: int) -> F:
    d = chance.choice((1, 1, 1, 2, 2, 3, 4))
    return F(chance.randint(0, n * d), d)


def _point(chance: random.Random, n: int) -> Point:
    return Point(_fraction(chance, n), _fraction(chance, n))


def _root_point(chance: random.Random, n: int) -> Point:
    def part() -> object:
        made = Root2.of(F(chance.randint(-4, 4)), F(chance.choice((1, -1, 2, -2, 3)), 2))
        return made if 0 <= made <= n else _fraction(chance, n)

    return Point(part(), part())


def _root(x: F) -> F:
    """√x to 12 places, as a place outside the field is written."""
    return F(isqrt(int(x * 10**24)), 10**12)


def _located(chance: random.Random, n: int) -> Point:
    """A crossing of a line of the grid and a circle about a grid point, to 12 places."""
    c, r2 = _point(chance, n), _fraction(chance, n) ** 2 + _fraction(chance, n) ** 2
    x = _fraction(chance, n)
    room = r2 - (x - c.x) ** 2
    if room < 0:
        return _point(chance, n)
    y = F(round((c.y + chance.choice((1, -1)) * _root(room)) * 10**12), 10**12)
    if not 0 <= y <= n:
        return _point(chance, n)
    return Point(x, y) if chance.random() < 0.5 else Point(y, x)


def _arc_from(chance: random.Random, n: int, start: Point, centre: Point) -> Curve | None:
    """An arc from ``start`` about ``centre``, to a quarter turn or to where a grid line is met."""
    u = start.minus(centre)
    ends = [Point(centre.x - u.y, centre.y + u.x), Point(centre.x + u.y, centre.y - u.x)]
    x = F(chance.randint(0, n))
    room = u.x * u.x + u.y * u.y - (x - centre.x) * (x - centre.x)
    if isinstance(room, F) and room > 0 and isinstance(centre.y, F):
        for sign in (1, -1):
            y = F(round((centre.y + sign * _root(room)) * 10**12), 10**12)
            ends.append(Point(x, y))
    end = chance.choice(ends)
    return None if arc_fault(start, end, centre) else Curve(start, end, centre)


def _hair(chance: random.Random) -> F:
    return chance.choice((1, -1)) * F(chance.randint(1, 9), 10 ** chance.randint(3, 13))


def _line_to(chance: random.Random, n: int, pick: object = _point) -> Curve:
    return Curve(pick(chance, n), pick(chance, n))  # type: ignore[operator]


def _lines(chance: random.Random, n: int) -> list[Curve]:
    return [_line_to(chance, n) for _ in range(chance.randint(1, 9))]


def _arcs(chance: random.Random, n: int) -> list[Curve | None]:
    return [
        _arc_from(chance, n, _point(chance, n), _point(chance, n))
        if chance.random() < 0.6
        else _line_to(chance, n)
        for _ in range(chance.randint(1, 7))
    ]


def _roots(chance: random.Random, n: int) -> list[Curve | None]:
    return [
        _arc_from(chance, n, _root_point(chance, n), _root_point(chance, n))
        if chance.random() < 0.3
        else _line_to(chance, n, _root_point)
        for _ in range(chance.randint(1, 7))
    ]


def _from_places(chance: random.Random, n: int) -> list[Curve | None]:
    """Seams drawn with the tools: each from and to a place there is, located ones too."""
    out: list[Curve | None] = [*_arcs(chance, n)][:4]
    for _ in range(chance.randint(1, 5)):
        now = draft(_block(n, [c for c in out if c is not None and c.start != c.end]))
        places = [*now.arrangement.points, _located(chance, n)]
        p, q = chance.choice(places), chance.choice(places)
        out.append(_arc_from(chance, n, p, q) if chance.random() < 0.5 else Curve(p, q))
    return out


def _tangent(chance: random.Random, n: int, hair: bool) -> list[Curve | None]:
    """Lines and arcs that touch a circle, or miss touching it by a hair."""
    c, r = Point(F(chance.randint(1, n)), F(chance.randint(1, n))), F(chance.randint(1, n))
    off = _hair(chance) if hair else F(0)
    a, b, h = chance.choice(((3, 4, 5), (4, 3, 5), (0, 1, 1), (1, 0, 1), (5, 12, 13)))
    foot = Point(c.x + F(a, h) * (r + off), c.y + F(b, h) * (r + off))
    along = Point(-F(b, h), F(a, h))
    k = F(chance.randint(1, 4))
    out: list[Curve | None] = [
        _arc_from(chance, n, Point(c.x + r, c.y), c),
        _arc_from(chance, n, Point(c.x, c.y + r), c),
        Curve(foot.minus(along.scaled(k, k)), foot.plus(along.scaled(k, k))),
    ]
    away = Point(c.x + F(a, h) * (r + k + off), c.y + F(b, h) * (r + k + off))
    out += [_arc_from(chance, n, foot, away), Curve(foot, _point(chance, n))]
    chance.shuffle(out)
    return [*out[: chance.randint(2, 5)], _line_to(chance, n)]


def _slivers(chance: random.Random, n: int) -> list[Curve | None]:
    out: list[Curve | None] = []
    for curve in _arcs(chance, n)[:4]:
        out.append(curve)
        if curve is not None:
            p = curve.start.plus(Point(_hair(chance), F(0)))
            q = curve.end.plus(Point(F(0), _hair(chance)))
            near = Curve(p, chance.choice((curve.end, q)), None)
            if curve.centre is not None and chance.random() < 0.6:
                shift = chance.choice((_hair(chance), F(0)))
                near = Curve(*(v.plus(Point(shift, F(0))) for v in curve if v is not None))
            out.append(near)
    return out


def _corner_arcs(chance: random.Random, n: int) -> list[Curve | None]:
    out: list[Curve | None] = []
    for _ in range(chance.randint(2, 7)):
        c = Point(F(chance.choice((0, n))), F(chance.choice((0, n))))
        r = _fraction(chance, n) + (_hair(chance) if chance.random() < 0.3 else 0)
        far = Point(abs(c.x - r), c.y), Point(c.x, abs(c.y - r))
        out.append(None if arc_fault(*far, c) else Curve(*far, c))
        if chance.random() < 0.5:
            out.append(_line_to(chance, n))
    return out


def _block(n: int, curves: list[Curve], size: tuple[F, F] | None = None, m: int = 0) -> Block:
    size = size or (F(9), F(9))
    seams = tuple(seam_along(c) for c in curves)
    seams = tuple(s for s in seams if is_drawn(s))
    one = F(1)
    return Block(id="b", finished=size, columns=(one,) * n, rows=(one,) * (m or n), seams=seams)


FAMILIES = {
    "lines": _lines,
    "arcs": _arcs,
    "roots": _roots,
    "located": _from_places,
    "near-tangent": lambda chance, n: _tangent(chance, n, True),
    "tangent": lambda chance, n: _tangent(chance, n, False),
    "slivers": _slivers,
    "corner-arcs": _corner_arcs,
}


def random_block(family: str, seed: int) -> Block:
    """The block of a family and a seed, always the same; fabric in every patch that can be
    found."""
    chance = random.Random(f"{family} {seed}")
    n = chance.randint(2, 6)
    if family == "oblong":
        curves = _lines(chance, n)
        size = (F(chance.randint(3, 30), 2), F(chance.randint(3, 30), 2))
        block = _block(n, [c for c in curves if c.start != c.end], size, chance.randint(1, 6))
    elif family == "edits":
        return _edited(chance, n)
    else:
        found = FAMILIES[family](chance, n)
        block = _block(n, [c for c in found if c is not None and c.start != c.end])
    if chance.random() < 0.6:
        block = _mended(block)
    return _painted(block, chance)


ALL = [*FAMILIES, "oblong", "edits"]


def _mended(block: Block) -> Block:
    """The block drawn again from the borders of its patches: nothing stops or leaves any more."""
    now = draft(block).arrangement
    curves = [now.curve(e) for e in now.edges if e.right >= 0 and e.left >= 0]
    return _block(len(block.columns), curves, block.finished, len(block.rows))


def _painted(block: Block, chance: random.Random) -> Block:
    drawn = draft(block)
    for i, outline in enumerate(drawn.arrangement.outlines):
        block = paint_all(block, [inside_point(outline)], "abc"[(i + chance.randint(0, 1)) % 3])
    return block


def _edited(chance: random.Random, n: int) -> Block:
    from tests.core.test_any_edits import one_edit

    block = _block(n, [])
    for _ in range(chance.randint(2, 8)):
        block = one_edit(block, chance)
    return _painted(block, chance)


# --- what must hold -----------------------------------------------------------------------------


def _chords(p: tuple[float, float], q: tuple[float, float], c: Point | None) -> list:
    """Points from p to q, q left out, along the short arc about c."""
    if c is None:
        return [p]
    x, y = c.floats()
    begin, end = atan2(p[1] - y, p[0] - x), atan2(q[1] - y, q[0] - x)
    angle = (end - begin + pi) % (2 * pi) - pi
    r = hypot(p[0] - x, p[1] - y)
    count = max(4, int(abs(angle) / (8 * FINE / r) ** 0.5) + 1)
    turns = [begin + angle * i / count for i in range(1, count)]
    return [p, *((x + r * cos(t), y + r * sin(t)) for t in turns)]


def _ring(outline: Outline) -> list:
    centres, n = dict(outline.arcs), len(outline.corners)
    places = [p.floats() for p in outline.corners]
    return [at for i in range(n) for at in _chords(places[i], places[(i + 1) % n], centres.get(i))]


def _polygon(outline: Outline, holes: list[Outline]) -> shapely.Geometry:
    ring = _ring(outline)
    if len(ring) < 3:
        return shapely.Polygon()
    return shapely.make_valid(shapely.Polygon(ring, [_ring(h) for h in holes]))


def tiling_fault(drawn: Draft) -> str | None:
    """Why the patches do not tile the block, as polygons; None where they do."""
    now = drawn.arrangement
    width, height = (float(x) for x in drawn.block.grid)
    shapes = [
        _polygon(o, [now.traced(h) for h in f.holes])
        for o, f in zip(now.outlines, now.faces, strict=True)
    ]
    whole, allowed = width * height, 40 * FINE
    total = sum(s.area for s in shapes)
    if abs(total - whole) > allowed:
        return f"patches cover {total:.6f} of {whole}"
    union = shapely.union_all(shapes, grid_size=1e-7).area
    if abs(union - whole) > allowed:
        return f"patches together cover {union:.6f} of {whole}"
    return None


def seam_fault(drawn: Draft) -> str | None:
    """A drawn seam that is no border of patches, by sampled points; None where all are."""
    now = drawn.arrangement
    width, height = (float(x) for x in drawn.block.grid)
    edges = []
    for edge in now.edges:
        curve = now.curve(edge)
        p, q = curve.start.floats(), curve.end.floats()
        edges.append(shapely.LineString([*_chords(p, q, curve.centre), q]))
    borders = shapely.MultiLineString(edges)
    for number, seam in enumerate(drawn.block.seams):
        curve = seam.curve
        p, q = curve.start.floats(), curve.end.floats()
        chain = [*_chords(p, q, curve.centre), q]
        line = shapely.LineString(chain)
        for k in range(1, 24):
            at = line.interpolate(k / 24, normalized=True)
            inside = 0.01 < at.x < width - 0.01 and 0.01 < at.y < height - 0.01
            if inside and borders.distance(at) > 4 * FINE:
                return f"seam {number} is no border at ({at.x:.4f}, {at.y:.4f})"
    return None


ERRORS = ("outside", "stops", "island", "unclear")


def complaint(block: Block, plan: bool = True) -> str | None:
    """What is wrong with how Inlet takes a drawing, in words; None where nothing is."""
    try:
        drawn = draft(block)
        told = any(f.kind in ERRORS for f in drawn.arrangement.faults)
        found = tiling_fault(drawn) or (None if told else seam_fault(drawn))
        if found:
            return found
        project = project_of(block)
        text = dumps(project)
        if loads(text) != project:
            return "not read back equal"
        if plan:
            made = plan_block(project, block)
            if any(p.code == "not-resewn" for p in made.problems):
                return "not re-sewn"
            if told and not made.errors:
                return "a fault that is no error"
            if not told and len(drawn.patches) > 1 and not made.errors and not made.resewn:
                return "not ready, and no error"
    except Exception as error:
        return f"{type(error).__name__}: {error}"
    return None


def smaller(block: Block, plan: bool = True) -> Block:
    """A block with as few of the seams as still give a complaint."""
    i = 0
    while i < len(block.seams):
        fewer = replace(block, seams=block.seams[:i] + block.seams[i + 1 :])
        if complaint(fewer, plan):
            block = fewer
        else:
            i += 1
    return block
