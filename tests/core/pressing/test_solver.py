"""The solver's answers against all answers, tried one by one."""

from __future__ import annotations

import json
import random
from itertools import product
from pathlib import Path
from typing import get_args

import numpy as np
import pytest

from inlet.core.plan.block import plan_block
from inlet.core.pressing.alike import Decisions, Follows, VersionChoice, VersionOption
from inlet.core.pressing.costs import NEVER, CostTable
from inlet.core.pressing.find import find_pressing
from inlet.core.pressing.outcomes import OPEN
from inlet.core.pressing.program import WORK, Program, cost_of_answer, followed
from inlet.core.pressing.reasons import reason
from inlet.core.pressing.solver import ProgramSum, solve
from inlet.core.project.pressing import BlockPressing, Pin, PressingMethod
from inlet.core.project.value import replace
from tests.blocks import F, project_of
from tests.core.assembly.test_assembly import ALL
from tests.core.minimum.by_milp import by_milp
from tests.core.pressing.drawn import NAMED
from tests.core.pressing.scattered import scattered
from tests.sample import WHOLE, many, sampled

DATA = Path(__file__).parents[2] / "data"
BLOCKS = {**ALL, **NAMED}
MOST_FREE = 14
"""Decisions of which every answer is tried."""


PLANNED = {}


def pressed(block, work=WORK, **wishes):
    """How a block is pressed; what that takes no part in is planned once."""
    if id(block) not in PLANNED:
        PLANNED[id(block)] = block, plan_block(project_of(block), block)
    plan = PLANNED[id(block)][1]
    wished = replace(block, pressing=BlockPressing(**wishes))
    draft = plan.draft._replace(block=wished)
    return find_pressing(project_of(wished), draft, plan.root, plan.units, work)


def least_of_all(program):
    """The least cost over all free decisions and options: every answer in one array, an axis for
    each free decision."""
    free = program.decisions.free
    choices = program.decisions.choices
    best = None
    for options in product(*(range(len(choice.options)) for choice in choices)):
        meant = {d: (d, False) for d in free}
        for choice, option in zip(choices, options, strict=True):
            follows = choice.options[option].follows
            for d, (source, contrary) in zip(choice.decisions, follows, strict=True):
                root, turned = meant[source]
                meant[d] = root, turned ^ contrary
        whole = np.zeros((1,) * len(free), np.int32)
        for table in program.tables:
            if not table.tie:
                whole = whole + over_free(table, meant, free)
        taken = [(i, c) for i, (c, o) in enumerate(zip(choices, options, strict=True))
                 if c.options[o].version]  # fmt: skip
        extra = program.always + sum(program.again[i] for i, _ in taken)
        extra += sum(program.second[part] for part in {c.part for _, c in taken})
        least = int(whole.min()) + extra
        best = least if best is None else min(best, least)
    return best


def over_free(table, meant, free):
    """A table spread over the axes of the free decisions that its own come to."""
    roots = list(dict.fromkeys(meant[d][0] for d in table.spans))
    ways = np.indices((3,) * len(roots))
    index = []
    for d in table.spans:
        root, contrary = meant[d]
        way = ways[roots.index(root)]
        index.append(np.where(way == OPEN, OPEN, 1 - way) if contrary else way)
    costs = np.minimum(table.costs[tuple(index)], TOO_MUCH).astype(np.int32)
    order = sorted(range(len(roots)), key=lambda i: free.index(roots[i]))
    return costs.transpose(order).reshape([3 if d in roots else 1 for d in free])


TOO_MUCH = 10**7
"""In place of what cannot be done: so many of them still fit into the array."""


@pytest.mark.parametrize("method", get_args(PressingMethod))
def test_no_answer_is_cheaper_on_any_block_of_few_seams(method):
    tried = 0
    for name, block in sampled(BLOCKS.items(), 4, get_args(PressingMethod).index(method)):
        for versions in (1, 2) if name in NAMED else (1,):
            plan = pressed(block, method=method, versions=versions)
            if plan is None:
                continue
            choices = np.prod([float(len(c.options)) for c in plan.decisions.choices])
            if choices * 3 ** len(plan.decisions.free) <= 3**MOST_FREE:
                assert plan.gap == 0, name
                assert plan.answer.cost == least_of_all(plan.program) < NEVER, name
                tried += 1
    assert tried > (85 if WHOLE else 18)


def test_the_answer_at_once_is_an_answer_and_no_better_than_proved():
    for block in sampled(BLOCKS.values(), 3):
        best = pressed(block)
        if best is None:
            continue
        first = pressed(block, work=0)
        assert best.cost <= first.cost < NEVER
        assert first.answer.at_least <= best.answer.cost
    for block in sampled(NAMED.values(), 3):
        assert pressed(block).versions == pressed(block).versions  # the same again


@pytest.mark.parametrize("name", ["Nine-patch", "Ring", "pinwheel", "star of geese", "dash"])
def test_a_pin_is_kept_and_never_makes_it_cheaper(name):
    block = BLOCKS[name]
    plan = pressed(block)
    for stretch in sampled(plan.stretches, 6):
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


def test_centres_are_spun_and_left_flat_where_the_maker_says():
    block = NAMED["nine-patch"]
    plan = pressed(block)
    at = next(m.junction.at for m in plan.junctions if m.junction.spin)
    grid = (at.x / block.scale[0], at.y / block.scale[1])
    assert not plan.spun
    spun = pressed(block, pins=(Pin(point=grid, toward="whirl"),))
    assert at in [m.junction.at for m in spun.junctions if m.state == "whirled"]
    assert spun.cost > plan.cost
    all_spun = pressed(block, method="whirl")
    assert len(all_spun.spun) == 4
    flat = pressed(block, method="whirl", pins=(Pin(point=grid, toward="flat"),))
    assert len(flat.spun) < 4


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
    told = {pin.kept: reason(both, pin.span, project_of(block)) for pin in both.pins}
    assert told[True] == "You pinned it so."
    assert told[False] != told[True]  # it does not go the way that pin says
    assert both.cost < 10**8
    two = pressed(block, pins=pins, versions=2)  # a second version of the unit keeps both
    assert all(pin.kept for pin in two.pins)
    assert OPEN in two.answer.ways


SCATTERED = json.loads((DATA / "pressing_least.json").read_text("utf-8"))
"""Grids of squares in fabrics by chance, with what another solver proved to be their least."""


@pytest.mark.parametrize("case", sampled(SCATTERED, 3), ids=lambda case: f"{case['seed']}")
def test_scattered_blocks_cost_what_another_solver_proved(case):
    known = dict(case)
    cost = known.pop("cost")
    plan = scattered(**known)
    assert (plan.answer.cost, plan.gap) == (cost, 0)
    if WHOLE:
        assert by_milp(ProgramSum(plan.program, 0).sum) == cost


def test_little_work_leaves_a_gap_that_is_told_and_never_wrong():
    plan = scattered(7, 7, 7, "nest", 1)
    few = solve(plan.program, work=1)
    assert few.cost >= plan.answer.cost >= few.at_least
    assert cost_of_answer(plan.program, few.ways, few.options) == few.cost
    assert few == solve(plan.program, work=1)
    again = solve(plan.program, work=10**7, ties=False, known=few)
    assert (again.cost, again.gap) == (plan.answer.cost, 0)


def test_of_the_cheapest_answers_the_one_that_loses_fewest_ties_is_taken():
    """All assignments of a small block tried: cost first, ties next."""
    plan = scattered(3, 2, 51, "dark", 1)
    free = plan.decisions.free
    best = None
    for ways in product(range(3), repeat=len(free)):
        every = followed(plan.program, ways_of(plan, free, ways), plan.answer.options)
        worth = cost_of_answer(plan.program, every, plan.answer.options), ties_of(plan, every)
        best = worth if best is None else min(best, worth)
    assert not plan.decisions.choices
    assert (plan.answer.cost, ties_of(plan, plan.answer.ways)) == best


def random_program(seed):
    """Decisions by chance; some follow others as one of several options says, some options being
    second versions; some rows of tables that cannot be."""
    chance = random.Random(seed)
    free, bound = chance.randint(1, 5), chance.randint(0, 3)
    number, choices = free + bound, []
    for d in range(free, number):
        options = tuple(
            VersionOption(k, (Follows(chance.randrange(d), chance.random() < 0.5),))
            for k in range(chance.randint(1, 3))
        )
        choices.append(VersionChoice(chance.randint(0, 1), (), (d,), options))
    tables = []
    for _ in range(chance.randint(1, 2 * number)):
        spans = tuple(chance.sample(range(number), chance.randint(1, min(3, number))))
        costs = np.array([chance.choice((0, 0, 2, 5, 9)) for _ in range(3 ** len(spans))])
        tie = chance.random() < 0.2
        costs[[not tie and chance.random() < 0.1 for _ in costs]] = NEVER
        tables.append(CostTable(spans, costs.reshape((3,) * len(spans)), tie))
    again = tuple(chance.randint(0, 4) for _ in choices)
    decisions = Decisions(number, tuple(choices), ())
    together = tuple((Follows(d, False),) for d in range(number))
    second = {0: chance.randint(0, 4), 1: chance.randint(0, 4)}
    return Program(decisions, tuple(tables), together, second, again, chance.randint(0, 3))


def test_programs_by_chance_come_to_the_least_of_every_answer():
    for seed in range(many(150, 1000)):
        program = random_program(seed)
        least = least_of_all(program)
        for ties in (True, False):
            answer = solve(program, 10**6, ties)
            assert answer.cost == cost_of_answer(program, answer.ways, answer.options), seed
            if least < TOO_MUCH:
                assert (answer.cost, answer.at_least) == (least, least), seed
            else:
                assert answer.cost >= NEVER, seed


def ways_of(plan, free, ways):
    every = [0] * plan.decisions.number
    for d, way in zip(free, ways, strict=True):
        every[d] = way
    return every


def ties_of(plan, ways):
    tables = (table for table in plan.program.tables if table.tie)
    return sum(int(table.costs[tuple(ways[d] for d in table.spans)]) for table in tables)
