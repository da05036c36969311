"""The cards of the cutting stage: preparing the fabric, each cut, the stack that is ready."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.cutlist import Cut
from inlet.core.geometry import mirrored, motion_between
from inlet.core.layout.cut_lines import CuttingLine, line_at, next_cut
from inlet.core.layout.laid_places import length_used
from inlet.core.layout.progress import cuts_of, lines_of, worth_keeping
from inlet.core.layout.sources import strip_room
from inlet.core.layout.stroke_words import (
    SAFE_LAYERS,
    finished_text,
    layers_text,
    line_text,
    part_text,
)
from inlet.core.layout.strokes import Stroke
from inlet.core.layout.tools import tools_for
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
    complete, cautions; the whole ``line`` of the cutting plan it is of, where that is more."""

    title: str
    size: Fraction | None
    words: str
    text: str
    ready: str
    stacks: tuple[StackReady, ...]
    cautions: tuple[str, ...]
    shown: str = ""
    line: str = ""


KINDS = {
    "new": "New fabric", "bolt": "Your length of fabric", "fat-quarter": "A fat quarter",
    "strips": "A strip cut already", "squares": "A square cut already", "scrap": "A scrap",
    "panel": "A panel",
}  # fmt: skip


def fabric_text(laid: LaidFabric, measure: Measure) -> str:
    """What is laid down: ``New fabric, 42 x 13 1/2 in``, ``4 × a fat quarter, 20 x 18 in``."""
    kind = KINDS[laid.kind]
    if laid.count > 1:
        kind = f"{laid.count} × {kind[0].lower()}{kind[1:]}"
    return f"{kind}, {size_text((laid.width, laid.length), measure)}"


def preparing(laid: LaidFabric, project: Project) -> CutCard:
    """The fabric made ready for the first cut."""
    rules, measure = project.cutting or Cutting(), project.measure
    lines = []
    if laid.kind in ("new", "bolt"):
        wash = "Wash and dry it; it shrinks" if rules.wash else "It is cut unwashed"
        lines.append(f"{wash}. Press it smooth.")
        if laid.kind == "new":
            lines.append(f"Take a length of {length_text(laid.length, measure)}.")
        lines.append(f"You will cut up {length_text(length_used(laid), measure)} of its length.")
        if laid.kind == "bolt":
            lines.append("Lay the rest rolled up beside the mat.")
    elif laid.kind == "squares":
        lines.append("Press it flat; its edges are straight already.")
    elif laid.kind == "strips":
        lines.append("Press it flat; its long edges are straight already.")
    else:
        lines.append("Press it smooth.")
    if laid.count > 1:
        lines.append(f"Lay {laid.count} of them on top of one another, edge on edge, as far as "
                     f"{tools_for(laid, project).blade} layers allow.")  # fmt: skip
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
    laid: LaidFabric, at: int, cuts: Sequence[Cut], units: Sequence[UnitPlan], project: Project
) -> CutCard:
    """The card of one cut, counted from 0."""
    strokes, lines = cuts_of(laid, project), lines_of(laid, project)
    stroke, line = strokes[at], lines[line_at(lines, at)]
    measure, tools = project.measure, tools_for(laid, project)
    before = Counter[str]()
    for earlier in strokes[:at]:
        before.update(dict(earlier.finishes))
    total = Counter[str]()
    for each in strokes:
        total.update(dict(each.finishes))
    size = nearest_mark(stroke.size, measure.system.fine_mark)
    done = [label for label, number in stroke.finishes if before[label] + number == total[label]]
    of = {cut.label: cut for cut in cuts}
    return CutCard(
        _title(lines, line, strokes, at),
        size,
        spelled(size, measure.system),
        part_text(next_cut(line, strokes, at, tools), tools, measure),
        finished_text(stroke.finishes),
        tuple(stack_ready(of[label], units, project) for label in done if label in of),
        tuple(_cautions(strokes, at)),
        length_text(size, measure),
        line_text(line, tools, measure) if line.number > 1 else "",
    )


def _title(
    lines: Sequence[CuttingLine], line: CuttingLine, strokes: Sequence[Stroke], at: int
) -> str:
    """``Line 3 of 9: cut 12 of 43``, those that square the edge again not counted; ``Line 4 of 9:
    stack 3 of 22, cut 2 of 9``."""
    title = f"Line {lines.index(line) + 1} of {len(lines)}"
    offset = at - line.first
    if line.number == 1:
        return title
    if line.rounds == 1:
        again = [stroke.what == "square" for stroke in strokes[line.first : at + 1]]
        if again[-1] and line.parts[0].squared:
            return f"{title}: square the edge again"
        squared = sum(again) if line.parts[0].squared else 0
        return f"{title}: cut {offset + 1 - squared} of {line.number}"
    each = line.number // line.rounds
    which, cut = divmod(offset, each)
    return f"{title}: stack {which + 1} of {line.rounds}, cut {cut + 1} of {each}"


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
        if lines := list(angled_lines(cut, measure, strip_room(project, cut.fabric))):
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
