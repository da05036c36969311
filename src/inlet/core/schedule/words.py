"""Seams counted, sittings and thread in words, the same on screen, on paper and in the terminal."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from inlet.core.piecing import SeamCount
from inlet.core.project import Measure, Rates
from inlet.core.schedule.batches import Batch
from inlet.core.schedule.sittings import Sitting
from inlet.core.schedule.tasks import Task
from inlet.core.schedule.thread import Thread
from inlet.core.schedule.work import Work


def seams_text(count: SeamCount) -> str:
    """How many seams of each kind, and whether there could be fewer awkward ones."""
    kinds = [
        (count.straight, "straight"),
        (count.curve, "curved"),
        (count.partial, "partial"),
        (count.set_in, "set in"),
    ]
    whole = sum(n for n, _ in kinds)
    if not whole:
        return ""
    listed = ", ".join(f"{n} {name}" for n, name in kinds if n)
    text = f"{whole} {'seam' if whole == 1 else 'seams'}: {listed}."
    if count.pivots:
        corners = "1 corner is" if count.pivots == 1 else f"{count.pivots} corners are"
        text += f" {corners} pivoted at"
        if count.pivots == count.pivots_at_least:
            text += ", as few as can be: no seam passes straight through there."
        else:
            text += f"; at least {count.pivots_at_least} must be."
    if count.partial_gap:
        fewer = "one less" if count.partial_gap == 1 else f"up to {count.partial_gap} less"
        text += f" The search for fewer partial seams was cut short: {fewer} may be possible."
    return text


def minutes_text(minutes: float) -> str:
    """“4 min”, “1 h 20 min”; never nothing."""
    whole = max(1, round(minutes))
    hours, rest = divmod(whole, 60)
    if not hours:
        return f"{rest} min"
    return f"{hours} h {rest} min" if rest else f"{hours} h"


CUTS_OF = "cuts of "
"""Fabric that is cut up is told as so many cuts of it."""
_SENTENCES = {
    "make": "Make {}.",
    "cut": "Cut {}.",
    "take": "Take {}, which are over.",
    "mark": "Draw the lines on {}.",
    "cut across": "Cut the diagonals for {}.",
    "cut apart": "Cut apart {}.",
    "trim": "Trim {}.",
    "lay out": "Lay out {}.",
    "layer": "Layer {} and pin them.",
    "quilt": "Quilt {}.",
    "sew down": "Sew down {} by hand.",
    "sew": "Sew {}.",
    "press": "Press {}.",
    "fold": "Fold {}.",
}


_OF = re.compile(r"(run|strip set|segment)s( of .*| for .*)$")


def tasks_text(tasks: Sequence[Task]) -> str:
    """What is done in one go, as a person says it: “Cut 4 B and the squares for A and C. Draw the
    lines on 2 A squares.”"""
    said: dict[str, list[Task]] = {}
    for task in tasks:
        for verb in task.verb.split(", "):
            said.setdefault("make" if _cuts_fabric(task) else verb, []).append(task)
    return " ".join(
        _SENTENCES[verb].format(_listed(verb, own_tasks)) for verb, own_tasks in said.items()
    )


def _cuts_fabric(task: Task) -> bool:
    """Is it a piece of fabric that is cut up? It is of no step."""
    return not task.step and task.what.startswith(CUTS_OF)


def _listed(verb: str, tasks: Sequence[Task]) -> str:
    named: list[str] = []
    pieces: dict[str, list[str]] = {}
    for task in tasks:
        if verb == "cut" and task.pieces:
            pieces.setdefault(task.pieces, []).append(_number(task) if task.begun else task.makes)
        elif verb == "cut across":
            named.append(_number(task) if task.begun else task.makes)
        elif verb == "mark":
            one = (task.pieces or "pieces").removesuffix("s")
            several = f"{one}s" if task.marks > 1 else one
            named.append(f"{task.marks} {task.makes} {several}")
        else:
            named.append(_number(task))
    named += [f"the {what} for {listed(units)}" for what, units in pieces.items()]
    return listed(named)


def _number(task: Task) -> str:
    """“12 A”, “2 runs of A”, “row 1”, “3 of row 1”, “the block”, “3 blocks”."""
    what, times = task.what, task.times
    if _cuts_fabric(task):
        return f"{times} {what if times > 1 else what.replace('cuts', 'cut', 1)}"
    if what == "the block":
        return what if times == 1 else f"{times} blocks"
    many = _OF.match(what)
    if many:
        return f"1 {many[1]}{many[2]}" if times == 1 else f"{times} {what}"
    if times == 1 and task.step:
        return what
    return f"{times} of {what}" if what[-1].isdigit() else f"{times} {what}"


def listed(names: Sequence[str]) -> str:
    """“A”, “A and B”, “A, B and C”."""
    *first, last = names
    return f"{', '.join(first)} and {last}" if first else last


def batch_text(batch: Batch, measure: Measure) -> str:
    """What is done at a place in one go, with its minutes and, sewn as a chain, its length."""
    text = f"At the {batch.place}, {minutes_text(batch.minutes)}: {tasks_text(batch.tasks)}"
    if batch.chain:
        text += f" Chain: {long_text(batch.chain, measure)} of seam."
    return text


def long_text(length: float, measure: Measure) -> str:
    """A length of seam or thread, in yards or metres once it is long."""
    unit = measure.system.long_unit
    if length >= 2 * unit.length:
        return f"{length / unit.length:.1f} {unit.name}"
    return f"{length:.0f} {measure.system.unit}"


def thread_text(thread: Thread, measure: Measure) -> str:
    """Thread to have ready, and where bobbins run out."""
    if not thread.bobbins:
        return ""
    each = long_text(thread.each, measure)
    bobbins = "1 bobbin" if thread.bobbins == 1 else f"{thread.bobbins} bobbins"
    text = f"Thread: {each} on top and {each} below, {bobbins}."
    for runs_out in thread.runs_out[:4]:
        what = "the block" if runs_out.makes == "block" else runs_out.makes
        text += (
            f" A bobbin runs out at number {runs_out.unit} of {runs_out.of} of {what}, "
            f"step {runs_out.step}."
        )
    if len(thread.runs_out) > 4:
        text += f" So do {len(thread.runs_out) - 4} more."
    return text


def least_text(work: Work) -> str:
    """``(as few as there can be)``, ``(12 would do if work could be parted anywhere)``."""
    if len(work.sittings) <= work.least:
        return "(as few as there can be)"
    return f"({work.least} would do if work could be parted anywhere)"


def walks_text(batches: Sequence[Batch]) -> str:
    """How often one changes places."""
    places = len(batches)
    if places < 2:
        return ""
    changes = "1 change" if places == 2 else f"{places - 1} changes"
    return f"{changes} between mat, machine and iron"


def sitting_lines(
    sittings: Sequence[Sitting], rates: Rates, measure: Measure
) -> Iterator[tuple[str, list[str]]]:
    """Each sitting: its heading, and a line for each of its batches."""
    for number, sitting in enumerate(sittings, 1):
        over = ", longer than a sitting" if sitting.minutes > rates.sitting + 0.5 else ""
        head = f"Sitting {number}, {minutes_text(sitting.minutes)}{over}"
        yield head, [batch_text(batch, measure) for batch in sitting.batches]
