"""Methods compared on the maker's terms: fabric, seams, cuts, minutes, and which to take."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from typing import NamedTuple

from inlet.core.numbers import Fraction
from inlet.core.planning.cut_piece import CutPiece
from inlet.core.planning.unit_plan import MethodPlan, Need, UnitPlan
from inlet.core.project import Measure, Rates
from inlet.core.staged import Known
from inlet.core.table import DIAGONALS


class MethodCost(NamedTuple):
    """What a method comes to for all the units needed.

    ``pieces`` to sew with (triangles counted after the crosscut), ``shapes`` to cut from fabric;
    ``fabric`` and ``wasted`` in square inches or centimetres: what is cut, and how much of it is
    neither in a unit that is needed nor in a seam of it. ``bias`` outer edges of a unit; ``seams``,
    ``cuts``, ``presses`` and ``trims`` in number; ``minutes`` at the maker's rates.
    """

    plan: MethodPlan
    pieces: int
    shapes: int
    fabric: float
    wasted: float
    bias: int
    seams: int
    cuts: int
    presses: int
    trims: int
    minutes: float

    def plus(self, other_cost: MethodCost) -> MethodCost:
        """Two hands made each on its own, the bias of one."""
        return MethodCost(
            self.plan,
            self.pieces + other_cost.pieces,
            self.shapes + other_cost.shapes,
            self.fabric + other_cost.fabric,
            self.wasted + other_cost.wasted,
            self.bias,
            self.seams + other_cost.seams,
            self.cuts + other_cost.cuts,
            self.presses + other_cost.presses,
            self.trims + other_cost.trims,
            self.minutes + other_cost.minutes,
        )

    @property
    def over(self) -> int:
        """Units that are not needed, of either hand."""
        return self.plan.surplus + self.plan.mirrored_over


COLUMNS: dict[str, Callable[[MethodCost], float]] = {
    "minutes": lambda c: c.minutes,
    "fabric": lambda c: c.fabric,
    "wasted": lambda c: c.wasted,
    "over": lambda c: c.over,
    "pieces": lambda c: c.pieces,
    "cuts": lambda c: c.cuts,
    "seams": lambda c: c.seams,
    "bias": lambda c: c.bias,
    "trims": lambda c: c.trims,
}
"""What methods can be sorted by, least first."""


class Comparison(NamedTuple):
    """Every method of a unit with its cost, in their usual order; the one to take, and why."""

    costs: tuple[MethodCost, ...]
    best: MethodCost
    why: str


class Comparisons(Mapping[str, Comparison]):
    """The methods of every unit compared, by its label; worked out when first asked for."""

    def __init__(self, plans: Sequence[UnitPlan], rates: Rates) -> None:
        self._plans, self._rates = {plan.unit.label: plan for plan in plans}, rates
        self._known = Known()

    def __getitem__(self, label: str) -> Comparison:
        return self._known.of(label, lambda: self._compared(label))

    def _compared(self, label: str) -> Comparison:
        costs, best = compared(self._plans, label, self._rates)
        return Comparison(costs, best, reason(best, costs))

    def __iter__(self) -> Iterator[str]:
        return iter(self._plans)

    def __len__(self) -> int:
        return len(self._plans)


def compared(
    plans: Mapping[str, UnitPlan], label: str, rates: Rates
) -> tuple[tuple[MethodCost, ...], MethodCost]:
    """Every method of a unit with its cost, see ``costs``, and the one to take: the one that is
    advised already, where one is."""
    plan = plans[label]
    twin = plans[plan.twin.label] if plan.twin else None
    if twin is not None and plan.unit.mirror_of is not None:
        plan, twin = twin, plan
    ranked = costs(plan, rates, twin)
    advised = plan.advised.name if plan.advised else None
    said = (cost for cost in ranked if cost.plan.name == advised)
    asked_to_trim = plan.choice is not None and plan.choice.style == "trim"
    return ranked, next(said, None) or recommended(ranked, plan.measure, asked_to_trim)


def costs(plan: UnitPlan, rates: Rates, twin: UnitPlan | None = None) -> tuple[MethodCost, ...]:
    """Every method of a unit with its cost, in their usual order. Where the block has the unit in
    both hands, ``twin`` is the other and both are counted: a method that gives one hand only is
    taken for each."""
    if twin is None:
        return tuple(cost_of(m, plan.need, plan, rates) for m in plan.methods)
    both, other_need = Need(plan.count, twin.count), Need(twin.count)
    listed = []
    for method in plan.known_methods():
        cost = cost_of(plan.planned(method, both), both, plan, rates)
        if not method.mirrored:
            same = twin.method_named(method.name)
            assert same is not None, "both hands are made in the same ways"
            cost = cost.plus(cost_of(twin.planned(same, other_need), other_need, twin, rates))
        listed.append(cost)
    return tuple(listed)


def cost_of(method: MethodPlan, need: Need, plan: UnitPlan, rates: Rates) -> MethodCost:
    """The cost of a method for the units needed, see ``MethodCost``."""
    runs = method.runs
    effort = method.method.effort
    in_sets = [(s.number, len(s.strips.bands) - 1) for s in method.sets]
    seams = runs * effort.seams + sum(number * each for number, each in in_sets)
    presses = runs * effort.presses + sum(number * each for number, each in in_sets)
    sewn = runs * effort.length + sum(
        float(s.length) * number * each
        for s, (number, each) in zip(method.sets, in_sets, strict=True)
    )
    diagonals = sum(p.number * DIAGONALS[p.piece.crosscut] for p in method.pieces)
    marks, apart = runs * effort.marks, runs * effort.apart + diagonals
    shapes = sum(p.number for p in method.pieces)
    trims = method.made + method.mirrored if method.trim_to else 0
    cuts = shapes + apart
    fabric = sum(cut_area(p) for p in method.pieces)
    needed = need.number + (need.mirrored if method.method.mirrored else 0)
    in_units = needed * plan.own_fabric
    seconds = (
        rates.cut * cuts
        + rates.mark * marks
        + rates.seam * seams
        + rates.length * float(sewn) / plan.measure.system.rate_length
        + rates.press * presses
        + rates.trim * trims
    )
    pieces = sum(p.piece.quantity * runs // p.piece.runs for p in method.pieces if not method.sets)
    return MethodCost(
        method,
        pieces or shapes,
        shapes,
        fabric,
        max(0.0, fabric - in_units),
        method.method.bias,
        _whole(seams),
        _whole(cuts),
        _whole(presses),
        trims,
        float(seconds) / 60,
    )


def _whole(number: Fraction | int) -> int:
    return -(-number // 1)


def cut_area(cut: CutPiece) -> float:
    """The fabric of all shapes of a cut piece; a template's by the box round it."""
    return float(cut.cut[0] * cut.cut[1] * cut.number)


# --- which to take ----------------------------------------------------------------------------

_BIAS_MINUTES = 0.5
"""What one bias edge on the outside of a unit weighs: handling it without stretching."""
_LOOSE_MINUTES = 0.15
"""What one triangle cut before it is sewn weighs: its long side is bias until the seam holds it."""


def _loose(cost: MethodCost) -> int:
    return sum(
        cut.piece.quantity * cost.plan.runs
        for cut in cost.plan.pieces
        if cut.piece.crosscut in ("once", "twice")
    )


def table(ranked: Sequence[MethodCost]) -> list[list[str]]:
    """The comparison as rows of words, the headings first."""
    rows = [["method", *COLUMNS]]
    for cost in ranked:
        figures = [f"{key(cost):.0f}" for key in COLUMNS.values()]
        rows.append([cost.plan.name, *figures])
    return rows


def recommended(
    ranked: Sequence[MethodCost], measure: Measure, asked_to_trim: bool = False
) -> MethodCost:
    """The method to take: least minutes, waste and bias weighed together. What needs a tool or a
    template of its own, stands proud, or takes fabric larger than what is cut already, comes last:
    nobody is advised to it unasked; and what cannot be trimmed, where the maker asks for that; and
    what turns a print that is to stand upright. The usual order breaks ties."""
    per_minute = measure.system.fabric_a_minute

    def weight(cost: MethodCost) -> tuple[bool, bool, bool, bool, float]:
        made = cost.plan.made + cost.plan.mirrored
        bias = _BIAS_MINUTES * cost.bias * made + _LOOSE_MINUTES * _loose(cost)
        weighed = cost.minutes + cost.wasted / per_minute + bias
        method = cost.plan.method
        template = any(piece.shape == "template" for piece in method.pieces)
        if_asked_for = bool(method.tool) or method.stands_proud or template
        cannot_trim = asked_to_trim and not method.trims
        return cost.plan.short, cannot_trim, cost.plan.turns_print, if_asked_for, weighed

    return min(ranked, key=weight)


_NOTICED = 1.0
"""Minutes less than which nobody notices."""
_BEST: tuple[tuple[str, Callable[[MethodCost], float], str], ...] = (
    ("fabric", lambda c: round(c.fabric), "least fabric"),
    ("seams", lambda c: c.seams, "fewest seams"),
    ("cuts", lambda c: c.cuts, "fewest cuts"),
)


def reason(best: MethodCost, ranked: Sequence[MethodCost]) -> str:
    """Why a method is recommended, and what the next best would bring, in a sentence."""
    others = [c for c in ranked if c is not best]
    if not others:
        return "The only way to make it here."
    good = [
        words
        for _, key, words in _BEST
        if all(key(best) <= key(c) for c in others) and any(key(best) < key(c) for c in others)
    ]
    if best.over == 0 and any(c.over for c in others):
        good.append("none over")
    if best.bias == 0 and any(c.bias for c in others):
        good.append("straight grain outside")
    if best.trims == 0 and any(c.trims for c in others):
        good.append("nothing to trim")
    if all(best.minutes <= c.minutes - _NOTICED for c in others):
        good.insert(0, "quickest")
    first = ", ".join(good[:3]) or "the best balance of time and fabric"
    return f"{first[0].upper()}{first[1:]}{_instead(best, others)}."


def _instead(best: MethodCost, others: Sequence[MethodCost]) -> str:
    """What the quickest other method would save, and at what price."""
    quicker = min(others, key=lambda c: c.minutes)
    saved = best.minutes - quicker.minutes
    name = quicker.plan.name.replace("-", " ")
    price = []
    if quicker.plan.method.tool:
        price.append(f"needs {quicker.plan.method.tool}")
    if quicker.over > best.over:
        price.append(f"leaves {quicker.over} over")
    if quicker.bias > best.bias:
        price.append("has bias edges outside")
    if quicker.wasted > best.wasted * 1.1 + 1:
        price.append("wastes more fabric")
    reason_text = " and ".join(filter(None, (", ".join(price[:-1]), *price[-1:])))
    if saved >= _NOTICED:
        return f"; {name} saves {saved:.0f} min" + (f" but {reason_text}" if reason_text else "")
    if saved <= -_NOTICED:
        return f"; {name} takes {-saved:.0f} min more"
    return f"; {name} takes as long" + (f" and {reason_text}" if reason_text else "")
