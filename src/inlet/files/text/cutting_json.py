"""The cutting plan as JSON data (docs/plan-format.md)."""

from __future__ import annotations

from typing import Any

from inlet.core.layout import (
    FabricPlan,
    Rect,
    Stroke,
    length_used,
    piece_area,
    places_of,
    stroke_text,
    strokes_of,
)
from inlet.core.project import Cutting, LaidFabric, Measure, Project
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
    rules, measure = project.cutting or Cutting(), project.measure
    strokes = strokes_of(laid, rules.stack, measure.system.long_ruler)
    length = length_used(laid)
    used = float(piece_area(laid) / (length * laid.width)) if length else 0.0
    return {
        "from": laid.kind,
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
        "cuts": [_stroke(i, stroke, measure) for i, stroke in enumerate(strokes, 1)],
        "used": round(used, 4),
    }


def _stroke(which: int, stroke: Stroke, measure: Measure) -> dict[str, Any]:
    return {
        "number": which,
        "way": stroke.way,
        "at": number(stroke.at),
        "from": number(stroke.start),
        "to": number(stroke.end),
        "of": [_rect(rect) for rect in stroke.of],
        "stacked": stroke.stacked,
        "layers": stroke.layers,
        "what": stroke.what,
        "size": number(stroke.size),
        **({"opens": True} if stroke.opens else {}),
        "finishes": dict(stroke.finishes),
        "text": stroke_text(stroke, measure),
    }


def _rect(rect: Rect) -> list[str]:
    return [number(side) for side in (rect.x, rect.y, rect.width, rect.height)]
