"""The solver's answers against all answers, tried one by one."""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest

from inlet.core.plan import plan_block
from inlet.core.pressing.costs import NEVER
from inlet.core.pressing.find import find_pressing
from inlet.core.pressing.outcomes import OPEN
from inlet.core.project.pressing import SCHOOLS, BlockPressing, Pin
from inlet.core.project.value import replace
from tests.blocks import F, project_of
from tests.core.assembly.test_assembly import ALL
from tests.core.pressing.drawn import NAMED

BLOCKS = {**ALL, **NAMED}
MOST_FREE = 14


PLANNED = {}


def pressed(block, seconds=10, **wishes):
    """How a block is pressed; what that takes no part in is planned once."""
    if id(block) not in PLANNED:
        PLANNED[id(block)] = block, plan_block(project_of(block), block)
    plan = PLANNED[id(block)][1]
    wished = replace(block, pressing=BlockPressing(**wishes))
    draft = plan.draft._replace(block=wished)
    return find_pressing(project_of(wished), draft, plan.root, plan.units, seconds)


def least_of_all(program):
    """The least cost over all free decisions and options, all of them tried."""
    free = program.decisions.free
    number = program.decisions.number
    best = None
    tried = np.indices((3,) * len(free), np.int8).reshape(len(free), -1)
    choices = program.decisions.choices
    for options in product(*(range(len(choice.options)) for choice in choices)):
        ways = [None] * number
        for d, column in zip(free, tried, strict=True):
            ways[d] = column
        for choice, option in zip(choices, options, strict=True):
            follows = choice.options[option].follows
            for d, (source, contrary) in zip(choice.decisions, follows, strict=True):
                column = ways[source]
                ways[d] = np.array([1, 0, 2], np.int8)[column] if contrary else column
        cost = np.zeros(tried.shape[1], np.int64)
        for table in program.tables:
            if table.tie:
                continue
            cost += table.costs[tuple(ways[d] for d in table.spans)]
        versions = {c.part for c, o in zip(choices, options, strict=True) if c.options[o].version}
        extra = sum(program.second[part] for part in versions) + program.always
        extra += sum(
            again
            for again, c, o in zip(program.again, choices, options, strict=True)
            if c.options[o].version
        )
        least = int(cost.min()) + extra
        best = least if best is None else min(best, least)
    return best


@pytest.mark.parametrize("school", SCHOOLS)
def test_no_answer_is_cheaper_on_any_block_of_few_seams(school):
    tried = 0
    for name, block in BLOCKS.items():
        for versions in (1, 2):
            plan = pressed(block, school=school, versions=versions)
            if plan is None:
                continue
            choices = np.prod([float(len(c.options)) for c in plan.decisions.choices])
            if choices * 3 ** len(plan.decisions.free) <= 3**MOST_FREE:
                assert plan.gap == 0, name
                assert plan.answer.cost == least_of_all(plan.program) < NEVER, name
                tried += 1
    assert tried > 130


def test_the_answer_at_once_is_an_answer_and_no_better_than_proved():
    for block in BLOCKS.values():
        best = pressed(block)
        if best is None:
            continue
        first = pressed(block, seconds=0)
        assert best.cost <= first.cost < NEVER
        assert first.answer.at_least <= best.answer.cost
        assert pressed(block).versions == best.versions  # the same again


@pytest.mark.parametrize("name", ["Nine-patch", "Ring", "pinwheel", "star of geese", "dash"])
def test_a_pin_is_kept_and_never_makes_it_cheaper(name):
    block = BLOCKS[name]
    plan = pressed(block)
    for stretch in plan.stretches[::3]:
        point = middle(plan, stretch)
        for toward in ("open", *(inside(plan, face) for face in stretch.beside)):
            pinned = pressed(block, pins=(Pin(point=point, toward=toward),))
            assert pinned.cost >= plan.cost
            assert [pin.kept for pin in pinned.pins] == [True]
            now = next(s for s in pinned.stretches if s[:3] == stretch[:3])
            if toward == "open":
                assert now.toward is None
            else:
                assert now.toward == stretch.beside[toward == inside(plan, stretch.beside[1])]


def middle(plan, stretch):
    """The middle of a stretch's first edge, in grid units."""
    arrangement = plan.seams.draft.arrangement
    edge = arrangement.edges[stretch.join.edges[stretch.begin]]
    p, q = arrangement.points[edge.start], arrangement.points[edge.end]
    return (p.x + q.x) / 2, (p.y + q.y) / 2


def inside(plan, face):
    spots = zip(plan.seams.draft.homes, plan.seams.draft.block.fabric_at, strict=True)
    return next(spot.point for home, spot in spots if home == face)


def test_centres_are_whirled_and_left_flat_where_the_maker_says():
    block = NAMED["nine-patch"]
    plan = pressed(block)
    at = next(m.junction.at for m in plan.junctions if m.junction.whirl)
    grid = (at.x / block.scale[0], at.y / block.scale[1])
    assert not plan.whirled
    whirled = pressed(block, pins=(Pin(point=grid, toward="whirl"),))
    assert at in [m.junction.at for m in whirled.junctions if m.state == "whirled"]
    assert whirled.cost > plan.cost
    all_whirled = pressed(block, school="whirl")
    assert len(all_whirled.whirled) == 4
    flat = pressed(block, school="whirl", pins=(Pin(point=grid, toward="flat"),))
    assert len(flat.whirled) < 4


def test_pins_that_contradict_one_another_are_told():
    block = NAMED["pinwheel"]
    corner, across = (F(1, 2), F(1, 2)), (F(3, 2), F(3, 2))  # two equal units, turned
    first = pressed(block).stretches
    (one,) = [s for s in first if s.join.number == 1]
    plan = pressed(block)
    light, dark = sorted(one.beside, key=lambda f: plan.block.lightness[f], reverse=True)
    pins = (
        Pin(point=corner, toward=inside(plan, dark)),
        Pin(point=across, toward="open"),
        Pin(point=(F(1, 7), F(1, 2)), toward=inside(plan, light)),  # on no seam
    )
    both = pressed(block, pins=pins)
    assert [pin.kept for pin in both.pins].count(True) == 1
    assert len(both.pins) == 2
    assert both.cost < 10**8
    two = pressed(block, pins=pins, versions=2)  # a second version of the unit keeps both
    assert all(pin.kept for pin in two.pins)
    assert OPEN in two.answer.ways
