"""The blocks of a quilt planned together: equal units of several blocks are made in one batch, so
that what is left over is counted once."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace as with_changes
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.cutlist import Cut, PlannedSet, Stacks, cut_list, plan_sets, stacks_of, standing
from inlet.core.geometry import Alike, motion_between
from inlet.core.improvised import ImprovisedSquare
from inlet.core.plan.corner_steps import scrap_cuts, squares_for
from inlet.core.plan.drawn_block import MOST_COPIES
from inlet.core.plan.prepared import PreparedBlock
from inlet.core.plan.preparing import prepared_for
from inlet.core.plan.sliced import called
from inlet.core.planning import (
    Need,
    Twin,
    UnitPlan,
    quarters_in,
    squares_shared,
    turned_on,
    with_inside,
)
from inlet.core.project import Block, Project, Quilt
from inlet.core.remake import CutApart, ToSew, Wanted, cut_key, needed, starts_of
from inlet.core.setting import (
    SquaresOnTop,
    Top,
    block_counts,
    in_colourway,
    single_pieces,
    squares_on_top,
)

MANY = 24
"""Blocks of a pieced border, before it is known how many it has: enough for every method."""


class QuiltBlock(NamedTuple):
    """A block of the quilt in one colourway: its ``name`` there, how many, and them prepared; which
    start blocks are cut apart for it, those that were for an earlier block left out; its squares
    where their corners are improvised."""

    name: str
    block: Block
    colourway: str
    number: int
    plan: PreparedBlock
    cut_apart: tuple[CutApart, ...] = ()
    squares: tuple[ImprovisedSquare, ...] = ()


class SharedBatch(NamedTuple):
    """The units of all blocks, labelled by block; ``made_as`` says for each unit that is made with
    an equal one of another block which that is. ``in_block`` are those of each block, what is made
    with another's under that label. ``cuts`` is their cut list, ``stacks`` those the pieces of each
    lie in."""

    units: tuple[UnitPlan, ...]
    in_block: tuple[tuple[UnitPlan, ...], ...]
    made_as: dict[str, str]
    sets: tuple[PlannedSet, ...]
    cuts: tuple[Cut, ...]
    stacks: Stacks
    standing: dict[str, int]


def block_numbers(top: Top, quilt: Quilt) -> Counter[tuple[str, str]]:
    """How often the top has each block in each colourway."""
    return Counter(
        (piece.lying.placed.block, piece.lying.placed.colourway)
        for piece in single_pieces(top, quilt)
        if piece.lying is not None
    )


def sizes_as_cut(project: Project) -> dict[str, tuple[float, float]]:
    """What the blocks of the project's quilt come out at, finished, as they are cut for it."""
    prepared = prepared_blocks(project)
    return {name: size for name, plan in prepared.items() if (size := _as_cut_size(plan))}


def _as_cut_size(plan: PreparedBlock) -> tuple[float, float] | None:
    """What a block comes out at, finished; None where it cannot be sewn."""
    if plan.sliced is None:
        return plan.fit.finished if plan.fit is not None else None
    wide, high = plan.sliced.sizes.finished
    return float(wide), float(high)


def prepared_blocks(project: Project) -> dict[str, PreparedBlock]:
    """The blocks of the project's quilt by their id, each prepared in its number."""
    quilt = project.quilt
    if quilt is None:
        return {}
    in_borders = {border.block for border in quilt.borders if border.kind == "pieced"}
    numbers = block_counts(quilt)
    prepared = {}
    for block in project.blocks:
        if block.id in numbers or block.id in in_borders:
            check()
            number = min(numbers.get(block.id, MANY), MOST_COPIES)
            prepared[block.id] = prepared_for(
                project, block, number, block.id not in numbers, to_cut=True
            )
    return prepared


def quilt_blocks(top: Top, project: Project) -> tuple[QuiltBlock, ...]:
    """Every block of the top, and those that others are made from, planned in the number that is
    needed, colourways that look alike as one."""
    quilt = project.quilt or Quilt()
    on_top = squares_on_top(top, project)
    laid = [
        Wanted(in_colourway(project.block(name), quilt.colourway(colourway)), colourway, number)
        for (name, colourway), number in block_numbers(top, quilt).items()
    ]
    return blocks_of(project, needed(project, laid), block_counts(quilt), on_top)


def blocks_of(
    project: Project,
    to_sew: ToSew,
    in_rows: Mapping[str, int] | None = None,
    on_top: SquaresOnTop | None = None,
) -> tuple[QuiltBlock, ...]:
    """Blocks to sew, planned in their number; those that are not ``in_rows``, where that is given,
    lie in one line. Improvised squares are those ``on_top``, where so many lie there."""
    left = dict(to_sew.cut_apart)
    starts = {each.start.block.id for each in to_sew.cut_apart.values()}
    blocks = []
    for block, colourway, number in to_sew.blocks:
        check()
        name = called(project, Wanted(block, colourway, number))
        repeated = in_rows is not None and block.id not in in_rows and block.id not in starts
        plan = prepared_for(project, block, min(number, MOST_COPIES), repeated)
        cut_apart = []
        if block.made_from is not None:
            for start in starts_of(project, Wanted(block, colourway, number)):
                first = left.pop(cut_key(start, block.made_from.cuts), None)
                cut_apart += [first] if first is not None else []
        squares = on_top.of(block.id, colourway) if on_top is not None else ()
        if len(squares) != number:
            squares = squares_for(project, block, number)
        blocks.append(QuiltBlock(name, block, colourway, number, plan, tuple(cut_apart), squares))
    return tuple(blocks)


def batched(blocks: Sequence[QuiltBlock], project: Project) -> SharedBatch:
    """The units of all blocks, equal ones made the same way taken together."""
    alike = Alike()
    kept: dict[str, UnitPlan] = {}
    made_as: dict[str, str] = {}
    by_key: dict[object, str] = {}
    batches: list[tuple[QuiltBlock, list[UnitPlan]]] = []
    alone = len(blocks) == 1
    for block in blocks:
        check()
        named = [plan if alone else _named(plan, block.name) for plan in block.plan.units]
        batches.append((block, named))
        for plan in named:
            key = _key(plan, alike)
            first = by_key.setdefault(key, plan.unit.label) if key is not None else plan.unit.label
            if first == plan.unit.label:
                kept[first] = with_changes(plan, spare={})
            else:
                made_as[plan.unit.label] = first
                kept[first] = _with_more(kept[first], plan)
    units = tuple(squares_shared(kept.values()))
    sets = plan_sets(units)
    cuts = (*cut_list(units, sets), *scrap_cuts_of(blocks, project))
    every = [plan for _, plans in batches for plan in plans]
    stacks = stacks_of(every, cuts)
    by_label = {plan.unit.label: plan for plan in units}
    in_block = tuple(
        with_inside(_in_batch(plan, made_as, by_label) for plan in plans) for _, plans in batches
    )
    return SharedBatch(units, in_block, made_as, sets, cuts, stacks, standing(units, stacks))


def scrap_cuts_of(blocks: Sequence[QuiltBlock], project: Project) -> Iterator[Cut]:
    """The scraps for the corners of all blocks, numbered through."""
    first = 1
    for each in blocks:
        for cut in scrap_cuts(project, each.block, each.squares, first):
            first += 1
            yield cut


def _with_more(plan: UnitPlan, more: UnitPlan) -> UnitPlan:
    """A unit with those of another block that are made with it, turned as they lie against it."""
    turns = None
    motion = motion_between(plan.unit.picture, more.unit.picture)
    quarters = quarters_in(motion) if motion is not None else None
    if plan.turns is not None and more.turns is not None and quarters is not None:
        a, b = plan.turns, turned_on(more.turns, quarters)
        turns = a[0] + b[0], a[1] + b[1], a[2] + b[2], a[3] + b[3]
    return with_changes(plan, need=Need(plan.count + more.count), turns=turns)


def _in_batch(plan: UnitPlan, made_as: dict[str, str], kept: dict[str, UnitPlan]) -> UnitPlan:
    """A block's unit as it is made in its batch; what is made with another block's, by its
    label."""
    label = made_as.get(plan.unit.label)
    if label is None:
        return kept[plan.unit.label]
    return with_changes(plan, unit=plan.unit._replace(label=label))


def _named(plan: UnitPlan, block: str) -> UnitPlan:
    """A plan whose labels name the block."""

    def named(label: str) -> str:
        return f"{block} {label}"

    unit, need, twin = plan.unit, plan.need, plan.twin
    return with_changes(
        plan,
        unit=unit._replace(
            label=named(unit.label), mirror_of=unit.mirror_of and named(unit.mirror_of)
        ),
        need=need._replace(made_with=need.made_with and named(need.made_with)),
        twin=None if twin is None else Twin(named(twin.label), twin.number),
    )


def _key(plan: UnitPlan, alike: Alike) -> object | None:
    """What units are made in one batch by; None for those that are made with others of their block:
    in both hands, from sets, from fabric cut already."""
    in_use = plan.in_use
    if plan.twin is not None or plan.need.mirrored or in_use.sets or plan.stock is not None:
        return None
    pieces = tuple(_as_cut(plan))
    return alike.add(plan.unit.picture)[0], in_use.name, in_use.trim_to, pieces


def _as_cut(plan: UnitPlan) -> Iterator[tuple[object, ...]]:
    for cut in plan.in_use.pieces:
        piece = cut.piece
        yield piece.fabric, piece.shape, cut.cut, piece.crosscut, piece.lean
