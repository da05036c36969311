"""What a whole quilt is cut from: sizes by hand, counts by other means, blocks made together."""

from __future__ import annotations

import json
from collections import Counter
from itertools import pairwise
from math import ceil, sqrt
from pathlib import Path

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.buying.enough import enough, enough_lines
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.numbers.text import parse_exact
from inlet.core.plan.block import plan_block
from inlet.core.plan.handedness import both_hands
from inlet.core.plan.quilt import plan_quilt
from inlet.core.plan.quilt_work import seams_of, work_of, work_text
from inlet.core.project.cutting import Cutting, Have
from inlet.core.project.fabric import Fabric
from inlet.core.project.log import LogEntry
from inlet.core.project.measure import INCH, METRIC, Measure
from inlet.core.project.project import Project
from inlet.core.project.quilt import (
    Alternate,
    Backing,
    Binding,
    Border,
    Colourway,
    Motif,
    Quilt,
    QuiltPlace,
    Sashing,
    Triangles,
)  # fmt: skip
from inlet.core.project.value import replace
from inlet.core.setting.backing import backing_ways
from inlet.core.setting.binding import binding_plan
from inlet.core.setting.cuts import border_strips
from inlet.core.setting.joined import band
from inlet.core.setting.picture import blocks_on_top
from inlet.core.setting.pieces import Lying
from inlet.core.setting.places import Placed, placed
from inlet.core.setting.top import fabrics_in, member_lying
from inlet.files.text.quilt_json import quilt_dict
from inlet.files.text.quilt_text import quilt_text
from tests.blocks import FABRICS, block_of, in_fabrics, project_of, unit_blocks
from tests.core.layout.mat import METRIC_HAND, USUAL, follow
from tests.core.setting.test_top import polygon, quilts
from tests.sample import many

CASES = json.loads((Path(__file__).parents[2] / "data" / "cases.json").read_text())["cases"]
SETTINGS = [case for case in CASES if case["unit"] == "setting"]
HST = replace(block_of("0 1 1 0", 1, 1, (4, 4), "ab"), id="hst", name="Half")
FOUR = replace(block_of("1 0 1 2 / 0 1 2 1", 2, 2, (4, 4), "abba"), id="four", name="Four")
"""Comes out as it is drawn."""


def of(quilt, *blocks, **more):
    return replace(project_of(*blocks), quilt=quilt, **more)


@pytest.mark.parametrize(
    "case", SETTINGS, ids=[f"{c['part']} {c['finished'][0]}" for c in SETTINGS]
)
@pytest.mark.parametrize("ruler", ["eighth", "sixteenth"])
def test_setting_triangles_as_worked_out_by_hand(case, ruler):
    side = F(parse_exact(case["finished"][0]))
    block = block_of(size=(side, side), fabrics="a")
    quilt = Quilt(setting="on-point", columns=3, rows=4, block=block.id)
    measure = Measure(ruler=F(1, 8) if ruler == "eighth" else F(1, 16))
    plan = plan_quilt(of(quilt, block, measure=measure))
    kind = case["part"].split()[0]
    (found,) = [each for each in plan.triangles if each.kind == kind]
    assert found.exact == parse_exact(case["exact_form"])
    assert found.cut == F(parse_exact(case[f"cut_{ruler}"]))
    assert found.squares == {"side": 3, "corner": 2}[kind]


@given(quilts())
@settings(max_examples=many(30, 60), deadline=None)
def test_setting_triangles_cover_what_they_are_on_the_top(project):
    """A square cut twice gives a triangle whose long side is S - 2s - 2s√2 finished; cut once, legs
    of S - 2s - s√2. Laid with that side on the quilt's edge it covers its piece, and where blocks
    do not float it is the piece."""
    plan = plan_quilt(project)
    s = float(project.measure.seam)
    wide = float(plan.top.middle[0])
    by_kind = {each.kind: each for each in plan.triangles}
    floats = project.quilt.triangles is not None and project.quilt.triangles.fit == "float"
    for piece in (p for row in plan.top.rows for p in row.pieces):
        if piece.kind not in by_kind:
            continue
        exact = float(by_kind[piece.kind].exact)
        shape = polygon(piece.moved(Point(-plan.top.at.x, -plan.top.at.y)))
        left, head, right, foot = shape.bounds
        if piece.kind == "corner":
            leg = exact - 2 * s - s * sqrt(2)
            assert max(right - left, foot - head) <= leg + 1e-6
            covers = leg * leg / 2
        else:
            long = exact - 2 * s - 2 * s * sqrt(2)
            across = (right - left, foot - head)
            on_side = left < 1e-6 or right > wide - 1e-6
            along, deep = (across[1], across[0]) if on_side else across
            assert along <= long + 1e-6
            assert deep <= long / 2 + 1e-6
            covers = long * long / 4
        assert shape.area <= covers + 1e-6
        assert floats or shape.area == pytest.approx(covers)
    counted = Counter(p.kind for row in plan.top.rows for p in row.pieces)
    for kind, each in by_kind.items():
        assert each.triangles == counted[kind]
        assert each.squares == ceil(counted[kind] / (2 if kind == "corner" else 4))


@given(quilts(), st.sampled_from([0, 1, 2]), st.booleans())
@settings(max_examples=many(7, 14), deadline=None)
def test_every_piece_of_the_top_is_cut_large_enough(project, folds, wash):
    """From the JSON alone: the pieces of each fabric on the top, grown by the allowance, against
    what is cut; and the cutting plan followed at the mat gives every stack, of fabric that washing
    has made narrower, too. Only what is wider than the fabric is missing."""
    shrunk = tuple(replace(on_mat, shrink=(F(4), F(3))) for on_mat in project.fabrics)
    project = replace(project, cutting=Cutting(folds=folds, wash=wash), fabrics=shrunk)
    plan = plan_quilt(project)
    data = json.loads(json.dumps(quilt_dict(plan)))
    s = float(project.measure.seam)
    needed: Counter[str] = Counter()
    for row in data["rows"]:
        for piece in row["pieces"]:
            if "fabric" in piece:
                corners = [[float(parse_exact(x)) for x in p] for p in piece["outline"]]
                grown = shapely.Polygon(corners).buffer(s, join_style="mitre", mitre_limit=99)
                needed[piece["fabric"]] += grown.area
    cut: Counter[str] = Counter()
    names = ("Side", "Corner", "Edge", "Sashing", "Plain", "Fillers")
    for each in data["cuts"]:
        if each["label"].startswith(names):
            low, high = (float(F(x)) for x in each["cut"])
            # A joined strip loses the allowance of both ends.
            cut[each["fabric"]] += low * high * each["count"]
    for fabric, wanted in needed.items():
        assert cut[fabric] >= wanted * 0.98 - 0.2, fabric
    ready: Counter[str] = Counter()
    for on_mat in data["cutting"]:
        ready += follow(on_mat, METRIC_HAND if project.measure.seam > F(1, 2) else USUAL)
    plan = plan_quilt(project)
    tasks = [t for s in plan.work.sittings for b in s.batches for t in b.tasks]
    strokes = sum(len(line["strokes"]) for each in data["cutting"] for line in each["cuts"])
    assert sum(t.times for t in tasks if t.verb == "cut") == strokes
    for unit in plan.units:  # what is cut apart of strip sets is what its units need
        parts = [t.times for t in tasks if t.what == f"segments for {unit.unit.label}"]
        needed = sum(s.strips.number * unit.in_use.runs for s in unit.in_use.sets)
        assert sum(parts) in (0, needed)
    missing = Counter({m["label"]: m["count"] for f in data["fabric"] for m in f["missing"]})
    room = float(project.measure.system.fabric_width) * (0.97 if wash else 1)
    for each in data["cuts"]:
        assert ready[each["label"]] + missing[each["label"]] >= each["count"]
        if missing[each["label"]]:
            assert float(F(each["cut"][0])) > room - 2 * float(project.measure.squared_off), each


def test_units_of_several_blocks_are_one_batch():
    """Nine and six of one half-square triangle, two at a time: fifteen are eight runs with one
    over, not five and three with two over. In another colourway they are their own."""
    other = replace(block_of("0 1 1 0 / 1 0 1 1", 2, 1, (8, 4), "abc"), id="two", name="Two")
    wanted = {"half-square-triangle": "two-at-a-time"}
    one, other = (replace(b, methods=wanted) for b in (HST, other))
    quilt = Quilt(columns=3, rows=3, block="hst", row_lengths=(3, 3, 3))
    quilt = replace(quilt, rows=6, row_lengths=(3, 3, 3, 3, 3, 3), places=tuple(
        QuiltPlace(column=c, row=r, block="two") for r in (3, 4) for c in range(3)
    ) + tuple(QuiltPlace(column=c, row=5, colourway="way") for c in range(3)),
        colourways=(Colourway(id="way", fabrics={"a": "c"}),))  # fmt: skip
    plan = plan_quilt(of(quilt, one, other))
    halves = [u for u in plan.batch.units if u.unit.kind == "half-square-triangle"]
    by_fabric = {u.unit.fabrics: u for u in halves}
    assert by_fabric["a", "b"].count == 15
    assert (by_fabric["a", "b"].in_use.runs, by_fabric["a", "b"].in_use.surplus) == (8, 1)
    assert by_fabric["c", "b"].count == 3
    assert len(halves) == 2
    assert {(b.name, b.number) for b in plan.blocks} == {
        ("Half", 9), ("Two", 6), ("Half in way", 3)
    }  # fmt: skip
    squares = [c for c in plan.cuts if c.shape == "square" and c.labels[0].startswith("Half")]
    assert Counter(c.fabric for c in squares for _ in range(c.number)) == {"a": 8, "b": 10, "c": 2}


def test_borders_are_cut_to_what_the_quilt_measured():
    """Twelve 4 in blocks make 12 x 16; it measured 12 3/8 x 16 3/4 raw. Sides are cut 16 3/4, then
    the ends 12 3/8 + 2 · 2 = 16 3/8; the next border follows: 20 3/4, then 22 3/8."""
    borders = Border(width=F(2), fabric="b"), Border(width=F(3), fabric="a")
    quilt = Quilt(columns=3, rows=4, block="four", borders=borders)

    def lengths(quilt):
        plan = plan_quilt(of(quilt, FOUR))
        return [strip.length for strip in border_strips(plan.top, quilt, INCH)][::2]

    assert lengths(quilt) == [F(33, 2), F(33, 2), F(41, 2), F(45, 2)]
    measured = replace(borders[0], measured=(F(99, 8), F(67, 4)))
    assert lengths(replace(quilt, borders=(measured, borders[1]))) == [
        F(67, 4), F(131, 8), F(83, 4), F(179, 8)
    ]  # fmt: skip
    squares = replace(borders[0], kind="corner-squares", corner_fabric="c")
    steps = plan_quilt(of(replace(quilt, borders=(squares,)), FOUR)).steps
    (text,) = [step.text for step in steps if step.of == "Border 1"]
    assert text.startswith(
        "Sew on the sides, cut 16 1/2 in, then the top and bottom, cut 12 1/2 in; first sew a "
        "corner square, cut 2 1/2 in, to each end of the last two."
    )


@given(
    st.lists(st.integers(43, 130), min_size=1, max_size=8), st.integers(36, 44),
    st.sampled_from([F(5, 2), F(11, 2)]), st.booleans(),
)  # fmt: skip
def test_joined_strips_are_just_enough_and_joined_in_good_places(lengths, long, width, slanted):
    """The band is sewn together and cut up again, inch by inch of it known to be of one strip or
    another: each strip is whole, its joins lie where they are told, off its ends and middle."""
    found = band(
        "B", "a", width, F(long), [(f"n{n}", F(n)) for n in lengths], slanted, F(1, 4), F(2)
    )
    lost = width if slanted else F(1, 2)
    reach = found.strips * long - (found.strips - 1) * lost
    assert reach >= sum(lengths)
    fewest = 1
    while fewest * long - (fewest - 1) * lost < sum(lengths):
        fewest += 1
    assert found.strips - fewest in (0, 1)
    assert sorted(piece.length for piece in found.pieces) == sorted(lengths)
    seams = [k * (long - lost) + lost / 2 for k in range(1, found.strips)]
    at = F(0)
    for piece in found.pieces:
        start = at + piece.off
        half = lost / 2 if slanted else 0
        inside = [x - start for x in seams if -half < x - start < piece.length + half]
        assert piece.off >= 0
        assert list(piece.joins) == inside
        if found.kept_off:
            for x in piece.joins:
                for kept in (0, piece.length / 2, piece.length):
                    assert abs(x - kept) >= 2
        at = start + piece.length
    assert at <= reach


@given(
    st.integers(8, 120), st.integers(8, 120), st.sampled_from([INCH, METRIC]),
    st.none() | st.integers(0, 12), st.integers(30, 110),
)  # fmt: skip
@settings(max_examples=100, deadline=None)
def test_the_backing_covers_the_quilt(wide, high, measure, over, fabric):
    """Widths joined one by one reach over it, one fewer does not; the best way comes first."""
    backing = Backing(fabric="a", overage=None if over is None else F(over))
    quilt = Quilt(columns=2, rows=2, block="hst", backing=backing)
    fabrics = (Fabric(id="a", width=F(fabric)),)
    project = replace(of(quilt, HST, measure=measure), fabrics=fabrics)
    size = measure.from_inches(wide), measure.from_inches(high)
    o = measure.from_inches(4) if over is None else F(over)
    whole = size[0] + 2 * o, size[1] + 2 * o
    ways = backing_ways(size, project)
    join = measure.from_inches(1)
    for way in ways:
        beside, panel = whole if way.seam == "along" else whole[::-1]
        assert way.panel == panel
        reach = F(fabric) + (way.widths - 1) * (F(fabric) - join)
        assert reach >= beside
        assert way.widths == 1 or reach - (F(fabric) - join) < beside
        assert way.left[0] == reach - beside
        joins = way.joins(F(fabric), join)
        assert len(joins) == way.widths - 1
        assert all(0 < at < reach for at in joins)
        assert {b - a for a, b in pairwise(joins)} <= {F(fabric) - join}
        # The first width keeps all but one allowance, the last one likewise.
        assert not joins or joins[0] == reach - joins[-1] == F(fabric) - join / 2
        assert way.buy >= way.widths * panel
    assert ways[0].buy == min(way.buy for way in ways)
    one = replace(quilt, columns=1, rows=1, backing=Backing(fabric="a"))
    assert backing_ways(size, replace(project, quilt=one))[0].size[0] == size[0] + 2 * (
        measure.from_inches(1)
    )


def test_washed_fabric_is_narrower_for_borders_binding_and_backing():
    """42 in shrink by 3 % to 40.74: strips are 40 5/8 long at the mark. 48 in of blocks and 2 in of
    border all round: 52 in; the binding is 208 + 2 + 10 = 220 in, (220 - 2 1/2)/(40.74 - 2 1/2) =
    5.7 strips; 60 in of backing are two widths, 2 x 40.74 - 1."""
    quilt = Quilt(
        columns=12, rows=12, block="four", borders=(Border(width=F(2), fabric="a"),),
        binding=Binding(width=F(5, 2), fabric="b"), backing=Backing(fabric="c"),
    )  # fmt: skip
    shrunk = tuple(replace(fabric_plan, shrink=(F(0), F(3))) for fabric_plan in FABRICS)
    plan = plan_quilt(of(quilt, FOUR, fabrics=shrunk, cutting=Cutting(wash=True)))
    strips = {cut.label: cut for cut in plan.cuts if cut.label.startswith(("Binding", "Border"))}
    assert {cut.cut[1] for cut in strips.values()} == {F(325, 8)}
    assert strips["Binding"].number == 6
    assert not any(fabric_plan.missing for fabric_plan in plan.fabric_plans.at_once)
    assert plan.backing.left[0] == 2 * F(2037, 50) - 1 - 60


def test_binding_straight_and_on_the_bias():
    """52 x 68: 240 in round, 2 more for the allowances, 10 to spare: 252. Strips of 42 joined on
    the slant lose 2 1/2 at each of their joins: seven give 294 - 15. On the bias a square of
    26 is 25.5/√2 = 18.03 high: seven strips of √2 · 25, 247.5; one of 27 gives 257.4."""
    quilt = Quilt(columns=1, rows=1, block="hst", binding=Binding(width=F(5, 2), fabric="a"))
    found = binding_plan((F(52), F(68)), of(quilt, HST))
    assert (found.length, found.strips, found.joins) == (252, 7, 6)
    bias = replace(quilt, binding=replace(quilt.binding, cut="bias"))
    on_bias = binding_plan((F(52), F(68)), of(bias, HST))
    assert (on_bias.square, on_bias.rounds, round(float(on_bias.strip), 1)) == (27, 7, 257.4)
    plan = plan_quilt(of(bias, HST))
    assert "Binding" in {cut.label for cut in plan.cuts}


@given(
    st.integers(20, 900),
    st.sampled_from([F(3, 2), F(5, 2), F(3)]),
    st.sampled_from([INCH, METRIC]),
)
@settings(max_examples=40)
def test_a_bias_tube_laid_flat_gives_what_is_told(half, width, measure):
    """The two triangles as they lie sewn along a leg, cut into whole strips; the tube's seam takes
    its allowance of each."""
    binding = Binding(width=width, fabric="a", cut="bias")
    project = of(Quilt(columns=1, rows=1, block="hst", binding=binding), HST, measure=measure)
    plan = binding_plan((F(half, 2), F(half, 3)), project)
    side, seam, wide = float(plan.square), float(measure.seam), float(width)
    low = shapely.Polygon([(0, 0), (side * sqrt(2), 0), (side / sqrt(2), side / sqrt(2))])
    high = (side - 2 * seam) / sqrt(2)
    over = side * sqrt(2) - 2 * seam * sqrt(2) - high
    up = shapely.Polygon([(over, high), (over + side * sqrt(2), high),
                          (over + side / sqrt(2), high - side / sqrt(2))])  # fmt: skip
    line = side * sqrt(2) - seam * sqrt(2)  # where they are sewn: x + y
    before = shapely.Polygon([(-9e3, -9e3), (line + 9e3, -9e3), (line - 9e3, 9e3), (-9e3, 9e3)])
    flat = shapely.union(low & before, up - before)
    rounds = int(high / wide)
    strips = [flat & shapely.box(-9e3, i * wide, 9e3, (i + 1) * wide) for i in range(rounds)]
    given_by = sum(strip.area / wide - 2 * seam * sqrt(2) for strip in strips)
    assert plan.rounds == rounds
    assert float(plan.length) <= float(plan.strip) <= given_by
    assert given_by - float(plan.strip) < rounds * 2 * seam * sqrt(2) + 1e-6


def test_long_sashing_on_point_has_slanted_ends():
    """Two by two 10 in blocks with 1 in sashing, in one strip between rows: each is cut as long as
    its long edge, and 1/4 in · (1 + √2) more for each tip; never longer than the fabric is wide."""
    block = block_of(size=(10, 10), fabrics="a")
    quilt = Quilt(setting="on-point", columns=2, rows=2, block=block.id,
                  sashing=Sashing(width=F(1), fabric="b"))  # fmt: skip
    plan = plan_quilt(of(quilt, block))
    lengths = {c.cut[1] for c in plan.cuts if c.label.startswith("Sashing") and c.cut[1] > 11}
    rows = [polygon(r.pieces[0]) for r in plan.top.rows if r.label.startswith("Sashing")]
    wanted = set()
    for shape in rows:
        points = np.array(shape.exterior.coords)
        along = (points[:, 1] - points[:, 0]) / sqrt(2)
        raw = along.max() - along.min() + 2 * 0.25 * (1 + sqrt(2))
        wanted.add(F(ceil(raw * 8 - 1e-9), 8))
    assert lengths == {min(length, F(42)) for length in wanted}


@given(st.integers(0, 3), st.booleans(), st.integers(0, 3), st.booleans(), st.booleans())
def test_a_turned_motif_carries_its_blocks(turn, mirror, own, own_mirror, on_point):
    """Where a point of a block lies: put into the motif first, then with the motif on the top."""
    motif = Placed(0, 0, "m", turn=turn, mirror=mirror)
    whole = Lying(motif, (F(8), F(8)), Point(F(3), F(5)), 2 * turn + on_point)
    member = Placed(1, 0, "hst", turn=own, mirror=own_mirror)
    inside = Lying(member, (F(4), F(4)), Point(F(6), F(2)), 2 * own)
    found = member_lying(whole, member, Motif(id="m"))
    for p in (Point(F(0), F(0)), Point(F(1), F(3)), Point(F(4), F(1))):
        assert found(p) == whole(inside(p))


def test_a_block_that_came_out_larger_is_drawn_larger():
    quilt = Quilt(columns=1, rows=1, block="hst", made={"hst": (F(5), F(6))})
    plan = plan_quilt(of(quilt, HST))
    (each,) = blocks_on_top(plan.top, plan.project)
    assert each.matrix((0, 0)) == (0, 0)
    assert each.matrix((4, 4)) == (4.5, 5.5)


def test_a_made_size_replaces_the_drawn_one():
    """4 in blocks that came out 4 3/8 unfinished are 3 7/8: all follows."""
    quilt = Quilt(columns=4, rows=5, block="hst", made={"hst": (F(35, 8), F(35, 8))},
                  sashing=Sashing(width=F(1), fabric="a"))  # fmt: skip
    plan = plan_quilt(of(quilt, HST))
    assert plan.size == (4 * F(31, 8) + 3, 5 * F(31, 8) + 4)
    sash = [c for c in plan.cuts if c.label.startswith("Sashing")]
    assert (F(3, 2), F(35, 8)) in {c.cut for c in sash}


def test_rows_say_what_lies_in_them_and_how_they_are_pressed():
    quilt = Quilt(columns=3, rows=2, block="four", turning="quarter-turns",
                  alternate=Alternate(fabric="c"))  # fmt: skip
    plan = plan_quilt(of(quilt, FOUR))
    first, second = plan.rows
    assert first.items == ("Four", "plain square, C", "Four")
    assert second.items[0] == "plain square, C"
    assert (first.pressed, second.pressed) == ("away from the label", "toward the label")
    assert first.length == F(25, 2)
    sashed = plan_quilt(of(replace(quilt, sashing=Sashing(width=F(1), fabric="a")), FOUR))
    assert {card.pressed for card in sashed.rows if card.pressed} == {"toward the sashing"}
    assert sum("Join the rows" in step.title for step in plan.steps) == 1


def test_float_and_exact_setting_triangles():
    """10 1/2 in blocks, floating 1/2 in: the side square is 1 larger, the quilt 1 in all round; cut
    exactly they take the finest mark."""
    block = block_of(size=(F(21, 2), F(21, 2)), fabrics="a")
    quilt = Quilt(setting="on-point", columns=3, rows=4, block=block.id)

    def made(**more):
        return plan_quilt(of(replace(quilt, triangles=Triangles(**more)), block))

    floats = made(fit="float", float_by=F(1, 2))
    assert floats.size == (F(63, 2) * ROOT2 + 1, 42 * ROOT2 + 1)
    assert floats.triangles[0].exact == F(3, 2) + 11 * ROOT2
    trimmed = next(step.text for step in floats.steps if step.title == "Join the rows")
    assert trimmed.endswith("Trim the edges straight, 3/4 in beyond the blocks' tips.")
    assert made(fit="exact").triangles[0].cut == F(1028, 64)
    assert made().triangles[0].cut == F(129, 8)


def test_a_quilt_of_no_blocks_has_an_empty_plan():
    plan = plan_quilt(Project(fabrics=FABRICS))
    assert plan.blocks == plan.cuts == plan.steps == plan.backings == ()
    assert plan.problems[0].code == "no-places"
    assert quilt_dict(plan)["rows"] == []


def test_settings_that_use_both_hands():
    """A three-triangle block crossed in pairs gives one
    of each hand a run: twelve as drawn leave twelve mirror images over; in mirror pairs none."""
    three = replace(
        block_of("0 0 2 2 / 2 0 1 1", 2, 2, (4, 4), "abc"), id="three", name="Three",
        methods={"three-triangle": "crossed-pairs"},
    )  # fmt: skip
    quilt = Quilt(columns=4, rows=3, block="three")
    plan = plan_quilt(of(quilt, three))
    found = both_hands(plan)
    (unit,) = [u for u in plan.blocks[0].plan.units if u.unit.kind == "three-triangle"]
    method = unit.in_use.method
    assert (unit.in_use.runs * method.mirrored, unit.count) == (12, 12)
    best = found[0]
    assert (best.words, best.over, best.now) == ("in mirror pairs", (0, 0), (0, 12))
    again = plan_quilt(of(best.quilt, three))
    assert sum(p.mirror for p in placed(best.quilt)) == 6
    assert again.size == plan.size
    ring = next(f for f in found if "ring" in f.words)
    # Ten of twelve places lie at the edge: ten runs leave eight as drawn over, no mirror image.
    assert ring.over == (8, 0)


def test_work_of_the_whole_quilt():
    """Six 4 in blocks in two rows of three: seams of 4 in, two a row, and one of 12: 28 in."""
    plan = plan_quilt(of(Quilt(columns=3, rows=2, block="four"), FOUR))
    assert [(s.what, s.times, s.seams, s.length) for s in seams_of(plan.top, plan.quilt)] == [
        ("rows", 2, 4, 16), ("seam between rows", 1, 1, 12),
    ]  # fmt: skip
    work = work_of(plan)
    block = plan_block(plan.project, plan.blocks[0].block, plan.blocks[0].number)
    assert work.minutes == pytest.approx(sum(s.minutes for s in work.sittings))
    # The thread at the ends of five seams, half an inch each.
    ours = work.thread.each - block.work.thread.each
    assert ours == pytest.approx((28 + 5 * 0.5) * 2.8 / 2.2)
    assert work_text(work, INCH).startswith("About 1 h of work, in ")


@given(unit_blocks(most=2), unit_blocks(most=3), st.integers(1, 3), st.integers(1, 3))
@settings(max_examples=many(12, 25), deadline=None)
def test_what_the_steps_of_a_quilt_make_is_what_they_need(one, other, columns, rows):
    """A balance over all blocks: of every unit, part and block as many are made as later steps take
    and the top holds; each has one step; stacks are those of the cut list."""
    one, other = replace(one, id="one", name="One"), replace(other, id="two", name="Two")
    quilt = Quilt(
        columns=columns, rows=2 * rows, block="one", alternate=Alternate(block="two", by="rows")
    )
    plan = plan_quilt(of(quilt, one, other))
    steps = [step for sewn in plan.sewn for step in sewn.steps]
    assert [step.number for step in steps] == list(range(1, len(steps) + 1))
    made, taken = Counter(), Counter()
    plain = [unit for unit in plan.units if len(unit.unit.part.faces) == 1]
    made.update({unit.unit.label: unit.count for unit in plain})
    stacks = {cut.label for cut in plan.cuts}
    for step in steps:
        named = {name for need in step.needs for name in need.split(", ")}
        assert named <= stacks | set(made), step
        assert step.makes not in made
        made[step.makes] = step.times
        pieces = plan.batch.stacks[step.makes] if step.unit else ()
        own = Counter(step.needs) - Counter(pieces)
        taken.update({need: step.times * n for need, n in own.items()})
    for block, sewn in zip(plan.blocks, plan.sewn, strict=True):
        whole = next((s.makes for s in sewn.steps if s.part.faces == sewn.root.faces), None)
        taken[whole or sewn.units[0].unit.label] += block.number
    assert {name: n for name, n in taken.items() if name in made} == made


def test_what_is_worked_out_is_kept_only_where_steps_were_done_since():
    """Ticking a step changes nothing that is cut or sewn; another fabric, ruler or block does."""
    project = of(Quilt(columns=2, rows=2, block="hst"), HST)
    before = plan_quilt(project)
    before.work_out()
    quilt, log = project.quilt, (LogEntry(what="Make Half", number=2),)
    done = plan_quilt(replace(project, log=log), before)
    assert done.planned
    assert done.steps is before.steps
    assert done.project.log == log
    finer = Measure(ruler=F(1, 16))
    wide = tuple(replace(fabric, width=F(20)) for fabric in project.fabrics)
    for other in (
        replace(project, quilt=replace(quilt, rows=3)),
        replace(project, measure=finer),
        replace(project, fabrics=wide),
        project.with_block(replace(HST, methods={"half-square-triangle": "single-triangles"})),
    ):
        made = plan_quilt(other, before)
        assert not made.planned
        assert quilt_dict(made) == quilt_dict(plan_quilt(other))


@pytest.mark.parametrize(
    ("direction", "sides", "corners"), [("one-way", 6, 2), ("two-way", 6, 2), ("", 5, 2)]
)
def test_triangles_of_a_print_that_stands_upright(direction, sides, corners):
    """5 across, 7 down: 4 triangles on top, 4 below, 6 left, 6 right. A square cut twice gives one
    for each side: 6 squares, not 5. Of two squares for corners, one is cut on each diagonal."""
    block = block_of(size=(6, 6), fabrics="a")
    quilt = Quilt(setting="on-point", columns=5, rows=7, block=block.id,
                  triangles=Triangles(fabric="b"))  # fmt: skip
    project = of(quilt, block)
    printed = tuple(replace(f, direction=direction) if f.id == "b" else f for f in project.fabrics)
    plan = plan_quilt(replace(project, fabrics=printed))
    by_kind = {triangles.kind: triangles for triangles in plan.triangles}
    assert (by_kind["side"].squares, by_kind["corner"].squares) == (sides, corners)
    assert (by_kind["side"].triangles, by_kind["side"].over) == (20, 4 * sides - 20)
    leans = [cut.lean for cut in plan.cuts if cut.label.startswith("Corner triangles")]
    assert leans == (["rising", "falling"] if direction else [""])
    text = quilt_text(plan)
    way = "top left to bottom right with the print upright"
    assert text.count(way) == (2 if direction else 0)  # where they are told, and in the cut list


def edge_of(piece, top):
    """Which edge of the quilt inside its borders a triangle lies on, a corner's which two."""
    left, head, right, foot = polygon(piece.moved(Point(-top.at.x, -top.at.y))).bounds
    wide, high = (float(side) for side in top.middle)
    across = -1 if left < 1e-6 else int(right > wide - 1e-6)
    down = -1 if head < 1e-6 else int(foot > high - 1e-6)
    return across, down


@given(quilts(), st.text("ab", min_size=1, max_size=3))
@settings(max_examples=many(10, 40), deadline=None)
def test_the_fabrics_of_a_top_are_those_that_are_cut_for_it(project, fabrics):
    """Found in the drawing, before anything is planned."""
    blocks = tuple(in_fabrics(block, fabrics) for block in project.blocks)
    plan = plan_quilt(replace(project, blocks=blocks))
    assert fabrics_in(plan.top, plan.project) - {""} == {c.fabric for c in plan.cuts if c.fabric}


@given(quilts(), st.sampled_from(["one-way", "two-way"]))
@settings(max_examples=25, deadline=None)
def test_upright_triangles_are_cut_by_laying_squares_on_the_top(project, direction):
    """Squares are taken one by one, each as it is cut, and each triangle used where it stands (of a
    two-way print half a turn round as well), until every place on the top has its own."""
    printed = tuple(replace(f, direction=direction) for f in project.fabrics)
    plan = plan_quilt(replace(project, fabrics=printed))
    for triangles in plan.triangles:
        missing = Counter()
        for piece in (p for row in plan.top.rows for p in row.pieces):
            if (piece.kind, piece.fabric) == (triangles.kind, triangles.fabric):
                missing[edge_of(piece, plan.top)] += 1
        sets = {
            "": [(0, -1), (0, 1), (-1, 0), (1, 0)],
            "rising": [(-1, -1), (1, 1)], "falling": [(1, -1), (-1, 1)],
        }  # fmt: skip
        for lean, number in triangles.squares_by_lean:
            for _ in range(number):
                for x, y in sets[lean]:
                    here = (x, y) if missing[x, y] or direction == "one-way" else (-x, -y)
                    missing[here] -= missing[here] > 0
        assert not +missing
        assert triangles.squares <= triangles.triangles


def test_backing_that_misses_a_width_by_little_or_is_there():
    """60 x 80 in and 4 in past each edge: 68 in across fabric of 42 is two widths of 88, 4 7/8 yd.
    Of fabric 67 wide one width does, 3 1/2 in past: 79 + 2 · 3 1/2 long. What there is of it is
    taken, but for fabric that is cut for the top as well."""
    quilt = Quilt(columns=5, rows=1, block="four", backing=Backing(fabric="c"))
    project = of(quilt, FOUR)
    size = F(60), F(80)

    def way(*have, width=42, in_top=False):
        fabrics = tuple(
            replace(fabric, width=F(width), have=have) if fabric.id == "c" else fabric
            for fabric in project.fabrics
        )
        ways = backing_ways(size, replace(project, fabrics=fabrics), in_top)
        return next(way for way in ways if way.seam == "along")

    two = way()
    assert (two.widths, two.panel, two.less, two.owned) == (2, F(88), None, 0)
    wide = way(width=67)
    assert (wide.widths, wide.less.overage) == (2, F(7, 2))
    assert wide.less.buy == F(9, 2) * 21  # 87 in and a twentieth, in eighths of a yard
    length = Have(width=F(42), length=F(90))
    assert (way(length).owned, way(length).buy) == (1, F(9, 2) * 21)
    assert (way(replace(length, count=2)).owned, way(replace(length, count=2)).buy) == (2, 0)
    assert way(Have(width=F(108), length=F(100))).buy == 0
    assert way(Have(width=F(40), length=F(90))).owned == 0
    assert way(length, in_top=True).owned == 0


def test_whether_there_is_enough_counts_the_backing():
    four = tuple(replace(f, have=(Have(width=F(42), length=F(90)),)) for f in FABRICS)
    quilt = Quilt(columns=4, rows=4, block="four", backing=Backing(fabric="c"))
    assert enough(plan_quilt(of(quilt, FOUR, fabrics=four))).does
    bare = tuple(replace(f, have=()) if f.id == "c" else f for f in four)
    verdict = enough(plan_quilt(of(quilt, FOUR, fabrics=bare)))
    assert not verdict.does
    assert enough_lines(verdict, of(quilt, FOUR)) == [
        "Not enough C for the backing: 1 width of 24 in missing."
    ]


def test_rows_that_are_alike_are_one_step():
    """Rows 1 and 3 of three; on point what a size is of is said."""
    quilt = Quilt(columns=3, rows=3, block="four", alternate=Alternate(fabric="c"))
    plan = plan_quilt(of(quilt, FOUR))
    steps = [step for step in plan.steps if step.title.startswith("Sew row")]
    assert [(s.title, s.times, s.name) for s in steps] == [
        ("Sew rows 1 and 3", 2, "Sew row 1"), ("Sew row 2", 1, "Sew row 2")
    ]  # fmt: skip
    slanted = replace(quilt, setting="on-point", alternate=None, triangles=Triangles(fabric="a"))
    steps = [s for s in plan_quilt(of(slanted, FOUR)).steps if s.title.startswith("Sew row")]
    assert steps[2].measures == "20 1/2 in without the triangles at its ends"
    assert steps[2].text.startswith("Corner triangle, A; 5 × Four; corner triangle, A.")
