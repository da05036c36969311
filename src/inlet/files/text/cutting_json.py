"""The cutting plan as JSON data (docs/plan-format.md)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from inlet.core.layout import (
    CutPart,
    CuttingLine,
    FabricPlan,
    Rect,
    Stroke,
    Tools,
    cuts_of,
    length_used,
    line_text,
    lines_of,
    piece_area,
    places_of,
    tools_for,
)
from inlet.core.project import LaidFabric, Project
from inlet.files.text.exact_json import number


def cutting_list(plans: tuple[FabricPlan, ...], project: Project) -> list[dict[str, Any]]:
    """Every piece of fabric to lay down, in the order of the cut list."""
    return [
        {
            "fabric": plan.fabric,
            **laid_dict(laid, project),
            "bound": number(plan.bound) if laid.kind == "new" else None,
        }
        for plan in plans
        for laid in plan.laid
    ]


def laid_dict(laid: LaidFabric, project: Project) -> dict[str, Any]:
    """One piece of fabric with its places and cuts."""
    strokes = cuts_of(laid, project)
    length = length_used(laid)
    used = float(piece_area(laid) / (length * laid.width * laid.count)) if length else 0.0
    return {
        "from": laid.kind,
        "count": laid.count,
        "width": number(laid.width),
        "length": number(laid.length),
        "layers": laid.layers,
        "fold": "0" if laid.layers > 1 else None,
        "squaring": number(laid.squaring),
        "square_every": laid.every,
        "cut_up": number(length),
        "places": [
            {
                "label": place.label,
                "x": number(place.at.x),
                "y": number(place.at.y),
                "width": number(place.at.width),
                "height": number(place.at.height),
                "turned": place.turned,
                "layers": place.at.layers,
                **({"holds": place.holds} if place.holds > 1 else {}),
            }
            for place in places_of(laid)
        ],
        "cuts": [
            _line(i, line, strokes, laid, project)
            for i, line in enumerate(lines_of(laid, project), 1)
        ],
        "used": round(used, 4),
    }


def _line(
    which: int, line: CuttingLine, strokes: Sequence[Stroke], laid: LaidFabric, project: Project
) -> dict[str, Any]:
    """Equal cuts, told once, and each of them."""
    tools = tools_for(laid, project)
    return {
        "number": which,
        "count": line.number,
        **({"rounds": line.rounds} if line.rounds > 1 else {}),
        "text": line_text(line, tools, project.measure),
        "finishes": dict(line.finishes),
        "parts": [_part(part, tools) for part in line.parts],
        "strokes": [_stroke(stroke) for stroke in strokes[line.first : line.last]],
    }


def _part(part: CutPart, tools: Tools) -> dict[str, Any]:
    """How equal cuts are made: what the ruler shows, and with which ruler."""
    set_up = part.set_up
    data: dict[str, Any] = {
        "what": part.stroke.what,
        "size": number(part.stroke.size),
        "times": part.number,
        "measured_by": set_up.by,
        "ruler": [number(side) for side in tools.rulers[set_up.ruler]],
    }
    if set_up.beside is not None:
        data["beside"] = [number(side) for side in tools.rulers[set_up.beside]]
    if part.squared:
        data["squared"] = part.squared
    if set_up.folds:
        data["folds_again"] = set_up.folds
    if set_up.shifts:
        data["moved_on"] = set_up.shifts
    return data


def _stroke(stroke: Stroke) -> dict[str, Any]:
    return {
        "way": stroke.way,
        "at": number(stroke.at),
        "from": number(stroke.start),
        "to": number(stroke.end),
        "of": [_rect(rect) for rect in stroke.of],
        "stacked": stroke.stacked,
        "layers": stroke.layers,
        **({"copies": stroke.copies} if stroke.copies > 1 else {}),
        "what": stroke.what,
        "size": number(stroke.size),
        **({"opens": True} if stroke.opens else {}),
        "finishes": dict(stroke.finishes),
    }


def _rect(rect: Rect) -> list[str]:
    return [number(side) for side in (rect.x, rect.y, rect.width, rect.height)]
