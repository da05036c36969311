"""The cheapest answer, proved, or with the gap to what is: the least of a sum of tables.

Decisions are variables; so is each choice, its values the options, and whether a part has a second
version. That a decision follows what its option says is a table, impossible where it does not. Ties
are a cost far below every other.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np
from numpy.typing import NDArray

from inlet.core.minimum import IMPOSSIBLE, TableSum, least_of, summed
from inlet.core.pressing.costs import NEVER
from inlet.core.pressing.greedy import first_answer, with_better_ties
from inlet.core.pressing.outcomes import WAYS
from inlet.core.pressing.program import (
    WORK,
    PressingAnswer,
    Program,
    cost_of_answer,
    followed,
    one_way,
)

OVER_TIES = 1 << 16
"""How much more than a tie a point weighs where both are made least at once: more ties than any
block has."""
MOST_WITH_TIES = 320
"""Decisions of a program whose ties are made least with its cost; in a larger one they are made
fewer."""


def solve(
    program: Program, work: int = WORK, ties: bool = True, known: PressingAnswer | None = None
) -> PressingAnswer:
    """The cheapest answer, proved or with how far it may be from it, found with so much work, no
    dearer than one that is ``known``. Of those that cost as much one that loses few ties, if
    ``ties`` matter."""
    answer = known or first_answer(program)
    if ties and program.decisions.number <= MOST_WITH_TIES:
        answer = ProgramSum(program, OVER_TIES).solved(answer, work // 2)
        if answer.gap == 0:
            return answer
        work //= 2
    answer = ProgramSum(program, 0).solved(answer, work)
    return with_better_ties(program, answer) if ties else answer


Told = Iterator[tuple[Sequence[int], NDArray[np.int64]]]


class ProgramSum:
    """A program as a sum of tables: its decisions first, then its choices, then the parts that may
    have a second version. ``worth`` is how many ties a point is worth; 0 leaves ties out."""

    def __init__(self, program: Program, worth: int) -> None:
        self.program, self.worth = program, worth
        self.point = worth or 1
        choices = program.decisions.choices
        self.first_option = program.decisions.number
        self.parts = sorted({choice.part for choice in choices})
        first_part = self.first_option + len(choices)
        self.part_at = {part: first_part + i for i, part in enumerate(self.parts)}
        sizes = [WAYS] * self.first_option + [len(c.options) for c in choices]
        whole = summed(sizes + [2] * len(self.parts), self._tables())
        self.sum: TableSum = whole._replace(constant=program.always * self.point)

    def _tables(self) -> Told:
        for table in self.program.tables:
            if not table.tie:
                costs = np.where(table.costs >= NEVER, IMPOSSIBLE, table.costs * self.point)
                yield table.spans, costs
            elif self.worth:
                yield table.spans, table.costs
        for part, at in self.part_at.items():
            yield (at,), np.array([0, self.program.second.get(part, 0) * self.point])
        for i, choice in enumerate(self.program.decisions.choices):
            option = self.first_option + i
            taken = np.array([bool(o.version) for o in choice.options])
            yield (option,), taken * self.program.again[i] * self.point
            not_there = np.stack([taken * IMPOSSIBLE, taken * 0], axis=1)
            yield (option, self.part_at[choice.part]), not_there
            yield from self._follows(i)

    def _follows(self, i: int) -> Told:
        """That the decisions of a choice go as what its option says."""
        choice, option = self.program.decisions.choices[i], self.first_option + i
        for k, taken in enumerate(choice.options):
            for d, source in zip(choice.decisions, taken.follows, strict=True):
                costs = np.zeros((len(choice.options), WAYS, WAYS), np.int64)
                costs[k] = IMPOSSIBLE
                for way in range(WAYS):
                    costs[k, way, one_way(way, source.contrary)] = 0
                if source.decision == d:
                    yield (option, d), np.diagonal(costs, axis1=1, axis2=2)
                else:
                    yield (option, d, source.decision), costs

    def solved(self, known: PressingAnswer, work: int) -> PressingAnswer:
        """The least, no dearer than an answer that is known, with what is proved of its cost."""
        program = self.program
        second = {
            choice.part
            for choice, option in zip(program.decisions.choices, known.options, strict=True)
            if choice.options[option].version
        }
        versions = (int(part in second) for part in self.parts)
        least = least_of(self.sum, (*known.ways, *known.options, *versions), work)
        options = least.values[self.first_option : self.first_option + len(known.options)]
        ways = followed(program, least.values[: self.first_option], options)
        cost = cost_of_answer(program, ways, options)
        at_least = max(known.at_least, -(-least.at_least // self.point))
        if self.worth and least.at_least == least.cost:
            at_least = cost
        return PressingAnswer(tuple(ways), tuple(options), cost, min(cost, at_least))
