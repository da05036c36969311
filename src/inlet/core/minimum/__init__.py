"""The least of a sum of tables over a few values each.

Promise: exact in whole numbers; proved, or with what is proved; the same on every machine.
"""

from inlet.core.minimum.solving import least_of
from inlet.core.minimum.table_sum import IMPOSSIBLE, TableSum, summed

__all__ = ["IMPOSSIBLE", "TableSum", "least_of", "summed"]
