"""How much thread a plan takes, top and bobbin, and where a bobbin runs out."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.project import Measure
from inlet.core.schedule.batches import Batch

STITCH_MM = 2.2
FABRIC_MM = 0.6


class RunsOut(NamedTuple):
    """A bobbin ends while the ``unit``-th of so many ``makes`` is sewn, in step ``step``."""

    step: int
    makes: str
    unit: int
    of: int


class Thread(NamedTuple):
    """``each`` of top thread and of bobbin thread, in the maker's inches or centimetres;
    ``bobbins`` are begun, and ``runs_out`` says where the full ones end."""

    each: float
    bobbins: int
    runs_out: tuple[RunsOut, ...]


def thread_per_length() -> float:
    """Top thread for each unit of seam, and bobbin thread as well.

    The two threads lock in the middle of the fabric, so for each stitch of length L either goes
    along it once and half through the fabric (thickness t) and back: (L + t)/L. Two layers of
    cotton are about 0.6 mm, a piecing stitch 2.2 mm.
    """
    return (STITCH_MM + FABRIC_MM) / STITCH_MM


def thread_for(batches: Sequence[Batch], bobbin: float, measure: Measure) -> Thread:
    """The thread for all batches in their order, on bobbins that hold ``bobbin`` yards (metres in
    a file of centimetres)."""
    holds = bobbin * measure.system.long_unit.length
    used, begun = 0.0, 0.0
    runs_outs: list[RunsOut] = []
    for batch in batches:
        for task in batch.tasks:
            if not task.length:
                continue
            each = task.length * thread_per_length()
            left = task.times
            while begun + left * each > holds + 1e-9:
                fit = int((holds - begun + 1e-9) / each)
                left -= fit
                runs_outs.append(RunsOut(task.step, task.makes, task.times - left + 1, task.times))
                # What is on the new bobbin is what the unit under the needle still takes; of one
                # longer than a bobbin, there are more to come.
                begun = begun + fit * each - holds
            begun += left * each
            used += task.times * each
    return Thread(used, len(runs_outs) + (1 if used else 0), tuple(runs_outs))
