"""A block sewn up as it is cut, against polygons of the pieces as they come off the mat."""

from __future__ import annotations

from collections import defaultdict
from itertools import pairwise, product
from math import dist, pi

import pytest
import shapely
from hypothesis import example, given, settings
from hypothesis import strategies as st

from inlet.core.draft.symmetry import turned
from inlet.core.draft.tray import tray_units
from inlet.core.fitting.bands import bands_on_marks
from inlet.core.fitting.remedies import Fitting
from inlet.core.fitting.runs import runs_of
from inlet.core.fitting.words import mark_text, misfit_text
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block
from inlet.core.project.measure import METRIC, Measure
from inlet.core.project.value import replace
from inlet.core.table.pieces import piece_for
from tests.blocks import (
    block_of,
    in_fabrics,
    project_of,
    through_blocks,
    tray_block,
    turns,
    unit_blocks,
)
from tests.core.assembly.corpus import corpus
from tests.sample import many

THREAD = 1 / 32 + 1e-6
PATCHWISE = {
    "half-square-triangle": "single-triangles",
    "quarter-square-triangle": "single-triangles",
    "three-triangle": "single-triangles",
    "flying-geese": "single-triangles",
    "corner-triangle": "template",
}
RING = "2 0 2 2 / 3 2 1 2 / 1 3 1 1 / 0 1 2 1"
NINE = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"
TRAY = {tray_unit.words: tray_block(tray_unit) for tray_unit in tray_units()}
STRAIGHT = [b for _, b, _, _ in corpus() if not any(seam.arc for seam in b.seams)]


def plan_of(block, awkward="best", **measure):
    project = project_of(block)
    changed = replace(project.measure, awkward=awkward, **measure)
    return plan_block(replace(project, measure=changed), block)


def usually(block):
    """By the methods that come to mind first, whatever the number of units advises."""
    usual = {
        "half-square-triangle": "two-at-a-time",
        "quarter-square-triangle": "crossed-pairs",
        "nine-patch": "plain",
    }
    return replace(block, methods=usual)


def at_size(block, size):
    wide, high = block.finished
    return replace(block, finished=(size, size * high / wide))


sizes = st.integers(48, 384).map(lambda n: F(n, 16))


# --- brute force, from polygons -----------------------------------------------------------------


def sewn_sides(plan):
    """Each patch's finished sides as (patch, one end, other end, length as made): the polygon it is
    cut as, moved in by the allowance by another library."""
    s = float(plan.measure.seam)
    out = []
    for unit in plan.units:
        cut_of = {c.piece._replace(quantity=0): c.cut for c in unit.in_use.pieces}
        for place in unit.unit.places:
            nested = {f for part in place.part.nested for f in part.faces}
            for face in place.part.faces - nested:
                patch = plan.draft.patches[face]
                piece = piece_for(patch.outline, patch.fabric, plan.measure.seam)
                corners = [p.floats() for p in patch.outline]
                drawn = list(zip(corners, corners[1:] + corners[:1], strict=True))
                if piece.shape == "template":
                    made = [dist(p, q) for p, q in drawn]
                else:
                    cut = cut_of[piece._replace(quantity=0)]
                    shrunk = cut_polygon(piece, cut).buffer(-s, join_style="mitre")
                    ring = list(shrunk.exterior.coords)
                    found = sorted(dist(p, q) for p, q in pairwise(ring))
                    order = sorted(range(len(drawn)), key=lambda i: dist(*drawn[i]))
                    made = [found[order.index(i)] for i in range(len(drawn))]
                out += [(face, p, q, m) for (p, q), m in zip(drawn, made, strict=True)]
    return out


def cut_polygon(piece, cut):
    low, high = (float(x) for x in cut)
    if piece.crosscut == "none":
        return shapely.box(0, 0, low, high)
    if piece.crosscut == "once":
        return shapely.Polygon([(0, 0), (low, 0), (0, high)])
    return shapely.Polygon([(0, 0), (low, 0), (low / 2, low / 2)])


def rough(x):
    """A length to be compared. Sizes in even parts of an inch lie half way between decimals: moved
    by a bit of pi they do not, and noise cannot round one of two equal ones the other way."""
    return round(x + pi / 1e6, 4)


def misfits(sides):
    """How far the sides of patches on either side of a line differ, between the nearest two places
    where patches on both sides have a corner: every pair of places is tried."""
    lines = defaultdict(lambda: ([], []))
    for _, p, q, made in sides:
        a, b = sorted((p, q))
        angle = ((b[0] - a[0]) / dist(a, b), (b[1] - a[1]) / dist(a, b))
        off = angle[0] * a[1] - angle[1] * a[0]
        key = rough(angle[0]), rough(angle[1]), rough(off)
        start, end = (angle[0] * x + angle[1] * y for x, y in (a, b))
        lines[key][p == a].append((rough(start), rough(end), made))
    out = []
    for one, other in lines.values():
        starts = sorted({s for s, _, _ in one} & {s for s, _, _ in other})
        ends = sorted({e for _, e, _ in one} & {e for _, e, _ in other})
        for start in starts:
            for end in (e for e in ends if e > start):
                within = [
                    [s for s in side if s[0] >= start and s[1] <= end] for side in (one, other)
                ]
                if all(
                    abs(sum(e - s for s, e, _ in side) - (end - start)) < 1e-3 for side in within
                ):
                    out.append(abs(sum(m for *_, m in within[0]) - sum(m for *_, m in within[1])))
                    break
    return out


def edge_length(plan, sides, axis, at):
    """What the patches along an edge of the block come to."""
    return sum(m for _, p, q, m in sides if p[axis] == q[axis] == at)


def fits_or_is_told(plan) -> bool:
    """Every seam meets to a thread, or what no half mark mends is told."""
    return plan.fit.worst <= THREAD or "does-not-fit" in {p.code for p in plan.problems}


@given(
    st.one_of(unit_blocks(), through_blocks(most=16), st.sampled_from(STRAIGHT)),
    sizes,
    st.sampled_from(["best", "leave", "finer"]),
)
@example(block_of("2 0 4 3/2 / 1 0 3 3/4", 4, 3, (8, 6)), F(59, 16), "best")
@example(block_of("0 0 2 1", 2, 1, (8, 4)), F(9), "best")
@settings(max_examples=many(40, 80), deadline=None)
def test_what_is_said_of_seams_and_sizes_is_so_by_polygons(block, size, awkward):
    """The plan is right about what comes out, whatever is done; and where the best is done no seam
    differs by more than a thread, and the block is what the plan says."""
    plan = plan_of(at_size(replace(block, methods=PATCHWISE), size), awkward)
    if plan.assembly is None or any(u.trimmed for u in plan.units):
        return
    if not all(u.in_use.method.by_patches for u in plan.units):
        return
    sides = sewn_sides(plan)
    assert max(misfits(sides), default=0.0) == pytest.approx(plan.fit.worst, abs=1e-6)
    codes = {p.code for p in plan.problems}
    if awkward == "best" and "sliver" not in codes:
        assert fits_or_is_told(plan)
        assert ("does-not-fit" in codes) == (plan.fit.worst > THREAD)
    quiet = not codes & {"odd-size", "does-not-fit", "comes-out"}
    if quiet:
        assert max(misfits(sides), default=0.0) <= THREAD / 2
    wide, high = (float(x) for x in plan.block.finished)
    for axis, far, said in ((1, high, plan.fit.finished[0]), (0, wide, plan.fit.finished[1])):
        both = [edge_length(plan, sides, axis, at) for at in (0.0, far)]
        assert sum(both) / 2 == pytest.approx(said, abs=1e-6)
        assert not quiet or abs(said - (wide if axis else high)) <= THREAD / 2


@given(st.one_of(unit_blocks(), through_blocks(most=16), st.sampled_from(STRAIGHT)), sizes)
@example(block_of("2 0 2 2 / 2 1 3 2 / 1 0 2 1 / 2 3/2 5/2 2", 4, 2, (8, 4), "a"), F(71, 16))
@settings(max_examples=many(30, 60), deadline=None)
def test_no_seam_of_any_block_at_any_size_differs_by_more_than_a_thread(block, size):
    """Units by their usual methods as well, trimmed ones included."""
    plan = plan_of(at_size(block, size))
    if plan.assembly is None:
        return
    if "sliver" not in {p.code for p in plan.problems}:
        assert fits_or_is_told(plan)
    again = Fitting(plan.draft, plan.root, plan.units, plan.measure, True).usual
    assert again.worst == pytest.approx(plan.fit.worst, abs=1e-9)
    assert again.finished == pytest.approx(plan.fit.finished, abs=1e-9)


@given(
    st.one_of(unit_blocks(), through_blocks(most=16), st.sampled_from(STRAIGHT)),
    st.integers(1, 160).map(lambda n: F(n, 53)), st.sampled_from(["best", "finer", "trim"]),
)  # fmt: skip
@example(
    replace(TRAY["Half-square triangle"], methods={"half-square-triangle": "strip-triangles"}),
    F(3, 100), "finer",
)  # fmt: skip
@settings(max_examples=many(30, 200), deadline=None)
def test_however_small_a_block_is_its_pieces_show(block, size, awkward):
    plan = plan_of(at_size(block, size), awkward)
    for unit in plan.units:
        for piece in unit.in_use.pieces:
            assert piece.piece.shape == "template" or min(piece.cut) > 2 * plan.measure.seam


@given(unit_blocks(), sizes, turns)
@settings(max_examples=many(10, 20), deadline=None)
def test_turning_or_mirroring_changes_nothing_that_is_cut(block, size, turn):
    one, two = (plan_of(at_size(b, size)) for b in (block, turned(block, turn)))
    assert sorted(c.cut for c in one.cuts) == sorted(c.cut for c in two.cuts)
    assert one.fit.remedy == two.fit.remedy
    assert sorted(one.fit.finished) == pytest.approx(sorted(two.fit.finished))


@pytest.mark.parametrize(
    ("size", "comes_out"),
    [
        ((F(3), F(3, 2)), (3, 1.5)),
        ((F(3, 2), F(3)), (1.5, 3)),
        ((F(3), F(25, 16)), (3, 1.625)),  # cut 2 1/8 for 2 1/16
        ((F(25, 16), F(3)), (1.625, 3)),
    ],
)
def test_a_block_of_one_patch_is_as_wide_and_as_high_as_it_is_cut(size, comes_out):
    bare = replace(block_of("0 0 1 1", 1, 1, size), seams=())
    plan = plan_of(in_fabrics(bare, "a"), "leave")
    assert plan.fit.finished == comes_out
    assert {p.code for p in plan.problems} <= {"odd-size"}


# --- blocks worked by hand ------------------------------------------------------------------------


def test_a_ring_that_cannot_close_is_cut_so_that_it_does():
    """A ring in 6 1/2 in: bands of 2.1667. On eighths squares are cut 2 3/4 and rectangles 4 7/8:
    2 1/4 + 2 1/4 is 1/8 more than 4 3/8. On sixteenths 2 11/16 and 4 7/8 close it."""
    block = block_of(RING, 3, 3, (F(13, 2), F(13, 2)))
    left = plan_of(block, "leave")
    assert {c.cut for c in left.cuts} == {(F(11, 4), F(11, 4)), (F(11, 4), F(39, 8))}
    assert left.fit.worst == pytest.approx(1 / 8)
    assert left.fit.sewn.at_joins(left.assembly) == pytest.approx(
        {1: 0, 2: 1 / 8, 3: 1 / 8, 4: 1 / 8}
    )
    (problem,) = [p for p in left.problems if p.code == "does-not-fit"]
    assert "edges differ by up to 1/8 in" in problem.text
    best = plan_of(block)
    assert best.fit.remedy == "finer"
    assert {c.cut for c in best.cuts} == {(F(43, 16), F(43, 16)), (F(43, 16), F(39, 8))}
    assert best.fit.worst == pytest.approx(0)
    assert "does-not-fit" not in {p.code for p in best.problems}
    assert best.steps[-1].measures == (F(113, 16), F(113, 16))  # three of 2 3/16, and 1/2


def test_what_comes_out_is_told_as_it_is():
    """Squares of 3 5/8 for 2 11/16 make 3.271 in; nine squares of 3 3/8 make 9 1/8, not 9."""
    two = plan_of(at_size(usually(TRAY["Half-square triangle"]), F(43, 16)), "leave")
    assert two.cuts[0].cut == (F(29, 8), F(29, 8))
    assert float(two.steps[0].measures[0]) == pytest.approx(3.271, abs=1 / 128)
    nine = plan_of(usually(block_of(NINE, 3, 3, (F(17, 2), F(17, 2)))), "leave")
    assert nine.cuts[0].cut == (F(27, 8), F(27, 8))
    assert nine.steps[-1].measures == (F(73, 8), F(73, 8))


def test_at_a_comfortable_size_every_cut_stays_and_what_comes_out_large_is_trimmed():
    """Triangle squares come out 0.02 in larger, which is eased; an hourglass and its neighbour in
    a row 0.043: more than a thread, so it is trimmed before it is sewn on."""
    drawn = "1 0 1 1 / {} "
    eased = plan_of(usually(block_of("1 0 1 1 / 0 0 1 1 ", 2, 1, (6, 3), "ab")))
    assert (eased.fit.remedy, eased.cuts[0].cut) == ("none", (F(31, 8), F(31, 8)))
    crossed = usually(block_of(drawn.format("0 0 1 1 / 0 1 1 0"), 2, 1, (6, 3), "abc"))
    plan = plan_of(crossed)
    assert plan.fit.remedy == "trim"
    assert [u.in_use.trim_to for u in plan.units] == [(F(7, 2), F(7, 2)), None]
    assert {c.cut for c in plan.cuts} == {(F(17, 4), F(17, 4)), (F(7, 2), F(7, 2))}
    assert plan.steps[0].measures == (F(7, 2), F(7, 2))
    assert any(move.do == "trim" for move in plan.units[0].in_use.moves)


def test_a_square_on_its_point_makes_no_size_awkward():
    """Triangle squares of 3 in beside a four-patch in a square: its squares, 2.621, are cut 2 5/8,
    1/64 generous, and the triangles 3 7/8 as ever."""
    drawn = "0 1 1 0 / 1 0 2 1 / 2 1 1 2 / 1 2 0 1 / 1/2 1/2 3/2 3/2 / 3/2 1/2 1/2 3/2"
    block = block_of(f"{drawn} / 2 0 2 2 / 2 1 3 1 / 2 0 3 1 / 3 1 2 2", 3, 2, (9, 6), "abc")
    plan = plan_of(usually(block))
    assert plan.ruler_friendly.never
    assert plan.fit.remedy == "none"
    cuts = {c.cut[0] for c in plan.cuts}
    assert F(31, 8) in cuts
    assert F(21, 8) in cuts
    assert plan.answers == ()


def test_bands_are_put_on_marks_that_add_up():
    thirds = [F(43, 12)] * 3  # 10 3/4 in three
    three = replace(block_of(columns=3, size=(F(43, 4), F(4))), seams=())
    bands, _ = bands_on_marks(three, F(1, 8))[0]
    assert bands == (F(29, 8), F(7, 2), F(29, 8)) != tuple(thirds)
    block = block_of("1 0 1 1 / 2 0 2 1", 3, 1, (F(43, 4), F(4)))
    plan = plan_of(block, "bands")
    assert plan.fit.remedy == "bands"
    assert plan.fit.finished == pytest.approx((10.75, 4))
    assert sorted(c.cut for c in plan.cuts) == [(F(4), F(9, 2)), (F(33, 8), F(9, 2))]
    assert plan.block is block
    (answer,) = [a for a in plan_of(block).answers if a.remedy == "bands"]
    assert "across 3 5/8, 3 1/2, 3 5/8: 10 3/4 in" in answer.text
    assert plan_of(answer.block).fit.remedy == "none"
    # a half-square triangle cannot be put in a band of another width: no bands are offered
    corner = block_of("1 0 1 2 / 2 0 2 3 / 0 1 2 1 / 0 2 3 2 / 1 0 2 1", 3, 3, (F(43, 4),) * 2)
    assert "bands" not in {a.remedy for a in plan_of(corner).answers}


def nearest_by_trying(widths, mark):
    """Squares of what bands are off, of the nearest that add up, by trying every number of marks
    within three for each."""
    whole = round(sum(widths) / mark)
    spans = [
        [n * mark for n in range(max(1, int(w / mark) - 3), int(w / mark) + 5)] for w in widths
    ]
    alike = [i for i in range(len(widths)) if widths[i] == widths[-1 - i]]
    offs = [
        float(sum((a - b) ** 2 for a, b in zip(each, widths, strict=True)))
        for each in product(*spans)
        if sum(each) == whole * mark and all(each[i] == each[-1 - i] for i in alike)
    ]
    return min(offs, default=None)


@given(st.lists(st.integers(40, 500).map(lambda n: F(n, 97)), min_size=1, max_size=4),
       st.booleans())  # fmt: skip
@settings(max_examples=many(25, 200), deadline=None)
def test_bands_on_marks_are_the_nearest_that_add_up(widths, mirrored):
    mark = F(1, 8)
    if mirrored:
        widths = [*widths[:2], F(3), *widths[:2][::-1]]
    block = Block(id="t", finished=(sum(widths), F(4)), columns=tuple(widths), rows=(F(1),))
    found = [bands for bands, _ in bands_on_marks(block, mark)]
    for bands in found:
        assert all(band % mark == 0 for band in bands)
        assert abs(sum(bands) - sum(widths)) <= mark / 2
        for i, band in enumerate(bands):
            assert (
                widths[i] != widths[-1 - i]
                or band == bands[-1 - i]
                or sum(bands) / mark % 2 != 0  # then the middle two may differ
            )
    least = nearest_by_trying(widths, mark)
    if found and least is not None:
        off = float(sum((a - b) ** 2 for a, b in zip(found[0], widths, strict=True)))
        assert off == pytest.approx(least)


def test_bands_farther_off_are_taken_where_the_nearest_do_not_fit():
    """10 in of three bands: halves of 3 3/8 lie between the marks; 3 1/4, 3 1/2, 3 1/4 give strips
    of 2 1/8, a centre of 4 and squares of 4 1/8."""
    drawn = ("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2 / 1/2 1 1/2 2 / 5/2 1 5/2 2 / 1 1/2 2 1/2 / "
             "1 5/2 2 5/2 / 0 1 1 0 / 2 0 3 1 / 0 2 1 3 / 2 3 3 2")  # fmt: skip
    block = block_of(drawn, 3, 3, (F(10), F(10)), "abcab")
    (answer,) = [a for a in plan_of(block).answers if a.remedy == "bands"]
    assert "3 1/4, 3 1/2, 3 1/4" in answer.text
    plan = plan_of(answer.block)
    assert plan.block.finished == (F(10), F(10))
    assert {cut.cut[0] for cut in plan.cuts} == {F(17, 8), F(15, 4), F(4), F(33, 8)}
    assert plan.ruler_friendly.on_marks


def test_answers_stand_side_by_side_and_there_are_none_where_all_fits():
    block = block_of(NINE, 3, 3, (F(17, 2), F(17, 2)))
    plan = plan_of(block)
    texts = {a.remedy: a.text for a in plan.answers}
    assert "comes out 8 7/16 in" in texts["finer"]
    assert "comes out 8 5/8 in" in texts["leave"]
    sizes_ = [a.block.finished for a in plan.answers if a.remedy == "size"]
    assert sizes_ == [(F(33, 4), F(33, 4)), (F(69, 8), F(69, 8))]
    assert all(not plan_of(a.block).answers for a in plan.answers if a.remedy == "size")
    assert plan_of(block_of(NINE, 3, 3)).answers == ()


@pytest.mark.parametrize("words", ["Half-square triangle", "Hourglass", "Flying geese"])
@pytest.mark.parametrize("size", [F(9, 2), F(93, 16), F(25, 3)])
def test_a_unit_measures_what_its_moves_make_of_pieces_as_cut(words, size):
    """The product of the moves run on the cut sizes, as polygons: the box round them."""
    plan = plan_of(at_size(usually(TRAY[words]), size), "leave")
    (unit,) = plan.units
    sheet = unit.in_use.method.work(tuple(p.cut for p in unit.in_use.pieces)).products[0]
    whole = shapely.MultiPolygon(
        [shapely.Polygon([p.floats() for p in outline]) for outline, _ in sheet]
    ).minimum_rotated_rectangle
    sides = sorted(dist(p, q) for p, q in pairwise(whole.exterior.coords))
    made = sorted(float(side) for side in plan.steps[0].measures)
    assert made == pytest.approx([sides[0], sides[-1]], abs=1 / 100)


def test_a_finer_mark_is_said_by_where_it_lies_on_the_ruler():
    eighths = Measure()
    said = {n: mark_text(F(1, n), eighths) for n in (8, 16)}
    assert said[8] == "the 1/8 in marks"
    assert said[16] == "the 1/16 in marks (half way between two 1/8 in marks)"


def test_what_cannot_be_sewn_is_not_said_to_fit():
    """An island at an awkward size: its cuts miss the marks, and no claim is made of its seams."""
    island = block_of("1 1 2 1 / 2 1 2 2 / 2 2 1 2 / 1 2 1 1", 3, 3, (10, 10))
    plan = plan_of(island)
    assert plan.fit is None
    assert not any("fit" in p.text for p in plan.problems)


@given(st.one_of(unit_blocks(), through_blocks(most=16)), sizes, st.sampled_from([4, 8, 16]))
@settings(max_examples=many(25, 200), deadline=None)
def test_nothing_is_told_finer_than_half_the_makers_mark(block, size, parts):
    mark = F(1, parts)
    for awkward in ("best", "finer", "trim"):
        plan = plan_of(at_size(block, size), awkward, ruler=mark)
        sides = [side for cut in plan.cuts if cut.shape != "template" for side in cut.cut]
        sides += [side for unit in plan.units for side in unit.in_use.trim_to or ()]
        assert all((2 * side / mark).denominator == 1 for side in sides)


def test_in_centimetres_a_millimetre_is_eased():
    block = block_of(RING, 3, 3, (F(20), F(20)))
    plan = plan_of(block, system_name="cm", seam=METRIC.seam, ruler=F(1, 2))
    assert plan.fit.worst <= 0.1 + 1e-9
    assert plan.fit.mark == F(1, 4)  # half way between two marks
    left = plan_of(block, "leave", system_name="cm", seam=METRIC.seam, ruler=F(1, 2))
    assert left.fit.worst > 0.1


def test_another_size_is_told_as_it_is_planned_there():
    """The block made larger or smaller in the same way comes out as its own plan says."""
    drawn = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2 / 0 1 1 0 / 2 0 3 1"
    block = block_of(drawn, 3, 3, (F(43, 4),) * 2, "ab")
    sizes = [answer for answer in plan_of(block).answers if answer.remedy == "size"]
    assert len(sizes) == 2
    for answer in sizes:
        plan = plan_of(answer.block)
        assert answer.fit.finished == pytest.approx(plan.fit.finished)
        assert answer.fit.fabric == pytest.approx(plan.fit.fabric)


def test_long_points_are_trimmed_so_that_a_block_comes_to_its_size():
    """Four half-rectangles of 2 x 12 in, cut 2 5/8 x 15 3/8, come to 8 5/16 x 12 3/16: every seam
    fits, the block does not. They are trimmed, unless the maker leaves them."""
    block = block_of("1 0 1 1 / 2 0 2 1 / 3 0 3 1 / 0 1 1 0 / 1 1 2 0 / 2 1 3 0 / 3 1 4 0", 4, 1,
                     (8, 12), "ab")  # fmt: skip
    plan = plan_of(block)
    assert (plan.fit.remedy, plan.fit.trims) == ("trim", 4)
    assert plan.fit.finished == (8, 12)
    assert plan.fitting.usual.finished == pytest.approx((8.3148, 12.1752), abs=1e-4)
    assert plan.fitting.seams_fit
    assert misfit_text(plan.fitting.seams_fit) == "it would not come to its size"
    left = plan_of(block, "leave")
    (told,) = [p.text for p in left.problems if p.code == "comes-out"]
    assert "8 5/16 x 12 3/16 in" in told


def test_lengths_that_do_not_fit_taken_in_turn_are_settled_together():
    """A ring round a square, one patch of it split askew, 5 in: taken in turn, its lengths leave a
    seam that differs by more than a thread; taken together, on the same marks, none does."""
    drawn = "2 0 2 2 / 1 2 3 2 / 1 1 1 3 / 0 1 2 1 / 1/2 0 1/2 1 / 1/2 1 2 0"
    plan = plan_of(block_of(drawn, 3, 3, (5, 5)), "finer")
    assert plan.fit.mark == F(1, 16)
    assert plan.fit.worst <= THREAD
    assert plan.fit.missed <= 1 / 16


@pytest.mark.parametrize("style", ["exact", "trim"])
@pytest.mark.parametrize("size", [F(37, 7), F(64, 9), F(101, 11)])
def test_sides_kept_from_one_way_to_the_next_are_as_worked_out_anew(size, style):
    """A corner sewn on, whose cut decides where a side is parted, a four-patch, and two triangles,
    which are trimmed to their size or not."""
    drawn = "2 0 2 2 / 0 1/2 1/2 0 / 3 0 3 2 / 2 1 4 1 / 4 0 4 2 / 4 0 6 2"
    block = block_of(drawn, 6, 2, (6, 2), "abc")
    block = replace(block, methods={"half-square-triangle": "single-triangles"})
    plan = plan_of(at_size(block, size), style=style)
    assert "corner-squares" in {unit.in_use.name for unit in plan.units}
    fitting = Fitting(plan.draft, plan.root, plan.units, plan.measure, False)
    for fit in (fitting.finer, fitting.trimmed):
        anew = [run.made for run in runs_of(plan.draft, fit.units)]
        assert [run.made for run in fit.sewn.runs] == pytest.approx(anew, abs=1e-9)


def test_bands_of_both_sides_are_the_nearest_pairs():
    wide, high = (F(3), F(5), F(3)), (F(2), F(7))
    block = replace(STRAIGHT[0], columns=wide, rows=high, finished=(F(37, 7), F(29, 6)))

    def choices(bands, long):
        square = replace(block, columns=bands, rows=bands, finished=(long, long))
        exact = [band * long / sum(bands, F(0)) for band in bands]
        for across, _ in bands_on_marks(square, F(1, 8)):
            yield float(sum((a - b) ** 2 for a, b in zip(across, exact, strict=True))), across

    pairs = product(*(choices(*side) for side in ((wide, F(37, 7)), (high, F(29, 6)))))
    off = {(across, down): a + b for (a, across), (b, down) in pairs}
    tried = bands_on_marks(block, F(1, 8))
    assert len(set(tried)) == len(tried) == min(60, len(off))
    assert [off[pair] for pair in tried] == pytest.approx(sorted(off.values())[: len(tried)])
