"""The cards of the cutting stage: preparing the fabric, each cut, the stack that is ready."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.cutlist import Cut
from inlet.core.geometry import mirrored, motion_between
from inlet.core.layout.progress import worth_keeping
from inlet.core.layout.stroke_words import SAFE_LAYERS, layers_text, stroke_text
from inlet.core.layout.strokes import Stroke, length_used
from inlet.core.numbers import Fraction, nearest_mark, spelled
from inlet.core.planning import UnitPlan
from inlet.core.project import Cutting, LaidFabric, Measure, Project
from inlet.core.templates import angled_lines
from inlet.core.words import CUTTER, IRON, MANUALS, fabric_name, length_text, size_text


class StackReady(NamedTuple):
    """A stack that is complete: its label, how many of what, and what else is done with it."""

    label: str
    text: str
    notes: tuple[str, ...]


class CutCard(NamedTuple):
    """One step at the mat: ``size`` as the ruler shows it (None where nothing is measured), as
    text ``shown`` and in ``words``; what to do, pieces that are ``ready``, stacks that are
    complete, cautions."""

    title: str
    size: Fraction | None
    words: str
    text: str
    ready: str
    stacks: tuple[StackReady, ...]
    cautions: tuple[str, ...]
    shown: str = ""


KINDS = {
    "new": "New fabric", "bolt": "Your length of fabric", "fat-quarter": "A fat quarter",
    "strips": "A strip cut already", "squares": "A square cut already", "scrap": "A scrap",
    "panel": "A panel",
}  # fmt: skip


def fabric_text(laid: LaidFabric, measure: Measure) -> str:
    """What is laid down: ``New fabric, 42 x 13 1/2 in``."""
    return f"{KINDS[laid.kind]}, {size_text((laid.width, laid.length), measure)}"


def preparing(laid: LaidFabric, project: Project) -> CutCard:
    """The fabric made ready for the first cut."""
    rules, measure = project.cutting or Cutting(), project.measure
    lines = []
    if laid.kind in ("new", "bolt"):
        wash = "Wash and dry it; it shrinks" if rules.wash else "It is cut unwashed"
        lines.append(f"{wash}. Press it smooth.")
        lines.append(f"You will cut up {length_text(length_used(laid), measure)} of its length.")
        lines.append(
            "Cut off a length you can handle."
            if length_used(laid) > measure.system.long_unit.length
            else "Lay the rest rolled up beside the mat."
        )
    elif laid.kind in ("strips", "squares"):
        lines.append("Press it flat; its edges are straight already.")
    else:
        lines.append("Press it smooth.")
    if laid.layers > 1:
        lines.append(
            f"Fold it {layers_text(laid).removeprefix('folded ')}. Move one selvage until the "
            "fold hangs without a ripple; a crooked fold gives strips with a kink."
        )
    else:
        lines.append("Lay it in a single layer, right side up.")
    return CutCard("Prepare the fabric", None, "", " ".join(lines), "", (), (IRON,))


def finished_card(laid: LaidFabric, project: Project) -> CutCard:
    """All cuts are made: what is left of the fabric."""
    rest = [
        f"{r.layers} × "
        f"{size_text((min(r.width, r.height), max(r.width, r.height)), project.measure)}"
        for r in worth_keeping(laid, project)[:4]
    ]
    text = f"Left: {', '.join(rest)}." if rest else "Nothing is left that is worth keeping."
    return CutCard("All cuts of this fabric are made", None, "", text, "", (), ())


def card(
    strokes: Sequence[Stroke], at: int, cuts: Sequence[Cut], units: Sequence[UnitPlan],
    project: Project,
) -> CutCard:  # fmt: skip
    """The card of one cut, counted from 0."""
    stroke = strokes[at]
    measure = project.measure
    before = Counter[str]()
    for earlier in strokes[:at]:
        before.update(dict(earlier.finishes))
    total = Counter[str]()
    for each in strokes:
        total.update(dict(each.finishes))
    size = nearest_mark(stroke.size, measure.system.fine_mark)
    done = [label for label, number in stroke.finishes if before[label] + number == total[label]]
    ready = ", ".join(f"{number} for {label}" for label, number in stroke.finishes)
    of = {cut.label: cut for cut in cuts}
    return CutCard(
        f"Cut {at + 1} of {len(strokes)}",
        size,
        spelled(size, measure.system),
        stroke_text(stroke, measure),
        ready,
        tuple(stack_ready(of[label], units, project) for label in done if label in of),
        tuple(_cautions(strokes, at)),
        length_text(size, measure),
    )


def _cautions(strokes: Sequence[Stroke], at: int) -> list[str]:
    """What to mind, the first time it matters."""
    out = [f"{CUTTER} {MANUALS}"] if at == 0 else []
    deep = [stroke.layers > SAFE_LAYERS for stroke in strokes]
    if deep[at] and not any(deep[:at]):
        out.append(
            f"More than {SAFE_LAYERS} layers shift under the ruler: the lowest ones come out "
            "uneven. Press down hard, cut once, check the lowest piece."
        )
    return out


def stack_ready(cut: Cut, units: Sequence[UnitPlan], project: Project) -> StackReady:
    """What is pinned to a stack, and what is done with it before it is sewn."""
    measure = project.measure
    text = (
        f"{cut.number} × {size_text(cut.cut, measure)} {cut.shape}"
        f"{'s' if cut.number > 1 else ''} of {fabric_name(project, cut.fabric)}, "
        f"for {', '.join(cut.labels)}"
    )
    notes = []
    if diagonal := cut.diagonal:
        notes.append(f"Cut each {diagonal}; {bias_text(cut)}.")
        fabric = project.fabric(cut.fabric or "")
        if cut.crosscut == "twice" and fabric is not None and fabric.direction:
            notes.append(
                "Hold the print upright: each square gives one triangle for each side. Keep the "
                "four apart."
            )
        if cut.lean:
            notes.append(
                "Lay them all right side up first: in folded fabric every other one is not."
            )
    for other in pairs_with(cut, units):
        notes.append(
            f"They are sewn to {fabric_name(project, other)}: pair them with its squares, right "
            "sides together."
        )
    if cut.shape == "template":
        notes.append("Cut them out round the template, its grain arrow along the selvage.")
        room = project.usable_width(cut.fabric or "") - measure.squared_off
        if lines := list(angled_lines(cut, measure, room)):
            notes.append(f"{'; '.join(lines)}. What lies head to tail is cut so.")
        turned_over = mirrored(((cut.outline, None),))
        if motion_between(((cut.outline, None),), turned_over) is None:
            notes.append(
                "It has a left and a right: in folded fabric every other piece comes out reversed. "
                "Cut them in a single layer, right side up."
            )
    return StackReady(cut.label, text, tuple(notes))


def bias_text(cut: Cut) -> str:
    """Which edges of the triangles are bias: of half a square the long one, of a quarter the two
    short ones, as the diagonals are cut across the grain."""
    if cut.crosscut == "twice":
        return "the two short sides are bias then, the long one is straight grain"
    return "the long side is bias then, the two short ones are straight grain"


def pairs_with(cut: Cut, units: Sequence[UnitPlan]) -> list[str | None]:
    """The fabrics of squares a cut's squares are laid on, right sides together, before they are cut
    apart: of the same unit and size, cut apart only once they are sewn."""
    pairs: dict[str | None, None] = {}
    for plan in units:
        if plan.unit.label not in cut.labels:
            continue
        sewn = [p for p in plan.in_use.pieces if p.piece.crosscut == "sewn"]
        cut_pieces = [
            p for p in sewn if p.piece.fabric == cut.fabric and sorted(p.cut) == list(cut.cut)
        ]
        if cut_pieces:
            pairs |= dict.fromkeys(
                p.piece.fabric for p in sewn
                if p.piece.fabric != cut.fabric and p.cut == cut_pieces[0].cut
            )  # fmt: skip
    return list(pairs)
