"""Will what there is do? Yes, with the layout; or no, with what is missing and the smallest changes
that would make it do."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import NamedTuple

from inlet.core.buying.size_chart import at_size
from inlet.core.cancellation import check
from inlet.core.layout import FEW, FabricPlan, ToCut, lay_out_fabric
from inlet.core.plan import BlockPlan, PreparedBlock, QuiltPlan, plan_block, plan_quilt
from inlet.core.planning import method_words
from inlet.core.project import Block, Project, replace
from inlet.core.setting import in_size
from inlet.core.words import fabric_name, length_text, near_text, size_text


class Change(NamedTuple):
    """Something that would make what there is do: what, and the fabric it spares, in square units
    of the project."""

    text: str
    spares: float


Plan = BlockPlan | QuiltPlan
Does = Callable[[Plan], Change | None]
"""Whether another plan does with what there is."""


class Enough(NamedTuple):
    """``short`` are the fabrics that do not do, each with what finds no room; ``changes`` those
    that would make all of them do, the smallest first. ``entered``: is anything entered at all?
    ``backing``: what is missing of a quilt's backing, in words."""

    short: tuple[FabricPlan, ...]
    changes: tuple[Change, ...]
    entered: bool
    backing: str = ""

    @property
    def does(self) -> bool:
        return self.entered and not self.short and not self.backing


def enough(plan: Plan) -> Enough:
    """Whether what there is does for the copies of a block, or for a quilt, and what would make its
    top do."""
    entered = any(fabric.have for fabric in plan.project.fabrics)
    short = _short(plan)
    backing = _backing_missing(plan) if isinstance(plan, QuiltPlan) else ""
    if not entered or not short:
        return Enough(short, (), entered, backing)
    area = _area(plan)

    def does(other: Plan) -> Change | None:
        check()
        return None if _short(other) else Change("", area - _area(other))

    if isinstance(plan, BlockPlan):
        remedies = _of_block(plan, short, does)
    else:
        remedies = _of_quilt(plan, short, does)
    changes = sorted((*remedies, *_swapped(plan, short)), key=lambda change: change.spares)
    return Enough(short, tuple(changes), entered, backing)


def _backing_missing(plan: QuiltPlan) -> str:
    """The widths of backing that there are not, of the way that needs fewest."""
    ways = plan.backings
    if not ways:
        return ""
    way = min(ways, key=lambda way: way.widths - way.owned)
    lacking = way.widths - way.owned
    if not lacking:
        return ""
    backing = plan.quilt.backing
    name = fabric_name(plan.project, (backing.fabric if backing else "") or None)
    panel = near_text((way.panel, way.panel), plan.measure)
    widths = "1 width" if lacking == 1 else f"{lacking} widths"
    return f"Not enough {name} for the backing: {widths} of {panel} missing."


def _on_hand(plan: Plan, fabric: str | None, wanted: ToCut) -> FabricPlan:
    return lay_out_fabric(plan.project, fabric, wanted, FEW, buys=False)


def _short(plan: Plan) -> tuple[FabricPlan, ...]:
    """The fabrics of a plan that what there is does not do for."""
    laid = (_on_hand(plan, fabric, plan.to_cut) for fabric in plan.to_cut.by_fabric())
    return tuple(fabric_plan for fabric_plan in laid if fabric_plan.missing)


def _area(plan: Plan) -> float:
    return float(sum(c.cut[0] * c.cut[1] * c.number for c in plan.cuts if not c.owned))


# --- a block --------------------------------------------------------------------------------


def _of_block(plan: BlockPlan, short: tuple[FabricPlan, ...], does: Does) -> Iterator[Change]:
    """Every change of a block, or of how many there are, that was tried and does."""
    for words, block in _other_methods(plan, short):
        change = does(plan_block(plan.project, block, plan.copies, ()))
        if change is not None:
            yield change._replace(text=words)
    yield from _smaller(plan, does)
    yield from _fewer(plan, does)


def _other_methods(
    plan: PreparedBlock, short: tuple[FabricPlan, ...]
) -> Iterator[tuple[str, Block]]:
    """The block with another method for a unit of a fabric that does not do, and that in words."""
    fabrics = {fabric_plan.fabric for fabric_plan in short}
    for unit in plan.units:
        if not fabrics & set(unit.unit.fabrics):
            continue
        for method in unit.methods:
            if method.name != unit.in_use.name:
                methods = {**plan.block.methods, unit.unit.kind: method.name}
                words = f"Make {unit.unit.label} by {method_words(method.name)}"
                yield words, replace(plan.block, methods=methods)


def _smaller(plan: BlockPlan, does: Does) -> Iterator[Change]:
    smaller = plan.ruler_friendly.smaller
    for _ in range(4):
        if smaller is None:
            return
        other_plan = plan_block(plan.project, at_size(plan.block, smaller[0]), plan.copies, ())
        change = does(other_plan)
        if change is not None:
            yield change._replace(text=f"Finish it {size_text(smaller, plan.measure)}")
            return
        smaller = other_plan.ruler_friendly.smaller


def _fewer(plan: BlockPlan, does: Does) -> Iterator[Change]:
    """The most blocks it does for, found by halving."""
    low, high = 0, plan.copies
    best = None
    while high - low > 1:
        middle = (low + high) // 2
        change = does(plan_block(plan.project, plan.block, middle, ()))
        if change is not None:
            low, best = middle, change
        else:
            high = middle
    if best is not None:
        fewer = plan.copies - low
        yield best._replace(
            text=f"Make {low} instead of {plan.copies}: {fewer} block{'s' * (fewer > 1)} fewer"
        )


# --- a quilt --------------------------------------------------------------------------------


def _of_quilt(plan: QuiltPlan, short: tuple[FabricPlan, ...], does: Does) -> Iterator[Change]:
    """Every change of a quilt that was tried and does: a border left out, another method for a
    unit, rows or columns fewer."""
    quilt, project = plan.quilt, plan.project
    for i in range(len(quilt.borders)):
        borders = (*quilt.borders[:i], *quilt.borders[i + 1 :])
        change = does(plan_quilt(replace(project, quilt=replace(quilt, borders=borders))))
        if change is not None:
            yield change._replace(text=f"Leave out border {i + 1}")
    tried: set[tuple[str, str]] = set()
    for block in plan.blocks:
        drawn = project.block(block.block.id)
        for words, other_block in _other_methods(block.plan, short):
            if (drawn.id, words) not in tried:
                tried.add((drawn.id, words))
                changed = replace(drawn, methods=other_block.methods)
                change = does(plan_quilt(project.with_block(changed)))
                if change is not None:
                    yield change._replace(text=f"{words}, of {drawn.title}")
    for name, across, down in (("row", 0, 1), ("column", 1, 0)):
        yield from _smaller_quilt(plan, name, across, down, does)


def _smaller_quilt(
    plan: QuiltPlan, name: str, across: int, down: int, does: Does
) -> Iterator[Change]:
    """As few rows, or columns, fewer as it takes."""
    quilt = plan.quilt
    columns, rows = quilt.columns or 0, quilt.rows or 0
    for fewer in range(1, max(across * columns, down * rows)):
        size = columns - across * fewer, rows - down * fewer
        smaller = in_size(quilt, *size)
        change = does(plan_quilt(replace(plan.project, quilt=smaller)))
        if change is not None:
            many = f"{fewer} {name}{'s' * (fewer > 1)} fewer"
            yield change._replace(text=f"Make it {size[0]} x {size[1]}: {many}")
            return


# --- either -----------------------------------------------------------------------------------


def _swapped(plan: Plan, short: tuple[FabricPlan, ...]) -> Iterator[Change]:
    """Another fabric in place of the only one that does not do."""
    if len(short) != 1:
        return
    lacking = short[0].fabric
    for fabric in plan.project.fabrics:
        if fabric.id == lacking or not fabric.have:
            continue
        check()
        cuts = tuple(
            cut._replace(fabric=fabric.id) if cut.fabric == lacking else cut for cut in plan.cuts
        )
        laid = _on_hand(plan, fabric.id, ToCut(cuts, plan.to_cut.standing))
        if not laid.missing:
            old = fabric_name(plan.project, lacking)
            yield Change(f"Use {fabric.title} in place of {old}", 0.0)


def enough_lines(verdict: Enough, project: Project) -> list[str]:
    """The answer in sentences."""
    if not verdict.entered:
        return ["Nothing is entered under “What I have” yet."]
    if verdict.does:
        return ["Yes, you have enough. The fabrics above show how to cut it."]
    measure = project.measure
    lines = []
    for fabric_plan in verdict.short:
        pieces = ", ".join(
            f"{m.number} × {size_text(m.cut.cut, measure)}" for m in fabric_plan.missing[:4]
        )
        lines.append(f"Not enough {fabric_name(project, fabric_plan.fabric)} for {pieces}.")
    if verdict.backing:
        lines.append(verdict.backing)
    if not verdict.short:
        return lines
    if verdict.changes:
        unit = length_text(measure.from_inches(1), measure).split()[-1]
        for change in verdict.changes[:6]:
            spares = f" (spares {change.spares:.0f} sq {unit})" if change.spares >= 1 else ""
            lines.append(f"It is enough if you: {change.text}{spares}.")
    else:
        lines.append("No single change that was tried makes it enough; buy what is missing.")
    return lines
