"""The least of a sum of tables by another solver."""

from __future__ import annotations

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array

from inlet.core.minimum.table_sum import IMPOSSIBLE


def by_milp(whole):
    """The least by SciPy's solver for integer programs: a column for each value and each row of a
    table, the rows of a table adding up to one and agreeing with its variables."""
    first = np.concatenate([[0], np.cumsum(whole.sizes)])
    columns, entries, limits, objective = int(first[-1]), [], [], [0.0] * int(first[-1])
    for v, size in enumerate(whole.sizes):
        entries += [(len(limits), first[v] + value, 1.0) for value in range(size)]
        limits.append(1.0)
    for scope, costs in whole.tables.items():
        rows = [row for row in np.ndindex(costs.shape) if costs[row] < IMPOSSIBLE]
        objective += [float(costs[row]) for row in rows]
        for axis, v in enumerate(scope):
            for value in range(whole.sizes[v]):
                entries += [(len(limits), columns + k, 1.0)
                            for k, row in enumerate(rows) if row[axis] == value]  # fmt: skip
                entries.append((len(limits), first[v] + value, -1.0))
                limits.append(0.0)
        columns += len(rows)
    row, column, value = zip(*entries, strict=True)
    matrix = csr_array((value, (row, column)), shape=(len(limits), columns))
    whole_numbers = np.zeros(columns)
    whole_numbers[: first[-1]] = 1
    solution = milp(
        objective, constraints=LinearConstraint(matrix, limits, limits), bounds=Bounds(0, 1),
        integrality=whole_numbers, options={"mip_rel_gap": 0.0},
    )  # fmt: skip
    assert solution.status == 0
    return round(solution.fun) + whole.constant
