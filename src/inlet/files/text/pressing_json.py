"""Pressing in the plan of a block (docs/plan-format.md)."""

from __future__ import annotations

from typing import Any

from inlet.core.plan import SewnBlock
from inlet.core.pressing import AtEdge, Met, PressingPlan, Stretch, reason
from inlet.files.text.exact_json import pair


def pressing_dict(plan: SewnBlock) -> dict[str, Any]:
    """The fields of a plan that say how it is pressed; costs are in points."""
    pressing = plan.pressing.best
    if pressing is None:
        return {"pressing": [], "junctions": [], "edges": [], "pressing_cost": 0, "pressing_gap": 0}
    reasons = [reason(pressing, span, plan.project) for span in range(len(pressing.seams.spans))]
    return {
        "pressing": [
            _stretch(stretch, pressing, version, reasons)
            for version in range(len(pressing.versions))
            for stretch in pressing.stretches_of(version)
        ],
        "junctions": [_junction(junction) for junction in pressing.junctions],
        "edges": [_edge(at_edge) for at_edge in pressing.edges],
        "pressing_school": pressing.method,
        "pressing_versions": len(pressing.versions),
        **({"pressing_setting": pressing.setting} if pressing.setting else {}),
        **({"pressing_places": _places(pressing)} if len(pressing.versions) > 1 else {}),
        "pressing_cost": pressing.cost / 1000,
        "pressing_gap": pressing.gap / 1000,
    }


def _places(pressing: PressingPlan) -> list[dict[str, int]]:
    """Which version lies where."""
    return [
        {"column": x, "row": y, "version": lying.version + 1}
        for (x, y), lying in sorted(pressing.grid.items())
    ]


def _patch(face: int | None) -> str:
    return "open" if face is None else f"p{face + 1}"


def _stretch(
    stretch: Stretch, pressing: PressingPlan, version: int, reasons: list[str]
) -> dict[str, Any]:
    begin, end = stretch.ends
    return {
        "join": stretch.join.id,
        "from": pair(begin),
        "to": pair(end),
        "toward": _patch(stretch.toward),
        "reason": reasons[stretch.span] if version == 0 else "Version 2 nests with version 1.",
        "pinned": version == 0 and pressing.pinned(stretch.span),
        "version": version + 1,
    }


def _junction(junction: Met) -> dict[str, Any]:
    return {"at": pair(junction.junction.at), "state": junction.state, "layers": junction.layers}


def _edge(at_edge: AtEdge) -> dict[str, Any]:
    return {
        "at": pair(at_edge.end.at),
        "join": at_edge.end.arm.join.id,
        "toward": _patch(at_edge.toward),
        "state": at_edge.state,
    }
