"""The shopping list: for one block, for copies of it, for the whole project or its quilt."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.layout import FabricPlan, ToCut, bought_text, lay_out, worth_keeping
from inlet.core.numbers import Exact, Fraction, floor_exact
from inlet.core.plan import MOST_COPIES, BlockPlan, QuiltPlan, plan_block, plan_quilt
from inlet.core.project import Measure, Project
from inlet.core.setting import WIDE, less_text, wide_backing
from inlet.core.words import fabric_name, length_text, near, size_text

FARTHEST = 6
"""How many blocks more or fewer are tried for a step of fabric more or less."""


class ShoppingLine(NamedTuple):
    """One fabric to buy: ``price`` for all of it where its price is known; ``left`` what is left
    over that is worth keeping; ``notes`` what a step more would buy, and one less would cost."""

    fabric_plan: FabricPlan
    price: Exact | None
    left: tuple[str, ...]
    notes: tuple[str, ...] = ()


class Other(NamedTuple):
    """What is bought besides the fabric that is cut up: the backing, the batting."""

    name: str
    buy: str
    price: Exact | None
    left: str = ""


class Shopping(NamedTuple):
    """Everything to buy for ``what``; ``missing`` are pieces no fabric holds; ``others`` what goes
    behind a quilt."""

    what: str
    lines: tuple[ShoppingLine, ...]
    missing: tuple[str, ...]
    others: tuple[Other, ...] = ()

    @property
    def price(self) -> Exact | None:
        """What it costs together; None where no price is known."""
        prices = [line.price for line in self.lines] + [other.price for other in self.others]
        known = [price for price in prices if price is not None]
        return sum(known, Fraction(0)) if known else None


def shopping(plan: BlockPlan, notes: bool = False) -> Shopping:
    """For the copies of a plan's block; with ``notes`` on what a step of fabric more or less means,
    which plans other numbers of it."""
    steps = _steps(plan) if notes else {}
    what = f"{plan.copies} × {plan.block.title}" if plan.copies > 1 else plan.block.title
    return _listed(what, plan.project, plan.fabric_plans.best, steps)


def shopping_for(project: Project, copies: Mapping[str, int], what: str, work: int) -> Shopping:
    """For so many of each block, by its id, cut from the same fabric together."""
    cuts, standing = [], {}
    titles = Counter(block.title for block in project.blocks)
    for block in project.blocks:
        number = copies.get(block.id, 0)
        if not number:
            continue
        check()
        wanted = plan_block(project, block, min(number, MOST_COPIES)).to_cut
        for cut in wanted.cuts:
            name = block.title if titles[block.title] == 1 else block.id
            label = f"{name} {cut.label}"
            cuts.append(cut._replace(label=label))
            if cut.label in wanted.standing:
                standing[label] = wanted.standing[cut.label]
    plans = lay_out(project, ToCut(tuple(cuts), standing), work)
    return _listed(what, project, plans, {})


def shopping_whole(project: Project, work: int) -> Shopping:
    """For the project's quilt, with its borders, binding, backing and batting; where there is none
    yet, for one of each block."""
    plan = plan_quilt(project)
    if plan.top.rows:
        return quilt_shopping(plan, work)
    return shopping_for(
        project, {block.id: 1 for block in project.blocks}, "one of each block", work
    )


def quilt_shopping(plan: QuiltPlan, work: int) -> Shopping:
    """Everything to buy for a quilt."""
    project, measure = plan.project, plan.measure
    fabric_plans = plan.fabric_plans.best if work else plan.fabric_plans.at_once
    buying_list = _listed("the quilt", project, fabric_plans, {})
    others = []
    if plan.backing is not None and plan.quilt.backing is not None:
        way = plan.backing
        fabric = project.fabric(plan.quilt.backing.fabric)
        price = None
        if fabric is not None and fabric.price is not None:
            price = fabric.price * way.buy / measure.system.long_unit.length
        name = fabric_name(project, plan.quilt.backing.fabric or None)
        left = size_text(near(way.left, measure), measure) if way.left[0] > 0 else ""
        buy = bought_text(way.buy, measure) if way.buy else "there is enough"
        notes = [left, less_text(way, measure).removeprefix("; "), _of_wide(plan)]
        others.append(Other(f"Backing: {name}", buy, price, ", ".join(filter(None, notes))))
    if plan.batting is not None:
        others.append(Other("Batting", size_text(near(plan.batting, measure), measure), None))
    return buying_list._replace(others=tuple(others))


def _of_wide(plan: QuiltPlan) -> str:
    """What the backing comes to of fabric that needs no seam."""
    way, measure = wide_backing(plan.size, plan.project), plan.measure
    if way is None:
        return ""
    wide = length_text(measure.from_inches(WIDE), measure)
    return f"of fabric {wide} wide: {bought_text(way.buy, measure)}, no seam"


def less_note(fabric_plan: FabricPlan, measure: Measure) -> str:
    """What if the shop has a step less: whether it holds all the same."""
    step = measure.system.buying
    if not fabric_plan.lengths or fabric_plan.buy <= step:
        return ""
    name, left = bought_text(step, measure), fabric_plan.buy - step - fabric_plan.least
    if left < 0:
        return f"{name} less does not hold it."
    spare = length_text(floor_exact(left / measure.mark) * measure.mark, measure)
    return f"{name} less holds it, with {spare} to spare."


def _listed(
    what: str,
    project: Project,
    plans: Sequence[FabricPlan],
    notes: Mapping[str | None, tuple[str, ...]],
) -> Shopping:
    lines = []
    missing = []
    for fabric_plan in plans:
        fabric = project.fabric(fabric_plan.fabric or "")
        price = None
        if fabric is not None and fabric.price is not None and fabric_plan.new is not None:
            price = fabric.price * fabric_plan.buy / project.measure.system.long_unit.length
        left = tuple(_left(fabric_plan, project))
        note = less_note(fabric_plan, project.measure)
        said = notes.get(fabric_plan.fabric, (note,) if note else ())
        lines.append(ShoppingLine(fabric_plan, price, left, said))
        missing += [
            f"{m.number} × {size_text(m.cut.cut, project.measure)} of "
            f"{fabric_name(project, fabric_plan.fabric)}"
            for m in fabric_plan.missing
        ]
    return Shopping(what, tuple(lines), tuple(missing))


MOST_LEFT = 4
"""Sizes told of what is left of a fabric."""


def _left(fabric_plan: FabricPlan, project: Project) -> Iterator[str]:
    """What is left of all pieces of a fabric, the largest, equal ones told once."""
    rects: Counter[tuple[Exact, Exact]] = Counter()
    for laid in fabric_plan.laid:
        for rect in worth_keeping(laid, project):
            rects[rect.width, rect.height] += rect.layers
    largest = sorted(rects.items(), key=lambda item: (-item[0][0] * item[0][1], item[0]))
    for size, number in largest[:MOST_LEFT]:
        text = size_text(size, project.measure)
        yield f"{number} × {text}" if number > 1 else text


def _steps(plan: BlockPlan) -> dict[str | None, tuple[str, ...]]:
    """What a step of fabric more would make, and one less, for each fabric alone."""
    step = plan.measure.system.buying
    name = bought_text(step, plan.measure)
    needs: dict[int, dict[str | None, Fraction]] = {}
    for copies in range(plan.copies - FARTHEST, plan.copies + FARTHEST + 1):
        if copies > 0:
            check()
            other_plan = plan_block(plan.project, plan.block, copies, ())
            needs[copies] = {c.fabric: c.buy for c in other_plan.fabric_plans.at_once}
    steps = {}
    for fabric_plan in plan.fabric_plans.best:
        if fabric_plan.new is None:
            continue
        more = [
            n - plan.copies for n, need in needs.items()
            if n > plan.copies and need.get(fabric_plan.fabric, 0) <= fabric_plan.buy + step
        ]  # fmt: skip
        same = [
            n - plan.copies for n, need in needs.items()
            if n > plan.copies and need.get(fabric_plan.fabric, 0) <= fabric_plan.buy
        ]  # fmt: skip
        fewer = [
            plan.copies - n for n, need in needs.items()
            if n < plan.copies and need.get(fabric_plan.fabric, 0) <= fabric_plan.buy - step
        ]  # fmt: skip
        notes = []
        if same:
            notes.append(f"It holds {_blocks(max(same))} more as it is.")
        if more and max(more) > max(same, default=0):
            notes.append(f"{name} more holds {_blocks(max(more))} more.")
        if fewer and plan.copies > 1:
            notes.append(f"{name} less: {_blocks(min(fewer))} fewer.")
        elif fabric_plan.buy > step and plan.copies > FARTHEST:
            notes.append(f"{name} less: more than {FARTHEST} blocks fewer.")
        elif fabric_plan.buy > step:
            notes.append(less_note(fabric_plan, plan.measure))
        steps[fabric_plan.fabric] = tuple(notes)
    return steps


def _blocks(number: int) -> str:
    return "1 block" if number == 1 else f"{number} blocks"


def price_text(price: Exact | None) -> str:
    """Money to two places; nothing where it is not known."""
    return "" if price is None else f"{float(price):.2f}"


def shopping_lines(buying_list: Shopping, project: Project) -> list[list[str]]:
    """The list as lines of text cells: fabric, what to buy, price, what is left."""
    measure = project.measure
    lines = [["Fabric", "Buy", "Price", "From what you have", "Left over"]]
    for line in buying_list.lines:
        fabric_plan = line.fabric_plan
        laid_pieces = [laid for laid in fabric_plan.laid[fabric_plan.begun :] if laid.kind != "new"]
        lines.append(
            [
                fabric_name(project, fabric_plan.fabric),
                bought_text(fabric_plan.buy, measure) if fabric_plan.new is not None else "nothing",
                price_text(line.price),
                f"{len(laid_pieces)} pieces"
                if len(laid_pieces) > 1
                else "1 piece"
                if laid_pieces
                else "",
                ", ".join(line.left),
            ]
        )
    lines += [[o.name, o.buy, price_text(o.price), "", o.left] for o in buying_list.others]
    if buying_list.price is not None:
        lines.append(["Together", "", price_text(buying_list.price), "", ""])
    return lines


def shopping_notes(buying_list: Shopping, project: Project) -> list[str]:
    """What is said below the list: what a step more or less means, and what no fabric holds."""
    notes = [
        f"{fabric_name(project, line.fabric_plan.fabric)}: {' '.join(line.notes)}"
        for line in buying_list.lines
        if line.notes
    ]
    if buying_list.missing:
        notes.append(f"No fabric holds: {', '.join(buying_list.missing)}.")
    return notes
