"""Quilts of any kind, sensible or not: planned, or told what is in the way; never an error of
ours. And what the plan as JSON promises, read by other means."""

from __future__ import annotations

import json
from collections import Counter
from itertools import pairwise
from typing import get_args

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import parse_exact
from inlet.core.plan.quilt import plan_quilt
from inlet.core.plan.rows import listed
from inlet.core.pressing.neighbours import quilt_grid
from inlet.core.project.cutting import Cutting
from inlet.core.project.fabric import Fabric
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.quilt import (
    Alternate,
    Alternation,
    Backing,
    Batting,
    Binding,
    Border,
    BorderKind,
    Colourway,
    Motif,
    Quilt,
    QuiltingKind,
    QuiltingLines,
    QuiltPlace,
    Sashing,
    Scatter,
    TriangleFit,
    Triangles,
    Turning,
)  # fmt: skip
from inlet.core.project.value import replace
from inlet.core.setting.places import block_counts, placed, row_lengths
from inlet.core.setting.top import quilt_top
from inlet.files.project.project_json import dumps, loads
from inlet.files.text.quilt_json import quilt_dict
from inlet.files.text.quilt_text import quilt_text
from tests.blocks import FABRICS, block_of, project_of
from tests.sample import many

EFF = replace(block_of("0 1 3 1 / 1 1 1 3 / 1 2 3 2", 3, 3, (6, 6), "abcd"), id="f", name="Eff")
LONG = replace(block_of("1 0 1 1", 2, 1, (8, 3), "ab"), id="long", name="Long")
EMPTY = replace(block_of(size=(5, 5), fabrics="a"), id="empty", name="Empty", fabric_at=())
FABRIC = st.sampled_from(["", "a", "b", "c"])
BLOCK = st.sampled_from(["", "f", "long", "empty", "m"])
NUMBER = st.sampled_from([1, 2, 3, 4, 2, 3, None, 0])
LENGTH = st.none() | st.sampled_from([F(1, 16), F(1), F(5, 2), F(37, 3), F(90)])


def some(build):
    return st.none() | build


@st.composite
def any_quilts(draw):
    """Whatever a file may hold, in small numbers."""
    places = st.builds(
        QuiltPlace, column=st.integers(0, 4), row=st.integers(0, 5), block=BLOCK, fabric=FABRIC,
        turn=st.sampled_from([None, 0, 90, 180, 270]), mirror=st.sampled_from([None, True, False]),
        colourway=st.sampled_from(["", "w"]),
    )  # fmt: skip
    plain = st.sampled_from(["f", "f", "long", ""])
    motif = st.builds(
        Motif, id=st.just("m"), columns=st.integers(1, 3), rows=st.integers(1, 3), block=plain,
        turning=st.sampled_from(get_args(Turning)),
    )  # fmt: skip
    border = st.builds(
        Border, width=LENGTH, fabric=FABRIC, block=BLOCK,
        kind=st.sampled_from(get_args(BorderKind)),
        corner_fabric=FABRIC, measured=some(st.just((F(31), F(33)))),
    )  # fmt: skip
    quilting = st.builds(
        QuiltingLines, kind=st.sampled_from(get_args(QuiltingKind)), fabric=FABRIC, distance=LENGTH,
        repeats=st.integers(1, 3), diagonal=st.booleans(),
    )  # fmt: skip
    way = Colourway(id="w", fabrics={"a": "b", "b": "c"})
    return Quilt(
        setting=draw(st.sampled_from(["", "straight", "on-point"])),
        columns=draw(NUMBER), rows=draw(NUMBER),
        block=draw(st.sampled_from(["f", "f", "f", "m", "long", "empty", ""])),
        turning=draw(st.sampled_from(get_args(Turning))),
        alternate=draw(some(st.builds(
            Alternate, block=BLOCK, fabric=FABRIC, by=st.sampled_from(get_args(Alternation))))),
        row_lengths=tuple(draw(st.lists(st.integers(0, 5), max_size=2))), filler=draw(FABRIC),
        places=tuple(draw(st.lists(places, max_size=3))),
        motifs=(draw(motif),), colourways=(way,),
        scatter=draw(some(st.just(Scatter(colourways=("w",))))),
        sashing=draw(some(st.builds(
            Sashing, width=LENGTH, fabric=FABRIC, corner_fabric=FABRIC, down=LENGTH,
            outside=st.booleans()))),
        triangles=draw(some(st.builds(
            Triangles, fabric=FABRIC, float_by=LENGTH,
            fit=st.sampled_from(get_args(TriangleFit))))),
        borders=tuple(draw(st.lists(border, max_size=2))),
        binding=draw(some(st.builds(
            Binding, width=LENGTH, fabric=FABRIC, cut=st.sampled_from(["straight", "bias"])))),
        backing=draw(some(st.builds(
            Backing, fabric=FABRIC, overage=LENGTH,
            seam=st.sampled_from(["", "along", "across"])))),
        batting=draw(some(st.builds(Batting, overage=LENGTH))),
        quilting=tuple(draw(st.lists(quilting, max_size=1))),
        made=draw(st.sampled_from([{}, {"f": (F(13, 2), F(27, 4))}, {"f": (F(1, 4),) * 2}])),
    )  # fmt: skip


@given(any_quilts(), st.sampled_from([INCH, METRIC]))
@settings(max_examples=many(35, 300), deadline=None)
def test_any_quilt_is_planned_or_told(quilt, measure):
    """Nothing raises; with an error told there is no top, else its pieces fill it and every place
    is in it."""
    project = replace(project_of(EFF, LONG, EMPTY), quilt=quilt, measure=measure)
    assert loads(dumps(project)) == project
    plan = plan_quilt(project)
    data = json.loads(json.dumps(quilt_dict(plan)))
    text = quilt_text(plan)
    errors = [p for p in plan.top.problems if p.level == "error"]
    assert bool(errors) == (not plan.top.rows)
    for problem in plan.problems:
        assert problem.text.endswith(".")
        assert problem.text in text
    if errors:
        assert data["rows"] == []
        return
    wide, high = (float(parse_exact(x)) for x in data["middle"])
    area = sum(
        shapely.Polygon([[float(parse_exact(x)) for x in p] for p in piece["outline"]]).area
        for row in data["rows"] for piece in row["pieces"]
    )  # fmt: skip
    assert area == pytest.approx(wide * high)
    assert sum(data["blocks"].values()) >= sum(block_counts(quilt).values())
    assert len([p for row in data["rows"] for p in row["pieces"] if "column" in p]) == len(
        [p for p in placed(quilt) if p.block]
    )


@given(any_quilts())
@settings(max_examples=30, deadline=None)
def test_cutting_rules_do_not_change_what_is_cut(quilt):
    """Folded or not, washed or not: the same stacks, other fabric."""
    project = replace(project_of(EFF, LONG, EMPTY), quilt=quilt)
    one = plan_quilt(project)
    other = plan_quilt(replace(project, cutting=Cutting(folds=0, wash=True, margin=F(10))))
    assert one.cuts == other.cuts
    along = tuple(Fabric(id=f.id, name=f.name, lengthwise=True) for f in FABRICS)
    uncut = plan_quilt(replace(project, fabrics=along))
    strips = [c for c in uncut.setting.cuts if c.shape == "strip" and c.fabric]
    assert strips == []  # what is cut along the fabric is never joined


@given(any_quilts(), st.sampled_from([F(1, 16), F(1, 2), F(1), F(5, 2), F(7)]), st.booleans())
@settings(max_examples=many(20, 200), deadline=None)
def test_pieces_find_room_or_are_told_however_narrow_the_fabric(quilt, width, wash):
    project = replace(project_of(EFF, LONG, EMPTY), quilt=quilt, cutting=Cutting(wash=wash))
    narrow = tuple(replace(on_mat, width=width, shrink=(F(4), F(3))) for on_mat in FABRICS)
    data = quilt_dict(plan_quilt(replace(project, fabrics=narrow)))
    ready: Counter[str] = Counter()
    for on_mat in data["cutting"]:
        for place in on_mat["places"]:
            ready[place["label"]] += place["layers"] * place.get("holds", 1)
    for fabric in data["fabric"]:
        ready.update({m["label"]: m["count"] for m in fabric["missing"]})
    assert all(ready[cut["label"]] >= cut["count"] for cut in data["cuts"])


@pytest.mark.parametrize("turning", get_args(Turning))
@pytest.mark.parametrize("on_point", [False, True])
def test_neighbours_in_the_pressing_grid_are_neighbours_on_the_top(turning, on_point):
    """Two blocks side by side in the grid that pressing looks at touch on the laid-out top, right
    side to left side as the grid has them turned."""
    quilt = Quilt(setting="on-point" if on_point else "", columns=3, rows=3, block="f",
                  turning=turning)  # fmt: skip
    project = replace(project_of(EFF), quilt=quilt)
    grid = quilt_grid(quilt, "f")
    top = quilt_top(project)
    at = {}
    for row in top.rows:
        for piece in row.pieces:
            if piece.lying is not None:
                p = piece.lying.placed
                at[p.column, p.row] = piece
    spots = {(p.column, p.row): p for p in placed(quilt)}
    assert len(grid) == len(spots)
    touching = 0
    for one in at.values():
        for other in at.values():
            step = other.lying.middle.minus(one.lying.middle).floats()
            right = (6 * 2**-0.5, 6 * 2**-0.5) if on_point else (6, 0)
            if step == pytest.approx(right):
                touching += 1
    beside = sum((x + 1, y) in grid for x, y in grid)
    assert touching == beside
    turns = Counter((lying.turn, lying.mirror) for lying in grid.values())
    assert turns == Counter((p.turn, p.mirror) for p in spots.values())


def test_rows_of_a_quilt_on_point_are_counted_line_by_line():
    quilt = Quilt(setting="on-point", columns=3, rows=4, block="f")
    assert row_lengths(quilt) == [3, 2, 3, 2, 3, 2, 3]
    assert sum(row_lengths(quilt)) == 18
    middles = {
        (p.lying.placed.column, p.lying.placed.row): p.lying.middle.floats()
        for row in quilt_top(replace(project_of(EFF), quilt=quilt)).rows for p in row.pieces
        if p.lying is not None
    }  # fmt: skip
    for line, length in enumerate(row_lengths(quilt)):
        own = [middles[column, line] for column in range(length)]
        assert len({round(y, 6) for _, y in own}) == 1
        assert all(b[0] - a[0] == pytest.approx(6 * 2**0.5) for a, b in pairwise(own))


@pytest.mark.parametrize(
    ("items", "says"),
    [
        (["A", "A", "A"], "3 × A"),
        (["A", "s", "A", "s", "A"], "2 × s; between them and at the ends A"),
        (["t", "s", "A", "s", "B", "s", "u"], "t; A; B; u; between them s"),
        (["A", "B", "A", "B"], "A, and B, by turns, 4 in all"),
        (["t", "A", "B", "A", "B", "t"], "t; A, and B, by turns, 4 in all; t"),
        (["A"], "A"),
    ],
)
def test_rows_in_words(items, says):
    assert listed(items) == says
