"""Plans checked by another way than they were made: by polygons of floats."""

from __future__ import annotations

import json
import math
from fractions import Fraction as F

import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from inlet.core.draft.symmetry import turned
from inlet.core.plan import deep_trees, plan_block
from inlet.core.project import Block, straight
from inlet.files.plan_json import plan_dict
from inlet.files.project_json import load
from inlet.ui.app import DEMO
from tests.blocks import in_cloths, project_of, through_blocks, turns, unit_blocks

LARGEST = 2**45
"""Integers up to here are exact in the floats of polygons, with room for products' signs."""


def value(text: str) -> float:
    """A number of a plan, read by hand: ``7/2+1/4√2``."""
    if "√2" not in text:
        return float(F(text))
    head = text[: -len("√2")]
    cut = max(head.rfind("+"), head.rfind("-"))
    factor = head[cut:] if cut >= 0 else head
    rest = head[:cut] if cut > 0 else ""
    factor = {"": "1", "+": "1", "-": "-1"}.get(factor, factor)
    return (value(rest) if rest else 0.0) + value(factor.removeprefix("+")) * math.sqrt(2)


def polygons(plan: dict) -> tuple[dict[str, shapely.Polygon], int]:
    """The patches, enlarged until every coordinate is an integer, and by how much."""
    numbers = [F(n) for p in plan["patches"] for corner in p["outline"] for n in corner]
    scale = math.lcm(*(n.denominator for n in numbers))
    if max(numbers) * scale >= LARGEST:
        assume(False)
    return {
        p["id"]: shapely.Polygon([(int(F(x) * scale), int(F(y) * scale)) for x, y in p["outline"]])
        for p in plan["patches"]
    }, scale


def replay(node, patches) -> shapely.Polygon:
    """Sew a tree of joins: each time two pieces of cloth that share one straight stretch of edge,
    all of it from edge to edge, and leave one piece without a hole."""
    if isinstance(node, str):
        return patches[node]
    one, two = (replay(part, patches) for part in node["parts"])
    shared = one.intersection(two)
    assert shared.area == 0
    seam = shapely.line_merge(shared) if shared.geom_type == "MultiLineString" else shared
    assert seam.geom_type == "LineString"
    start, end = seam.coords[0], seam.coords[-1]
    assert seam.length == pytest.approx(math.dist(start, end))
    sewn = one.union(two)
    assert sewn.geom_type == "Polygon"
    assert not sewn.interiors
    assert sewn.touches(shapely.Point(start))
    assert sewn.touches(shapely.Point(end))
    return sewn


def joins(node) -> list[str]:
    """Ids of the joins, inner ones first."""
    if isinstance(node, str):
        return []
    return [*(j for part in node["parts"] for j in joins(part)), node["id"]]


def verify(plan: dict) -> None:
    patches, scale = polygons(plan)
    width, height = (value(n) for n in plan["block"]["finished"])
    total = sum(p.area for p in patches.values())
    assert total == pytest.approx(width * height * scale * scale)
    if plan["assembly"] is not None:
        sewn = replay(plan["assembly"], patches)
        assert sewn.equals(shapely.box(0, 0, width * scale, height * scale))
        ids = joins(plan["assembly"])
        assert ids == [f"j{i + 1}" for i in range(len(patches) - 1)]
    copies = plan["copies"]
    in_units = 0.0
    for unit in plan["units"]:
        a, b = (value(n) for n in unit["finished"])
        if unit["kind"] != "other":
            in_units += a * b * unit["count"]
        for n, u in zip(unit["finished"], unit["unfinished"], strict=True):
            assert value(u) == pytest.approx(value(n) + 0.5)
        for method in unit["methods"]:
            verify_cloth(unit, method, a * b)
    if all(unit["kind"] != "other" for unit in plan["units"]):
        assert in_units == pytest.approx(width * height * copies)
    for fabric in plan["fabric"]:
        strips = sum(value(s) for s in fabric["strips"])
        assert strips == pytest.approx(value(fabric["length"]))
        assert value(fabric["yards"]) * 36 >= strips - 1e-9
        assert 0 < fabric["used"] <= 1


def verify_cloth(unit: dict, method: dict, finished: float) -> None:
    """No method makes units of less cloth than shows in them."""
    area = 0.0
    for piece in method["pieces"]:
        w, h = (value(n) for n in piece["exact"])
        area += w * h * piece["count"]
    if unit["kind"] != "other":
        assert area > finished * unit["count"]


@given(through_blocks(most=9), st.integers(1, 4))
@settings(max_examples=40)
def test_joins_replayed_by_polygons_give_the_block(block, copies):
    plan = plan_block(project_of(block), block, copies)
    verify(json.loads(json.dumps(plan_dict(plan))))


@given(unit_blocks(), turns)
@settings(max_examples=30)
def test_blocks_of_units_too_in_any_turn(block, turn):
    block = turned(block, turn)
    verify(json.loads(json.dumps(plan_dict(plan_block(project_of(block), block)))))


@pytest.mark.parametrize("name", ["sluice", "channel-marker", "slipway", "lantern"])
def test_the_demo(name):
    project = load(DEMO)
    plan = plan_dict(plan_block(project, project.block(name), 30))
    assert plan["resewn"]
    verify(json.loads(json.dumps(plan)))


def test_rounds_nest_as_deep_as_they_like():
    """Strips round a centre: each join inside the next, deeper than Python usually goes."""
    rounds, low, high, drawn = 110, 0, 280, []
    left, top, right, bottom = F(low), F(low), F(high), F(high)
    for k in range(rounds):
        if k % 4 == 0:
            top += 1
            drawn.append(straight((left, top), (right, top)))
        elif k % 4 == 1:
            right -= 1
            drawn.append(straight((right, top), (right, bottom)))
        elif k % 4 == 2:
            bottom -= 1
            drawn.append(straight((left, bottom), (right, bottom)))
        else:
            left += 1
            drawn.append(straight((left, top), (left, bottom)))
    block = Block(
        id="cabin", finished=(F(70), F(70)), columns=(F(280),), rows=(F(280),), seams=tuple(drawn)
    )
    block = in_cloths(block, "ab")
    plan = plan_block(project_of(block), block)
    assert plan.resewn
    with deep_trees():
        assert len(json.dumps(plan_dict(plan))) > 10_000
