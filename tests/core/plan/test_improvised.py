"""Improvised corners in a block's plan and on a quilt's top."""

from __future__ import annotations

import json
from collections import Counter

import pytest
import shapely

from inlet.core.figures import top_figure
from inlet.core.numbers import Fraction as F
from inlet.core.plan import plan_block, plan_quilt
from inlet.core.project import (
    METRIC,
    Block,
    Colourway,
    Fabric,
    FabricAt,
    Improvised,
    Measure,
    Project,
    Quilt,
    QuiltPlace,
    Sashing,
    replace,
    straight,
)
from inlet.core.project.project import measured_in
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import dumps, loads, why_not_kept
from inlet.files.text.plan_json import plan_dict

FABRICS = tuple(
    Fabric(id=name, name=name.title(), colour=colour)
    for name, colour in (
        ("fog", "#eeeeee"), ("mist", "#e8e8e6"), ("silt", "#777777"), ("deep", "#203050"),
        ("buoy", "#cc4433"),
    )
)  # fmt: skip
CORNERS = Improvised(
    fabrics=("mist", "silt", "deep", "buoy"), nearest=F(1), farthest=F(3), step=F(1, 4)
)
SQUARE = Block(
    id="pebble", finished=(F(9, 2), F(4)), improvised=CORNERS,
    fabric_at=(FabricAt(point=(F(1, 2), F(1, 2)), fabric="fog"),),
)  # fmt: skip
PROJECT = Project(fabrics=FABRICS, blocks=(SQUARE,))


def quilt(columns=6, rows=5, **more):
    laid = Quilt(setting="straight", columns=columns, rows=rows, block="pebble", **more)
    return replace(PROJECT, quilt=laid)


def test_a_plan_sews_every_corner_and_cuts_strips_for_them():
    plan = plan_block(PROJECT, SQUARE, 30)
    corners = Counter(fabric for square in plan.squares for fabric in square.fabrics)
    (step,) = plan.steps
    assert (step.makes, step.times, step.seams) == ("corner", corners.total(), 1)
    assert step.measures == (F(5), F(9, 2))
    assert "mist" not in corners  # it reads as one with the square
    strips = [cut for cut in plan.cuts if cut.label.startswith("Scrap")]
    assert {cut.fabric for cut in strips} == set(corners)
    data = plan_dict(plan)
    assert data["steps"][0]["times"] == data["improvised"]["corners"] == corners.total()
    assert len(data["improvised"]["squares"]) == 30
    assert {fabric["fabric"] for fabric in data["fabric"]} == {"fog", *corners}
    assert plan.resewn
    assert not plan.problems


def test_a_basket_of_scraps_is_not_cut():
    basket = replace(SQUARE, improvised=replace(CORNERS, scraps="basket"))
    plan = plan_block(PROJECT, basket, 30)
    assert {cut.fabric for cut in plan.cuts} == {"fog"}
    assert plan.steps[0].times == plan.scraps.corners > 30


@pytest.mark.parametrize(("setting", "wide"), [("straight", F(9, 2)), ("on-point", F(4))])
def test_the_top_shows_the_corners_its_plan_sews(setting, wide):
    project = quilt(sashing=Sashing(width=F(1)))
    project = replace(
        project,
        quilt=replace(project.quilt, setting=setting),
        blocks=(replace(SQUARE, finished=(wide, F(4))),),
    )
    plan = plan_quilt(project)
    figure = top_figure(plan.top, project)
    (block,) = plan.blocks
    shown = Counter(
        patch.fabric for each in figure.blocks for patch in figure.drawings[each.drawing][1]
    )
    number = shown.pop("fog")
    assert number == len(figure.blocks) == block.number
    assert shown == Counter(fabric for square in block.squares for fabric in square.fabrics)
    for _, patches in figure.drawings:
        polygons = [shapely.Polygon(patch.outline) for patch in patches]
        assert sum(p.area for p in polygons) == pytest.approx(float(wide * 4))
        assert shapely.unary_union(polygons).area == pytest.approx(float(wide * 4))
    (step, *_) = plan.steps
    assert step.times == shown.total()
    assert len({patches for _, patches in figure.drawings}) == number


def test_long_rows_are_fed_with_a_few_blocks_held_back():
    for columns, held in ((22, True), (6, False)):
        rows = [step for step in plan_quilt(quilt(columns, 2)).steps if step.of == "Row 1"]
        assert [("held back" in step.text) for step in rows] == [held]


def test_colourways_dye_the_corners_too():
    way = Colourway(id="night", fabrics={"fog": "deep", "silt": "fog", "deep": "silt"})
    places = (QuiltPlace(column=1, row=1, colourway="night"),)
    plan = plan_quilt(quilt(colourways=(way,), places=places))
    night = next(block for block in plan.blocks if block.colourway)
    assert {f for s in night.squares for f in s.fabrics} <= {"mist", "fog", "silt", "buoy"}
    assert sum(block.number for block in plan.blocks) == 30


def test_a_file_keeps_the_corners_and_measures_convert():
    assert loads(dumps(quilt())) == quilt()
    metric = measured_in(PROJECT, METRIC.system)
    assert metric.blocks[0].improvised.farthest == F(3) * F(254, 100)
    assert loads(dumps(metric)) == metric
    assert PROJECT.in_place_of("silt", "deep").blocks[0].improvised.fabrics == (
        "mist", "deep", "buoy",
    )  # fmt: skip


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"fabrics": ["mud"]}, "improvised.fabrics[0]: no fabric has the id “mud”"),
        ({"farthest": "1/2"}, "improvised.farthest: it lies nearer"),
        ({"step": "1/1000"}, "improvised.step: more than 60 steps"),
        ({"most": 0}, "improvised.most: fewer corners"),
        ({"most": 5}, "improvised.most: 5 must be from 0 to 4"),
        ({"step": "0"}, "improvised.step"),
    ],
)
def test_a_file_with_bad_corners_is_refused_in_words(changed, words):
    raw = json.loads(dumps(PROJECT))
    raw["blocks"][0]["improvised"].update(changed)
    with pytest.raises(FileProblem) as refused:
        loads(json.dumps(raw))
    assert words in str(refused.value)


def test_an_edit_that_no_file_holds_is_refused():
    other = replace(SQUARE, improvised=replace(CORNERS, fabrics=("mud",)))
    assert "no fabric has the id" in why_not_kept(PROJECT.with_block(other), PROJECT)


@pytest.mark.parametrize(
    ("corners", "code"),
    [
        (replace(CORNERS, fabrics=()), "corner-fabrics"),
        (replace(CORNERS, fabrics=("mist", "fog")), "corner-fabrics"),
        (replace(CORNERS, nearest=F(1, 8), farthest=F(1, 4), step=F(1, 8)), "corner-bounds"),
        (replace(CORNERS, nearest=F(8), farthest=F(9)), "corner-bounds"),
    ],
)
def test_corners_that_cannot_be_are_told_and_the_square_stays_plain(corners, code):
    plan = plan_block(PROJECT, replace(SQUARE, improvised=corners), 12)
    assert [problem.code for problem in plan.problems] == [code]
    assert (plan.squares, plan.steps) == ((), ())


def test_a_block_of_two_patches_gets_no_corners():
    halves = replace(SQUARE, columns=(F(1), F(1)))
    halves = replace(
        halves,
        seams=(straight((F(1), F(0)), (F(1), F(1))),),
        fabric_at=(
            FabricAt(point=(F(1, 2), F(1, 2)), fabric="fog"),
            FabricAt(point=(F(3, 2), F(1, 2)), fabric="silt"),
        ),
    )
    plan = plan_block(PROJECT, halves, 12)
    assert [problem.code for problem in plan.problems] == ["corners-need-one-patch"]
    assert plan.resewn


def test_the_square_is_as_it_was_cut_with_a_wide_allowance():
    project = replace(PROJECT, measure=Measure(seam=F(1, 2)))
    plan = plan_block(project, SQUARE, 9)
    assert plan.steps[0].measures == (F(11, 2), F(5))
    assert plan.fit.finished == (4.5, 4.0)
