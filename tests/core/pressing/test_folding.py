"""Allowances folded as they are pressed, against fabric cut and folded by another library."""

from __future__ import annotations

import random

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import affinity

from inlet.core.assembly.tree import all_joins, faces_of
from inlet.core.draft.symmetry import turned
from inlet.core.geometry.curve import Curve, flattened
from inlet.core.geometry.point import Point
from inlet.core.geometry.polygon import area, contains
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.pressing.alike import middle_of
from inlet.core.pressing.folding import folded, layers_at
from inlet.core.pressing.spans import find_seams
from tests.blocks import block_of, mixed_seams, project_of, turns
from tests.core.assembly.test_assembly import ALL, random_map
from tests.sample import many

S = F(1, 4)
AWKWARD = ["ring", "set-in", "ring and mitre"]


def plan_of(block):
    return plan_block(project_of(block), block)


def test_the_centre_of_a_four_patch_counted_by_hand():
    """The upper seam to the right, the lower one to the left, the last one down: nothing behind the
    upper left; three behind the upper right; below, what is above lies on it again, folded with the
    allowance. Both to the right: all on one heap, nine. Whirled: each on its neighbour, four."""
    plan = plan_of(block_of("1 0 1 2 / 0 1 2 1", 2, 2, (8, 8), "abcd"))
    places = [Point(4 + F(x, 10), 4 + F(y, 13)) for y in (-1, 1) for x in (-1, 1)]

    def layers(*ways):
        behind = folded(find_seams(plan.draft, plan.assembly), S, ways)
        return [layers_at(plan.draft, behind, p) for p in places]

    assert layers(1, 0, 1, 1) == [1, 3, 7, 5]
    assert layers(1, 1, 1, 1) == [1, 3, 3, 9]
    assert layers(None, None, None, None) == [4, 4, 4, 4]
    assert layers(1, 0, 0, 1) == [4, 4, 4, 4]  # whirled


def pressed_at_random(seams, chance):
    """Every seam one way or open over its whole length, each leg of its own."""
    legs = {}
    return [legs.setdefault((id(span.join), leg_of(span)), chance.choice([0, 1, None]))
            for span in seams.spans]  # fmt: skip


def leg_of(span):
    join, begin, _, _ = span.pieces[0]
    return next(i for i, leg in enumerate(join.legs) if begin in range(*sorted(leg[:2])))


def solid(shape):
    """Its parts that have area."""
    return [part for part in shapely.get_parts(shape) if part.area > 1e-9]


def fabric_folded(plan, toward):
    """Each patch one piece of fabric with its allowance, folded seam after seam by shapely; of the
    block's rectangles only, whose allowances have no tips."""
    s, points = float(S), [p.floats() for p in plan.draft.arrangement.points]
    scale = [float(x) for x in plan.block.scale]
    faces = [shapely.Polygon([p.floats() for p in each.polygon]) for each in plan.draft.patches]
    lying = [[face.buffer(s, join_style="mitre") - face] for face in faces]
    late = {}
    for join in all_joins(plan.assembly):
        if join.left_open:
            late.setdefault(max(end.finished_by for end in join.left_open), []).insert(0, join)
        for each in ([] if join.left_open else [join]) + late.pop(join.number, []):
            stops = {*each.dots, *each.pivots}
            for leg in each.legs:
                i, j = sorted((leg.begin, leg.end))
                ends = [
                    [x * k for x, k in zip(points[each.vertices[n]], scale, strict=True)]
                    for n in (i, j)
                ]
                far = [0 if each.vertices[n] in stops else s for n in (i, j)]
                upright = abs(ends[0][0] - ends[1][0]) < 1e-9
                axis, along = (0, 1) if upright else (1, 0)
                at = ends[0][axis]
                low, high = sorted(zip((e[along] for e in ends), far, strict=True))
                span = low[0] - low[1], high[0] + high[1]
                along = shapely.LineString(ends)
                corners = [
                    shapely.Point([x * c for x, c in zip(points[v], scale, strict=True)])
                    for n, v in enumerate(each.vertices)
                    if any(n in (other.begin, other.end) for other in each.legs)
                    and n not in (0, len(each.vertices) - 1)
                ]
                for k in (0, 1):
                    own = faces_of(each.sides[k])
                    # At a corner, a patch that lies along the other leg only is out of the way.
                    aside = {
                        f
                        for f in own
                        if faces[f].intersection(along).length < 1e-9
                        and any(faces[f].distance(c) < 1e-9 for c in corners)
                    }
                    near = next(
                        f for f in own if faces[f].intersection(shapely.LineString(ends)).length > 0
                    )
                    shared = faces[near].intersection(shapely.LineString(ends))
                    spot = max(solid(shared.buffer(0.01)), key=lambda g: g.area).centroid
                    shift = (0.01, 0) if upright else (0, 0.01)
                    beside = shapely.Point(spot.x + shift[0], spot.y + shift[1])
                    out = -1 if faces[near].contains(beside) else 1
                    across = sorted((at, at + out * s))
                    low_corner, high_corner = (
                        (across[m], span[m]) if upright else (span[m], across[m]) for m in (0, 1)
                    )
                    region = shapely.box(*low_corner, *high_corner)
                    if toward[each.number, i] not in (k, None):
                        continue
                    mirror = (-1, 0, 0, 1, 2 * at, 0) if upright else (1, 0, 0, -1, 0, 2 * at)
                    for f in own - aside:
                        new = []
                        for piece in lying[f]:
                            inside = piece.intersection(region)
                            new.append(piece - region)
                            if inside.area > 1e-9:
                                new += [affinity.affine_transform(p, mirror) for p in solid(inside)]
                        lying[f] = [p for piece in new for p in solid(piece)]
    return faces + [piece for each in lying for piece in each]


@given(
    st.one_of(
        st.builds(random_map, st.lists(st.integers(0, 2), min_size=9, max_size=16),
                  st.integers(3, 4)),
        st.sampled_from([ALL[name] for name in AWKWARD if name in ALL]),
    ),
    st.randoms(use_true_random=False),
)  # fmt: skip
@settings(max_examples=many(25, 200), deadline=None)
def test_layers_are_those_of_fabric_folded_by_another_library(block, chance):
    plan = plan_of(block)
    square = all(
        p.x == q.x or p.y == q.y
        for each in plan.draft.patches
        for p, q in zip(each.polygon, (*each.polygon[1:], each.polygon[0]), strict=True)
    )
    if plan.assembly is None or not square or any(p.holes or p.arcs for p in plan.draft.patches):
        return
    seams = find_seams(plan.draft, plan.assembly)
    ways = pressed_at_random(seams, chance)
    toward = {(join.number, n): seams.toward(ways, join, n) for join in seams.joins
              for n in range(len(join.edges))}  # fmt: skip
    ours, theirs = folded(seams, S, ways), fabric_folded(plan, toward)
    wide, high = plan.block.finished
    spots = [p for each in plan.draft.patches for p in each.polygon]
    tree = shapely.STRtree(theirs)
    for _ in range(60):
        corner = chance.choice(spots)  # where there is most to count
        x, y = (c + F(chance.randint(-499, 499), 1009) for c in corner)
        if not (0 < x < wide and 0 < y < high):
            continue
        at = shapely.Point(float(x), float(y))
        near = [theirs[i] for i in tree.query(at, predicate="intersects")]
        on_edge = any(contains(layer.outline, Point(x, y)) == 0 for layer in ours)
        if not on_edge and min((g.boundary.distance(at) for g in near), default=1.0) > 1e-6:
            assert layers_at(plan.draft, ours, Point(x, y)) == len(near)


@pytest.mark.parametrize("name", list(ALL)[:25])
def test_no_fabric_is_lost_and_a_turned_block_is_folded_alike(name):
    plan = plan_of(ALL[name])
    if plan.assembly is None:
        return
    chance = random.Random(name)
    other = plan_of(turned(ALL[name], (1, True)))
    whole = None
    seams, others = (find_seams(p.draft, p.assembly) for p in (plan, other))
    for _ in range(3):
        behind = folded(seams, S, pressed_at_random(seams, chance))
        fabric = sum(float(area(layer.outline)) for layer in behind)
        whole = fabric if whole is None else whole
        assert fabric == pytest.approx(whole)
        assert all(area(layer.outline) > 0 for layer in behind)
    opened = folded(others, S, [None] * len(others.spans))
    assert sum(float(area(layer.outline)) for layer in opened) == pytest.approx(whole)


@given(turns)
@settings(max_examples=8)
def test_what_is_pressed_open_lies_alike_in_any_turn(turn):
    """All seams open: the layers behind a block turn with it."""
    block = block_of("1 0 1 2 / 0 1 2 1 / 0 0 1 1 / 2 0 1 1", 2, 2, (6, 6), "abc")
    found = []
    for each in (block, turned(block, turn)):
        plan = plan_of(each)
        seams = find_seams(plan.draft, plan.assembly)
        behind = folded(seams, S, [None] * len(seams.spans))
        found.append(sorted((layer.folds, float(area(layer.outline))) for layer in behind))
    assert [folds for folds, _ in found[0]] == [folds for folds, _ in found[1]]
    assert [a for _, a in found[0]] == pytest.approx([a for _, a in found[1]])


@given(mixed_seams(most=1).filter(lambda drawn: bool(drawn) and drawn[0].centre is not None))
@settings(max_examples=40)
def test_the_middle_of_a_seam_halves_it(drawn_arcs):
    (arc,) = drawn_arcs
    (x, y), line = middle_of(arc), shapely.LineString([*flattened(arc, 1e-6), arc.end.floats()])
    assert line.project(shapely.Point(x, y)) == pytest.approx(line.length / 2, abs=1e-4)
    assert line.distance(shapely.Point(x, y)) < 1e-5
    chord = Curve(arc.start, arc.end)
    assert middle_of(chord) == pytest.approx([sum(pair) / 2 for pair in zip(
        arc.start.floats(), arc.end.floats(), strict=True)])  # fmt: skip
