"""Blocks for timing the assembler: a star, a mixture, a large plain block, herringbones, rings."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from inlet.core.assembly.sewing import sewing_order
from inlet.core.draft.edit import add_seams
from inlet.core.draft.patches import Draft, draft
from inlet.core.draft.tray import Box, drop, tray_units, turned_unit
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.block import Block, straight
from inlet.core.units.breakdown import break_down

TRAY = {tray_unit.words: tray_unit for tray_unit in tray_units()}


def grid(width: int, height: int) -> Block:
    return Block(
        id="bench",
        finished=(F(2) * width, F(2) * height),
        columns=(F(1),) * width,
        rows=(F(1),) * height,
    )


def placed(words: list[str], across: int, cell: int = 4) -> Block:
    """Units in the cells of a grid, every other one turned."""
    high = -(-len(words) // across)
    block = grid(across * cell, high * cell)
    for i, word in enumerate(words):
        x, y = F(i % across * cell), F(i // across * cell)
        box = Box(Point(x, y), Point(x + cell, y + cell))
        block = drop(block, turned_unit(TRAY[word], (i % 4, i % 3 == 0)), box, "a")
    return block


def herringbone(width: int, height: int) -> Block:
    """Bricks of two cells, lying and standing in turn."""

    def brick(x: int, y: int) -> tuple[int, int]:
        k = (x - y) % 4
        return (x - 1, y) if k == 1 else (x, y - 1) if k == 2 else (x, y)

    lines = []
    for y in range(height):
        for x in range(width):
            corner = Point(F(x + 1), F(y + 1))
            if x + 1 < width and brick(x, y) != brick(x + 1, y):
                lines.append(straight(Point(F(x + 1), F(y)), corner))
            if y + 1 < height and brick(x, y) != brick(x, y + 1):
                lines.append(straight(Point(F(x), F(y + 1)), corner))
    return add_seams(grid(width, height), lines)


def nested_rings(count: int) -> Block:
    """Rings of four rectangles, one about the other."""
    size = 2 * count + 1
    lines = []
    for i in range(count):
        low, high = F(i), F(size - i)
        ends = [
            ((low, low + 1), (high - 1, low + 1)),
            ((high - 1, low), (high - 1, high - 1)),
            ((high, high - 1), (low + 1, high - 1)),
            ((low + 1, high), (low + 1, low + 1)),
        ]
        lines += [straight(Point(*a), Point(*b)) for a, b in ends]
    return add_seams(grid(size, size), lines)


def single_order(drawn: Draft) -> object:
    """The assembler alone, patch by patch."""
    return sewing_order(drawn, [frozenset([i]) for i in range(len(drawn.patches))])


def cases(large: Block) -> Iterator[tuple[str, Callable[[], object], str]]:
    """(name, what to time, aim in ms); ``large`` has 400 patches and through seams only."""
    star = draft(placed(["Eight-point star"], 1))
    mixed = ["Ring", "Set-in square", "Half-square triangle", "Petal", "Ring", "Four-patch",
             "Quarter circle", "Set-in square", "Ring", "Hourglass", "Half-square triangle", "Ring",
             "Petal", "Set-in square", "Hourglass", "Quarter circle", "Four-patch"]  # fmt: skip
    mixture = draft(placed(mixed, 4))
    through = draft(large)
    for name, drawn, aim in (
        ("star", star, "30"),
        ("mixture", mixture, "150"),
        ("block of through seams", through, "500"),
    ):
        title = f"joins of a {len(drawn.patches)}-patch {name}"
        yield title, lambda d=drawn: break_down(d), aim
    aims = {4: "", 6: "", 8: "100", 10: "", 12: "", 14: "1000", 20: ""}
    hard = [("herringbone", draft(herringbone(n, n)), aim) for n, aim in aims.items()]
    for name, bone, aim in [*hard, ("nest of rings", draft(nested_rings(29)), "1000")]:
        found = sewing_order(bone, [frozenset([i]) for i in range(len(bone.patches))])
        assert found is not None
        title = f"{name} of {len(bone.patches)} patches"
        title += f", {found.awkward[1]} partial, gap {found.short}"
        yield title, lambda d=bone: single_order(d), aim
