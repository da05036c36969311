"""The cutting plan as JSON data (docs/plan-format.md)."""

from __future__ import annotations

from typing import Any

from inlet.core.layout import (
    ClothPlan,
    Rect,
    Stroke,
    length_used,
    piece_area,
    places_of,
    stroke_text,
    strokes_of,
)
from inlet.core.project import Cutting, LaidCloth, Measure, Project
from inlet.files.text.exact_json import number


def cutting_list(plans: tuple[ClothPlan, ...], project: Project) -> list[dict[str, Any]]:
    """Every piece of fabric to lay down, in the order of the cut list."""
    return [
        {
            "fabric": plan.fabric,
            **cloth_dict(cloth, project),
            "bound": number(plan.bound) if cloth.kind == "new" else None,
        }
        for plan in plans
        for cloth in plan.cloths
    ]


def cloth_dict(cloth: LaidCloth, project: Project) -> dict[str, Any]:
    """One piece of fabric with its places and cuts."""
    rules, measure = project.cutting or Cutting(), project.measure
    strokes = strokes_of(cloth, rules.stack, measure.system.long_ruler)
    length = length_used(cloth)
    used = float(piece_area(cloth) / (length * cloth.width)) if length else 0.0
    return {
        "from": cloth.kind,
        "width": number(cloth.width),
        "length": number(cloth.length),
        "layers": cloth.layers,
        "fold": "0" if cloth.layers > 1 else None,
        "squaring": number(cloth.squaring),
        "square_every": cloth.every,
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
            for place in places_of(cloth)
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
