"""What is drawn, counted by means that share nothing with how it is drawn."""

from __future__ import annotations

from dataclasses import replace
from functools import cache
from typing import get_args

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from inlet.core.figures.display import Area, FabricArea, Frame, Kind, Polyline
from inlet.core.figures.looks import LOOKS
from inlet.core.figures.mat import MatFrame, OnMat, mat_figure, numbers_figure
from inlet.core.figures.pressed import arrows_figure, pressed_figure, pressed_frame
from inlet.core.figures.top import top_figure
from inlet.core.layout.progress import cuts_of
from inlet.core.layout.tools import tools_of
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.cutting import Cutting
from inlet.files.project.project_json import load
from inlet.ui.shell.app import DEMO
from tests.blocks import block_of, project_of

places = st.floats(-100, 100)


def area_of(points) -> float:
    """By the shoelace formula."""
    pairs = zip(points, (*points[1:], points[0]), strict=True)
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs)) / 2


def test_each_thing_that_is_drawn_has_a_look():
    assert set(LOOKS) == set(get_args(Kind))


@given(places, places, st.floats(0.1, 50), st.none() | st.floats(0, 90), places, places)
def test_a_place_in_a_picture_is_found_back(left, top, scale, mirror, x, y):
    frame = Frame(left, top, scale, mirror=mirror)
    assert frame.back(*frame.at(x, y)) == pytest.approx((x, y), abs=1e-6)


@given(places, places, st.floats(1, 80), st.floats(1, 80))
def test_what_is_fitted_into_a_box_lies_in_it_and_fills_one_way(x, y, wide, high):
    box = (10.0, 20.0, 210.0, 120.0)
    frame = Frame.fit(box, (x, y, x + wide, y + high))
    (left, top), (right, bottom) = frame.at(x, y), frame.at(x + wide, y + high)
    assert left >= box[0] - 1e-6
    assert right <= box[2] + 1e-6
    assert top >= box[1] - 1e-6
    assert bottom <= box[3] + 1e-6
    assert right - left == pytest.approx(200) or bottom - top == pytest.approx(100)


@cache
def planned(block):
    project = load(DEMO)
    return project, plan_block(project, project.block(block))


def on_mats(block, handed="right"):
    project = msgspec.structs.replace(load(DEMO), cutting=Cutting(handed=handed))
    yield from mats_of(project, plan_block(project, project.block(block), 3))


def mats_of(project, plan):
    for each in plan.fabric_plans.best:
        cuts = {cut.label: cut for cut in plan.cuts if cut.fabric == each.fabric}
        for fabric in each.laid:
            strokes = cuts_of(fabric, project)
            left = project.cutting.handed == "left"
            yield OnMat(
                fabric,
                each.fabric,
                strokes,
                len(strokes),
                cuts,
                plan.measure,
                left,
                tools_of(project),
            )


@pytest.mark.parametrize("block", ["lantern", "heron-bend", "breakwater"])
def test_pieces_on_the_mat_are_to_scale_and_lie_apart_on_the_fabric(block):
    for shown in on_mats(block):
        frame = MatFrame.fit(shown, (0, 0, 640, 400))
        left, top, right, bottom = frame.whole
        boxes = [frame.box(place.at) for place, _ in shown.places]
        for (place, _), box in zip(shown.places, boxes, strict=True):
            assert left - 1e-6 <= box[0]
            assert box[2] <= right + 1e-6
            assert top - 1e-6 <= box[1]
            assert box[3] <= bottom + shown.below * frame.scale + 1e-6
            sides = (box[2] - box[0]) / frame.scale, (box[3] - box[1]) / frame.scale
            assert sides == pytest.approx((float(place.at.height), float(place.at.width)))
        for i, (l0, t0, r0, b0) in enumerate(boxes):
            for l1, t1, r1, b1 in boxes[:i]:
                assert min(r0, r1) - max(l0, l1) < 1e-6 or min(b0, b1) - max(t0, t1) < 1e-6


def test_for_the_left_hand_the_mat_is_turned_left_for_right():
    for right, left in zip(on_mats("lantern"), on_mats("lantern", "left"), strict=True):
        one, other = (MatFrame.fit(shown, (0, 0, 640, 400)) for shown in (right, left))
        middle = one.whole[0] + one.whole[2]
        for (place, _), (same, _) in zip(right.places, left.places, strict=True):
            box, turned = one.box(place.at), other.box(same.at)
            assert (middle - box[2], box[1], middle - box[0], box[3]) == pytest.approx(turned)
        for stroke in right.strokes:
            for line, turned in zip(one.lines(stroke), other.lines(stroke), strict=True):
                assert sorted((middle - x, y) for x, y in line) == [
                    pytest.approx(p) for p in sorted(turned)
                ]


@pytest.mark.parametrize("hand", ["right", "left"])
def test_a_square_whose_print_stands_upright_lies_on_its_side_on_the_mat(hand):
    """Fabric lies along the mat: stood up by its length, each square is cut as it is told."""
    block = block_of("1 0 1 1 / 0 0 1 1 / 1 1 2 0", 2, 1, (8, 4), "abab")
    project = project_of(block)
    changed = msgspec.structs.replace
    fabrics = tuple(changed(fabric, direction="one-way") for fabric in project.fabrics)
    project = changed(project, fabrics=fabrics, cutting=Cutting(handed=hand))
    methods = {"half-square-triangle": "single-triangles"}
    plan = plan_block(project, changed(block, methods=methods), 2)
    told = {cut.label: cut.lean for cut in plan.cuts}
    seen = set()
    for shown in mats_of(project, plan):
        frame = MatFrame.fit(shown, (0, 0, 640, 400))
        for place, _ in shown.places:
            left, top, right, bottom = frame.box(place.at)
            for item in mat_figure(frame):
                if isinstance(item, Polyline) and item.kind == "crosscut":
                    (x, y), (u, v) = item.points
                    if left <= (x + u) / 2 <= right and top <= (y + v) / 2 <= bottom:
                        stood = [(y, -x), (v, -u)]  # a quarter turn: right is up
                        low, high = sorted(stood)
                        rises = low[1] > high[1]
                        assert rises == (told[place.label] == "rising")
                        seen.add(rises)
    assert seen == {True, False}


def test_a_mat_shows_each_cut_that_is_done_and_only_the_next():
    shown = next(on_mats("lantern"))
    for done in range(len(shown.strokes) + 1):
        frame = MatFrame.fit(replace(shown, all_done=done), (0, 0, 640, 400))
        figure = mat_figure(frame)
        lines = [item.kind for item in figure if isinstance(item, Polyline)]
        parts = sum(len(stroke.of) for stroke in shown.strokes[:done])
        assert lines.count("cut-done") == parts
        coming = len(shown.strokes[done].of) if done < len(shown.strokes) else 0
        assert lines.count("next-cut") == coming
        ready = [item for item in figure if isinstance(item, FabricArea) and item.side == "ready"]
        assert len(ready) == sum(0 < when <= done for _, when in shown.places)
    numbers = [
        tag.text for tag in numbers_figure(MatFrame.fit(shown, (0, 0, 640, 400)), range(1, 1000))
    ]
    assert numbers == sorted(set(numbers), key=int)


@pytest.mark.parametrize("view", ["back", "front", "layers"])
@pytest.mark.parametrize("block", ["tide-gate", "heron-bend"])
def test_a_pressed_block_is_covered_once_whichever_way_it_is_seen(block, view):
    project, plan = planned(block)
    pressing = plan.pressing.best
    box = 0.0, 0.0, 500.0, 500.0
    frame = pressed_frame(box, plan.draft, float(pressing.seam), view)
    figure = pressed_figure(plan.draft, pressing.layers, project, frame, view)
    patches = [item for item in figure if isinstance(item, FabricArea)][: len(plan.draft.patches)]
    wide, high = (float(x) for x in plan.block.finished)
    whole = sum(area_of(item.outline) for item in patches) / frame.scale**2
    assert whole == pytest.approx(wide * high, rel=0.01)  # arcs are drawn as lines
    assert view != "layers" or sum(isinstance(i, Area) for i in figure) == len(pressing.layers)


def test_arrows_seen_from_the_back_are_those_of_the_front_left_for_right():
    _, plan = planned("tide-gate")
    pressing = plan.pressing.best
    seam, box = float(pressing.seam), (0.0, 0.0, 500.0, 500.0)
    back, front = (
        arrows_figure(pressing, pressed_frame(box, plan.draft, seam, view))
        for view in ("back", "front")
    )
    heads = [
        [item.points[0] for item in figure if isinstance(item, Area)] for figure in (back, front)
    ]
    assert heads[0]
    for (x, y), (u, v) in zip(*heads, strict=True):
        assert (500 - x, y) == pytest.approx((u, v))


def test_a_top_is_covered_once():
    plan = plan_quilt(load(DEMO))
    figure = top_figure(plan.top, plan.project)
    areas = list(figure.areas())
    assert len(areas) == figure.many
    wide, high = figure.size
    whole = sum(area_of(area.outline) for area in areas)
    assert whole == pytest.approx(wide * high, rel=0.001)
