"""Places turned and swapped, the odd one found, colourways scattered by rules."""

from __future__ import annotations

from collections import Counter
from typing import get_args

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.patches import draft
from inlet.core.draft.value import lightness
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import NumberError
from inlet.core.plan.quilt import plan_quilt
from inlet.core.plan.size_proposals import cost_of, proposals, target_typed
from inlet.core.project.block import Arc, Seam
from inlet.core.project.cutting import Begun, Cutting, LaidFabric
from inlet.core.project.measure import METRIC
from inlet.core.project.quilt import (
    Alternate,
    Border,
    Colourway,
    Motif,
    Quilt,
    QuiltPlace,
    Scatter,
    Turning,
)  # fmt: skip
from inlet.core.project.value import replace
from inlet.core.setting.edit import (
    as_usual,
    coloured_at,
    filled_at,
    in_row_length,
    in_size,
    mirrored_at,
    motif_of,
    place_at,
    swapped,
    turned_at,
)  # fmt: skip
from inlet.core.setting.outliers import looks_of, odd_ones
from inlet.core.setting.picture import blocks_on_top, patches_of
from inlet.core.setting.places import block_counts, diagonal, placed, side_by_side
from inlet.core.setting.scatter import scattered
from inlet.core.setting.top import quilt_top
from inlet.files.project.project_json import dumps, loads
from tests.blocks import block_of, in_fabrics, project_of

# No turn and no mirror of it looks like another.
PLAIN_F = replace(block_of("0 1 3 1 / 1 1 1 3 / 1 2 3 2", 3, 3, (6, 6), "abcd"), id="f", name="Eff")
HALF = replace(block_of("0 1 1 0", 1, 1, (4, 4), "ab"), id="h", name="Half")
NINE = LaidFabric(kind="new", width=F(42), length=F(9))
SPOTS = st.tuples(st.integers(0, 4), st.integers(0, 4))


def picture(project):
    """Every patch of the top where it lies, with its fabric."""
    out = set()
    for each in blocks_on_top(quilt_top(project), project):
        for patch in patches_of(each.block):
            places = frozenset(
                (round(x, 6), round(y, 6)) for x, y in map(each.matrix, patch.outline)
            )
            out.add((places, patch.fabric))
    return out


@given(SPOTS, SPOTS, st.sampled_from(get_args(Turning)), st.booleans())
@settings(max_examples=40, deadline=None)
def test_edits_come_back(one, other, turning, on_point):
    """Four turns, two mirrors, two swaps: the quilt is as it was, and nothing stays written
    down."""
    quilt = Quilt(setting="on-point" if on_point else "", columns=4, rows=4, block="f",
                  turning=turning, alternate=Alternate(fabric="a"))  # fmt: skip
    four = quilt
    for _ in range(4):
        four = turned_at(four, [one, other], 1)
    assert four == quilt
    assert mirrored_at(mirrored_at(quilt, [one]), [one]) == quilt
    there = swapped(quilt, one, other)
    assert swapped(there, one, other) == quilt
    assert block_counts(there) == block_counts(quilt)
    assert as_usual(filled_at(quilt, [one], "h"), [one]) == quilt
    if place_at(quilt, one) is not None:
        assert place_at(filled_at(quilt, [one], "h"), one).block == "h"
        assert place_at(coloured_at(quilt, [one], "w"), one).colourway == "w"


@given(st.integers(0, 3), st.booleans())
def test_mirrored_as_it_lies(turn, mirror):
    """A block mirrored in its place, seen: left and right change over, top and bottom stay."""
    place = QuiltPlace(column=0, row=0, turn=90 * turn, mirror=mirror)
    quilt = Quilt(columns=1, rows=1, block="f", places=(place,))
    project = replace(project_of(PLAIN_F), quilt=quilt)
    before = picture(project)
    after = picture(replace(project, quilt=mirrored_at(quilt, [(0, 0)])))
    assert after == {
        (frozenset((round(6 - x, 6), y) for x, y in corners), fabric) for corners, fabric in before
    }


@pytest.mark.parametrize("turning", get_args(Turning))
@pytest.mark.parametrize("on_point", [False, True])
def test_one_turned_block_is_the_odd_one(turning, on_point):
    quilt = Quilt(setting="on-point" if on_point else "", columns=4, rows=4, block="f",
                  turning=turning)  # fmt: skip
    project = replace(project_of(PLAIN_F), quilt=quilt)
    assert odd_ones(project) == ()
    (odd,) = odd_ones(replace(project, quilt=turned_at(quilt, [(1, 2)], 1)))
    assert (odd.place.column, odd.place.row) == (1, 2)
    assert odd.words == "Row 3, block 2 lies a quarter turn too far right."
    (odd,) = odd_ones(replace(project, quilt=mirrored_at(quilt, [(2, 1)])))
    assert "is mirrored" in odd.words
    (odd,) = odd_ones(replace(project, quilt=turned_at(quilt, [(0, 0)], 2)))
    assert "upside down" in odd.words


def test_a_pattern_laid_by_hand_is_found_and_turns_that_look_alike_are_not_odd():
    """All blocks of a plain quilt turned one by one into quarter turns: a pattern, but for one. A
    half-square triangle mirrored looks like one turned half round."""
    quilt = Quilt(columns=5, rows=5, block="f")
    spots = [(c, r) for c in range(5) for r in range(5) if (c + r) % 2 and (c, r) != (3, 2)]
    laid = turned_at(quilt, spots, 1)
    (odd,) = odd_ones(replace(project_of(PLAIN_F), quilt=laid))
    assert (odd.place.column, odd.place.row) == (3, 2)
    looks = looks_of(HALF)
    assert len(set(looks.values())) == 4
    assert len(set(looks_of(PLAIN_F).values())) == 8
    # A slice between a diagonal and an arc, the same fabric on both sides: turned half round, all
    # corners lie as before, and the slice on the other side.
    zero, one = F(0), F(1)
    arc = Seam(arc=Arc(centre=(zero, one), start=(zero, zero), end=(one, one)))
    drawn = block_of("0 0 1 1", size=(4, 4))
    slice_ = in_fabrics(replace(drawn, seams=(*drawn.seams, arc)), "aab")
    assert [p.fabric for p in draft(slice_).patches if len(p.outline) == 2] == ["b"]
    assert len(set(looks_of(slice_).values())) == 4
    turned = turned_at(Quilt(columns=3, rows=3, block="h"), [(1, 1)], 2)
    mirror_too = mirrored_at(turned, [(1, 1)])
    assert len(odd_ones(replace(project_of(HALF), quilt=turned))) == 1
    assert len(odd_ones(replace(project_of(HALF), quilt=mirror_too))) == 1
    plain = block_of(size=(4, 4), fabrics="a")
    anyhow = turned_at(Quilt(columns=3, rows=3, block=plain.id), [(0, 1)], 1)
    assert odd_ones(replace(project_of(plain), quilt=anyhow)) == ()


def scatter_project(columns, rows, number, on_point=False, **rules):
    fabrics = "abcdef"
    ways = tuple(
        Colourway(id=f"w{i}", fabrics={"a": fabrics[i % 6], "b": fabrics[(i + 3) % 6]})
        for i in range(number)
    )
    quilt = Quilt(
        setting="on-point" if on_point else "", columns=columns, rows=rows, block="h",
        colourways=ways, scatter=Scatter(colourways=tuple(w.id for w in ways), **rules),
    )  # fmt: skip
    return replace(project_of(HALF), quilt=quilt)


@given(
    st.integers(2, 9), st.integers(2, 9), st.integers(3, 6), st.booleans(), st.integers(1, 999),
    st.lists(st.tuples(SPOTS, st.integers(0, 2)), max_size=2, unique_by=lambda p: p[0]),
)  # fmt: skip
@settings(max_examples=60, deadline=None)
def test_no_colourway_lies_beside_itself(columns, rows, number, on_point, seed, pins):
    """Seen by looking at every two neighbours; pins stay; the same seed gives the same."""
    project = scatter_project(columns, rows, number, on_point, seed=seed)
    quilt = project.quilt
    for spot, way in pins:
        quilt = coloured_at(quilt, [spot], f"w{way}")
    project = replace(project, quilt=quilt)
    places = placed(quilt)
    found = scattered(places, project)
    assert found == scattered(places, project)
    way = {(p.column, p.row): p.colourway or found.ways[p.column, p.row] for p in places}
    at = {diagonal(*spot) if on_point else spot: w for spot, w in way.items()}
    beside = [(at[x, y], at[x + dx, y + dy]) for x, y in at for dx, dy in ((1, 0), (0, 1))
              if (x + dx, y + dy) in at]  # fmt: skip
    assert found.alike or all(one != other for one, other in beside)
    assert pins or not found.alike or number < 4
    for spot, pinned in pins:
        assert way.get(spot, f"w{pinned}") == f"w{pinned}"
    counts = Counter(way.values())
    assert max(counts.values()) - min(counts[f"w{i}"] for i in range(number)) <= 3 + len(
        way
    ) // 12 + len(pins)


def test_values_are_balanced_and_fabrics_kept_apart():
    """The mean lightness of every three by three is nearer to the whole than by chance alone; with
    the rule, no two in a row share a fabric."""

    def spread(balance):
        project = scatter_project(12, 12, 6, seed=5, balance=balance, apart=False)
        ways = scattered(placed(project.quilt), project).ways
        light = {w.id: sum(lightness(project.fabric(c).colour) for c in w.fabrics.values()) / 2
                 for w in project.quilt.colourways}  # fmt: skip
        at = {spot: light[way] for spot, way in ways.items()}
        mean = sum(at.values()) / len(at)
        windows = [
            sum(at[x + i, y + j] for i in range(3) for j in range(3)) / 9
            for x in range(10) for y in range(10)
        ]  # fmt: skip
        return sum((w - mean) ** 2 for w in windows)

    assert spread(True) < 0.7 * spread(False)
    project = scatter_project(10, 10, 6, seed=3, fabrics_apart=True)
    ways = scattered(placed(project.quilt), project).ways
    fabrics = {w.id: set(w.fabrics.values()) for w in project.quilt.colourways}
    shared = sum(
        bool(fabrics[ways[x, y]] & fabrics[ways[x + 1, y]]) for x in range(9) for y in range(10)
    )
    assert shared <= 5


def test_scattered_colourways_are_planned_and_another_seed_is_another_scatter():
    project = scatter_project(6, 5, 3, seed=1)
    plan = plan_quilt(project)
    assert sum(block.number for block in plan.blocks) == 30
    ways = scattered(placed(project.quilt), project).ways
    assert Counter({b.colourway: b.number for b in plan.blocks}) == Counter(ways.values())
    other = replace(project, quilt=replace(project.quilt, scatter=Scatter(
        colourways=("w0", "w1", "w2"), seed=2)))  # fmt: skip
    mine, others = (scattered(placed(p.quilt), p).ways for p in (project, other))
    assert mine != others


def test_a_smaller_quilt_lets_places_go_and_a_huge_one_is_refused():
    quilt = turned_at(Quilt(columns=5, rows=5, block="f"), [(4, 4), (1, 1)], 1)
    assert [(p.column, p.row) for p in in_size(quilt, 3, 3).places] == [(1, 1)]
    with pytest.raises(ValueError, match="10000"):
        in_size(quilt, 200, 200)


def test_motifs_come_apart_where_blocks_meet():
    """Four round a centre, set on point and turned: sixteen blocks in a grid of their own, and a
    mirrored motif's blocks change over left and right."""
    motif = Motif(id="m", block="f", turning="round")
    quilt = Quilt(columns=2, rows=2, block="m", motifs=(motif,), turning="quarter-turns")
    grid = side_by_side(quilt)
    assert set(grid) == {(x, y) for x in range(4) for y in range(4)}
    assert [grid[x, 0].turn for x in range(4)] == [0, 1, 0, 1]
    # A round motif turned a quarter on looks as it did.
    assert grid[2, 1].turn == grid[0, 1].turn
    one = replace(quilt, columns=1, rows=1, places=(QuiltPlace(column=0, row=0, mirror=True),))
    assert [side_by_side(one)[x, 0].mirror for x in (0, 1)] == [True, True]
    corner = replace(motif, places=(QuiltPlace(column=0, row=0, fabric="a"),))
    one = replace(one, motifs=(corner,))
    assert [spot for spot, p in side_by_side(one).items() if p.fabric] == [(1, 0)]
    project = replace(project_of(PLAIN_F), quilt=quilt)
    top = quilt_top(project)
    assert top.size == (F(24), F(24))
    for each in blocks_on_top(top, project):
        x, y = each.lying.middle
        place = grid[int(x // 6), int(y // 6)]
        assert (place.turn, place.mirror) == (each.lying.placed.turn, each.lying.placed.mirror)


@given(st.sampled_from(get_args(Turning)), st.integers(0, 2), st.integers(0, 2), st.booleans())
@settings(max_examples=20, deadline=None)
def test_a_motif_taken_from_the_top_looks_as_it_lay(turning, left, top, odd):
    """Two by two places taken together: one motif alone shows just those blocks, moved."""
    quilt = Quilt(columns=4, rows=4, block="f", turning=turning)
    if odd:
        quilt = mirrored_at(turned_at(quilt, [(1, 1)], 1), [(2, 2)])
    project = replace(project_of(PLAIN_F), quilt=quilt)
    spots = [(left + x, top + y) for x in (0, 1) for y in (0, 1)]
    made = motif_of(quilt, spots, "Four", "four")
    assert (made.columns, made.rows, made.block) == (2, 2, "four")
    one = replace(made, columns=1, rows=1)
    box = (6 * left, 6 * top)
    seen = {
        (frozenset((round(x - box[0], 6), round(y - box[1], 6)) for x, y in corners), fabric)
        for corners, fabric in picture(project)
        if all(box[0] <= x <= box[0] + 12 and box[1] <= y <= box[1] + 12 for x, y in corners)
    }
    assert picture(replace(project, quilt=one)) == seen
    assert motif_of(quilt, spots[:3], "Three", "three") is None
    assert motif_of(made, [(0, 0), (1, 0)], "Again", "again") is None


def test_rows_of_their_own_length():
    quilt = Quilt(columns=4, rows=3, block="f", filler="a", places=(
        QuiltPlace(column=3, row=1, turn=90),))  # fmt: skip
    made = in_row_length(quilt, 1, 3)
    assert (made.row_lengths, made.places) == ((4, 3), ())
    assert in_row_length(made, 1, 4).row_lengths == ()
    top = quilt_top(replace(project_of(PLAIN_F), quilt=made))
    kinds = Counter(piece.kind for piece in top.rows[1].pieces)
    assert kinds == {"filler": 2, "block": 3}
    with pytest.raises(ValueError, match="straight"):
        in_row_length(replace(quilt, setting="on-point"), 1, 3)
    with pytest.raises(ValueError, match="10000"):
        in_row_length(quilt, 1, 20000)


def test_a_block_put_away_leaves_a_quilt_that_a_file_can_hold():
    """Whatever named it is as the others are, or goes."""
    motifs = (
        Motif(id="m", block="h"),
        Motif(id="n", block="f", places=(QuiltPlace(column=0, row=0, block="h"),)),
    )
    ways = Colourway(id="w", block="h", fabrics={"a": "b"}), Colourway(id="v")
    quilt = Quilt(
        columns=3, rows=3, block="f", motifs=motifs, colourways=ways,
        alternate=Alternate(block="m"), scatter=Scatter(colourways=("w", "v")),
        places=(QuiltPlace(column=0, row=0, block="h"), QuiltPlace(column=1, row=0, block="m"),
                QuiltPlace(column=2, row=0, block="h", turn=90)),
        borders=(Border(kind="pieced", block="h", fabric="a"),), made={"h": (F(5), F(5))},
    )  # fmt: skip
    project = replace(project_of(PLAIN_F, HALF), quilt=quilt)
    left = project.without_block("h")
    assert loads(dumps(left)) == left
    assert [(p.column, p.turn, p.block) for p in left.quilt.places] == [(2, 90, "")]
    assert [m.id for m in left.quilt.motifs] == ["n"]
    assert (left.quilt.alternate, left.quilt.made) == (None, {})
    assert left.quilt.scatter.colourways == ("v",)
    assert quilt_top(left).rows
    assert project.without_block("f").quilt.block == ""
    begun = tuple(
        Begun(
            fabric=fabric,
            block=block,
            copies=1,
            laid=LaidFabric(kind="new", width=F(42), length=F(9)),
        )
        for fabric, block in (("a", "h"), ("b", "f"), ("a", ""))
    )
    busy = replace(project, cutting=Cutting(begun=begun))
    for left in (busy.without_block("h"), busy.in_place_of("a", "c"), busy.in_place_of("b", "a")):
        assert loads(dumps(left)) == left
    assert [b.block for b in busy.without_block("h").cutting.begun] == ["f", ""]


def test_ways_to_a_size_are_the_nearest_there_are():
    """Beside every number of blocks and every border in quarter inches, tried one by one; what a
    border is wider than half a block weighs as much as being off."""
    project = replace(project_of(PLAIN_F), quilt=Quilt(columns=2, rows=2, block="f"))
    target = (F(41), F(52))
    found = proposals(project, target)
    plain = next(p for p in found if p.words.endswith("straight"))
    best = min(
        abs(6 * m + F(b, 2) - 41) + abs(6 * n + F(b, 2) - 52) + max(F(0), F(b, 4) - 3)
        for m in range(1, 8) for n in range(1, 10) for b in range(41)
    )  # fmt: skip
    assert plain.weighed == best
    for proposal in found:
        plan = proposal.plan(project)
        assert plan.size == proposal.size
        assert proposal.off == sum(abs(a - b) for a, b in zip(plan.size, target, strict=True))
        assert cost_of(plan).blocks == block_counts(proposal.quilt)["f"]
    assert [p.weighed for p in found] == sorted(p.weighed for p in found)
    assert target_typed("about 41 x 52", project.measure) == target
    assert target_typed("lap", METRIC) == (127, F(1651, 10))
    for wrong in ("large", "3", "0 x 4", "900 x 4"):
        with pytest.raises(NumberError):
            target_typed(wrong, project.measure)


def test_blocks_that_are_not_square_turn_by_halves():
    """A 6 x 4 in block by rows half round: a turned one is odd, turned again it is not, and nothing
    stays written down; its places keep their size."""
    oblong = replace(PLAIN_F, finished=(F(6), F(4)))
    quilt = Quilt(columns=3, rows=4, block="f", turning="quarter-turns")
    project = replace(project_of(oblong), quilt=quilt)
    top = quilt_top(project)
    assert (top.square, top.size) == (False, (18, 16))
    assert {p.lying.placed.turn for row in top.rows for p in row.pieces} == {0, 2}
    once = turned_at(quilt, [(1, 1)], 2, top.square)
    (odd,) = odd_ones(replace(project, quilt=once))
    assert "upside down" in odd.words
    assert quilt_top(replace(project, quilt=once)).size == top.size
    assert turned_at(once, [(1, 1)], 2, top.square) == quilt
    looks = looks_of(oblong)
    assert looks[1, False] == (1, False)
