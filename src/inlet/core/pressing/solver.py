"""The cheapest answer by SciPy's ``milp`` (HiGHS), proved, or with the gap to what is. The
search is bound by work, not by the clock: a program has the same answer on every machine.

A table over several decisions is told to the solver by weights on its rows, which add up to one and
agree with each decision: the convex hull of its whole answers, so that bounds are tight. A choice
of an option makes the decisions of its place equal to what the option follows.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import product

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array

from inlet.core.pressing.costs import NEVER, CostTable
from inlet.core.pressing.greedy import with_better_ties
from inlet.core.pressing.outcomes import OPEN, WAYS
from inlet.core.pressing.program import (
    WORK,
    PressingAnswer,
    Program,
    cost_of_answer,
    followed,
    one_way,
)


class _Rows:
    """Rows of a sparse matrix with their limits."""

    def __init__(self) -> None:
        self.row: list[int] = []
        self.column: list[int] = []
        self.value: list[float] = []
        self.low: list[float] = []
        self.high: list[float] = []

    def copy(self) -> _Rows:
        rows = _Rows()
        for name in ("row", "column", "value", "low", "high"):
            getattr(rows, name).extend(getattr(self, name))
        return rows

    def add(self, terms: Iterable[tuple[int, float]], low: float, high: float) -> None:
        for column, value in terms:
            self.row.append(len(self.low))
            self.column.append(column)
            self.value.append(value)
        self.low.append(low)
        self.high.append(high)


MOST_WITH_TIES = 60
"""Decisions of a program whose ties are solved as well; in a larger one they are improved."""


MOST_COLUMNS = 6_000
"""Of a larger program the root alone takes too long; it is not solved."""


def solve(program: Program, work: int = WORK, ties: bool = True) -> PressingAnswer | None:
    """The cheapest answer, proved or with how far it may be from it, found with so much work; None
    if none was found. Of those that cost as much one that loses few ties, if ``ties`` matter."""
    model = _Model(program)
    if program.decisions.number > MANY:
        pressing_answer = _better_of(_Model(_all_closed(program)).solved(work), model, work // 2)
    else:
        pressing_answer = model.solved(work)
    if pressing_answer is None or not ties:
        return pressing_answer
    if pressing_answer.gap == 0 and program.decisions.number <= MOST_WITH_TIES:
        again = model.with_fewest_ties(pressing_answer.cost, work)
        if again is not None and again.cost == pressing_answer.cost:
            return again._replace(at_least=pressing_answer.cost)
    return with_better_ties(program, pressing_answer)


MANY = 150
"""Decisions of a program that is first solved with no seam open: that is found much sooner, and
seldom costs more."""


def _all_closed(program: Program) -> Program:
    """The program without open seams."""
    tables = []
    for table in program.tables:
        costs = table.costs.copy()
        for axis in range(costs.ndim):
            np.moveaxis(costs, axis, 0)[OPEN] = NEVER
        tables.append(table if table.tie else table._replace(costs=costs))
    return program._replace(tables=tuple(tables))


def _better_of(first: PressingAnswer | None, model: _Model, work: int) -> PressingAnswer | None:
    """The first answer, or that of the whole program if it is better; with the latter's bound."""
    pressing_answer = model.solved(work)
    if first is None:
        return pressing_answer
    at_least = pressing_answer.at_least if pressing_answer is not None else 0
    best = (
        pressing_answer
        if pressing_answer is not None and pressing_answer.cost <= first.cost
        else first
    )
    return best._replace(at_least=min(best.cost, at_least))


class _Model:
    """A program as the solver takes it: columns for the ways of decisions, for options, for second
    versions, then for the rows of tables."""

    def __init__(self, program: Program) -> None:
        self.program, self.rows = program, _Rows()
        number = program.decisions.number
        costs = [0.0] * (WAYS * number)
        for d in range(number):
            self.rows.add(((WAYS * d + way, 1.0) for way in range(WAYS)), 1, 1)
        self.first_option = []
        for i, choice in enumerate(program.decisions.choices):
            self.first_option.append(len(costs))
            costs += [float(program.again[i]) if o.version else 0.0 for o in choice.options]
        _tell_choices(program, self.rows, self.first_option)
        self.integers = len(costs)
        self._tell_versions(costs)
        for table in program.tables:
            if not table.tie:
                _tell_table(table, self.rows, costs)
        self.costs = costs

    def _tell_versions(self, costs: list[float]) -> None:
        """A part has a second version if it is taken anywhere."""
        column: dict[int, int] = {}
        for i, choice in enumerate(self.program.decisions.choices):
            for k, option in enumerate(choice.options):
                if option.version:
                    if choice.part not in column:
                        column[choice.part] = len(costs)
                        costs.append(float(self.program.second.get(choice.part, 0)))
                    at = column[choice.part]
                    self.rows.add([(at, 1.0), (self.first_option[i] + k, -1.0)], 0, np.inf)

    def solved(self, work: int) -> PressingAnswer | None:
        return self._run(self.costs, self.rows, work)

    def with_fewest_ties(self, cost: int, work: int) -> PressingAnswer | None:
        """Of the answers that cost no more, one that loses the fewest ties."""
        rows, objective = self.rows.copy(), [0.0] * len(self.costs)
        most = cost - self.program.always + 0.5
        rows.add([(c, value) for c, value in enumerate(self.costs) if value], -np.inf, most)
        for table in self.program.tables:
            if table.tie:
                _tell_table(table, rows, objective)
        return self._run(objective, rows, work)

    def _run(self, objective: list[float], rows: _Rows, work: int) -> PressingAnswer | None:
        if len(objective) > MOST_COLUMNS:
            return None
        shape = len(rows.low), len(objective)
        matrix = csr_array((rows.value, (rows.row, rows.column)), shape=shape)
        integrality = np.zeros(len(objective), int)
        integrality[: self.integers] = 1
        solution = milp(
            np.array(objective),
            constraints=LinearConstraint(matrix, np.array(rows.low), np.array(rows.high)),
            bounds=Bounds(0, 1),
            integrality=integrality,
            options={"node_limit": max(1, work // len(objective)), "mip_rel_gap": 0.0},
        )
        if solution.x is None:
            return None
        program, x = self.program, solution.x
        number = program.decisions.number
        ways = [int(np.argmax(x[WAYS * d : WAYS * d + WAYS])) for d in range(number)]
        options = [
            int(np.argmax(x[at : at + len(choice.options)]))
            for at, choice in zip(self.first_option, program.decisions.choices, strict=True)
        ]
        ways = followed(program, ways, options)
        cost = cost_of_answer(program, ways, options)
        at_least = cost
        if solution.status != 0 and solution.mip_dual_bound is not None:
            # Costs are whole; a bound is known to the solver's tolerance.
            at_least = program.always + int(np.ceil(solution.mip_dual_bound - 0.5))
        return PressingAnswer(tuple(ways), tuple(options), cost, min(cost, at_least))


def _tell_choices(program: Program, rows: _Rows, first_option: Sequence[int]) -> None:
    for i, choice in enumerate(program.decisions.choices):
        columns = [first_option[i] + k for k in range(len(choice.options))]
        rows.add(((column, 1.0) for column in columns), 1, 1)
        for k, option in enumerate(choice.options):
            for d, source in zip(choice.decisions, option.follows, strict=True):
                for way in range(WAYS):
                    other = one_way(way, source.contrary)
                    # Where the option is taken, the decision goes as what it follows.
                    rows.add(
                        [
                            (WAYS * d + way, 1.0),
                            (WAYS * source.decision + other, -1.0),
                            (columns[k], 1.0),
                        ],
                        -np.inf,
                        1,
                    )


def _tell_table(table: CostTable, rows: _Rows, objective: list[float]) -> None:
    if len(table.spans) == 1:
        for way in range(WAYS):
            objective[WAYS * table.spans[0] + way] += float(table.costs[way])
        return
    first = len(objective)
    keep = list(_possible(table))
    objective += [float(table.costs[way]) for way in keep]
    for axis, d in enumerate(table.spans):
        for way in range(WAYS):
            terms = [(first + k, 1.0) for k, each in enumerate(keep) if each[axis] == way]
            rows.add([*terms, (WAYS * d + way, -1.0)], 0, 0)


def _possible(table: CostTable) -> Iterator[tuple[int, ...]]:
    for way in product(range(WAYS), repeat=len(table.spans)):
        if table.costs[way] < NEVER:
            yield way
