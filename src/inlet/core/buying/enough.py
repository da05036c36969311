"""Will what there is do? Yes, with the layout; or no, with what is missing and the smallest changes
that would make it do."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import NamedTuple

from inlet.core.buying.size_chart import at_size
from inlet.core.cutting.layout import FEW_SECONDS, ClothPlan, ToCut, lay_out_fabric
from inlet.core.plan import BlockPlan, plan_block
from inlet.core.planning.words import method_words
from inlet.core.project.project import Project
from inlet.core.project.value import replace
from inlet.core.stopping import check
from inlet.core.words import cloth_name, length_text, size_text


class Change(NamedTuple):
    """Something that would make what there is do: what, and the cloth it spares, in square units of
    the project."""

    text: str
    spares: float


Does = Callable[[BlockPlan], Change | None]
"""Whether another plan does with what there is."""


class Enough(NamedTuple):
    """``short`` are the cloths that do not do, each with what finds no room; ``changes`` those that
    would make all of them do, the smallest first. ``entered``: is anything entered at all?"""

    short: tuple[ClothPlan, ...]
    changes: tuple[Change, ...]
    entered: bool

    @property
    def does(self) -> bool:
        return self.entered and not self.short


def enough(plan: BlockPlan) -> Enough:
    """Whether what there is does for a plan, and what would make it do."""
    entered = any(fabric.have for fabric in plan.project.fabrics)
    short = _short(plan)
    if not entered or not short:
        return Enough(short, (), entered)
    changes = sorted(_changes(plan, short), key=lambda change: change.spares)
    return Enough(short, tuple(changes), entered)


def _on_hand(plan: BlockPlan, fabric: str | None, wanted: ToCut) -> ClothPlan:
    return lay_out_fabric(plan.project, fabric, wanted, FEW_SECONDS, buys=False)


def _short(plan: BlockPlan) -> tuple[ClothPlan, ...]:
    """The cloths of a plan that what there is does not do for."""
    laid = (_on_hand(plan, fabric, plan.to_cut) for fabric in plan.to_cut.by_fabric())
    return tuple(cloth for cloth in laid if cloth.missing)


def _area(plan: BlockPlan) -> float:
    return float(sum(c.cut[0] * c.cut[1] * c.number for c in plan.cuts if not c.owned))


def _changes(plan: BlockPlan, short: tuple[ClothPlan, ...]) -> Iterator[Change]:
    """Every change that was tried and does."""
    area = _area(plan)

    def does(other: BlockPlan) -> Change | None:
        check()
        return None if _short(other) else Change("", area - _area(other))

    yield from _other_methods(plan, short, does)
    yield from _smaller(plan, does)
    yield from _fewer(plan, does)
    yield from _swapped(plan, short)


def _other_methods(plan: BlockPlan, short: tuple[ClothPlan, ...], does: Does) -> Iterator[Change]:
    fabrics = {cloth.fabric for cloth in short}
    for unit in plan.units:
        if not fabrics & set(unit.unit.fabrics):
            continue
        for method in unit.methods:
            if method.name == unit.in_use.name:
                continue
            methods = {**plan.block.methods, unit.unit.kind: method.name}
            block = replace(plan.block, methods=methods)
            made = does(plan_block(plan.project, block, plan.copies, ()))
            if made is not None:
                words = f"Make {unit.unit.label} by {method_words(method.name)}"
                yield made._replace(text=words)


def _smaller(plan: BlockPlan, does: Does) -> Iterator[Change]:
    smaller = plan.comfort.smaller
    for _ in range(4):
        if smaller is None:
            return
        other = plan_block(plan.project, at_size(plan.block, smaller[0]), plan.copies, ())
        made = does(other)
        if made is not None:
            yield made._replace(text=f"Finish it {size_text(smaller, plan.measure)}")
            return
        smaller = other.comfort.smaller


def _fewer(plan: BlockPlan, does: Does) -> Iterator[Change]:
    """The most blocks it does for, found by halving."""
    low, high = 0, plan.copies
    best = None
    while high - low > 1:
        middle = (low + high) // 2
        made = does(plan_block(plan.project, plan.block, middle, ()))
        if made is not None:
            low, best = middle, made
        else:
            high = middle
    if best is not None:
        fewer = plan.copies - low
        yield best._replace(
            text=f"Make {low} instead of {plan.copies}: {fewer} block{'s' * (fewer > 1)} fewer"
        )


def _swapped(plan: BlockPlan, short: tuple[ClothPlan, ...]) -> Iterator[Change]:
    """Another cloth in place of the only one that does not do."""
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
            old = cloth_name(plan.project, lacking)
            yield Change(f"Use {fabric.title} in place of {old}", 0.0)


def enough_lines(found: Enough, project: Project) -> list[str]:
    """The answer in sentences."""
    if not found.entered:
        return ["Nothing is entered under “What I have” yet."]
    if found.does:
        return ["Yes: what you have does. The cloths above show how to cut it."]
    measure = project.measure
    out = []
    for cloth in found.short:
        pieces = ", ".join(
            f"{m.number} × {size_text(m.cut.cut, measure)}" for m in cloth.missing[:4]
        )
        out.append(f"No: of {cloth_name(project, cloth.fabric)} there is no room for {pieces}.")
    if found.changes:
        unit = length_text(measure.from_inches(1), measure).split()[-1]
        for change in found.changes[:6]:
            spares = f" (spares {change.spares:.0f} sq {unit})" if change.spares >= 1 else ""
            out.append(f"It does if you: {change.text}{spares}.")
    else:
        out.append("No single change that was tried makes it do; buy what is missing.")
    return out
