"""The plan of a quilt as JSON data (docs/plan-format.md)."""

from __future__ import annotations

from collections import Counter
from typing import Any

from inlet.core.cutlist import Cut
from inlet.core.plan import QuiltAnswer, QuiltPlan, RowCard, quilt_answers
from inlet.core.setting import (
    BackingWay,
    Row,
    Strip,
    TopPiece,
    border_strips,
    fitting_near,
    strips_of,
)
from inlet.files.text.cutting_json import cutting_list
from inlet.files.text.exact_json import number, pair, places
from inlet.files.text.plan_json import cut_dict, fabric_dict, problem_dict, step_dict, work_dict
from inlet.files.text.pressing_json import pressing_dict

VERSION = 1


def quilt_dict(plan: QuiltPlan) -> dict[str, Any]:
    """A quilt's plan as JSON data: numbers as exact strings, lengths in the file's system."""
    work = plan.work
    return {
        "format": "inlet-quilt-plan",
        "version": VERSION,
        "finished": pair(plan.size),
        "middle": pair(plan.top.middle),
        "blocks": _blocks(plan),
        "sizes": _sizes(plan),
        "apart": _apart(plan),
        "answers": [_answer(answer) for answer in quilt_answers(plan)],
        "colourways": [
            {"block": b.block.id, "colourway": b.colourway or None, "count": b.number}
            for b in plan.blocks
        ],
        "setting": _setting(plan),
        "sashing": _sashing(plan),
        "borders": _borders(plan),
        "binding": _binding(plan),
        "backing": _backing(plan.backing) if plan.backing else None,
        "backing_ways": [_backing(way) for way in plan.backings],
        "batting": pair(plan.batting) if plan.batting else None,
        "rows": [_row(row, card, plan) for row, card in zip(plan.top.rows, plan.rows, strict=True)],
        "units": [
            {
                "label": unit.unit.label,
                "kind": unit.unit.kind,
                "count": unit.count,
                "method": unit.in_use.name,
                "runs": unit.in_use.runs,
                "surplus": unit.in_use.surplus,
            }
            for unit in plan.batch.units
        ],
        "made_as": plan.batch.made_as,
        "cuts": [cut_dict(cut, plan.measure) for cut in plan.cuts],
        "fabric": [
            fabric_dict(fabric_plan, plan.measure) for fabric_plan in plan.fabric_plans.best
        ],
        "cutting": cutting_list(plan.fabric_plans.best, plan.project),
        "work": {
            "minutes": round(work.minutes, 1),
            **work_dict(work),
        },
        "quilting": {
            "lines": [[[f"{x:.6f}", f"{y:.6f}"] for x, y in line] for line in plan.quilted.lines],
            "length": round(plan.quilted.length, 3),
            "thread": round(plan.quilted.thread, 3),
        },
        "steps": _steps(plan),
        "pressing": _pressing(plan),
        "problems": [problem_dict(problem) for problem in plan.problems],
    }


def _blocks(plan: QuiltPlan) -> dict[str, int]:
    counts: Counter[str] = Counter()
    for block in plan.blocks:
        counts[block.block.id] += block.number
    return dict(counts)


def _setting(plan: QuiltPlan) -> dict[str, Any]:
    return {
        triangles.kind: {
            "fabric": triangles.fabric or None,
            "cut": number(triangles.cut),
            "exact": number(triangles.exact),
            "crosscut": "twice" if triangles.twice else "once",
            "squares": triangles.squares,
            "triangles": triangles.triangles,
        }
        for triangles in plan.triangles
    }


def _sizes(plan: QuiltPlan) -> dict[str, Any]:
    """What each block and motif of the quilt comes to, finished."""
    lying = {piece.lying.placed.block for piece in plan.top.pieces if piece.lying is not None}
    return {
        name: {
            "drawn": pair(size.drawn),
            "as_cut": pair(size.as_cut),
            "sewn": pair(size.sewn) if size.sewn else None,
            "trimmed": pair(size.trimmed) if size.trimmed else None,
        }
        for name, size in plan.top.sizes.items()
        if name in lying
    }


def _apart(plan: QuiltPlan) -> list[dict[str, Any]]:
    """Seams whose edges differ by more than a thread."""
    return [
        {
            "what": list(seam.what),
            "from": [f"{x:.4f}" for x in seam.begin],
            "to": [f"{x:.4f}" for x in seam.end],
            "length": f"{seam.length:.4f}",
            "differs": f"{seam.differs:.4f}",
        }
        for seam in plan.apart
    ]


def _answer(answer: QuiltAnswer) -> dict[str, Any]:
    return {
        "remedy": answer.remedy,
        "text": answer.done,
        "differs": f"{answer.differs:.4f}",
        "finished": pair(answer.size),
        "minutes": round(answer.minutes, 1),
        "in_use": answer.in_use,
        **({"cannot": answer.cannot} if answer.cannot else {}),
    }


def _sashing(plan: QuiltPlan) -> dict[str, Any] | None:
    strips = strips_of(plan.quilt.sashing, plan.measure)
    if not strips.beside:
        return None
    kinds = Counter(piece.kind for row in plan.top.rows for piece in row.pieces)
    return {
        "width": number(strips.beside),
        "down": number(strips.below),
        "fabric": strips.fabric or None,
        "corner_fabric": strips.corner_fabric or None,
        "strips": kinds["sash"],
        "corners": kinds["corner-square"],
        "cuts": [_of_cut(cut) for cut in plan.setting.cuts if cut.label.startswith("Sashing")],
    }


def _of_cut(cut: Cut) -> dict[str, Any]:
    return {"cut": pair(cut.cut), "count": cut.number, "label": cut.label}


def _borders(plan: QuiltPlan) -> list[dict[str, Any]]:
    strips = border_strips(plan.top, plan.quilt, plan.measure)
    borders = []
    for each in plan.top.borders:
        own_strips = [strip for strip in strips if strip.name.startswith(f"{each.label},")]
        corners = [strip for strip in own_strips if strip.name.endswith("corners")]
        which = each.label.split(",")[0]
        border = plan.quilt.borders[int(which.split()[-1]) - 1]
        near = fitting_near(border, plan.top.borders, plan.top.sizes, which)
        fits = [number(length) for length in near if "," not in each.label]
        units = [len([p for p in pair_[0].pieces if p.kind == "block"]) for pair_ in each.pairs]
        borders.append(
            {
                "label": each.label,
                "inner": pair(each.inner),
                "sides": _strip(own_strips, f"{each.label}, sides"),
                "ends": _strip(own_strips, f"{each.label}, top and bottom"),
                "mitred": each.mitred,
                **({"corners": len(corners)} if corners else {}),
                **({"units": units} if any(units) else {}),
                **({"fits": fits} if fits else {}),
            }
        )
    return borders


def _strip(strips: list[Strip], name: str) -> list[str] | None:
    joined = next((strip for strip in strips if strip.name == name), None)
    return None if joined is None else [number(joined.width), number(joined.length)]


def _binding(plan: QuiltPlan) -> dict[str, Any] | None:
    binding_plan = plan.binding
    if binding_plan is None:
        return None
    return {
        "fabric": binding_plan.fabric or None,
        "width": number(binding_plan.width),
        "length": number(binding_plan.length),
        "strips": binding_plan.strips,
        "joins": binding_plan.joins,
        **(
            {
                "square": number(binding_plan.square),
                "rounds": binding_plan.rounds,
                "gives": number(binding_plan.strip),
            }
            if binding_plan.square is not None
            else {}
        ),
    }


def _backing(way: BackingWay) -> dict[str, Any]:
    return {
        "size": pair(way.size),
        "seam": way.seam,
        "widths": way.widths,
        "panel": number(way.panel),
        "length": number(way.length),
        "buy": number(way.buy),
        "left": pair(way.left),
        "owned": way.owned,
        "less": {"overage": number(way.less.overage), "buy": number(way.less.buy)}
        if way.less
        else None,
    }


def _row(row: Row, card: RowCard, plan: QuiltPlan) -> dict[str, Any]:
    return {
        "label": row.label,
        "length": number(card.length) if card.length is not None else None,
        "press": card.pressed or None,
        "pieces": [_piece(piece, plan) for cell in row.cells for piece in cell],
    }


def _piece(piece: TopPiece, plan: QuiltPlan) -> dict[str, Any]:
    fields: dict[str, Any] = {"kind": piece.kind, "outline": places(piece.outline)}
    if piece.lying is None:
        return {**fields, "fabric": piece.fabric or None}
    placed = piece.lying.placed
    version = plan.versions.get((placed.block, placed.column, placed.row))
    if version is not None:
        fields["version"] = version
    nests = plan.turned.get((placed.block, placed.column, placed.row), 0)
    if nests:
        fields["turned_to_nest"] = 90 * nests
    return {
        **fields,
        "block": placed.block,
        "column": placed.column,
        "row": placed.row,
        "turn": 90 * ((placed.turn + nests) % 4),
        "mirror": placed.mirror,
        "colourway": placed.colourway or None,
    }


def _steps(plan: QuiltPlan) -> list[dict[str, Any]]:
    """The steps of every block, then those of the quilt, numbered through."""
    steps: list[dict[str, Any]] = [
        {**step_dict(step, sewn), "block": block.name}
        for block, sewn in zip(plan.blocks, plan.sewn, strict=True)
        for step in sewn.steps
    ]
    steps += [
        {
            "do": "quilt",
            "makes": step.title,
            "text": step.text,
            "times": step.times,
            "check": step.measures or None,
        }
        for step in plan.steps
        if step.sewn is None
    ]
    return [{**step, "number": i} for i, step in enumerate(steps, 1)]


def _pressing(plan: QuiltPlan) -> dict[str, Any]:
    """How rows are pressed, and, by block, which way each seam is."""
    return {
        "rows": [{"label": card.label, "press": card.pressed or None} for card in plan.rows],
        "blocks": {
            block.name: pressing_dict(sewn)
            for block, sewn in zip(plan.blocks, plan.sewn, strict=True)
        },
    }
