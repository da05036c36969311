"""Step cards: what each seam is called, where it starts and stops, and what to watch for."""

from __future__ import annotations

from collections import Counter
from math import cos, pi

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.patches import points_of
from inlet.core.geometry.curve import Curve, curve_length
from inlet.core.geometry.point import dot
from inlet.core.geometry.polygon import edges, is_convex, offset
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.piecing.assembling import raw_size
from inlet.core.piecing.edge_points import EdgePoints
from inlet.core.piecing.overhang import overhangs
from inlet.core.piecing.pictures import raw_sheet, step_moves
from inlet.core.plan.block import plan_block
from inlet.core.table.pins import pins_for
from tests.blocks import block_of, point, project_of, ratios
from tests.core.assembly.corpus import corpus, drawing, mapped
from tests.sample import many

CORPUS = {name: block for name, block, *_ in corpus()}
S = F(1, 4)


def plan_of(block, copies=1):
    return plan_block(project_of(block), block, copies)


@pytest.mark.parametrize("name", sorted(CORPUS))
def test_every_block_has_steps_with_pictures_that_end_in_the_block(name):
    plan = plan_of(CORPUS[name], 3)
    known = {u.unit.label for u in plan.units}
    for step in plan.steps:
        stacks = set(plan.stacks[step.makes]) if step.unit else set()
        assert set(step.needs) - stacks <= known
        known.add(step.makes)
        assert step.times % 3 == 0
        assert "{" not in " ".join((step.text, *step.notes))
        moves = step_moves(plan.draft, step, S)
        assert moves
        assert moves[-1].lower
    parts = [int(s.makes.split()[1]) for s in plan.steps if s.makes.startswith("part ")]
    assert parts == list(range(1, len(parts) + 1))
    if len(plan.draft.patches) > 1:
        last = plan.steps[-1]
        assert last.part.faces == plan.root.faces
        assert last.times == 3
        w, h = plan.unfinished
        assert max(abs(m - u) for m, u in zip(last.measures, (w, h), strict=True)) <= F(1, 4)
    # every awkward seam between units is a card of its own, and what it finishes says so
    for step in plan.steps:
        if step.join and step.join.left_open:
            (number,) = {
                s.number for s in plan.steps if f"Step {s.number} finishes it" in step.text
            }
            assert number > step.number


def test_a_set_in_seam_says_its_legs_and_dots():
    plan = plan_of(mapped("aab|cbb|cdd"))
    card = next(s for s in plan.steps if s.join and len(s.join.pivots) == 1)
    assert card.text.startswith("Set ")
    assert "1: sew from the dot to the" in card.text
    assert "Swing the piece round the dot. 2: sew from the dot to the" in card.text
    assert card.ends == "edge to edge, round a corner"
    assert any("Sew no stitch past a dot" in note for note in card.notes)
    join = card.join
    drawn = [line for move in step_moves(plan.draft, card, S) for line in move.lines]
    corner = join.at(join.pivots[0])
    assert [d.start for d in drawn if d.kind == "dot"] == [corner]
    assert {d.number for d in drawn if d.kind == "leg"} == {1, 2}
    seams = [d for d in drawn if d.kind == "seam"]
    assert sum(shapely.LineString([d.start.floats(), d.end.floats()]).length for d in seams) == (
        pytest.approx(join.length)
    )


def test_seams_that_end_where_another_turns_stop_at_a_dot():
    """The mitre ends at the corner round which the square is set in; it stops short of it."""
    plan = plan_of(drawing("0 0 1 1 / 1 1 3 1 / 3 1 4 0 / 1 1 1 2 / 3 1 3 2", 4, 2, "abcab"))
    ends = {s.makes: s.ends for s in plan.steps if s.join}
    assert "edge to dot" in ends.values()
    card = next(s for s in plan.steps if s.ends == "edge to dot")
    assert "A dot lies 1/4 in from both edges" in card.text


def test_a_partial_seam_says_how_far_and_what_finishes_it():
    block = mapped("aaab|dxyb|dxzb|deee")  # its centre is no unit, so the ring's seams are cards
    plan = plan_of(block)
    (card,) = [s for s in plan.steps if s.join and s.join.left_open]
    assert card.ends.startswith("partial: from the edge 2 in along, then stop; 2 in stays open")
    assert "stop 2 1/4 in from it" in card.text
    last = next(s for s in plan.steps if s.join and s.join.finishes)
    assert f"Step {last.number} finishes it." in card.text
    assert "sew on to the end" in last.text
    (stop,) = [d for m in step_moves(plan.draft, card, S) for d in m.lines if d.kind == "stop"]
    lines = [d for m in step_moves(plan.draft, card, S) for d in m.lines if d.kind == "seam"]
    assert stop.start in {p for d in lines for p in (d.start, d.end)}
    rest = step_moves(plan.draft, last, S)[-2]
    assert stop.start in {d.start for d in rest.lines if d.kind == "stop"}


@given(ratios(F(1, 2), 12), st.integers(1, 7))
@settings(max_examples=60)
def test_between_pins_fabric_leaves_the_curve_by_no_more_than_allowed(radius, part):
    """Straight between pins: r(1 - cos(half the angle between two)) is at most an eighth of the
    seam; with two fewer it would be more; a tighter curve has more for each inch."""
    x = radius * (1 - F(part, 8) ** 2) / (1 + F(part, 8) ** 2)
    y = radius * 2 * F(part, 8) / (1 + F(part, 8) ** 2)
    curve = Curve(point(radius, 0), point(x, y), point(0, 0))
    pins = pins_for(curve, S)
    angle = curve_length(curve) / float(radius)

    def sag(spaces):
        return float(radius) * (1 - cos(angle / spaces / 2))

    assert pins % 2 == 1
    assert sag(pins - 1) <= float(S) / 8 + 1e-9
    assert pins == 3 or sag(pins - 3) > float(S) / 8
    half = Curve(*(p.scaled(F(1, 2), F(1, 2)) for p in (curve.start, curve.end, curve.centre)))
    assert pins_for(half, S) / curve_length(half) >= pins / curve_length(curve)


def test_a_quarter_circle_is_pinned_at_both_ends_and_the_centre():
    curve = Curve(point(3, 0), point(0, 3), point(0, 0))
    assert pins_for(curve, S) == 7
    assert curve_length(curve) == pytest.approx(3 * pi / 2)
    plan = plan_of(drawing("0 2 2 0 @ 0 0 / 0 2 2 4", 4, 4))
    card = next(s for s in plan.steps if any("pins" in note for note in s.notes))
    moves = card.unit.in_use.moves if card.unit else step_moves(plan.draft, card, S)
    pins = [d for m in moves for d in m.lines if d.kind == "pin"]
    assert str(len(pins)) in " ".join(card.notes)


def test_points_at_the_edge_are_told_and_ringed():
    plan = plan_of(block_of("0 1 1 0 / 1 0 2 1 / 0 1 2 1 / 0 2 2 2 / 1 1 1 2", 2, 3, (4, 6), "aba"))
    goose = next(s for s in plan.steps if s.unit and s.unit.unit.kind == "flying-geese")
    assert "The point at its edge lies exactly 1/4 in from the raw edge." in goose.notes
    assert len(EdgePoints(plan.draft).of(goose.part.faces)) == 1
    squares = plan_of(block_of("1 0 1 2 / 0 1 2 1", 2, 2, (4, 4), "ab"))
    assert EdgePoints(squares.draft).of(squares.root.faces) == ()


@given(st.sampled_from(sorted(CORPUS)))
@settings(max_examples=many(20, 40), deadline=None)
def test_raw_edges_that_meet_are_equal_but_for_the_ears_told(name):
    """Where two patches are sewn along one whole straight side of each, the raw sides, measured on
    the pieces as they are cut, differ by what is said of their two ends."""
    plan = plan_of(CORPUS[name])
    drawn = plan.draft
    for edge in drawn.arrangement.edges:
        pair = [f for f in (edge.right, edge.left) if f >= 0]
        if len(pair) < 2 or any(drawn.patches[f].arcs for f in pair):
            continue
        ends = [points_of(drawn)[v] for v in (edge.start, edge.end)]
        raw = []
        for f in pair:
            outline = drawn.patches[f].outline
            sides = list(edges(outline))
            on = [i for i, (p, q) in enumerate(sides) if {p, q} == set(ends)]
            if on and is_convex(outline):
                p, q = list(edges(offset(outline, S)))[on[0]]
                raw.append([p, q] if sides[on[0]][0] == ends[0] else [q, p])
        if len(raw) == 2:
            one, other = (frozenset([f]) for f in pair)
            for i, v in enumerate((edge.start, edge.end)):
                along = ends[1].minus(ends[0])
                length = float(dot(along, along)) ** 0.5
                apart = float(dot(raw[0][i].minus(raw[1][i]), along)) / length
                assert overhangs(drawn, one, other, v, 0.25) == pytest.approx(abs(apart), abs=1e-9)


def test_ears_are_told_on_the_card():
    plan = plan_of(
        block_of("1 0 1 2 / 0 2 1 0 / 1 0 2 2 / 0 1 1/2 1 / 3/2 1 2 1", 2, 2, (8, 8), "abc")
    )
    told = [n for s in plan.steps for n in s.notes if n.startswith("A tip reaches")]
    assert told
    assert plan.resewn


def test_what_experts_add_is_on_the_card():
    """Corners clipped to their dots, tips offset and trimmed, the parts of a star counted."""
    mitre = plan_of(CORPUS["ring and mitre"])
    assert any("Clip the inside corner to its dot" in n for s in mitre.steps for n in s.notes)
    star = plan_of(CORPUS["Eight-point star"], 3)
    counted = "12 pairs of diamonds, 6 halves of two pairs, then 12 triangles and 12 squares"
    assert counted in " ".join(star.steps[0].notes)
    half = plan_of(block_of("0 0 1 1", 1, 1, (3, 6), "ab"))
    # beyond angles of tan 1/2 and tan 2 edges reach s/tan(a/2): 1.0590 and 0.4045
    assert "one tip reaches 5/8 in past the other" in " ".join(half.steps[0].notes)


def test_rounds_are_a_numbered_sequence_of_fabrics():
    plan = plan_of(CORPUS["Rounds"])
    (step,) = plan.steps
    (note,) = [n for n in step.notes if "beside the machine" in n]
    assert [f"{i} " in note for i in range(1, 9)] == [True] * 8


def test_awkward_steps_of_equal_parts_are_one_batch():
    """Two equal mitred halves side by side: each seam is one card, made twice a block."""
    half = "0 0 1 1 / 1 1 1 2 / 1 1 2 1 / 2 1 3 0 / 2 1 2 2"
    both = f"{half} / 3 0 3 2 / " + " / ".join(
        " ".join(str(F(n) + 3 * (i % 2 == 0)) for i, n in enumerate(seam.split()))
        for seam in half.split(" / ")
    )
    plan = plan_of(drawing(both, 6, 2, "a"), 5)
    assert plan.resewn
    assert {s.times for s in plan.steps if s.join} == {10}
    halves = next(s for s in plan.steps if s.makes == "column 1")
    (other,) = halves.alike
    assert not other.faces & halves.part.faces
    assert len(other.faces) == len(halves.part.faces)
    assert [s.makes for s in plan.steps].count("block") == 1


@given(st.sampled_from(sorted(CORPUS)))
@settings(max_examples=30, deadline=None)
def test_raw_pictures_reach_an_allowance_beyond_the_part(name):
    plan = plan_of(CORPUS[name])
    sheet = raw_sheet(plan.draft, plan.root.faces, S)
    shapes = [shapely.Polygon([p.floats() for p in outline]).buffer(0) for outline, _ in sheet]
    w, h = (float(x) for x in plan.block.finished)
    whole = shapely.union_all(shapes)
    raw = shapely.box(-0.25, -0.25, w + 0.25, h + 0.25)
    assert raw.difference(whole).area < 0.03 * raw.area
    # only the tips of slender triangles reach farther
    assert whole.area < 1.1 * (w + 0.5) * (h + 0.5)


def test_the_raw_size_of_a_rectangle_however_it_lies():
    """3-4-5 triangles: sides of 5 and 10, and an allowance on either side of each."""
    outline = tuple(point(*xy) for xy in ((0, 0), (3, 4), (-5, 10), (-8, 6)))
    assert raw_size(outline, F(1, 4)) == (F(11, 2), F(21, 2))
    assert raw_size(outline[:3], F(1, 4)) is None


def _paw(sash):
    """Four alike corners in quarter turns, a sash between them: a large square with two triangle
    squares along two of its sides and a small square between these."""
    side = 6 + sash
    corner = (
        ((1, 0), (1, 3)), ((0, 1), (3, 1)), ((2, 0), (2, 1)), ((0, 2), (1, 2)), ((1, 1), (2, 0)),
        ((2, 1), (3, 0)), ((0, 2), (1, 1)), ((0, 3), (1, 2)), ((3, 0), (3, 3)), ((0, 3), (3, 3)),
    )  # fmt: skip
    lines = [((3, 0), (3, side)), ((0, 3), (side, 3))]
    lines += [((x + sash, 0), (x + sash, side)) for x in (3,)]
    lines += [((0, y + sash), (side, y + sash)) for y in (3,)]
    for p, q in corner:
        for _ in range(4):
            lines.append((p, q))
            p, q = ((side - x, y) for y, x in (p, q))
    drawn = " / ".join(f"{a} {b} {c} {d}" for (a, b), (c, d) in lines)
    return block_of(drawn, side, side, (2 * side, 2 * side), "a")


@pytest.mark.parametrize("sash", [1, 2, 3, 5])
def test_corners_alike_in_quarter_turns_are_one_stack_whatever_the_bands(sash):
    """Each corner is made as one part, four times; not its halves in two mirrored pairs."""
    plan = plan_block(project_of(_paw(sash)), _paw(sash), 1)
    made = [step for step in plan.steps if step.unit is None]
    assert Counter(step.times for step in made) == {4: 4, 2: 1, 1: 2}
    corner = next(step for step in made if len(step.part.faces) == 10)
    assert corner.times == 4
