"""The demo quilt's fabric, piece by piece, beside counts by hand and areas by polygons."""

from __future__ import annotations

import json
from collections import Counter
from math import ceil, sqrt

import pytest
import shapely

from inlet.core.numbers.text import parse_exact
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.files.project.project_json import load
from inlet.files.text.plan_json import plan_dict
from inlet.files.text.quilt_json import quilt_dict
from inlet.ui.shell.app import DEMO
from tests.core.layout.mat import follow

ROOT2 = sqrt(2)
GROWS = 2 * (7.75 / 2 - 0.5 - ROOT2 / 4 - 3)
"""A 9 in Sluice has two half-square triangles along each edge, cut eight at a time from 7 3/4."""
MIDDLE = 4 * (10 + GROWS) * ROOT2, 5 * (10 + GROWS) * ROOT2
"""Four by five blocks with 1 in sashing on point."""


@pytest.fixture(scope="module")
def plan():
    return plan_quilt(load(DEMO))


@pytest.fixture(scope="module")
def data(plan):
    return json.loads(json.dumps(quilt_dict(plan)))


def number(text):
    return float(parse_exact(text))


def strips(total, room=42.0, lost=0.5):
    """How many strips joined end to end reach so far."""
    n = 1
    while room + (n - 1) * (room - lost) < total - 1e-9:
        n += 1
    return n


def test_every_cut_by_hand(data):
    """4 · 5 + 3 · 4 = 32 Sluice blocks, four of them in Evening. In each: four 3 in half-square
    triangles, eight at a time from squares 2(3 + 1/2 + √2/4) = 7.71, so 7 3/4; one 3 1/2 in square
    of Buoy; four units of three 1 in strips."""
    assert data["blocks"] == {"sluice": 32}
    found = Counter()
    for cut in data["cuts"]:
        found[cut["fabric"], tuple(cut["cut"]), cut["crosscut"]] += cut["count"]
    w, h = MIDDLE
    first = 2 * (h + 0.5) + 2 * (w + 2 + 0.5)  # 1 in of Buoy, butted
    assert strips(first, lost=1.5) == 7  # a diagonal join takes a strip's width
    over = 0.5 + 4  # mitred: 2 in at either end
    second = 2 * (ceil((w + 12 + over) * 8) + ceil((h + 12 + over) * 8)) / 8
    around = 2 * (w + 12 + h + 12) + 2 + 10
    wanted = {
        ("deep-water", ("31/4", "31/4"), "none"): 14 + 2,  # 28 · 4/8 and 4 · 4/8 runs
        ("fog", ("31/4", "31/4"), "none"): 14,
        ("marram", ("31/4", "31/4"), "none"): 2,
        ("buoy", ("7/2", "7/2"), "none"): 32,
        # 9√2 + 1/2 + √2/2 = 13.93; 9/√2 + 1/2 + √2/4 = 7.22; √2 + 1/2 + √2/2 = 2.62
        ("silt", ("14", "14"), "twice"): ceil((2 * 3 + 2 * 4) / 4),
        ("silt", ("29/4", "29/4"), "once"): 2,
        ("buoy", ("21/8", "21/8"), "twice"): ceil(2 * (4 + 5) / 4),
        # Four to a block, shared: 4 · 32 and two to each of 14 triangles, one to each corner: half.
        # As long as the block comes out, 9.043 + 1/2: nearest on the 1/16 marks.
        ("fog", ("3/2", "153/16"), "none"): (4 * 32 + 2 * 14 + 4) // 2,
        # Where four strips meet: inner crossings of the lattice, 4 · 5 + 5 · 4 - (4 + 5).
        ("buoy", ("3/2", "3/2"), "none"): 4 * 5 + 5 * 4 - 9,
        ("buoy", ("3/2", "42"), "none"): strips(first, lost=1.5),
        ("deep-water", ("11/2", "42"), "none"): strips(second, lost=5.5),
        ("deep-water", ("9/4", "42"), "none"): strips(around, lost=2.25),
    }  # fmt: skip
    sewn = {key: n for key, n in found.items() if key[1][0] == "3/2" and key not in wanted}
    assert {key: n for key, n in found.items() if key not in sewn} == wanted
    lengths = Counter()
    for (fabric, (_, long), _), n in sewn.items():
        lengths[fabric] += n * number(long)
    # 28 and 4 blocks with four units, each a segment of 3 1/2 in of three strips.
    needed = {"silt": 28 * 4 * 2 * 3.5, "fog": 4 * 4 * 2 * 3.5, "eelgrass": 32 * 4 * 3.5}
    for fabric, least in needed.items():
        assert least <= lengths[fabric] <= least + 2 * 14 * 1.5


def test_the_fabric_cut_holds_every_patch_with_its_allowance(plan, data):
    """Areas: every patch of every block, every piece of the top, grown by 1/4 in all round."""
    needed = Counter()
    for block in plan.blocks:
        alone = plan_block(plan.project, block.block, block.number)
        for patch in plan_dict(alone)["patches"]:
            corners = [[number(x) for x in p] for p in patch["outline"]]
            grown = shapely.Polygon(corners).buffer(0.25, join_style="mitre", mitre_limit=99)
            needed[patch["fabric"]] += block.number * grown.area
    for row in data["rows"]:
        for piece in row["pieces"]:
            if "fabric" in piece:
                corners = [[number(x) for x in p] for p in piece["outline"]]
                grown = shapely.Polygon(corners).buffer(0.25, join_style="mitre", mitre_limit=99)
                needed[piece["fabric"]] += grown.area
    w, h = MIDDLE
    needed["buoy"] += 1.5 * (2 * h + 2 * w + 4)
    needed["deep-water"] += 5.5 * (2 * h + 2 * w + 20) + 2.25 * (2 * (w + h + 24))
    cut = Counter()
    for each in data["cuts"]:
        low, high = map(number, each["cut"])
        cut[each["fabric"]] += low * high * each["count"]
    assert set(cut) == set(needed)
    for fabric, area in needed.items():
        assert area <= cut[fabric] * 1.001, fabric
        assert cut[fabric] <= 1.35 * area + 60, fabric


def test_the_cutting_plan_of_the_demo_followed_at_the_mat(data):
    ready = Counter()
    for on_mat in data["cutting"]:
        ready += follow(on_mat)
    for cut in data["cuts"]:
        assert ready[cut["label"]] >= cut["count"], cut["label"]
    for fabric in data["fabric"]:
        own = [c for c in data["cutting"] if c["fabric"] == fabric["fabric"]]
        assert number(fabric["buy"]) >= sum(number(c["cut_up"]) for c in own)


def test_backing_and_batting_by_hand(data):
    """8 in more than 68.81 x 83.01: two widths of 42 joined reach 83 across 76.81; each 91.01
    long."""
    w, h = MIDDLE
    size = [number(x) for x in data["backing"]["size"]]
    assert size == pytest.approx([w + 12 + 8, h + 12 + 8], abs=1e-3)
    assert (data["backing"]["widths"], data["backing"]["seam"]) == (2, "along")
    assert number(data["backing"]["length"]) == pytest.approx(2 * (h + 20), abs=1e-3)
    assert data["batting"] == data["backing"]["size"]
