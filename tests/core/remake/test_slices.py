"""Blocks sliced and set again, by polygons of another library and by hand."""

from __future__ import annotations

from collections import Counter
from itertools import product
from math import atan2, degrees

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import affinity

from inlet.core.draft.patches import draft
from inlet.core.geometry.motion import Motion, at_origin, canonical
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.made_from import Cuts
from inlet.core.project.measure import INCH
from inlet.core.remake.offers import offers, picture_of, ring_turns, rings
from inlet.core.remake.set_again import Laid, as_they_were, drawn, places_of, set_again
from inlet.core.remake.slices import SliceError, equal_parts, sliced
from inlet.core.remake.start_sizes import from_squares, on_marks, size_for, start_size
from tests.blocks import block_of, in_fabrics, mixed_seams, unit_blocks
from tests.sample import many


def pinwheel():
    """Eight triangles about the centre, in two fabrics by turns: it looks the same turned."""
    block = block_of("1 0 1 2 / 0 1 2 1 / 0 0 2 2 / 0 2 2 0", 2, 2, (F(43, 4), F(43, 4)), "a")
    middles = (whole(patch.polygon).centroid for patch in draft(block).patches)
    eighths = (int(degrees(atan2(m.y - 5.375, m.x - 5.375)) // 45) for m in middles)
    return in_fabrics(block, "".join("ab"[eighth % 2] for eighth in eighths))


def whole(polygon):
    return shapely.Polygon([p.floats() for p in polygon])


PINWHEEL = pinwheel()
THIRDS = Cuts(equal_parts(F(45, 4), 3), equal_parts(F(45, 4), 3))
marks = st.integers(-20, 20).map(lambda n: F(n, 8))
some_cuts = st.lists(marks, max_size=3).map(tuple)


def by_fabric(pieces):
    """What lies where, by fabric."""
    lying = {}
    for polygon, fabric in pieces:
        lying.setdefault(fabric, []).append(polygon)
    return {fabric: shapely.unary_union(each) for fabric, each in lying.items()}


def pieces_by_polygons(starts, slices, laid):
    """The patches of the blocks that are cut, clipped to what each slice keeps, turned and laid in
    its place."""
    for piece, place, corner in zip(laid, slices, places_of(slices), strict=True):
        left, top, right, bottom = map(float, slices[piece.piece].kept)
        box = shapely.box(left, top, right, bottom)
        wide, high = map(float, place.size)
        for patch in starts[piece.copy].patches:
            part = whole(patch.polygon).buffer(0).intersection(box)
            if part.area > 1e-9:
                part = affinity.rotate(part, 90 * piece.quarters, ((left + right) / 2,
                                                                   (top + bottom) / 2))  # fmt: skip
                across = float(corner[0]) + wide / 2 - (left + right) / 2
                down = float(corner[1]) + high / 2 - (top + bottom) / 2
                yield affinity.translate(part, across, down), patch.fabric


def same_lying(shown, expected, close):
    assert set(shown) == set(expected)
    for fabric, lying in expected.items():
        assert lying.symmetric_difference(shown[fabric]).area < close


@given(unit_blocks(), some_cuts, some_cuts, st.data())
@settings(max_examples=many(25, 60), deadline=None)
def test_what_is_shown_is_what_polygons_make_of_the_slices(block, upright, level, data):
    """Each slice less its seams, turned where it fits, laid side by side: what the new block shows.
    It is smaller by two allowances a cut."""
    cuts = Cuts(tuple(set(upright)), tuple(set(level)))
    try:
        slices = sliced(block.finished, cuts, INCH)
    except SliceError:
        return
    other = in_fabrics(block, "dcba")
    starts = [draft(block), draft(other)]
    order = data.draw(st.permutations(range(len(slices))))
    laid = []
    for place, i in enumerate(order):
        turn = data.draw(st.integers(0, 3))
        size = slices[i].size if turn % 2 == 0 else slices[i].size[::-1]
        fitting = size == slices[place].size
        laid.append(Laid(i if fitting else place, turn if fitting else 0,
                         data.draw(st.integers(0, 1))))  # fmt: skip
    made = set_again(starts, slices, laid)
    new = draft(made.block)
    for axis, number in enumerate((len(cuts.upright), len(cuts.level))):
        assert made.block.finished[axis] == block.finished[axis] - 2 * INCH.seam * number
    shown = by_fabric((whole(p.polygon), p.fabric) for p in new.patches)
    same_lying(shown, by_fabric(pieces_by_polygons(starts, slices, laid)), 1e-6)


@given(mixed_seams(most=6), some_cuts)
@settings(max_examples=many(15, 40), deadline=None)
def test_blocks_with_arcs_are_sliced_through_them(seams, upright):
    block = block_of(size=(12, 12))
    block = block_of_curves(block, seams)
    start = draft(block)
    if start.arrangement.faults:
        return
    try:
        slices = sliced(block.finished, Cuts(tuple(set(upright)), ()), INCH)
    except SliceError:
        return
    made = set_again([start], slices, as_they_were(slices))
    new = draft(made.block)
    expected = by_fabric(pieces_by_polygons([start], slices, as_they_were(slices)))
    same_lying(by_fabric((whole(p.polygon), p.fabric) for p in new.patches), expected, 0.05)


def block_of_curves(block, curves):
    from inlet.core.draft.edit import add_seams
    from inlet.core.project.block import seam_along
    from inlet.core.project.value import replace

    grid = replace(block, columns=(F(1),) * 6, rows=(F(1),) * 6)
    return in_fabrics(add_seams(grid, map(seam_along, curves)), "abc")


@given(some_cuts, some_cuts)
def test_no_fabric_is_lost_but_in_seams(upright, level):
    """The pieces as they are cut make the raw block; as they are sewn in each is an allowance
    smaller all round."""
    try:
        slices = sliced((F(9), F(7)), Cuts(upright, level), INCH)
    except SliceError:
        return
    raw = [shapely.box(*map(float, each.cut)) for each in slices]
    assert shapely.unary_union(raw).equals(shapely.box(-0.25, -0.25, 9.25, 7.25))
    assert sum(each.area for each in raw) == pytest.approx(9.5 * 7.5)
    for each, box in zip(slices, raw, strict=True):
        shrunk = box.buffer(-0.25, join_style="mitre")
        assert shrunk.equals(shapely.box(*map(float, each.kept)))


def test_cuts_from_the_centre():
    """Four half-square triangles of 5 7/8 in measure 11 1/4: cut 1 7/8 from the centre. An
    hourglass of 9 3/4 in: 1 5/8."""
    assert equal_parts(F(45, 4), 3) == (-F(15, 8), F(15, 8))
    assert equal_parts(F(39, 4), 3) == (-F(13, 8), F(13, 8))
    assert equal_parts(F(10), 2) == (0,)
    assert equal_parts(F(10), 4) == (-F(5, 2), 0, F(5, 2))
    start = start_size(F(45, 4), 3, INCH)
    assert (start.piece, start.finished, start.on_marks) == (F(15, 4), F(39, 4), True)
    assert size_for(F(39, 4), 3, INCH) == start
    assert not start_size(F(11), 3, INCH).on_marks
    assert on_marks(F(11), 3, INCH) == start_size(F(21, 2), 3, INCH)._replace(trimmed=F(1, 2))


def test_what_squares_of_6_and_8_in_give():
    """A pair of 6 in squares gives triangle squares of 5 5/8 (6 - 0.354), four of them 10 3/4, cut
    down to 10 1/2: a sixth is 1 3/4. Of 8 in: 7 5/8, 14 3/4, 14 1/4, 2 3/8."""
    six, eight = from_squares([F(6), F(8)], 3, INCH)
    assert (six.measured, six.trimmed, six.cuts[1]) == (F(21, 2), F(1, 4), F(7, 4))
    assert (eight.measured, eight.trimmed, eight.cuts[1]) == (F(57, 4), F(1, 2), F(19, 8))
    assert six.on_marks
    assert eight.on_marks


@given(st.integers(20, 200).map(lambda n: F(n, 16)), st.integers(2, 6))
def test_the_largest_start_on_marks_is_the_largest(measured, parts):
    """Every size on 1/64 in from there down to half of it is tried."""
    found = on_marks(measured, parts, INCH)
    sizes = (measured - F(k, 64) for k in range(int(measured * 32)))
    best = next((m for m in sizes if all((c * 8).denominator == 1 for c in equal_parts(m, parts))),
                None)  # fmt: skip
    if best is not None:
        assert found.measured == best
        assert found.on_marks


def test_a_diagonal_misses_itself_by_two_allowances():
    """A seam at 45 degrees loses 1/4 in on each side of an upright cut, so it climbs 1/2 in at
    once; a level seam meets itself."""
    slanted = block_of("0 0 1 1", 1, 1, (6, 6), "ab")
    slices = sliced((F(6), F(6)), Cuts((F(0),), ()), INCH)
    made = set_again([draft(slanted)], slices, as_they_were(slices))
    (miss,) = made.missed
    assert miss.off == F(1, 2)
    assert (miss.at.x, miss.at.y) == (F(11, 4), F(3))
    level = block_of("0 1/2 1 1/2", 1, 1, (6, 6), "ab")
    assert not set_again([draft(level)], slices, as_they_were(slices)).missed
    turned = [Laid(0, 2), Laid(1, 2)]  # both upside down: the ends that met lie outside
    assert not set_again([draft(slanted)], slices, turned).missed


def test_seams_that_miss_are_those_that_polygons_say():
    """Ends of seams on both sides of each new seam, found by polygons before and after: those that
    met as cut, and lie apart once sewn."""
    start = draft(PINWHEEL)
    slices = sliced(PINWHEEL.finished, THIRDS, INCH)
    for laid in list(ring_turns(slices))[::7]:
        made = set_again([start], slices, laid)
        apart = Counter(round(float(miss.off), 6) for miss in made.missed)
        assert set(apart) <= {0.5, 0.25, 1.0}
        again = draft(made.block)
        corners = {p.floats() for patch in again.patches for p in patch.outline}
        for miss in made.missed:
            x, y = miss.at.floats()
            half = float(miss.off) / 2
            ends = [(x, y - half), (x, y + half)], [(x - half, y), (x + half, y)]
            assert any(
                all(min(abs(a - u) + abs(b - v) for u, v in corners) < 1e-6 for a, b in pair)
                for pair in ends
            )


def quarter_of(picture):
    return Motion(F(0), F(1)).picture(picture)


def test_offers_are_all_arrangements_once():
    """Counted a second way: of the different pictures those that each turn leaves as they are, a
    quarter of their sum (every turn of an arrangement is one)."""
    start = draft(PINWHEEL)
    slices = sliced(PINWHEEL.finished, THIRDS, INCH)
    assert [len(ring) for ring in rings(slices)] == [4, 4, 1]
    pieces = [drawn(start, each) for each in slices]
    pictures = {}
    for turns in product(range(4), repeat=3):
        laid = [Laid(i) for i in range(9)]
        for ring, quarters in zip(rings(slices), turns, strict=True):
            for i in ring:
                laid[i] = Laid(i, quarters)
        picture = picture_of(pieces, laid, places_of(slices))
        pictures[canonical(at_origin(picture))] = picture
    fixed = 0
    for look, picture in pictures.items():
        turned = picture
        for _ in range(4):
            fixed += canonical(at_origin(turned)) == look
            turned = quarter_of(turned)
            assert canonical(at_origin(turned)) in pictures
    listed = offers(start, slices)
    assert len(listed) == fixed / 4
    assert [each.symmetry for each in listed] == sorted(
        (each.symmetry for each in listed), reverse=True
    )
    for each in listed[:: max(1, len(listed) // 6)]:
        same_seams = 0.0
        made = draft(set_again([start], slices, each.laid).block)
        lying = by_fabric((whole(p.polygon), p.fabric) for p in made.patches)
        for at in (F(13, 4), F(13, 2)):
            for line in (((at, 0), (at, F(39, 4))), ((0, at), (F(39, 4), at))):
                cut = shapely.LineString([tuple(map(float, p)) for p in line])
                inside = (cut.intersection(each.buffer(-1e-7).buffer(2e-7)).intersection(
                    shapely.union_all([each]).buffer(-1e-6)).length
                    for each in lying.values())  # fmt: skip
                same_seams += sum(inside)
        assert float(each.goes_on) == pytest.approx(same_seams, abs=1e-3)


@pytest.mark.parametrize(
    ("cuts", "said"),
    [
        (Cuts((F(5),), ()), "lies outside the block"),
        (Cuts((F(0), F(1, 4)), ()), "is lost in its seams: they take 1/2 in."),
        (Cuts((), (F(-25, 8),)), "is lost in its seams"),
    ],
)
def test_cuts_that_cannot_be_are_told(cuts, said):
    with pytest.raises(SliceError, match=said):
        sliced((F(6), F(6)), cuts, INCH)


def test_a_piece_that_does_not_fit_its_place_is_told():
    slices = sliced((F(6), F(6)), Cuts((F(1),), ()), INCH)
    with pytest.raises(SliceError, match="Piece 2 does not fit place 1"):
        set_again([draft(block_of(size=(6, 6)))], slices, [Laid(1), Laid(0)])


def test_arrangements_that_are_turns_of_one_another_are_one_offer():
    """A block of bars, cut into four pieces that each show half a light bar over half a dark one:
    all turned alike they lie in four ways, each a turn of the others."""
    bars = "0 15/8 8 15/8 / 0 4 8 4 / 0 49/8 8 49/8"
    block = block_of(bars, 8, 8, (8, 8), "abab")
    slices = sliced(block.finished, Cuts((F(0),), (F(0),)), INCH)
    (offer,) = offers(draft(block), slices)
    assert len(list(ring_turns(slices))) == 4
    assert offer.symmetry == 2  # as it is, and in the mirror left for right
