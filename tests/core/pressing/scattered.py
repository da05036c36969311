"""Grids of squares in fabrics by chance, pressed."""

from __future__ import annotations

import random

from inlet.core.plan.block import plan_block
from inlet.core.pressing.find import find_pressing
from inlet.core.pressing.pressing_plan import PressingPlan
from inlet.core.project.pressing import BlockPressing, PressingMethod
from inlet.core.project.value import replace
from tests.blocks import block_of, project_of


def scattered(
    columns: int, rows: int, seed: int, method: PressingMethod, versions: int
) -> PressingPlan | None:
    chance = random.Random(seed)
    drawn = [f"{x} 0 {x} {rows}" for x in range(1, columns)]
    drawn += [f"0 {y} {columns} {y}" for y in range(1, rows)]
    fabrics = "".join(chance.choice("abcde") for _ in range(columns * rows))
    block = block_of(" / ".join(drawn), columns, rows, (2 * columns, 3 * rows), fabrics)
    block = replace(block, pressing=BlockPressing(method=method, versions=versions))
    plan = plan_block(project_of(block), block)
    return find_pressing(plan.project, plan.draft, plan.root, plan.units)
