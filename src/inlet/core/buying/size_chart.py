"""One drawing at all the sizes it is to be offered in: pieces down, sizes across."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.cutlist import growths, landing_sizes
from inlet.core.layout import FabricPlan, bought_text
from inlet.core.numbers import Exact, Fraction, NumberError, parse_length
from inlet.core.plan import BlockPlan, plan_block
from inlet.core.planning import CutPiece, UnitPlan, method_words
from inlet.core.project import LARGEST_BLOCK_INCHES, Block, Pair, Project, replace
from inlet.core.table import diagonal_text
from inlet.core.words import fabric_name, length_text, size_text

MOST_SIZES = 24


class ChartRow(NamedTuple):
    """One piece of one method of a unit: what it is, and at each size how many are cut and how
    large, as ``2 × 3 7/8 in``; empty at sizes where the unit is made otherwise."""

    unit: str
    fabric: str | None
    what: str
    cells: tuple[str, ...]


class FabricRow(NamedTuple):
    """A fabric: how much of it is bought for one block, and for as many as are asked for, at each
    size."""

    fabric: str | None
    for_one: tuple[str, ...]
    for_all: tuple[str, ...]


class SizeChart(NamedTuple):
    """``sizes`` finished, ``on_marks`` or not; rows of pieces, of fabric, and what changes:
    units that are made otherwise at some sizes. ``copies`` is for how many blocks."""

    sizes: tuple[Pair, ...]
    on_marks: tuple[bool, ...]
    rows: tuple[ChartRow, ...]
    fabrics: tuple[FabricRow, ...]
    changes: tuple[str, ...]
    copies: int


def at_size(block: Block, width: Exact) -> Block:
    """The block with so wide a finish, in its own proportions."""
    return replace(block, finished=(width, block.finished[1] * width / block.finished[0]))


def sizes_typed(text: str, plan: BlockPlan) -> tuple[Exact, ...]:
    """Finished widths as typed: ``4, 6, 8, 12 in``, or ``4 to 12`` for every ruler-friendly one
    between two. Raises ``NumberError`` with a sentence."""
    system = plan.measure.system
    span = re.fullmatch(r"\s*(.+?)\s+to\s+(.+?)\s*", text)
    if span:
        low, high = (_size(side, plan) for side in span.groups())
        return sizes_on_marks(plan, min(low, high), max(low, high))
    parts = [part for part in re.split(r"[,;]", text) if part.strip()]
    if not parts:
        raise NumberError("write sizes like 4, 6, 8, 12, or 4 to 12")
    unit = re.search(rf"\s*({system.unit}|in|cm|mm)\s*$", parts[-1], re.IGNORECASE)
    if unit:  # said once, it holds for all
        parts = [part if part.strip()[-1].isalpha() else f"{part} {unit[1]}" for part in parts]
    if len(parts) > MOST_SIZES:
        raise NumberError(f"no more than {MOST_SIZES} sizes fit one chart")
    return tuple(dict.fromkeys(_size(part, plan) for part in parts))


def _size(text: str, plan: BlockPlan) -> Exact:
    size = parse_length(text.strip(), plan.measure.system)
    if not 0 < size <= plan.measure.from_inches(LARGEST_BLOCK_INCHES):
        raise NumberError(f"“{text.strip()}” is not a size a block can have")
    return size


def sizes_on_marks(plan: BlockPlan, low: Exact, high: Exact) -> tuple[Exact, ...]:
    """Every width between two at which all cuts land on the ruler's marks; raises ``NumberError``
    where there is none, or more than a chart holds."""
    one = Fraction(1)
    series = landing_sizes(growths(plan.units), plan.measure.mark, one, one)
    now = plan.block.finished[0]
    sizes: list[Exact] = []
    if series is not None:
        k = series.last_up_to(high / now)
        while k is not None and k > 0 and k * now >= low:
            sizes.append(k * now)
            k -= series.step
            if len(sizes) > MOST_SIZES:
                raise NumberError(
                    f"more than {MOST_SIZES} ruler-friendly sizes lie between these two; "
                    "choose nearer ones"
                )
    if not sizes:
        raise NumberError("no size between these two is ruler-friendly")
    return tuple(reversed(sizes))


def size_chart(project: Project, block: Block, widths: Sequence[Exact], copies: int) -> SizeChart:
    """The chart of a block at several finished widths, each planned as it would be on its own."""
    plans = []
    for width in widths:
        check()
        plans.append(plan_block(project, at_size(block, width), copies))
    singles = [plan if copies == 1 else plan_block(project, plan.block, 1) for plan in plans]
    return SizeChart(
        tuple(plan.block.finished for plan in plans),
        tuple(plan.ruler_friendly.on_marks for plan in plans),
        _rows(plans),
        _fabric(plans, singles),
        tuple(_changes(plans)),
        copies,
    )


def _rows(plans: Sequence[BlockPlan]) -> tuple[ChartRow, ...]:
    cells: dict[tuple[str, str, int], dict[int, tuple[UnitPlan, CutPiece]]] = {}
    for i, plan in enumerate(plans):
        for unit in plan.units:
            for k, piece in enumerate(unit.in_use.pieces):
                cells.setdefault((unit.unit.label, unit.in_use.name, k), {})[i] = unit, piece
    order = {label: i for i, label in enumerate(dict.fromkeys(key[0] for key in cells))}
    rows = []
    for key in sorted(cells, key=lambda key: order[key[0]]):
        totals = cells[key]
        unit, first = next(iter(totals.values()))
        several = len({k[1] for k in cells if k[0] == key[0]}) > 1
        apart = diagonal_text(first.piece.crosscut, first.piece.lean)
        what = first.piece.shape + (f", cut {apart}" if apart else "")
        if several:
            what += f" ({method_words(key[1])})"
        rows.append(
            ChartRow(
                key[0],
                first.piece.fabric,
                what,
                tuple(
                    _cell(totals[i][1], plan) if i in totals else "" for i, plan in enumerate(plans)
                ),
            )
        )
    return tuple(rows)


def _cell(cut: CutPiece, plan: BlockPlan) -> str:
    spare = f" + {cut.spare} over" if cut.spare else ""
    return f"{cut.number} × {size_text(cut.cut, plan.measure)}{spare}"


def _fabric(plans: Sequence[BlockPlan], singles: Sequence[BlockPlan]) -> tuple[FabricRow, ...]:
    fabrics = dict.fromkeys(
        fabric_plan.fabric for plan in plans for fabric_plan in plan.fabric_plans.at_once
    )

    def bought(plan: BlockPlan, fabric: str | None) -> str:
        layout = next((c for c in plan.fabric_plans.at_once if c.fabric == fabric), None)
        return _bought(layout, plan)

    return tuple(
        FabricRow(
            fabric,
            tuple(bought(plan, fabric) for plan in singles),
            tuple(bought(plan, fabric) for plan in plans),
        )
        for fabric in fabrics
    )


def _bought(fabric_plan: FabricPlan | None, plan: BlockPlan) -> str:
    if fabric_plan is None:
        return ""
    if fabric_plan.new is None:
        return "nothing"
    return bought_text(fabric_plan.buy, plan.measure)


def _changes(plans: Sequence[BlockPlan]) -> list[str]:
    """Units that are made otherwise at some sizes, a sentence each."""
    made: dict[str, dict[str, list[str]]] = {}
    for plan in plans:
        for unit in plan.units:
            size = length_text(plan.block.finished[0], plan.measure)
            made.setdefault(unit.unit.label, {}).setdefault(unit.in_use.name, []).append(size)
    changes = []
    for label, ways in made.items():
        if len(ways) > 1:
            said = "; ".join(
                f"{method_words(name)} at {', '.join(at)}" for name, at in ways.items()
            )
            changes.append(f"{label} changes its method: {said}.")
    return changes


def chart_lines(chart: SizeChart, plan: BlockPlan) -> list[list[str]]:
    """The chart as lines of text cells: a head, the pieces, the fabric."""
    measure = plan.measure
    head = ["Unit", "Fabric", "Piece"]
    head += [
        size_text(size, measure) + ("" if ok else " *")
        for size, ok in zip(chart.sizes, chart.on_marks, strict=True)
    ]
    lines = [head]
    for row in chart.rows:
        lines.append([row.unit, fabric_name(plan.project, row.fabric), row.what, *row.cells])
    for fabric in chart.fabrics:
        name = fabric_name(plan.project, fabric.fabric)
        lines.append(["", name, "buy for one block", *fabric.for_one])
        if chart.copies > 1:
            lines.append(["", name, f"buy for {chart.copies} blocks", *fabric.for_all])
    return lines


NOT_RULER_FRIENDLY = "* not a ruler-friendly size: some cuts fall between the ruler's marks."


def chart_notes(chart: SizeChart) -> list[str]:
    """What is said below the chart."""
    return [*([] if all(chart.on_marks) else [NOT_RULER_FRIENDLY]), *chart.changes]
