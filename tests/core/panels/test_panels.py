"""Panels made into blocks: re-sewn, drawn, and followed by a second hand that moves polygons."""

from __future__ import annotations

import json

import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely.affinity import translate

from inlet.core.figures import Frame, panel_figure, piece_figure, shown_of_piece
from inlet.core.methods.proof import makes_unit
from inlet.core.numbers import HALF_ROOT2
from inlet.core.numbers import Fraction as F
from inlet.core.panels.many import one_size, packed, sizes_on_grid
from inlet.core.panels.panel_cut import panel_cut, panel_sheet, panel_ways
from inlet.core.panels.panel_drawing import panel_problems
from inlet.core.panels.photo import measured_box, photo_scale
from inlet.core.panels.words import packed_lines, panel_text
from inlet.core.plan import plan_block, plan_quilt
from inlet.core.project import (
    INCH,
    Block,
    Colourway,
    Fabric,
    Panel,
    PanelPhoto,
    Project,
    Quilt,
    QuiltPlace,
    replace,
)
from inlet.core.remake import followed
from inlet.core.table import box
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import dumps, loads, why_not_kept
from tests.sample import many

FABRICS = (
    Fabric(id="shirt", name="Shirt", colour="#c8d2e4"),
    Fabric(id="plain", name="Plain", colour="#54606e"),
)
CREST = Panel(fabric="shirt", piece=(F(18), F(22)), motif=(F(6), F(3)), left=F(6), top=F(9, 4))


SIZE = F(12), F(15)


def project_of(panel=CREST, finished=SIZE, measure=INCH):
    block = Block(id="crest", name="Crest", finished=finished, panel=panel)
    return followed(Project(fabrics=FABRICS, blocks=(block,), measure=measure))


def test_the_worked_panel():
    """A motif 6 x 3 in, 4 in short above, in a block 12 1/2 x 15 1/2 in raw: half of 15 1/2 less 3,
    6 1/4 in, is needed and 2 1/4 there; a strip of 4 + 1/2 in, and 1/2 in to wander, comes off the
    bottom. Its join shows 4 in below the block's edge, and 2 in above the motif."""
    project = project_of()
    across, up = panel_ways(project.blocks[0], INCH)
    assert across.verdict == "centred"
    assert (up.verdict, up.short, up.off, up.strip) == ("move", "top", F(4), F(5))
    block = project.blocks[0]
    assert block.rows == (F(4), F(11))
    plan = plan_block(project, block)
    assert plan.resewn
    (step,) = plan.steps
    assert step.measures == (F(25, 2), F(31, 2))
    assert "Cut a strip 5 in wide off the bottom" in step.text
    assert "14 1/2 in wide and 17 1/2 in high" in step.text
    assert [(cut.cut, cut.owned) for cut in plan.cuts] == [
        ((F(18), F(22)), True), ((F(5), F(18)), True),
    ]  # fmt: skip
    assert plan.fabric_plans.best == ()


@pytest.mark.parametrize(
    ("left", "right", "said", "fault"),
    [
        (F(1, 8), 6, "lies too near the edge on the left", "The fabric ends 1/8 in from the motif"),
        (2, 4, "Add 2 1/4 in on the left.", "to give across: what the left lacks is cut of"),
        (
            1,
            2,
            "Add 3 1/4 in on the left and 2 1/4 in on the right.",
            "the left and the right lack",
        ),
        (F(25, 8), 4, "Leave it 1/8 in off, toward the left", ""),
        (4, 4, "comes to the middle without a join", ""),
        (1, 9, "Move 3 1/4 in from the right to the left.", ""),
    ],
)
def test_what_is_said_of_a_panel(left, right, said, fault):
    """A block 12 in wide wants 3 1/4 in beside a motif of 6 in; what lacks, 1/2 in for the seam and
    1/2 in to wander make the strip; a side gives what is over its 3 1/4 in."""
    panel = replace(CREST, piece=(F(left) + 6 + right, F(22)), left=F(left), top=F(9))
    block = project_of(panel).blocks[0]
    assert said in panel_text(block, INCH)
    faults = " ".join(problem.text for problem in panel_problems(block, INCH))
    assert fault in faults
    assert bool(fault) == bool(faults)


def test_seams_are_pressed_away_from_the_motif():
    """Short on the left and above: seams would nest if one were pressed back over the motif."""
    project = project_of(replace(CREST, left=F(2), top=F(3)))
    plan = plan_block(project, project.blocks[0])
    (step,) = plan.steps
    words = plan.press(step).text
    assert words == "Press seams 1 and 2 to the left, seam 3 up, seen from the front."


quarters = st.integers(0, 60).map(lambda n: F(n, 4))


@st.composite
def panels(draw):
    motif = draw(quarters) + 1, draw(quarters) + 1
    left, right, top, below = (draw(quarters) for _ in range(4))
    return Panel(
        fabric="shirt", piece=(left + motif[0] + right, top + motif[1] + below), motif=motif,
        left=left, top=top, added=draw(st.sampled_from(["", "plain"])),
        wander=draw(st.sampled_from([None, F(0), F(1, 4)])),
    )  # fmt: skip


@given(panels(), st.integers(8, 40), st.integers(8, 40))
@settings(max_examples=many(120, 500), deadline=None)
def test_every_panel_is_sewn_as_drawn_with_the_motif_in_the_middle(panel, wide, high):
    """A second hand: the piece as a polygon with the motif at (0, 0), strips cut off and moved,
    what of them overlaps taken by the seams."""
    finished = F(wide, 2), F(high, 2)
    project = project_of(panel, finished)
    block, s = project.blocks[0], 0.25
    ways = panel_ways(block, INCH)
    plan = plan_block(project, block)
    cut = panel_cut(block, INCH)
    if any(way.verdict in ("large", "touches") for way in ways):
        assert cut is None
        assert {p.code for p in plan.errors} & {"panel-motif", "panel-edge"}
        return
    assert plan.resewn
    (unit,) = plan.units
    assert makes_unit(unit.in_use.method, unit.unit, INCH.seam)
    left, top = float(panel.left), float(panel.top)
    parts = [shapely.box(-left, -top, float(panel.piece[0]) - left, float(panel.piece[1]) - top)]
    for strip in cut.strips:
        parts = moved(parts, strip, s)
    motif = shapely.box(0, 0, *map(float, panel.motif))
    middle = motif.centroid
    size = [float(side) + 2 * s for side in finished]
    kept = shapely.box(middle.x - size[0] / 2, middle.y - size[1] / 2,
                       middle.x + size[0] / 2, middle.y + size[1] / 2)  # fmt: skip
    for axis, way in enumerate(ways):
        if way.verdict == "leave":
            off = float(way.off) * (1 if way.short in ("left", "top") else -1)
            kept = translate(kept, *((off, 0) if axis == 0 else (0, off)))
    whole = shapely.unary_union(parts)
    assert whole.buffer(1e-9).contains(kept)
    assert translate(whole, left, top).bounds == pytest.approx(
        [float(side) for side in box(panel_sheet(cut, INCH.seam, "shirt", "plain"))]
    )
    if cut.strips:  # a piece without a join may show the motif to its very edge
        assert any(part.buffer(1e-9).contains(motif) for part in parts)
    shown = [part.intersection(kept.buffer(-s, join_style="mitre")) for part in parts]
    areas = sorted(round(p.area, 6) for p in shown if p.area > 1e-9)
    drawn = [shapely.Polygon([v.floats() for v in patch.outline]) for patch in plan.draft.patches]
    assert areas == pytest.approx(sorted(p.area for p in drawn), abs=1e-5)


def strip_box(axis, low, high, begin, end):
    """A box from low to high along an axis, from begin to end along the other."""
    return shapely.box(*((low, begin, high, end) if axis == 0 else (begin, low, end, high)))


def moved(parts, strip, s):
    """Parts once a strip is sewn on."""
    wide = float(strip.wide)
    bounds = shapely.unary_union(parts).bounds

    def half(low, high):
        """All between two places along the strip's axis."""
        return strip_box(strip.axis, low, high, -999, 999)

    def cut(pieces, low, high):
        found = [piece.intersection(half(low, high)) for piece in pieces]
        return [piece for piece in found if piece.area > 1e-9]

    low, high = bounds[strip.axis], bounds[strip.axis + 2]
    if strip.moved and strip.low:
        taken, parts = cut(parts, high - wide, high), cut(parts, low, high - wide)
        by = low + 2 * s - high
    elif strip.moved:
        taken, parts = cut(parts, low, low + wide), cut(parts, low + wide, high)
        by = high - 2 * s - low
    else:
        a, b = (bounds[1], bounds[3]) if strip.axis == 0 else (bounds[0], bounds[2])
        at = (low + 2 * s - wide, low + 2 * s) if strip.low else (high - 2 * s, high - 2 * s + wide)
        taken, by = [strip_box(strip.axis, *at, a, b)], 0.0
    taken = [translate(piece, *((by, 0) if strip.axis == 0 else (0, by))) for piece in taken]
    if strip.low:
        return cut(parts, low + s, 999) + cut(taken, -999, low + s)
    return cut(parts, -999, high - s) + cut(taken, high - s, 999)


def test_a_panel_in_a_block_with_a_root_in_its_size_is_drawn_and_planned():
    """8√2 in by 15: sizes that no ruler has are drawn as exactly as others."""
    project = project_of(replace(CREST, left=F(1)), (F(8) * 2 * HALF_ROOT2, F(15)))
    block = project.blocks[0]
    frame = Frame(0, 0, 10)
    assert panel_figure(block, INCH, frame)
    assert piece_figure(block, INCH, frame)
    shown, piece = shown_of_piece(block, INCH)
    assert shown[2] - shown[0] == pytest.approx(piece[2] - piece[0])
    assert plan_block(project, block).resewn
    assert loads(dumps(project)) == project


def test_a_file_keeps_a_panel_and_draws_it_again():
    project = project_of()
    assert loads(dumps(project)) == project
    raw = json.loads(dumps(project))
    raw["blocks"][0]["seams"] = []
    raw["blocks"][0]["rows"] = ["1"]
    assert loads(json.dumps(raw)) == project


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"fabric": "mud"}, "panel.fabric: no fabric has the id"),
        ({"fabric": ""}, "panel.fabric: a fabric is missing"),
        ({"motif": ["19", "3"]}, "panel.motif: it reaches past the piece, which is 18 wide"),
        ({"piece": ["0", "3"]}, "panel.piece"),
        ({"added": "mud"}, "panel.added"),
        ({"photo": {"image": "no!", "corner": ["0", "0"], "distance": "3",
                    "points": [["0", "0"], ["1", "0"]]}}, "panel.photo.image: not a picture"),
    ],
)  # fmt: skip
def test_a_bad_panel_is_refused_in_words(changed, words):
    raw = json.loads(dumps(project_of()))
    raw["blocks"][0]["panel"].update(changed)
    with pytest.raises(FileProblem) as refused:
        loads(json.dumps(raw))
    assert words in str(refused.value)


def test_a_block_is_one_thing_only():
    project = project_of()
    from tests.core.plan.test_improvised import CORNERS

    both = replace(project.blocks[0], improvised=replace(CORNERS, fabrics=("plain",)))
    assert "the block has improvised already" in why_not_kept(project.with_block(both), project)


def test_a_panel_lies_in_a_quilt_in_other_fabrics_too():
    project = project_of(replace(CREST, added="plain", piece=(F(18), F(14))))
    way = Colourway(id="dark", fabrics={"shirt": "plain", "plain": "shirt"})
    quilt = Quilt(
        setting="straight", columns=2, rows=1, block="crest", colourways=(way,),
        places=(QuiltPlace(column=1, row=0, colourway="dark"),),
    )  # fmt: skip
    plan = plan_quilt(replace(project, quilt=quilt))
    cuts = {(cut.fabric, cut.cut, cut.owned) for cut in plan.cuts}
    piece, strip = (F(14), F(18)), (F(5), F(18))
    assert {("shirt", piece, True), ("plain", piece, True)} <= cuts
    assert {("shirt", strip, False), ("plain", strip, False)} <= cuts
    assert all(block.plan.resewn for block in plan.blocks)


@given(st.lists(st.tuples(quarters.map(lambda x: x + 1), quarters.map(lambda x: x + 1)),
                min_size=1, max_size=12), st.integers(5, 60))  # fmt: skip
def test_packed_blocks_keep_apart_and_fill_their_rows(sizes, across):
    """Blocks and what fills up below them and at the end of rows tile the top."""
    top = packed(sizes, F(across))
    boxes = []
    for row in top.rows:
        for block in row.blocks:
            x, y, (wide, high) = block.left, row.top, block.size
            assert high + block.below == row.high
            boxes.append((x, y, x + wide, y + high))
            boxes.append((x, y + high, x + wide, y + row.high))
        boxes.append((top.wide - row.right, row.top, top.wide, row.top + row.high))
    boxes = [shapely.box(*map(float, box)) for box in boxes]
    assert sorted(b.which for row in top.rows for b in row.blocks) == list(range(len(sizes)))
    area = float(top.wide * top.high)
    assert sum(b.area for b in boxes) == pytest.approx(area)
    assert shapely.unary_union(boxes).area == pytest.approx(area)


def test_a_packed_top_is_said_row_by_row():
    """15 in hold blocks of 8 and 5 in, with 2 in over, which are cut 2 1/2 in."""
    top = packed([(F(8), F(10)), (F(6), F(6)), (F(5), F(10))], F(15))
    assert list(packed_lines(top, ["A", "B", "C"], INCH)) == [
        "Top 15 x 16 in, 69% of it blocks. Fabric that fills it up is given as it is cut.",
        "Row 1: A 8 x 10 in; C 5 x 10 in; 2 1/2 x 10 1/2 in at the end",
        "Row 2: B 6 in; 9 1/2 x 6 1/2 in at the end",
    ]
    assert "Row 1: A 8 x 10 in" in list(packed_lines(packed([(F(8), F(10))], F(8)), "A", INCH))


def test_sizes_for_a_bag_of_shirts():
    """Motifs 3 x 5 and 4 1/4 x 2 in with 1 in round each: 6 1/4 x 7 holds both; on a grid of 2 in,
    6 x 8 and 8 x 4."""
    motifs = [(F(3), F(5)), (F(17, 4), F(2))]
    assert one_size(motifs, F(1), F(1, 4)) == (F(25, 4), F(7))
    assert sizes_on_grid(motifs, F(1), F(2)) == ((F(6), F(8)), (F(8), F(4)))


@given(quarters, quarters, quarters, quarters, st.floats(0.01, 0.2))
def test_a_box_on_a_photograph_is_measured_by_two_points(x, y, wide, high, share):
    """A photograph 40 in wide: the points 0.3 of it apart, across and then down, are 12 in."""
    assume(wide > 0)
    assume(high > 0)
    for points in (((F(1, 10), F(0)), (F(4, 10), F(0))), ((F(0), F(1, 10)), (F(0), F(4, 10)))):
        photo = PanelPhoto(image="", corner=(F(0), F(0)), points=points, distance=F(12))
        assert photo_scale(photo) == pytest.approx(40)
    corner = float(x) / 40, float(y) / 40
    opposite = float(x + wide) / 40, float(y + high) / 40
    hair = share / 1000
    ends = (opposite[0] + hair, opposite[1]), (corner[0], corner[1] - hair)
    box = measured_box(*ends, 40, F(1, 8))
    assert box == ((x, y), (wide, high))
