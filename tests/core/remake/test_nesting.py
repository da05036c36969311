"""How seams that were cut meet at the new seams, by the layers that lie there."""

from __future__ import annotations

from itertools import product

import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import affinity

from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.pressing import Pressing
from inlet.core.project.value import replace
from inlet.core.remake.edit import by_chance
from inlet.core.remake.follow import remade
from inlet.core.remake.nesting import (
    Nesting,
    SliceJunction,
    _pressed_again,
    _SeamEnd,
    nesting,
    nesting_text,
)
from inlet.core.remake.set_again import places_of
from tests.core.remake.test_made_from import START, project_of_sliced
from tests.core.remake.test_slices import THIRDS
from tests.sample import many


def layers_of(how, pressing):
    """Every allowance that lies folded on the back of the start block, by slice, turned and moved
    as its piece lies in the new block."""
    lying = []
    for laid, place, corner in zip(how.laid, how.slices, places_of(how.slices), strict=True):
        left, top, right, bottom = map(float, how.slices[laid.piece].kept)
        middle = (left + right) / 2, (top + bottom) / 2
        to = [float(c) + float(side) / 2 for c, side in zip(corner, place.size, strict=True)]
        for layer in pressing.layers:
            part = shapely.Polygon(layer.outline).buffer(0)
            part = part.intersection(shapely.box(left, top, right, bottom))
            if part.area > 1e-9:
                part = affinity.rotate(part, 90 * laid.quarters, middle)
                lying.append(affinity.translate(part, to[0] - middle[0], to[1] - middle[1]))
    return lying


def thicker(lying, x, y, along):
    """On which side of a place more layers lie, a little way along a new seam: 1, -1 or 0."""
    counts = []
    for way in (1, -1):
        spot = shapely.Point(x + way * along[0], y + way * along[1])
        counts.append(sum(part.contains(spot) for part in lying))
    return (counts[0] > counts[1]) - (counts[0] < counts[1])


@given(st.integers(0, 200), st.sampled_from(["mixed", "dark", "nest"]))
@settings(max_examples=many(6, 15), deadline=None)
def test_seams_that_go_straight_on_nest_where_layers_lie_on_opposite_sides(seed, method):
    """A four-patch cut in thirds, its pieces turned by chance: at every junction of square seams
    the layers either side of the new seam are thicker on opposite sides where it nests."""
    cross = tuple(seam for seam in START.seams if seam.ends[0].x == seam.ends[1].x
                  or seam.ends[0].y == seam.ends[1].y)  # fmt: skip
    start = replace(START, seams=cross)
    about = {"pressing": Pressing(method=method)}
    project = project_of_sliced(start, THIRDS, **about)
    laid = by_chance(remade(project, project.block("made").made_from), seed)
    project = project_of_sliced(start, THIRDS, laid, **about)
    how = remade(project, project.block("made").made_from)
    pressing = plan_block(project, project.block("made")).pressing.best
    result = nesting(how, pressing)
    lying = layers_of(how, pressing)
    xs = {float(left) for left, _ in places_of(how.slices) if left}
    for junction in result.junctions:
        x, y = junction.at.floats()
        upright = x in xs
        along = (0.0, 0.1) if upright else (0.1, 0.0)
        step = (0.02, 0.0) if upright else (0.0, 0.02)
        before = thicker(lying, x - step[0], y - step[1], along)
        behind = thicker(lying, x + step[0], y + step[1], along)
        if junction.state == "nests":
            assert before == -behind != 0
        elif junction.state == "stacks":
            assert before == behind != 0
        else:
            assert 0 in (before, behind)


@given(st.lists(st.tuples(st.integers(0, 5), st.integers(0, 5), st.booleans()), max_size=8))
@settings(max_examples=many(60, 200), deadline=None)
def test_what_is_pressed_again_is_the_least_that_makes_all_nest(meetings):
    """Every choice of six seams to press the other way, tried: where one makes all nest, the fewest
    seams that do are named; else it is said how many junctions are left."""
    met = [
        (_SeamEnd((a, 0), F(0), 1, Point(F(0), F(1))),
         _SeamEnd((b, 0), F(0), 1 if stacks else -1, Point(F(0), F(1))))
        for a, b, stacks in meetings if a != b
    ]  # fmt: skip
    again, left = _pressed_again(met)

    def stacked(turned):
        return sum((a.way == b.way) == (turned[a.seam[0]] == turned[b.seam[0]]) for a, b in met)

    tried = [turned for turned in product((False, True), repeat=6) if not stacked(turned)]
    named = [place in again for place in range(6)]
    assert stacked(named) == left
    assert (left == 0) == bool(tried)
    if tried:
        assert len(again) == min(map(sum, tried))


def test_how_many_nest_is_said_with_what_to_press_again():
    project = project_of_sliced(START, THIRDS)
    how = remade(project, project.block("made").made_from)
    at = Point(F(1), F(1))
    result = Nesting((SliceJunction(at, "nests"), SliceJunction(at, "stacks")), (1,), 0)
    assert nesting_text(result, how) == (
        "1 of 2 junctions at the new seams nest as the start block is pressed. Press the seams in "
        "piece 2 the other way: then all nest."
    )
    assert nesting_text(result._replace(junctions=()), how) == ""
