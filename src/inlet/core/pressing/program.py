"""The program of pressing: every decision one of three ways, the cost a sum of tables over them.

Tables of ties stand beside those of costs: of the answers that cost least, the one with the fewest
ties lost is taken.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.pressing.alike import Decisions, Follows
from inlet.core.pressing.costs import NEVER, CostTable
from inlet.core.pressing.outcomes import OPEN, WAYS

WORK = 40_000_000
"""How much goes into the best pressing: rows of tables and states that are looked at."""


class Program(NamedTuple):
    """Tables over decisions (the ``spans`` of each are decisions here, all different), and costs of
    taking a second version at a choice, or of having one at all, by part. ``together`` are what the
    spans of each seam follow, those that go on in one line; ``always`` is a cost that comes with
    any answer."""

    decisions: Decisions
    tables: tuple[CostTable, ...]
    together: tuple[tuple[Follows, ...], ...]
    second: Mapping[int, int]
    again: tuple[int, ...]
    always: int = 0


class PressingAnswer(NamedTuple):
    """How each decision goes (0, 1 or open) and which option each choice takes; what that costs,
    ties aside, and the least that it can cost as far as is proved."""

    ways: tuple[int, ...]
    options: tuple[int, ...]
    cost: int
    at_least: int

    @property
    def gap(self) -> int:
        return self.cost - self.at_least


def taken_together(tables: Iterable[CostTable]) -> tuple[CostTable, ...]:
    """Tables over the same decisions added up, those over fewer added to one over more, axes in
    the order of the decisions; ties apart."""
    costs: list[CostTable] = []
    ties: list[CostTable] = []
    for table in tables:
        (ties if table.tie else costs).append(table)
    return (*_added_up(costs), *(cost_table._replace(tie=True) for cost_table in _added_up(ties)))


def _added_up(tables: Iterable[CostTable]) -> Iterator[CostTable]:
    arrays: dict[tuple[int, ...], NDArray[np.int64]] = {}
    for table in tables:
        order = sorted(range(len(table.spans)), key=lambda i: table.spans[i])
        spans = tuple(table.spans[i] for i in order)
        costs = table.costs.transpose(order)
        arrays[spans] = arrays[spans] + costs if spans in arrays else costs
    wider_of: dict[int, list[tuple[int, ...]]] = {}
    sums: dict[tuple[int, ...], NDArray[np.int64]] = {}
    for spans in sorted(arrays, key=lambda s: (-len(s), s)):
        known = wider_of.get(spans[0], ()) if len(spans) > 1 else ()
        wider = next((w for w in known if set(spans) <= set(w)), None)
        if wider is None:
            sums[spans] = arrays[spans]
            for d in spans:
                wider_of.setdefault(d, []).append(spans)
        else:
            shape = tuple(WAYS if d in spans else 1 for d in wider)
            sums[wider] = sums[wider] + arrays[spans].reshape(shape)
    yield from (CostTable(spans, np.minimum(costs, NEVER)) for spans, costs in sums.items())


def followed(program: Program, ways: Sequence[int], options: Sequence[int]) -> list[int]:
    """All decisions, those of choices as their options say; ``ways`` holds for the free ones."""
    followed_by = list(ways)
    for choice, option in zip(program.decisions.choices, options, strict=True):
        for d, source in zip(choice.decisions, choice.options[option].follows, strict=True):
            followed_by[d] = one_way(followed_by[source.decision], source.contrary)
    return followed_by


def cost_of_answer(program: Program, ways: Sequence[int], options: Sequence[int]) -> int:
    """What an answer costs, all its decisions given, ties aside."""
    total = program.always + cost_of_versions(program, options)
    return total + sum(cost_in(table, ways) for table in program.tables if not table.tie)


def cost_of_versions(program: Program, options: Sequence[int]) -> int:
    """What it costs that parts have second versions."""
    total, parts = 0, set()
    for i, (choice, option) in enumerate(zip(program.decisions.choices, options, strict=True)):
        if choice.options[option].version:
            parts.add(choice.part)
            total += program.again[i]
    return total + sum(program.second.get(part, 0) for part in parts)


def cost_in(table: CostTable, ways: Sequence[int]) -> int:
    return int(table.costs[tuple(ways[d] for d in table.spans)])


def one_way(way: int, contrary: bool) -> int:
    """A way, or the contrary of it."""
    return 1 - way if contrary and way != OPEN else way
