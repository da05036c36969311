"""What to buy for blocks, whether what there is is enough, and the same block at other sizes.

Promise: what is bought is what the layout takes, as shops sell it.
"""

from inlet.core.buying.enough import Enough, enough, enough_lines
from inlet.core.buying.quilt_chart import (
    USUAL_QUILTS,
    quilt_chart,
    quilt_chart_lines,
    quilt_chart_notes,
    quilt_sizes_typed,
)
from inlet.core.buying.shopping import (
    Shopping,
    quilt_shopping,
    shopping,
    shopping_lines,
    shopping_notes,
    shopping_whole,
)
from inlet.core.buying.size_chart import (
    chart_lines,
    chart_notes,
    size_chart,
    sizes_typed,
)

__all__ = [
    "USUAL_QUILTS",
    "Enough",
    "Shopping",
    "chart_lines",
    "chart_notes",
    "enough",
    "enough_lines",
    "quilt_chart",
    "quilt_chart_lines",
    "quilt_chart_notes",
    "quilt_shopping",
    "quilt_sizes_typed",
    "shopping",
    "shopping_lines",
    "shopping_notes",
    "shopping_whole",
    "size_chart",
    "sizes_typed",
]
