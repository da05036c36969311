"""Fabric to buy, in words."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from itertools import accumulate
from typing import NamedTuple

from inlet.core.cutlist import PlannedSet, four_patches
from inlet.core.layout.fabric_plan import CutDown, FabricPlan
from inlet.core.layout.laid_strips import pieces_on
from inlet.core.numbers import Exact, Fraction, LongUnit, System, floor_exact, next_mark, show
from inlet.core.project import Measure, Project
from inlet.core.words import fabric_name, length_text, size_text


def buying_text(fabric_plan: FabricPlan, measure: Measure) -> str:
    """How much of a fabric: strips, their length together, and what to buy; nothing to buy where
    what is there does; what is cut already and is cut down."""
    down = [cut_down_text(each, measure) for each in fabric_plan.cut_down]
    return "; ".join([_bought_text(fabric_plan, measure), *down])


def cut_down_text(cut_down: CutDown, measure: Measure) -> str:
    """``cut down 12 of B to 3 3/8 in``."""
    size = size_text(cut_down.size, measure)
    return f"cut down {cut_down.number} of {cut_down.label} to {size}"


def _bought_text(fabric_plan: FabricPlan, measure: Measure) -> str:
    if not fabric_plan.lengths:
        if not fabric_plan.laid:
            return "nothing can be cut of it"
        bought = any(laid.kind == "new" for laid in fabric_plan.laid)
        return "being cut" if bought else "from what you have"
    number = len(fabric_plan.strips)
    strips = "1 strip" if number == 1 else f"{number} strips"
    also = " beside what you have" if len(fabric_plan.laid) > len(fabric_plan.lengths) else ""
    lengths = f" in {len(fabric_plan.lengths)} lengths" if len(fabric_plan.lengths) > 1 else ""
    return (
        f"{strips}{lengths}, {length_text(fabric_plan.length, measure)} in all; "
        f"{holds_text(fabric_plan, measure)}{also}"
    )


def holds_text(fabric_plan: FabricPlan, measure: Measure) -> str:
    """``2 yd hold it with 1 in to spare; buy 2 1/8 yd``; ``buy 2 yd, 3 in to spare`` where no less
    holds it."""
    system = measure.system
    least = next_mark(fabric_plan.least, system.buying)
    spare = floor_exact((least - fabric_plan.least) / measure.mark) * measure.mark
    bought = f"buy {bought_text(fabric_plan.buy, measure)}"
    to_spare = f"{length_text(spare, measure)} to spare" if spare else "nothing to spare"
    if least < fabric_plan.buy:
        return f"{bought_text(least, measure)} holds it with {to_spare}; {bought}"
    return f"{bought}, {to_spare}" if spare else bought


def bought_text(length: Fraction, measure: Measure) -> str:
    """A length of fabric as a shop cuts it: ``3/8 yd``, ``50 cm``."""
    return _bought(length, measure.system, measure.system.fabric_unit)


def strips_text(fabric_plan: FabricPlan, measure: Measure) -> str:
    """The strips to cut first, in their order: “Cut 3 strips 7 1/4 in, then 4 at 3 1/2 in.”;
    nothing where none are."""
    widths = Counter(fabric_plan.strips)
    if not widths:
        return ""
    (first, number), *others = widths.items()
    strips = "1 strip" if number == 1 else f"{number} strips"
    parts = [f"Cut {strips} {length_text(first, measure)}"]
    parts += [f"{n} at {length_text(width, measure)}" for width, n in others]
    return ", then ".join(parts) + "."


def set_name(planned_set: PlannedSet, project: Project) -> str:
    """``2 in Fog + 2 in Silt``: the bands of a set, finished."""
    return " + ".join(
        f"{length_text(width, project.measure)} {fabric_name(project, fabric)}"
        for width, fabric in planned_set.bands
    )


def set_lines(planned_set: PlannedSet, project: Project) -> list[str]:
    """What to sew and cut of one kind of strip set, a sentence a line."""
    measure = project.measure
    lengths = Counter(planned_set.lengths)
    sew = " and ".join(f"{n} of {length_text(long, measure)}" for long, n in lengths.items())
    wide = length_text(planned_set.wide, measure)
    sets = f"{len(planned_set.lengths)} {'set' if len(planned_set.lengths) == 1 else 'sets'} to sew"
    lines = [f"{sets}: {sew}, {wide} wide when sewn"]
    for part in planned_set.segments:
        cut = f"{part.number} segments, cut {length_text(part.cut, measure)}"
        lines.append(f"{cut}, for {', '.join(part.labels)}")
    for other in planned_set.elsewhere[:4]:
        each = f"{other.number} that finish {length_text(other.height, measure)}, a block"
        lines.append(f"could also give {other.label} of {other.block}: {each}")
    for strips in planned_set.choices:
        number = f"{strips.sets} {'set' if strips.sets == 1 else 'sets'}"
        left = length_text(strips.left, measure)
        patches = four_patches(planned_set, strips, measure)
        ends = f", enough for {patches} four-patches" if patches else ""
        lines.append(f"from {strips.kind} strips: {number}, {left} left{ends}")
    return lines


class StripsToCut(NamedTuple):
    """Strips of one width of a fabric: how ``many``, how ``wide`` in words, ``of`` which pieces of
    it, and what they are cut ``into``."""

    many: int
    wide: str
    of: str
    into: str


def strips_to_cut(fabric_plan: FabricPlan, project: Project) -> list[StripsToCut]:
    """All strips of a fabric, in the order they are cut, those of one width told once."""
    numbers: Counter[Exact] = Counter()
    lengths: dict[Exact, dict[int, None]] = {}
    into: dict[Exact, Counter[str]] = {}
    for laid, length in zip(fabric_plan.laid, length_numbers(fabric_plan), strict=True):
        for strip in laid.strips:
            numbers[strip.width] += strip.count * laid.count
            lengths.setdefault(strip.width, {}).setdefault(length)
            labels = into.setdefault(strip.width, Counter())
            for pieces, number in pieces_on([strip]):
                labels[pieces.label] += number * laid.count
    return [
        StripsToCut(
            number, length_text(width, project.measure), _lengths_words(list(lengths[width])),
            ", ".join(f"{many} for {label}" for label, many in into[width].items()),
        )
        for width, number in numbers.items()
    ]  # fmt: skip


def _lengths_words(numbers: Sequence[int]) -> str:
    """``length 2``, ``lengths 1 to 3``; nothing where there is one length only."""
    told = [number for number in numbers if number]
    if len(told) < 2:
        return "".join(f"length {number}" for number in told)
    return f"lengths {told[0]} to {told[-1]}"


def length_numbers(fabric_plan: FabricPlan) -> list[int]:
    """For each piece of fabric that is laid down which of several lengths of new fabric it is, from
    1 on; 0 where it is none, or the only one."""
    several = sum(laid.kind == "new" for laid in fabric_plan.laid) > 1
    counted = accumulate(int(laid.kind == "new") for laid in fabric_plan.laid)
    return [
        number if several and laid.kind == "new" else 0
        for laid, number in zip(fabric_plan.laid, counted, strict=True)
    ]


def length_words(fabric_plan: FabricPlan) -> list[str]:
    """``length 2 of 3`` for each piece of fabric; nothing where it is not one of several."""
    numbers = length_numbers(fabric_plan)
    return [f"length {number} of {max(numbers)}" if number else "" for number in numbers]


def piece_names(fabric_plan: FabricPlan, project: Project) -> list[str]:
    """A name for each piece of fabric that is laid down: ``Fog``, ``Fog, length 2 of 3``."""
    name = fabric_name(project, fabric_plan.fabric)
    return [f"{name}, {words}" if words else name for words in length_words(fabric_plan)]


def total_text(fabric_plans: Sequence[FabricPlan], measure: Measure) -> str:
    """All the fabric to buy together: ``7/8 yd``, ``0.7 m``."""
    bought = sum((fabric_plan.buy for fabric_plan in fabric_plans), Fraction(0))
    return _bought(bought, measure.system, measure.system.long_unit)


def _bought(length: Fraction, system: System, unit: LongUnit) -> str:
    return f"{show(length / unit.length, system=system)} {unit.name}"
