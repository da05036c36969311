"""The integer program of pressing: every decision one of three ways, every table a sum over them.

A table over several decisions is told to the solver by weights on its rows, which add up to one and
agree with each decision: the convex hull of its whole answers, so that bounds are tight. A choice
of an option makes the decisions of its place equal to what the option follows.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import product
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array

from inlet.core.pressing.alike import Decisions, Follows
from inlet.core.pressing.costs import NEVER, Table
from inlet.core.pressing.outcomes import OPEN, WAYS


class Program(NamedTuple):
    """Tables over decisions (the ``spans`` of each are decisions here, all different), and costs of
    taking a second version at a choice, or of having one at all, by part. ``together`` are what the
    spans of each seam follow, those that go on in one line; ``always`` is a cost that comes with
    any answer."""

    decisions: Decisions
    tables: tuple[Table, ...]
    together: tuple[tuple[Follows, ...], ...]
    second: Mapping[int, int]
    again: tuple[int, ...]
    always: int = 0


class Answer(NamedTuple):
    """How each decision goes (0, 1 or open) and which option each choice takes; what that costs,
    and the least that it can cost as far as is proved."""

    ways: tuple[int, ...]
    options: tuple[int, ...]
    cost: int
    at_least: int

    @property
    def gap(self) -> int:
        return self.cost - self.at_least


def taken_together(tables: Iterable[Table]) -> tuple[Table, ...]:
    """Tables over the same decisions added up, those over fewer added to one over more, axes in
    the order of the decisions."""
    found: dict[tuple[int, ...], NDArray[np.int64]] = {}
    for table in tables:
        order = sorted(range(len(table.spans)), key=lambda i: table.spans[i])
        spans = tuple(table.spans[i] for i in order)
        costs = table.costs.transpose(order)
        found[spans] = found[spans] + costs if spans in found else costs
    by_decision: dict[int, list[tuple[int, ...]]] = {}
    out: dict[tuple[int, ...], NDArray[np.int64]] = {}
    for spans in sorted(found, key=lambda s: (-len(s), s)):
        costs = found[spans]
        wider = (
            next((w for w in by_decision.get(spans[0], ()) if set(spans) <= set(w)), None)
            if len(spans) > 1
            else None
        )
        if wider is None:
            out[spans] = costs
            for d in spans:
                by_decision.setdefault(d, []).append(spans)
        else:
            shape = tuple(WAYS if d in spans else 1 for d in wider)
            out[wider] = out[wider] + costs.reshape(shape)
    return tuple(Table(spans, np.minimum(costs, NEVER)) for spans, costs in out.items())


def followed(program: Program, ways: Sequence[int], options: Sequence[int]) -> list[int]:
    """All decisions, those of choices as their options say; ``ways`` holds for the free ones."""
    out = list(ways)
    for choice, option in zip(program.decisions.choices, options, strict=True):
        for d, source in zip(choice.decisions, choice.options[option].follows, strict=True):
            out[d] = _one_way(out[source.decision], source.contrary)
    return out


def cost_of_answer(program: Program, ways: Sequence[int], options: Sequence[int]) -> int:
    """What an answer costs, all its decisions given."""
    total = program.always
    total += sum(int(table.costs[tuple(ways[d] for d in table.spans)]) for table in program.tables)
    parts = set()
    for i, (choice, option) in enumerate(zip(program.decisions.choices, options, strict=True)):
        if choice.options[option].version:
            parts.add(choice.part)
            total += program.again[i]
    return total + sum(program.second.get(part, 0) for part in parts)


# --- a greedy answer ------------------------------------------------------------------------------

MOST_ROUNDS = 20


def greedy(program: Program) -> Answer:
    """An answer at once: every seam the cheapest way by itself, then one after the other changed,
    spans of one seam together or singly, as long as that makes the whole cheaper. It proves only
    that no cost is below that of the cheapest rows."""
    return _Greedy(program).run()


class _Greedy:
    def __init__(self, program: Program) -> None:
        self.program = program
        self.choices = program.decisions.choices
        self.tables_of: list[list[int]] = [[] for _ in range(program.decisions.number)]
        for t, table in enumerate(program.tables):
            for d in table.spans:
                self.tables_of[d].append(t)
        self.bound = {d for choice in self.choices for d in choice.decisions}
        self.options = [0] * len(self.choices)
        self.ways = [0] * program.decisions.number

    def run(self) -> Answer:
        for seam in self.program.together:
            self.set(min(range(WAYS), key=lambda way: self.alone(seam, way)), seam)
        self.ways = followed(self.program, self.ways, self.options)
        cost = self.whole()
        singly = [(one,) for seam in self.program.together if len(seam) > 1 for one in seam]
        for _ in range(MOST_ROUNDS):
            before = cost
            for seam in (*self.program.together, *singly):
                for way in range(WAYS):
                    cost += self.try_way(seam, way)
            for i, choice in enumerate(self.choices):
                for option in range(len(choice.options)):
                    cost = self.try_option(i, option, cost)
            if cost == before:
                break
        least = sum(int(table.costs.min()) for table in self.program.tables)
        least += self.program.always
        return Answer(tuple(self.ways), tuple(self.options), cost, min(cost, least))

    def alone(self, seam: Sequence[Follows], way: int) -> int:
        """What a seam costs by itself."""
        total = 0
        for each in seam:
            for t in self.tables_of[each.decision]:
                table = self.program.tables[t]
                if len(table.spans) == 1:
                    total += int(table.costs[_one_way(way, each.contrary)])
        return total

    def set(self, way: int, seam: Sequence[Follows]) -> None:
        for each in seam:
            if each.decision not in self.bound:
                self.ways[each.decision] = _one_way(way, each.contrary)

    def try_way(self, seam: Sequence[Follows], way: int) -> int:
        """Press a seam a way if that makes the whole cheaper; by how much it changed."""
        before = list(self.ways)
        self.set(way, seam)
        if self.choices:
            self.ways = followed(self.program, self.ways, self.options)
        changed = [d for d, (a, b) in enumerate(zip(before, self.ways, strict=True)) if a != b]
        tables = {t for d in changed for t in self.tables_of[d]}
        change = self.of(tables, self.ways) - self.of(tables, before)
        if change >= 0:
            self.ways = before
        return min(change, 0)

    def of(self, tables: Iterable[int], ways: Sequence[int]) -> int:
        found = (self.program.tables[t] for t in tables)
        return sum(int(table.costs[tuple(ways[d] for d in table.spans)]) for table in found)

    def try_option(self, i: int, option: int, cost: int) -> int:
        ways, before = self.ways, self.options[i]
        self.options[i] = option
        self.ways = followed(self.program, ways, self.options)
        tried = self.whole()
        if tried < cost:
            return tried
        self.options[i], self.ways = before, ways
        return cost

    def whole(self) -> int:
        return cost_of_answer(self.program, self.ways, self.options)


def _one_way(way: int, contrary: bool) -> int:
    return 1 - way if contrary and way != OPEN else way


# --- the solver -----------------------------------------------------------------------------------


class _Rows:
    """Rows of a sparse matrix with their limits."""

    def __init__(self) -> None:
        self.row: list[int] = []
        self.column: list[int] = []
        self.value: list[float] = []
        self.low: list[float] = []
        self.high: list[float] = []

    def add(self, terms: Iterable[tuple[int, float]], low: float, high: float) -> None:
        for column, value in terms:
            self.row.append(len(self.low))
            self.column.append(column)
            self.value.append(value)
        self.low.append(low)
        self.high.append(high)


def solve(program: Program, seconds: float) -> Answer | None:
    """The cheapest answer, proved or with how far it may be from it, found in so many seconds; None
    if none was found. The same program gives the same answer where it is proved."""
    rows, objective = _Rows(), []
    number = program.decisions.number
    whole = WAYS * number
    objective += [0.0] * whole
    for d in range(number):
        rows.add(((WAYS * d + way, 1.0) for way in range(WAYS)), 1, 1)
    first_option = []
    for i, choice in enumerate(program.decisions.choices):
        first_option.append(len(objective))
        objective += [float(program.again[i]) if o.version else 0.0 for o in choice.options]
    _tell_choices(program, rows, first_option)
    integers = len(objective)
    seconds_of: dict[int, int] = {}
    for i, choice in enumerate(program.decisions.choices):
        for k, option in enumerate(choice.options):
            if option.version:
                at = seconds_of.get(choice.part)
                if at is None:
                    at = seconds_of[choice.part] = len(objective)
                    objective.append(float(program.second.get(choice.part, 0)))
                rows.add([(at, 1.0), (first_option[i] + k, -1.0)], 0, np.inf)
    for table in program.tables:
        _tell_table(table, rows, objective)
    matrix = csr_array((rows.value, (rows.row, rows.column)), shape=(len(rows.low), len(objective)))
    integrality = np.zeros(len(objective), int)
    integrality[:integers] = 1
    found = milp(
        np.array(objective),
        constraints=LinearConstraint(matrix, np.array(rows.low), np.array(rows.high)),
        bounds=Bounds(0, 1),
        integrality=integrality,
        options={"time_limit": seconds, "mip_rel_gap": 0.0},
    )
    if found.x is None:
        return None
    x = found.x
    ways = [int(np.argmax(x[WAYS * d : WAYS * d + WAYS])) for d in range(number)]
    options = [
        int(np.argmax(x[at : at + len(choice.options)]))
        for at, choice in zip(first_option, program.decisions.choices, strict=True)
    ]
    ways = followed(program, ways, options)
    cost = cost_of_answer(program, ways, options)
    bound = found.mip_dual_bound
    at_least = cost
    if found.status != 0 and bound is not None:
        # Costs are whole; a bound is known to the solver's tolerance.
        at_least = program.always + int(np.ceil(bound - 0.5))
    return Answer(tuple(ways), tuple(options), cost, min(cost, at_least))


def _tell_choices(program: Program, rows: _Rows, first_option: Sequence[int]) -> None:
    for i, choice in enumerate(program.decisions.choices):
        columns = [first_option[i] + k for k in range(len(choice.options))]
        rows.add(((column, 1.0) for column in columns), 1, 1)
        for k, option in enumerate(choice.options):
            for d, source in zip(choice.decisions, option.follows, strict=True):
                for way in range(WAYS):
                    other = _one_way(way, source.contrary)
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


def _tell_table(table: Table, rows: _Rows, objective: list[float]) -> None:
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


def _possible(table: Table) -> Iterator[tuple[int, ...]]:
    for way in product(range(WAYS), repeat=len(table.spans)):
        if table.costs[way] < NEVER:
            yield way
