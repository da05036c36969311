"""Sizes measured of what was made: typed, written down, and what comes of each answer to them."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence
from typing import NamedTuple

from inlet.core.bench.entries import logged_in
from inlet.core.bench.progress import progress
from inlet.core.bench.things import Plan, Thing, sewn_things
from inlet.core.fitting import EASED, worst_easing
from inlet.core.numbers import Exact, parse_length
from inlet.core.piecing import Step
from inlet.core.plan import SewnBlock, prepared_for, top_of
from inlet.core.project import (
    Block,
    LogEntry,
    MadeAnswer,
    MadeUnit,
    Measure,
    MeasuredSize,
    Pair,
    Project,
    Quilt,
    replace,
)
from inlet.core.setting import block_counts, border_strips
from inlet.core.words import length_text, measured_text, near_text

ANSWERS: tuple[MadeAnswer, ...] = ("match", "trim", "ease")
ANSWER_WORDS: dict[MadeAnswer, str] = {
    "match": "Cut the rest to match",
    "trim": "Trim to the smallest",
    "ease": "Ease it in",
}
REMADE = "off size"
"""Why something is unpicked that is made again."""
MOST_OFF = 4
"""A size that is farther than a quarter of itself from the planned one is a slip."""
HAIR = 1e-9


def sizes_typed(text: str, thing: Thing, many: int, measure: Measure) -> tuple[MeasuredSize, ...]:
    """Sizes as they are typed: ``3 3/8``, for all of ``many``; ``3 3/8 x 3 1/2``; ``6 of 3 3/8, 2
    of 3 7/16``. Raises ``NumberError`` or ``ValueError`` with what is wrong."""
    if thing.size is None:
        raise ValueError("it is no rectangle, so it has no size to type")
    parts = [part.strip() for part in re.split(r"[;,]", text) if part.strip()]
    if not parts:
        raise ValueError("type a size, as 3 3/8, or 6 of 3 3/8, 2 of 3 7/16")
    sizes = []
    for part in parts:
        counted = re.match(r"(\d{1,4})\s+of\s+(.+)$", part)
        number, size = (int(counted[1]), counted[2]) if counted else (0, part)
        if counted and not number:
            raise ValueError("0 of a size is none")
        sizes.append((number, _size_typed(size, thing.size, measure)))
    given = sum(number or 1 for number, _ in sizes)
    if given > max(many, 1):
        raise ValueError(f"{given} sizes are more than the {many} there are")
    if len(sizes) == 1 and not sizes[0][0]:
        return (MeasuredSize(size=sizes[0][1], number=max(1, many)),)
    return tuple(MeasuredSize(size=size, number=number or 1) for number, size in sizes)


def _size_typed(text: str, planned: Pair, measure: Measure) -> Pair:
    sides = re.split(r"\s*[x×]\s*", text)
    if len(sides) > 2:
        raise ValueError(f"{text!r} has more than two sides")
    lengths = [parse_length(side, measure.system) for side in sides]
    wide, high = (lengths[0], lengths[-1])
    if len(lengths) == 1 and planned[0] != planned[1]:
        raise ValueError("type both sides, as 3 3/8 x 6 1/2")
    for length, drawn in zip((wide, high), planned, strict=True):
        _check(length, drawn, measure)
    return wide, high


def _check(length: Exact, planned: Exact, measure: Measure) -> None:
    """Raise ``ValueError`` for a length that cannot be what was planned so long."""
    if length <= 0:
        raise ValueError("a size is above 0")
    if abs(length - planned) * MOST_OFF <= planned:
        return
    other = "cm" if measure.system.name == "inch" else "in"
    factor = 2.54 if other == "in" else 1 / 2.54
    size, wanted = length_text(length, measure), near_text((planned, planned), measure)
    wrong = f"{size} cannot be what was planned {wanted}"
    if abs(float(length) * factor - float(planned)) * MOST_OFF <= float(planned):
        raise ValueError(f"{wrong}; if that is {other}, type {other} behind it")
    raise ValueError(f"{wrong}: measure from raw edge to raw edge")


class MadeThing(NamedTuple):
    """A thing that can be measured, as large as it is ``planned``, unfinished; the block it is of,
    in its colours, and whether it is the ``whole`` of that."""

    thing: Thing
    planned: Pair
    block: Block
    whole: bool

    @property
    def whole_of(self) -> str:
        """The id of the block that it is; empty of a unit."""
        return self.block.id if self.whole else ""


def made_things(plan: Plan) -> tuple[MadeThing, ...]:
    """The units and blocks of a plan that are rectangles, in the order of its steps."""
    return tuple(
        MadeThing(thing._replace(size=planned), planned, of.block, step.part.faces == of.root.faces)
        for thing, of, step in sewn_things(plan)
        if thing.size is not None and not step.cuts
        for planned in [_planned(of, step)]
        if planned is not None
    )


def _planned(of: SewnBlock, step: Step) -> Pair | None:
    """The unfinished size a step's unit or block is drawn at; None of what is neither."""
    if step.unit is not None:
        return step.unit.unfinished
    return of.unfinished if step.part.faces == of.root.faces else None


def made_of(project: Project, thing: Thing) -> MadeUnit | None:
    """What was measured of a thing; None where nothing was."""
    return next((unit for unit in project.made if thing.drawn and unit.drawn == thing.drawn), None)


def with_measured(
    project: Project, thing: Thing, sizes: Sequence[MeasuredSize], answer: MadeAnswer, at: str,
    block: str = "",
) -> Project:  # fmt: skip
    """What some of a thing measured, written in the log and taken for all later sizes, with the
    answer to it; where the thing is a whole ``block``, by its id, the quilt goes by it."""
    log = project.log
    for size in sizes:
        entry = LogEntry(
            what=thing.name, did="measured", number=size.number, at=at, size=size.size,
            drawn=thing.drawn,
        )  # fmt: skip
        log = logged_in(log, entry)
    unit = MadeUnit(drawn=thing.drawn, what=thing.name, measured=tuple(sizes), answer=answer)
    return _with_made(replace(project, log=log), unit, block)


def with_answer(project: Project, unit: MadeUnit, answer: MadeAnswer, block: str = "") -> Project:
    """Another answer to what was measured."""
    return _with_made(project, replace(unit, answer=answer), block)


def _with_made(project: Project, unit: MadeUnit, block: str) -> Project:
    others = tuple(before for before in project.made if before.drawn != unit.drawn)
    project = replace(project, made=(*others, unit))
    if not block:
        return project
    quilt = project.quilt or Quilt()
    block_sizes = {name: size for name, size in quilt.made.items() if name != block}
    if unit.answer != "ease":
        block_sizes[block] = unit.in_use
    return replace(project, quilt=replace(quilt, made=block_sizes))


def without_measured(project: Project, unit: MadeUnit, block: str = "") -> Project:
    """What was measured of a thing no longer holds: it is made again, or as planned."""
    project = replace(project, made=tuple(other for other in project.made if other != unit))
    quilt = project.quilt
    if not block or quilt is None or block not in quilt.made:
        return project
    sizes = {name: size for name, size in quilt.made.items() if name != block}
    return replace(project, quilt=replace(quilt, made=sizes))


def uneven_text(unit: MadeUnit, planned: Pair, measure: Measure) -> str:
    """What is wrong with a batch: uneven is told more strongly than even but off; nothing where it
    is as planned, to a thread."""
    thread = measure.system.thread
    if unit.spread > thread:
        differ = near_text((unit.spread, unit.spread), measure)
        return (
            f"They are uneven: the largest and the smallest differ by {differ}. Sort them, or trim "
            "them to one size: what differs inside a row cannot be cut to match."
        )
    off = max(abs(a - b) for a, b in zip(unit.in_use, planned, strict=True))
    if off <= thread:
        return "They are as planned, to a thread."
    return f"They are even, and off by {near_text((off, off), measure)}."


def unmeasured_text(things: Iterable[MadeThing], project: Project) -> str:
    """Units that are sewn by the log, and were not measured where others are matched: they are
    taken to match, too. Nothing where there are none."""
    if not any(unit.answer != "ease" for unit in project.made):
        return ""
    units = [thing for thing in things if not thing.whole]
    done = progress(project.log, [thing.thing for thing in units]).done
    names = [
        thing.thing.name.partition(" ")[2] for thing in units
        if done.get(thing.thing.name) and made_of(project, thing.thing) is None
    ]  # fmt: skip
    if not names:
        return ""
    are = "is sewn already, and was" if len(names) == 1 else "are sewn already, and were"
    return f"{', '.join(names)} {are} not measured: measure what is sewn before the rest is cut."


class MadeEffect(NamedTuple):
    """What comes of an answer: of a block, what it comes to and whether its seams meet; of the
    quilt its middle and size, and the strips of its borders; in lines of text."""

    answer: MadeAnswer
    fits: bool
    lines: tuple[str, ...]


def made_effects(
    project: Project, unit: MadeUnit, block: Block, whole: bool
) -> Iterator[MadeEffect]:
    """Each answer to what was measured of a unit of a block, or of the ``whole`` of it, with what
    comes of it. A pure function of its arguments."""
    for answer in ANSWERS:
        if answer == "trim" and not unit.spread and answer != unit.answer:
            continue  # they are all of the smallest size
        changed = with_answer(project, unit, answer, block.id if whole else "")
        yield _effect(changed, answer, block, whole, unit)


def _effect(
    project: Project, answer: MadeAnswer, block: Block, whole: bool, unit: MadeUnit
) -> MadeEffect:
    measure = project.measure
    lines, fits = [], True
    if whole:
        before, in_use = block.finished, replace(unit, answer=answer).in_use
        twice = 2 * measure.seam
        off = max(abs(m - f - twice) for m, f in zip(in_use, before, strict=True))
        if answer != "ease":
            lines.append(f"{block.title}, unfinished: {near_text(in_use, measure)}")
        else:
            most = min(before) * EASED
            fits = off <= most
            lines.append(_eased_text(float(off), float(most), float(min(before)), measure))
    else:
        prepared = prepared_for(project, block, 1)
        if prepared.fit is not None:
            easing = worst_easing(prepared.fit)
            fits = easing.differs <= max(easing.most, float(measure.system.thread) + HAIR)
            lines.append(_eased_text(easing.differs, easing.most, easing.length, measure))
        size = measured_text(prepared.made_size, measure)
        lines.append(f"{block.title}, unfinished: {size}")
    if not whole and block != project.block(block.id):
        lines.append(
            f"The quilt is laid out by {block.title} in its own colours: measure that, too"
        )
    lines += _quilt_lines(project)
    return MadeEffect(answer, fits, tuple(lines))


def _eased_text(differs: float, most: float, length: float, measure: Measure) -> str:
    fine = measure.system.fine_mark
    by, can, long = (
        length_text(round(x / float(fine)) * fine, measure) for x in (differs, most, length)
    )
    if differs <= float(measure.system.thread) + HAIR:
        return "Every seam meets, to a thread"
    if differs <= most:
        return f"Edges differ by up to {by} over {long}: ease them in"
    return f"Edges differ by up to {by} over {long}, where no more than {can} can be eased"


def _quilt_lines(project: Project) -> Iterator[str]:
    """The rows, the top and the strips of the borders, where there is a quilt."""
    quilt, measure = project.quilt, project.measure
    if quilt is None or not block_counts(quilt):
        return
    top = top_of(project)
    if not top.rows:
        return
    twice = 2 * measure.seam
    middle = top.middle[0] + twice, top.middle[1] + twice
    yield f"The rows together, unfinished: {near_text(middle, measure)}"
    yield from dict.fromkeys(
        f"{strip.name}: {length_text(strip.length, measure)}"
        for strip in border_strips(top, quilt, measure)
    )
    yield f"The quilt, finished: {near_text(top.size, measure)}"


def measured_lines(units: Iterable[MadeUnit], measure: Measure) -> Iterator[str]:
    """``Make Sluice A: 6 of 3 3/8 in, 2 of 3 7/16 in; cut the rest to match``."""
    for unit in units:
        sizes = ", ".join(f"{of.number} of {near_text(of.size, measure)}" for of in unit.measured)
        yield f"{unit.what}: {sizes}; {ANSWER_WORDS[unit.answer].lower()}"
