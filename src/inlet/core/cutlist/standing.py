"""How the pieces of a print with a direction stand: how many of each stack are cut along it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence

from inlet.core.cutlist.cuts import Stacks
from inlet.core.planning import UnitPlan

Standing = Mapping[str, int]
"""By the label of a stack: how many of its pieces stand with their long side along the print,
which runs up the block as it runs along the fabric."""


def standing(units: Sequence[UnitPlan], stacks: Stacks) -> dict[str, int]:
    """The rectangles of prints with a direction that stand upright in the block. Only pieces that
    are sewn as they are cut keep how they lay; of others it is not told."""
    counts: Counter[str] = Counter()
    for plan in units:
        for cut, stack in zip(plan.in_use.pieces, stacks[plan.unit.label], strict=True):
            squares = cut.upright.squares if cut.upright else {}
            number = sum(n for (_, upright), n in squares.items() if upright)
            if number:
                counts[stack] += number
    return dict(counts)


def turned_prints(units: Sequence[UnitPlan]) -> Iterator[tuple[str, list[UnitPlan]]]:
    """The prints with a direction, by their fabric, and the units in which they do not stand
    upright as these are made."""
    prints: dict[str, list[UnitPlan]] = {}
    for plan in units:
        method = plan.in_use
        if method.turns_print:
            used = (*(p.piece.fabric for p in method.pieces),)
            for fabric in dict.fromkeys(f for f in used if f in plan.directions):
                prints.setdefault(str(fabric), []).append(plan)
    yield from prints.items()
