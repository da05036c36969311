"""Pressing: the first answer and the proved one, and the folded allowances."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator

from tests.blocks import split_block

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.plan.drawn_block import BlockPlan
from inlet.core.pressing.find import find_pressing
from inlet.core.pressing.pressing_plan import PressingPlan
from inlet.core.pressing.program import WORK
from inlet.core.pressing.solver import solve
from inlet.core.project.block import Block, FabricAt, straight
from inlet.core.project.fabric import Fabric
from inlet.core.project.pressing import BlockPressing
from inlet.core.project.project import Project
from inlet.core.project.quilt import Quilt
from inlet.core.project.value import replace


def squares(columns: int, rows: int) -> Block:
    """A grid of squares in five fabrics, scattered: every row is another."""
    chance = random.Random(columns * 100 + rows)
    seams = [straight((F(x), F(0)), (F(x), F(rows))) for x in range(1, columns)]
    seams += [straight((F(0), F(y)), (F(columns), F(y))) for y in range(1, rows)]
    spots = [
        FabricAt(point=(x + F(1, 2), y + F(1, 2)), fabric=chance.choice("abcde"))
        for x in range(columns)
        for y in range(rows)
    ]
    return Block(
        id="bench", finished=(F(2 * columns), F(2 * rows)), columns=(F(1),) * columns,
        rows=(F(1),) * rows, seams=tuple(seams), fabric_at=tuple(spots),
    )  # fmt: skip


Case = tuple[str, Callable[[], object], str]


def splits(number: int) -> Block:
    """A block split at random, again and again, in five fabrics."""
    chance = random.Random(number)
    block = replace(split_block(chance.randint, number), id="bench")
    spots = (replace(spot, fabric=chance.choice("abcde")) for spot in block.fabric_at)
    return replace(block, fabric_at=tuple(spots))


def cases(fabrics: tuple[Fabric, ...]) -> Iterator[Case]:
    """What is measured, how, and the aim in milliseconds: of all, and of the search alone."""
    blocks = (
        (squares(5, 4), 100, 50), (squares(8, 8), 400, 150), (squares(14, 14), 3000, 1000),
        (squares(20, 20), 6000, 5000), (splits(420), 1500, 100),
    )  # fmt: skip
    for block, aim, alone in blocks:
        plan = plan_block(Project(fabrics=fabrics, blocks=(block,)), block)
        yield from _answers(f"{len(plan.draft.patches) - 1} seams", plan, aim, alone)
    block = replace(squares(4, 4), pressing=BlockPressing(versions=2))
    quilt = Quilt(columns=8, rows=9, block=block.id)
    project = Project(fabrics=fabrics, blocks=(block,), quilt=quilt)
    yield from _answers("a quilt of 8 x 9 blocks", plan_block(project, block), 2000, 100)


def _answers(name: str, plan: BlockPlan, aim: int, alone: int) -> Iterator[Case]:
    def pressed(work: int) -> PressingPlan:
        found = find_pressing(plan.project, plan.draft, plan.root, plan.units, work)
        assert found is not None
        return found

    best, first = pressed(WORK), pressed(0)
    gap = f"gap {best.gap / 1000:g}, versions {len(best.versions)}"
    yield f"pressing {name}, at once ({first.cost / 1000:.0f} points)", lambda: pressed(0), str(aim)
    name = f"pressing {name}, proved ({best.cost / 1000:.0f} points, {gap})"
    yield name, lambda: pressed(WORK), str(aim)
    program = best.program
    yield "  its search alone, without ties", lambda: solve(program, ties=False), str(alone)
    yield "  its allowances folded", lambda: best.layers_of(0), ""
