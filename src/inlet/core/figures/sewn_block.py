"""A block as a hand sews it, its points and crossings marked by how likely they are off."""

from __future__ import annotations

from collections.abc import Iterable

from inlet.core.figures.display import (
    Area,
    Corners,
    Disc,
    FabricArea,
    Figure,
    Frame,
    Item,
    Kind,
    Polyline,
    Spot,
)
from inlet.core.plan import QuiltPlan
from inlet.core.tolerance import (
    Forecast,
    QuiltForecast,
    RiskLevel,
    SewnLook,
    risk_level,
    seams_between_rows,
)

RISK: dict[RiskLevel, Kind] = {"low": "risk-low", "some": "risk-some", "high": "risk-high"}
ROW_RISK: dict[RiskLevel, Kind] = {
    "low": "row-risk-low", "some": "row-risk-some", "high": "row-risk-high",
}  # fmt: skip
SMALLER = 0.6
"""Marks on a whole quilt."""
SIZE: dict[RiskLevel, float] = {"low": 4.0, "some": 7.5, "high": 8.0}
"""Radius of a mark: what is at risk is seen first."""


def sewn_block_figure(look: SewnLook, size: tuple[float, float], frame: Frame) -> Figure:
    """The pieces where they came to lie, and the edge of the block as planned."""
    items: list[Item] = [
        FabricArea(tuple(frame.at(x, y) for x, y in piece.corners), piece.fabric, lettered=True)
        for piece in look.pieces
    ]
    wide, high = size
    planned = [(0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high), (0.0, 0.0)]
    items.append(Polyline(tuple(frame.at(x, y) for x, y in planned), "planned-edge"))
    return tuple(items)


def risk_figure(forecast: Forecast, look: SewnLook, frame: Frame) -> Figure:
    """A mark at each point and crossing: a ring where it comes out sharp, a triangle where it is at
    risk, a square where it is more often off than not."""
    off: dict[int, float] = {}
    chances = [(p.vertex, p.off) for p in forecast.points]
    chances += [(c.vertex, c.off) for c in forecast.crossings]
    for vertex, chance in chances:
        off[vertex] = max(chance, off.get(vertex, 0.0))
    return tuple(
        risk_mark(frame.at(*look.vertices[vertex]), risk_level(chance), frame.unit)
        for vertex, chance in sorted(off.items(), key=lambda item: item[1])
    )


def risk_mark(at: Spot, level: RiskLevel, unit: float) -> Item:
    """The mark of a risk, as the legend shows it."""
    x, y = at
    r = SIZE[level] * unit
    if level == "low":
        return Disc(at, r, RISK[level])
    if level == "some":
        triangle: Corners = ((x, y - r), (x + 0.9 * r, y + 0.7 * r), (x - 0.9 * r, y + 0.7 * r))
        return Area(triangle, RISK[level])
    r *= 0.85
    return Area(((x - r, y - r), (x + r, y - r), (x + r, y + r), (x - r, y + r)), RISK[level])


def row_risk_figure(plan: QuiltPlan, forecast: QuiltForecast, frame: Frame) -> Figure:
    """The seams between the rows of a quilt, thicker and otherwise dashed the less they match."""
    return tuple(_row_lines(plan, forecast, frame))


def _row_lines(plan: QuiltPlan, forecast: QuiltForecast, frame: Frame) -> Iterable[Item]:
    for label, begin, end in seams_between_rows(plan):
        row = next((r for r in forecast.rows if r.label == label), None)
        if row is None or not row.next:
            continue
        level = risk_level(row.off_pinned)
        a, b = frame.at(*begin), frame.at(*end)
        yield Polyline((a, b), ROW_RISK[level])
        yield risk_mark(((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), level, frame.unit * SMALLER)
