"""An answer at once, by changing one seam after the other as long as that is better."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from inlet.core.pressing.alike import Follows
from inlet.core.pressing.outcomes import WAYS
from inlet.core.pressing.program import (
    PressingAnswer,
    Program,
    cost_in,
    cost_of_answer,
    followed,
    one_way,
)

MOST_ROUNDS = 20


OVER_TIES = 1 << 30
"""How much more than a tie a cost weighs in the search."""


def greedy(program: Program) -> PressingAnswer:
    """An answer at once: every seam the cheapest way by itself, then one after the other changed,
    spans of one seam together or singly, as long as that makes the whole cheaper. It proves only
    that no cost is below that of the cheapest rows."""
    return _Search(program).run()


def with_better_ties(program: Program, answer: PressingAnswer) -> PressingAnswer:
    """An answer changed as long as it gets no dearer and loses fewer ties."""
    pressing_answer = _Search(program, answer).run()
    return pressing_answer._replace(
        at_least=min(pressing_answer.cost, max(answer.at_least, pressing_answer.at_least))
    )


class _Search:
    """A search from an answer, or from every seam as it is cheapest by itself."""

    def __init__(self, program: Program, start: PressingAnswer | None = None) -> None:
        self.program, self.start = program, start
        self.choices = program.decisions.choices
        self.tables_of: list[list[int]] = [[] for _ in range(program.decisions.number)]
        for t, table in enumerate(program.tables):
            for d in table.spans:
                self.tables_of[d].append(t)
        self.bound = {d for choice in self.choices for d in choice.decisions}
        self.options = list(start.options) if start else [0] * len(self.choices)
        self.ways = list(start.ways) if start else [0] * program.decisions.number

    def run(self) -> PressingAnswer:
        if self.start is None:
            for seam in self.program.together:
                self.set(min(range(WAYS), key=lambda way: self.alone(seam, way)), seam)
        self.ways = followed(self.program, self.ways, self.options)
        worth = self.whole()
        singly = [(follow,) for seam in self.program.together if len(seam) > 1 for follow in seam]
        for _ in range(MOST_ROUNDS):
            before = worth
            for seam in (*self.program.together, *singly):
                for way in range(WAYS):
                    worth += self.try_way(seam, way)
            for i, choice in enumerate(self.choices):
                for option in range(len(choice.options)):
                    worth = self.try_option(i, option, worth)
            if worth == before:
                break
        least = sum(int(table.costs.min()) for table in self.program.tables if not table.tie)
        least += self.program.always
        cost = cost_of_answer(self.program, self.ways, self.options)
        return PressingAnswer(tuple(self.ways), tuple(self.options), cost, min(cost, least))

    def alone(self, seam: Sequence[Follows], way: int) -> int:
        """What a seam costs by itself."""
        total = 0
        for follow in seam:
            for t in self.tables_of[follow.decision]:
                table = self.program.tables[t]
                if len(table.spans) == 1:
                    worth = 1 if table.tie else OVER_TIES
                    total += int(table.costs[one_way(way, follow.contrary)]) * worth
        return total

    def set(self, way: int, seam: Sequence[Follows]) -> None:
        for follow in seam:
            if follow.decision not in self.bound:
                self.ways[follow.decision] = one_way(way, follow.contrary)

    def try_way(self, seam: Sequence[Follows], way: int) -> int:
        """Press a seam a way if that makes the whole cheaper; by how much it changed."""
        before = list(self.ways)
        self.set(way, seam)
        if self.choices:
            self.ways = followed(self.program, self.ways, self.options)
        touched = self.bound.union(follow.decision for follow in seam)
        changed = [d for d in touched if before[d] != self.ways[d]]
        if not changed:
            return 0
        tables = {t for d in changed for t in self.tables_of[d]}
        change = self.of(tables, self.ways) - self.of(tables, before)
        if change >= 0:
            self.ways = before
        return min(change, 0)

    def of(self, tables: Iterable[int], ways: Sequence[int]) -> int:
        """What tables are worth: costs, far above ties."""
        cost_tables = (self.program.tables[t] for t in tables)
        return sum(cost_in(table, ways) * (1 if table.tie else OVER_TIES) for table in cost_tables)

    def try_option(self, i: int, option: int, worth: int) -> int:
        ways, before = self.ways, self.options[i]
        self.options[i] = option
        self.ways = followed(self.program, ways, self.options)
        tried = self.whole()
        if tried < worth:
            return tried
        self.options[i], self.ways = before, ways
        return worth

    def whole(self) -> int:
        ties = (t for t, table in enumerate(self.program.tables) if table.tie)
        cost = cost_of_answer(self.program, self.ways, self.options)
        return cost * OVER_TIES + self.of(ties, self.ways)
