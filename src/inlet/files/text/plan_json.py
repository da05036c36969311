"""The plan of a block as JSON (docs/plan-format.md)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from inlet.core.cutlist import Cut, PlannedSet, RulerFriendly, sizes_from
from inlet.core.fitting import Fit, as_exact
from inlet.core.layout import FabricPlan
from inlet.core.numbers import INCHES
from inlet.core.piecing import SeamAdvice, Step, advice_text, effect_text, seam_test_text
from inlet.core.plan import BlockPlan, SewnBlock
from inlet.core.planning import CutPiece, MethodCost, MethodPlan, Stock, UnitPlan
from inlet.core.problem import Problem
from inlet.core.project import Measure, SeamTest
from inlet.core.schedule import Work
from inlet.core.templates import Angled, angled
from inlet.files.text.cutting_json import cutting_list
from inlet.files.text.exact_json import number, pair, places
from inlet.files.text.pressing_json import pressing_dict
from inlet.files.text.sewn_json import (
    block_dict,
    corners_dict,
    joins_dict,
    made_from_list,
    patch_dict,
    slices_dict,
)

VERSION = 1
NOTHING = 1e-6
"""Edges that differ by less are equal, but for how numbers are kept."""


def plan_dict(plan: BlockPlan) -> dict[str, Any]:
    """A plan as JSON data: numbers as exact strings, lengths in the file's system."""
    asked = plan.asked
    return {
        "format": "inlet-plan",
        "version": VERSION,
        "block": block_dict(asked),
        "copies": asked.copies,
        **({"made_from": made_from_list(plan)} if asked.sliced is not None else {}),
        **slices_dict(asked, plan.nesting),
        **corners_dict(asked),
        "patches": [patch_dict(p) for p in asked.draft.patches],
        "units": [_unit(u, plan) for u in plan.units if u.unit.tiles],
        "cuts": [cut_dict(c, plan.measure) for c in plan.cuts],
        "strip_sets": [set_dict(s) for s in plan.sets],
        "assembly": joins_dict(asked),
        "seams": asked.seams._asdict(),
        "steps": [step_dict(s, plan.sewn_in(s)) for s in plan.steps],
        **work_dict(plan.work),
        "advice": [_advice(a, plan) for a in plan.advice.seams],
        **({"advice_cut_short": True} if plan.advice.cut_short else {}),
        **({"needle": _seam_test(plan, plan.project.seam_test)} if plan.project.seam_test else {}),
        **pressing_dict(asked),
        "fabric": [fabric_dict(c, plan.measure) for c in plan.fabric_plans.best],
        "cutting": cutting_list(plan.fabric_plans.best, plan.project),
        "resewn": plan.resewn,
        "comfort": _ruler_friendly_dict(plan.ruler_friendly),
        "as_cut": _as_cut(plan),
        "problems": [problem_dict(p) for p in plan.problems],
    }


def cut_dict(cut: Cut, measure: Measure) -> dict[str, Any]:
    angled_cut = angled(cut.outline, measure) if cut.shape == "template" else None
    return {
        "fabric": cut.fabric,
        "shape": cut.shape,
        "cut": pair(cut.cut),
        "count": cut.number,
        "crosscut": cut.crosscut,
        **({"lean": cut.lean} if cut.lean else {}),
        "label": cut.label,
        "for": list(cut.labels),
        **({"owned": True} if cut.owned else {}),
        **({"over": cut.over} if cut.over else {}),
        **({"angled": _angled(angled_cut)} if angled_cut else {}),
    }


def _angled(angled_cut: Angled) -> dict[str, Any]:
    """How a stack is cut from strips at an angle, lengths as plain numbers."""
    return {
        "kind": angled_cut.kind,
        "strip": number(angled_cut.strip_mark),
        "exact": round(angled_cut.strip, 6),
        "angles": [round(angle, 4) for angle in angled_cut.angles],
        "leans": angled_cut.leans or None,
        "step": round(angled_cut.step, 6) or None,
        "edges": [round(angled_cut.long, 6), round(angled_cut.short, 6)],
        "first": round(angled_cut.first, 6),
    }


def step_dict(step: Step, plan: SewnBlock) -> dict[str, Any]:
    pressed = plan.press(step)
    return {
        "number": step.number,
        "do": "slice" if step.cuts else "sew",
        "makes": step.makes,
        "times": step.times,
        "text": step.text,
        "measures": pair(step.measures) if step.measures else None,
        "after_each": [pair(size) for size in step.after_each],
        "of": list(step.needs),
        "seams": step.seams,
        **({"ends": step.ends} if step.ends else {}),
        **({"press": pressed.text} if pressed else {}),
        "notes": list(step.notes),
        "points": len(step.points),
    }


def fabric_dict(fabric_plan: FabricPlan, measure: Measure) -> dict[str, Any]:
    return {
        "fabric": fabric_plan.fabric,
        "length": number(fabric_plan.length),
        **({"yards": number(fabric_plan.yards())} if measure.system is INCHES else {}),
        "buy": number(fabric_plan.buy),
        "strips": [number(width) for width in fabric_plan.strips],
        "used": round(fabric_plan.used, 4),
        "missing": [{"label": m.cut.label, "count": m.number} for m in fabric_plan.missing],
    }


def problem_dict(problem: Problem) -> dict[str, Any]:
    return {
        "level": problem.level,
        "code": problem.code,
        "at": [pair(point) for point in problem.at],
        "text": problem.text,
    }


def _as_cut(plan: BlockPlan) -> dict[str, Any] | None:
    """The block sewn up as it is cut; None where it cannot be sewn."""
    fit = plan.fit
    if fit is None:
        return None
    joins = fit.sewn.at_joins(plan.assembly) if plan.assembly is not None else {}
    return {
        "remedy": fit.remedy,
        **_outcome(fit, plan.measure),
        "seams": [
            {"join": f"j{number}", "differs": _made(differs, plan.measure)}
            for number, differs in joins.items()
            if differs > NOTHING
        ],
        "offers": [
            {
                "remedy": answer.remedy,
                **_outcome(answer.fit, plan.measure),
                "cloth": round(answer.fit.fabric, 4),
                "text": answer.text,
            }
            for answer in plan.answers
        ],
    }


def _outcome(fit: Fit, measure: Measure) -> dict[str, Any]:
    return {
        "finished": [_made(side, measure) for side in fit.finished],
        "worst": _made(fit.worst, measure),
        "mark": number(fit.mark),
        "trims": fit.trims,
    }


def _made(length: float, measure: Measure) -> str:
    """A length that comes out, no finer than can be told."""
    return number(as_exact(length, measure))


def _ruler_friendly_dict(ruler_friendly: RulerFriendly) -> dict[str, Any]:
    near = {
        name: None if size is None else pair(size)
        for name, size in (
            ("smaller", ruler_friendly.smaller),
            ("larger", ruler_friendly.larger),
            ("other_smaller", ruler_friendly.other_smaller),
            ("other_larger", ruler_friendly.other_larger),
        )
    }
    return {
        "misses": [
            {"length": number(m.length), "for": list(m.labels), "short": number(m.short)}
            for m in ruler_friendly.misses
        ],
        "never": list(ruler_friendly.never),
        **near,
    }


def stock_list(plan: BlockPlan, stock: Sequence[Stock]) -> list[dict[str, Any]]:
    """The sizes the block can be made at from fabric already cut, as JSON data."""
    return [
        {
            "stock": each.shape,
            "width": number(each.width),
            "finished": pair(size.finished),
            "fills": size.fills,
            "whole": list(size.whole),
            "others": list(size.others),
            "comfortable": size.on_marks,
        }
        for each in stock
        for size in sizes_from(each, plan.units, plan.block, plan.measure)
    ]


def set_dict(planned_set: PlannedSet) -> dict[str, Any]:
    """A kind of strip set as JSON data."""
    return {
        "bands": [
            {"fabric": fabric, "finished": number(width)} for width, fabric in planned_set.bands
        ],
        "unfinished": number(planned_set.wide),
        "for": list(planned_set.labels),
        "segments": [
            {"finished": number(s.height), "cut": number(s.cut), "count": s.number,
             "for": list(s.labels)}
            for s in planned_set.segments
        ],
        "sets": [number(length) for length in planned_set.lengths],
        "elsewhere": [
            {"block": e.block, "unit": e.label, "finished": number(e.height), "count": e.number}
            for e in planned_set.elsewhere
        ],
        "from": [
            {"strips": c.kind, "long": number(c.long), "sets": c.sets, "left": number(c.left)}
            for c in planned_set.choices
        ],
    }  # fmt: skip


def _unit(plan: UnitPlan, whole: BlockPlan, number_of: int | None = None) -> dict[str, Any]:
    unit = plan.unit
    costs, best, why = whole.compared[unit.label]
    return {
        "label": unit.label,
        "kind": unit.kind,
        "count": plan.count if number_of is None else number_of,
        "finished": pair(unit.size),
        "unfinished": pair(plan.unfinished),
        "fabrics": list(unit.fabrics),
        "mirror_of": unit.mirror_of,
        "method": plan.in_use.name,
        "school": plan.style,
        "handed": unit.handed,
        "hands": plan.hands,
        "chosen_for_you": plan.chosen_for_you,
        "recommended": {"name": best.plan.name, "why": why},
        "methods": [
            _method(plan.in_use if method.name == plan.in_use.name else method, cost)
            for method, cost in zip(plan.methods, costs, strict=True)
        ],
        "inside": [
            _unit(inner, whole, inner.unit.nested_in(unit) * whole.copies) for inner in plan.inside
        ],
    }


def _method(method: MethodPlan, cost: MethodCost) -> dict[str, Any]:
    """A method of one unit; its cost, of both hands."""
    return {
        "name": method.name,
        "makes": method.method.makes,
        "runs": method.runs,
        "surplus": method.surplus,
        "mirrored": method.mirrored,
        "mirrored_surplus": method.mirrored_over,
        "made_with": method.made_with,
        "trim_to": pair(method.trim_to) if method.trim_to else None,
        "pieces": [_piece(p) for p in method.pieces],
        "compare": {
            "minutes": round(cost.minutes, 1),
            "cloth": round(cost.fabric, 2),
            "wasted": round(cost.wasted, 2),
            "pieces": cost.pieces,
            "cuts": cost.cuts,
            "seams": cost.seams,
            "presses": cost.presses,
            "trims": cost.trims,
            "bias_outside": cost.bias,
        },
        "left_over": [
            {"kind": b.kind, "finished": pair(b.size), "count": b.number,
             "fabrics": list(dict.fromkeys(b.fabrics))}
            for b in method.left_over
        ],
    }  # fmt: skip


def _piece(cut: CutPiece) -> dict[str, Any]:
    piece = cut.piece
    return {
        "fabric": piece.fabric,
        "shape": piece.shape,
        "cut": pair(cut.cut),
        "exact": pair(piece.exact),
        "count": cut.number,
        "crosscut": piece.crosscut,
        **({"spare": cut.spare} if cut.spare else {}),
        **({"lean": piece.lean} if piece.lean else {}),
        **({"stock": cut.stock} if cut.stock is not None else {}),
        **({"outline": places(piece.outline)} if piece.outline else {}),
    }


def work_dict(work: Work) -> dict[str, Any]:
    """Sittings and thread, minutes and lengths as plain numbers."""
    return {
        "sittings": [
            {
                "minutes": round(sitting.minutes, 1),
                "batches": [
                    {
                        "place": batch.place,
                        "minutes": round(batch.minutes, 1),
                        "chain": round(batch.chain, 2),
                        "tasks": [
                            {"step": t.step, "makes": t.makes, "do": t.verb, "times": t.times}
                            for t in batch.tasks
                        ],
                    }
                    for batch in sitting.batches
                ],
            }
            for sitting in work.sittings
        ],
        "least_sittings": work.least,
        "thread": {
            "top": round(work.thread.each, 1),
            "bobbin": round(work.thread.each, 1),
            "bobbins": work.thread.bobbins,
            "runs_out": [runs_out._asdict() for runs_out in work.thread.runs_out],
        },
    }


def _advice(advice: SeamAdvice, plan: BlockPlan) -> dict[str, Any]:
    return {
        "seam": places((advice.start, advice.end)),
        "across": advice.across,
        "pivots_spared": advice.pivots,
        "partial_more": advice.partial,
        "corner_square": advice.corner_square,
        "text": advice_text(advice, plan.project),
    }


def _seam_test(plan: BlockPlan, seam_test: SeamTest) -> dict[str, Any]:
    test, effect = plan.tested(seam_test)
    return {
        "takes": number(test.takes),
        "off": number(test.off),
        "fold": None if test.loss is None else number(test.loss),
        "unfinished": [
            [round(x, 4) for x in effect.width], [round(x, 4) for x in effect.height],
        ],
        "points": len(effect.points),
        "text": [
            *seam_test_text(test, plan.measure), *effect_text(effect, test.off, plan.measure),
        ],
    }  # fmt: skip
