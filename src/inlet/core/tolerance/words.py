"""What a hand will do, in sentences."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from inlet.core.geometry import Point
from inlet.core.numbers import Fraction
from inlet.core.plan import SewnBlock
from inlet.core.project import Measure
from inlet.core.tolerance.advice import HelpAdvice
from inlet.core.tolerance.forecast import Forecast, SizeSpread
from inlet.core.tolerance.quilt_rows import BorderSpread, QuiltForecast, RowSpread
from inlet.core.tolerance.sewing_hand import THREAD, SewingHand
from inlet.core.tolerance.shares import Share
from inlet.core.tolerance.simulated import Slips
from inlet.core.words import near_text, unit_of

RiskLevel = Literal["low", "some", "high"]
AT_RISK = 0.25
"""How often a point is off before it is at risk: in one block of four."""
HIGH = 0.5
WHOLE = 0.995
RARE = 0.005
MOST_SHARES = 3
LEAST_SHARE = 0.1


def risk_level(off: float) -> RiskLevel:
    """How likely a point or crossing is off visibly, in three steps."""
    return "high" if off >= HIGH else "some" if off >= AT_RISK else "low"


def risk_line(forecast: Forecast, whose: str) -> str:
    """The line on a block's ticket: ``2 of 8 points at risk with your seam.``"""
    points = [point.off for point in forecast.points]
    name, off = (
        ("point", points)
        if points
        else ("crossing", [crossing.off for crossing in forecast.crossings])
    )
    if not off:
        return ""
    number = sum(chance >= AT_RISK for chance in off)
    counted = f"{number} of {len(off)} {name}s" if number else f"No {name}"
    return f"{counted} at risk with {whose}."


def _at_risk(forecast: Forecast) -> bool:
    chances = [p.off for p in forecast.points] + [c.off for c in forecast.crossings]
    return any(off >= AT_RISK for off in chances)


def chance_text(chance: float) -> str:
    """``almost never``, ``in 3 of 100``, ``in 2 of 10``, ``almost always``."""
    if chance < RARE:
        return "almost never"
    if chance > WHOLE:
        return "almost always"
    if chance < 0.1:
        return f"in {max(1, round(100 * chance))} of 100"
    return f"in {round(10 * chance)} of 10" if chance < 0.95 else "in more than 9 of 10"


def blocks_text(chance: float) -> str:
    """``in 3 of 10 blocks``."""
    if chance < RARE:
        return "in hardly any block"
    return "in nearly every block" if chance > WHOLE else f"{chance_text(chance)} blocks"


def forecast_lines(forecast: Forecast, made_of: Sequence[Share], measure: Measure) -> Iterator[str]:
    """What comes of a block, after its ``risk_line``, the most important first."""
    if _at_risk(forecast):
        yield "At risk: off by more than 1/32 in, in one block of four or more."
    if forecast.points:
        number = len(forecast.points)
        some = f"At least one of the {number} points" if number > 1 else "The point"
        yield f"{some} is cut off {blocks_text(forecast.any_cut)}."
    if forecast.block is not None:
        yield f"The block: {size_line(forecast.block, measure)}."
    for size in forecast.sizes[1:]:
        yield f"{size.name}: {size_line(size, measure)}."
    yield from share_lines(made_of)


def size_line(size: SizeSpread, measure: Measure) -> str:
    """``12 1/2 in planned; nine in ten come out 12.25 to 12.37 in``; width by height where these
    differ."""
    planned = near_text(size.planned, measure)
    sides = (0, 1) if size.planned[0] != size.planned[1] else (0,)
    if len(sides) == 1:
        low, high = min(size.low), max(size.high)
        return f"{planned} planned; nine in ten come out {_between(low, high, measure)}"
    width, height = (_between(size.low[k], size.high[k], measure) for k in sides)
    return f"{planned} planned; nine in ten come out {width} wide, {height} high"


def _between(low: float, high: float, measure: Measure) -> str:
    unit = unit_of(measure)
    if f"{low:.2f}" == f"{high:.2f}":
        return f"{low:.2f} {unit}"
    return f"{low:.2f} to {high:.2f} {unit}"


def share_lines(made_of: Sequence[Share]) -> Iterator[str]:
    """Which work makes sizes, and points, uneven."""
    for what, values in (
        ("the block's size", [(s.work, s.size) for s in made_of]),
        ("points and crossings", [(s.work, s.sharp) for s in made_of]),
    ):
        largest = sorted(values, key=lambda v: -v[1])[:MOST_SHARES]
        parts = [f"{work} ({round(100 * part)} %)" for work, part in largest if part >= LEAST_SHARE]
        if parts:
            yield f"What makes {what} uneven: {', '.join(parts)}."


def advice_lines(advice: Sequence[HelpAdvice], forecast: Forecast) -> Iterator[str]:
    """What would help, the first thing first; that nothing would, where something is off."""
    for each in advice:
        yield f"{each.text}: {_spared(each)}."
    if not advice and (forecast.points or forecast.crossings):
        off = sum(p.off for p in forecast.points) + sum(c.off for c in forecast.crossings)
        if off < AT_RISK:
            yield "Nothing needs help: points and crossings come out sharp."
        else:
            yield "No other method, cutting style or size was found that helps clearly."


def _spared(advice: HelpAdvice) -> str:
    parts = [f"{advice.off_before:.1f} places off become {advice.off:.1f} in a block"]
    if advice.cut_before - advice.cut > 0.05:
        parts.append(f"{advice.cut_before:.1f} points cut off become {advice.cut:.1f}")
    return ", ".join(parts)


def quilt_lines(forecast: QuiltForecast, measure: Measure, whose: str) -> Iterator[str]:
    """What comes of the rows and borders of a quilt."""
    rows = [row for row in forecast.rows if row.next]
    risky = [row for row in rows if row.off_pinned >= AT_RISK]
    if rows:
        number = f"{len(risky)} of {len(rows)} seams" if risky else "No seam"
        verb = "do" if len(risky) > 1 else "does"
        yield (
            f"{number} between rows {verb} not match with {whose}, even pinned."
            if risky
            else f"Pinned at each crossing, rows match with {whose}."
        )
    for row in forecast.rows:
        yield row_line(row, measure)
    for border in forecast.borders:
        yield border_line(border, measure)


def row_line(row: RowSpread, measure: Measure) -> str:
    """``Row 1: 29.13 in planned, 29.03 to 29.20; off row 2 in 5 of 10, pinned almost never``."""
    planned = f"{row.planned:.2f} {unit_of(measure)}"
    line = f"{row.label}: {planned} planned, {_between(row.low, row.high, measure)}"
    if not row.next:
        return f"{line}."
    return (
        f"{line}; a crossing with {row.next} is off {chance_text(row.off)} laid flat, "
        f"{chance_text(row.off_pinned)} pinned."
    )


def border_line(border: BorderSpread, measure: Measure) -> str:
    """``Border 1, sides: 71.01 in planned, the quilt comes out 70.7 to 71.1 in …``"""
    planned = f"{border.planned:.2f} {unit_of(measure)}"
    comes_out = _between(border.low, border.high, measure)
    line = f"{border.label}, {border.side}: {planned} planned, the quilt comes out {comes_out}."
    if border.misfit < RARE:
        return line
    misfit = chance_text(border.misfit)
    return f"{line} Cut to the measured middle: as planned it would not fit {misfit}."


def slips_text(slips: Slips) -> str:
    """What went wrong: ``Slips: 3 half marks missed, 2 edges folded under, 1 unit turned.``"""
    parts = [
        f"{number} {word}{'' if number == 1 else 's'} {what}"
        for number, word, what in (
            (slips.mark, "half mark", "missed"),
            (slips.folded, "edge", "folded under"),
            (slips.turned, "unit", "turned"),
        )
        if number
    ]
    return f"Slips: {', '.join(parts)}." if parts else "No slips."


def thread_text(hand: SewingHand, wider: float, measure: Measure) -> str:
    """``A thread wider than now: your seam takes 0.266 in.`` by how many inches wider it is."""
    per_inch = float(measure.system.per_inch)
    takes = float(measure.seam) + hand.takes_more("straight") * per_inch
    told = f"the seam takes {takes:.3f} {unit_of(measure)}"
    threads = wider / THREAD
    if not threads:
        return f"As it is: {told}. Move the slider to sew wider or narrower."
    number = abs(threads)
    amount = (
        "A thread"
        if number == 1
        else f"{number:g} threads"
        if number > 1
        else (f"{number:g} of a thread")
    )
    way = "wider" if threads > 0 else "narrower"
    return f"{amount} {way}: {told}."


def size_at(forecast: Forecast, block: SewnBlock, at: tuple[float, float]) -> SizeSpread | None:
    """The size of the unit at a place of the block, in finished lengths; of the block beside it, or
    where no unit has a size."""
    wide, high = block.block.finished
    x, y = at
    if 0 < x < float(wide) and 0 < y < float(high):
        spot = Point(Fraction(round(x * 4096), 4096), Fraction(round(y * 4096), 4096))
        scale = block.block.scale
        patch = block.draft.patch_at(Point(spot.x / scale[0], spot.y / scale[1]))
        label = next(
            (
                plan.unit.label for plan in block.units for place in plan.unit.places
                if patch is not None and patch.face in place.part.faces and place.within is None
            ),
            None,
        )  # fmt: skip
        named = next((s for s in forecast.sizes if s.name == f"Unit {label}"), None)
        if named is not None:
            return named
    return forecast.block
