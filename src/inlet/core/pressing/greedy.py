"""An answer at once, by changing one seam after the other as long as that is better."""

from __future__ import annotations

from collections.abc import Sequence

from inlet.core.pressing.alike import Follows
from inlet.core.pressing.outcomes import WAYS
from inlet.core.pressing.program import (
    PressingAnswer,
    Program,
    cost_of_answer,
    cost_of_versions,
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


def first_answer(program: Program) -> PressingAnswer:
    """Every seam the cheapest way by itself."""
    return _Search(program).run(rounds=0)


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
        self.spans = [table.spans for table in program.tables]
        # What each row of a table is worth: costs, far above ties. Lists are read faster.
        self.worth_of: list[list[int]] = [
            [cost * (1 if table.tie else OVER_TIES) for cost in table.costs.ravel().tolist()]
            for table in program.tables
        ]
        self.bound = {d for choice in self.choices for d in choice.decisions}
        self.options = list(start.options) if start else [0] * len(self.choices)
        self.ways = list(start.ways) if start else [0] * program.decisions.number

    def run(self, rounds: int = MOST_ROUNDS) -> PressingAnswer:
        if self.start is None:
            for seam in self.program.together:
                self.press(min(range(WAYS), key=lambda way: self.alone(seam, way)), seam)
        self.ways = followed(self.program, self.ways, self.options)
        singly = [(follow,) for seam in self.program.together if len(seam) > 1 for follow in seam]
        for _ in range(rounds):
            better = False
            for seam in (*self.program.together, *singly):
                for way in range(WAYS):
                    better |= self.try_way(seam, way)
            for i, choice in enumerate(self.choices):
                for option in range(len(choice.options)):
                    better |= self.try_option(i, option)
            if not better:
                break
        least = sum(int(table.costs.min()) for table in self.program.tables if not table.tie)
        least += self.program.always
        cost = cost_of_answer(self.program, self.ways, self.options)
        return PressingAnswer(tuple(self.ways), tuple(self.options), cost, min(cost, least))

    def alone(self, seam: Sequence[Follows], way: int) -> int:
        """What a seam is worth by itself."""
        total = 0
        for follow in seam:
            for t in self.tables_of[follow.decision]:
                if len(self.spans[t]) == 1:
                    total += self.worth_of[t][one_way(way, follow.contrary)]
        return total

    def press(self, way: int, seam: Sequence[Follows]) -> None:
        for follow in seam:
            if follow.decision not in self.bound:
                self.ways[follow.decision] = one_way(way, follow.contrary)

    def try_way(self, seam: Sequence[Follows], way: int) -> bool:
        """Press a seam a way if that makes the whole cheaper."""
        before = list(self.ways)
        self.press(way, seam)
        if before == self.ways:
            return False
        if self.choices:
            self.ways = followed(self.program, self.ways, self.options)
        touched = self.bound.union(follow.decision for follow in seam)
        return self.kept_if_better(before, self.options, touched)

    def try_option(self, i: int, option: int) -> bool:
        """Take an option if that makes the whole cheaper."""
        if option == self.options[i]:
            return False
        ways, options = self.ways, list(self.options)
        self.options[i] = option
        self.ways = followed(self.program, ways, self.options)
        return self.kept_if_better(ways, options, self.bound)

    def kept_if_better(self, ways: list[int], options: list[int], touched: set[int]) -> bool:
        """Is it cheaper than before to have ``touched`` these? Else all is put back."""
        changed = [d for d in touched if ways[d] != self.ways[d]]
        tables = {t for d in changed for t in self.tables_of[d]}
        change = sum(self.worth(t, self.ways) - self.worth(t, ways) for t in tables)
        if options != self.options:
            versions = cost_of_versions(self.program, self.options)
            change += OVER_TIES * (versions - cost_of_versions(self.program, options))
        if change >= 0:
            self.ways, self.options = ways, options
        return change < 0

    def worth(self, t: int, ways: Sequence[int]) -> int:
        row = 0
        for d in self.spans[t]:
            row = row * WAYS + ways[d]
        return self.worth_of[t][row]
