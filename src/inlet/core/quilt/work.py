"""How long a quilt takes and how much thread: its blocks, then its rows, borders and binding.

Every seam of the top lies between two pieces, so their lengths together are half of all the pieces'
sides but those on the quilt's edge.
"""

from __future__ import annotations

from math import ceil
from typing import NamedTuple

from inlet.core.geometry.polygon import edges, squared_length
from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.text import show
from inlet.core.piecing.thread import thread_per_length
from inlet.core.project.measure import Measure, Rates
from inlet.core.quilt.plan import QuiltPlan
from inlet.core.quilt.top import Top


class Work(NamedTuple):
    """Minutes at the mat, the machine and the iron, of the blocks and of what joins them; how many
    sittings of the maker's length that is; thread in the maker's lengths, top and bobbin."""

    blocks: float
    joining: float
    sittings: int
    thread: float

    @property
    def minutes(self) -> float:
        return self.blocks + self.joining


def work_of(plan: QuiltPlan) -> Work:
    """What the whole quilt takes, but for quilting it."""
    rates = plan.project.rates or Rates()
    blocks = sum(batch.minutes for block in plan.blocks for batch in block.plan.batches)
    thread = sum(2 * block.plan.thread.each for block in plan.blocks)
    length, number = seams_between(plan.top)
    if plan.binding is not None:
        length += float(plan.binding.length)
        number += plan.binding.joins + 1
    system = plan.measure.system
    cut = sum(c.number for c in plan.setting.cuts) * rates.cut
    seconds = cut + number * (rates.seam + rates.press) + length / system.rate_length * rates.length
    joining = seconds / 60
    thread += 2 * length * thread_per_length()
    sittings = ceil((blocks + joining) / rates.sitting)
    return Work(blocks, joining, sittings, thread)


def seams_between(top: Top) -> tuple[float, int]:
    """How long all seams between the pieces of a top are, and how many are sewn: one fewer than
    there are pieces."""
    pieces = top.pieces
    if not pieces:
        return 0.0, 0
    around = sum(
        float(squared_length(p, q)) ** 0.5 for piece in pieces for p, q in edges(piece.outline)
    )
    edge = 2 * float(top.size[0] + top.size[1])
    return (around - edge) / 2, len(pieces) - 1


def work_text(work: Work, measure: Measure) -> str:
    """``About 14 h, in 14 sittings; 1 320 yd of thread``."""
    unit = measure.system.long_unit
    thread = show(Fraction(ceil(work.thread / unit.length)))
    hours = max(1, round(work.minutes / 60))
    many = "1 sitting" if work.sittings == 1 else f"{work.sittings} sittings"
    return (
        f"About {hours} h of cutting and piecing, in {many}; {thread} {unit.name} of thread, top "
        "and bobbin together"
    )
