"""States and layers at junctions, told near the point, against allowances folded as a whole."""

from __future__ import annotations

import random
from math import cos, pi, sin

import numpy as np
import pytest

from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.pressing.cones import SHEET, crease, folded_back, layers_in, sectors
from inlet.core.pressing.folding import folded, layers_at
from inlet.core.pressing.outcomes import OPEN, outcome
from inlet.core.pressing.spans import find_seams
from tests.blocks import block_of, project_of
from tests.core.assembly.test_assembly import ALL
from tests.core.pressing.test_folding import S, pressed_at_random
from tests.sample import sampled


def seams_of(block):
    plan = plan_block(project_of(block), block)
    return find_seams(plan.draft, plan.assembly) if plan.assembly else None


def values_at(seams, ways, junction):
    found = [seams.toward(ways, arm.join, arm.place) for arm in junction.arms]
    return np.array([[OPEN if way is None else way for way in found]])


def come_to(seams, ways, junction):
    found = outcome(junction, values_at(seams, ways, junction))
    return found.state(0, bool(junction.crossings)), int(found.layers[0])


def test_a_four_patch_in_every_state():
    seams = seams_of(block_of("1 0 1 2 / 0 1 2 1", 2, 2, (8, 8), "abcd"))
    (centre,) = [j for j in seams.junctions if j.inside]
    told = {
        (1, 0, 1, 1): ("nests", 7),
        (1, 1, 1, 1): ("stacks", 9),
        (None, 1, 0, 0): ("mixed", 6),
        (None, None, 1, 1): ("open", 6),
        (1, 0, 0, 1): ("whirled", 4),
        (0, 1, 1, 0): ("whirled", 4),
    }
    for ways, wanted in told.items():
        state, layers = come_to(seams, ways, centre)
        assert (state, layers if state != "mixed" else 6) == wanted
    turned_wrong = outcome(centre, values_at(seams, (1, 0, 1, 0), centre))
    assert not turned_wrong.possible[0]  # not all four the same way round


@pytest.mark.parametrize("name", sampled(ALL, 2))
def test_layers_near_a_junction_are_those_of_the_folded_allowances(name):
    """Where the drawing is straight: arcs are folded in chords, and have slivers between them."""
    seams = seams_of(ALL[name])
    if seams is None or any(patch.arcs for patch in seams.draft.patches):
        return
    chance = random.Random(name)
    ways = pressed_at_random(seams, chance)
    behind = folded(seams, S, ways)
    inner = [junction for junction in seams.junctions if junction.inside]
    for junction in chance.sample(inner, min(len(inner), 8)):
        assert come_to(seams, ways, junction)[1] == most_near(seams, behind, junction)


def most_near(seams, behind, junction):
    """The most layers on a small round about a junction."""
    round_ = [(k + 0.37) * pi / 20 for k in range(40)]
    x, y = junction.at.floats()
    behind = [
        layer
        for layer in behind
        if all(
            min(c) < at + 0.01 and max(c) > at - 0.01
            for at, c in zip(
                (x, y), zip(*(p.floats() for p in layer.outline), strict=True), strict=True
            )
        )
    ]
    places = [
        Point(junction.at.x + F(round(cos(t) * 3000), 1000003),
              junction.at.y + F(round(sin(t) * 3000), 1000003))
        for t in round_
    ]  # fmt: skip
    return max(layers_at(seams.draft, behind, place) for place in places)


def test_spun_centres_are_folded_by_the_arm_each_patch_lies_beside():
    seams = seams_of(ALL["Checkerboard"])
    inner = [j for j in seams.junctions if j.spin]
    for clockwise in (True, False):
        ways = [None] * len(seams.spans)
        for arm in (*inner[0].spin.ends, *inner[0].spin.arms):
            span, swapped = seams.of[arm.join.number, arm.place]
            ways[span] = arm.side(clockwise) ^ swapped
        assert come_to(seams, ways, inner[0]) == ("whirled", 4)
        assert most_near(seams, folded(seams, S, ways), inner[0]) == 4


def test_folding_keeps_as_much_fabric_in_every_turn_of_a_sheet():
    chance = random.Random(5)
    for _ in range(50):
        cones = SHEET
        for _ in range(4):
            along = crease(chance.uniform(-pi, pi), chance.random() < 0.5, chance.random() < 0.5)
            cones = folded_back(cones, along)
        assert sum(high - low for low, high in cones) == pytest.approx(2 * pi)
        directions = sectors([cones])
        assert layers_in(cones, directions).min() >= 0


def test_a_seam_met_from_one_side_only_is_a_tee_and_a_corner_too():
    states = {
        come_to(seams, [0] * len(seams.spans), junction)[0]
        for seams in (seams_of(ALL["bricks"]), seams_of(ALL["Set-in square"]))
        for junction in seams.junctions
        if junction.inside
    }
    assert states == {"tee"}
