"""Pressing in the plan of a block (docs/plan-format.md)."""

from __future__ import annotations

from typing import Any

from inlet.core.plan import SewnBlock
from inlet.core.pressing import AtEdge, Met, PressingPlan, Stretch, reason
from inlet.files.text.exact_json import pair


def pressing_dict(plan: SewnBlock) -> dict[str, Any]:
    """The fields of a plan that say how it is pressed; costs are in points."""
    found = plan.pressing.best
    if found is None:
        return {"pressing": [], "junctions": [], "edges": [], "pressing_cost": 0, "pressing_gap": 0}
    reasons = [reason(found, span, plan.project) for span in range(len(found.seams.spans))]
    return {
        "pressing": [
            _stretch(each, found, version, reasons)
            for version in range(len(found.versions))
            for each in found.stretches_of(version)
        ],
        "junctions": [_junction(each) for each in found.junctions],
        "edges": [_edge(each) for each in found.edges],
        "pressing_school": found.school,
        "pressing_versions": len(found.versions),
        **({"pressing_setting": found.setting} if found.setting else {}),
        **({"pressing_places": _places(found)} if len(found.versions) > 1 else {}),
        "pressing_cost": found.cost / 1000,
        "pressing_gap": found.gap / 1000,
    }


def _places(found: PressingPlan) -> list[dict[str, int]]:
    """Which version lies where."""
    return [
        {"column": x, "row": y, "version": lying.version + 1}
        for (x, y), lying in sorted(found.grid.items())
    ]


def _patch(face: int | None) -> str:
    return "open" if face is None else f"p{face + 1}"


def _stretch(
    each: Stretch, found: PressingPlan, version: int, reasons: list[str]
) -> dict[str, Any]:
    begin, end = each.ends
    return {
        "join": each.join.id,
        "from": pair(begin),
        "to": pair(end),
        "toward": _patch(each.toward),
        "reason": reasons[each.span] if version == 0 else "Version 2 nests with version 1.",
        "pinned": version == 0 and found.pinned(each.span),
        "version": version + 1,
    }


def _junction(each: Met) -> dict[str, Any]:
    return {"at": pair(each.junction.at), "state": each.state, "layers": each.layers}


def _edge(each: AtEdge) -> dict[str, Any]:
    return {
        "at": pair(each.end.at),
        "join": each.end.arm.join.id,
        "toward": _patch(each.toward),
        "state": each.state,
    }
