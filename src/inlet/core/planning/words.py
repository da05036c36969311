"""Pieces, moves and the names of units and methods, in words."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from string import Formatter

from inlet.core.numbers import Exact, floor_exact
from inlet.core.planning.cut_piece import CutPiece
from inlet.core.planning.offers import Offer
from inlet.core.planning.unit_plan import MethodPlan, UnitPlan
from inlet.core.project import Measure, Project, UnitKind
from inlet.core.table import LEANS, about, diagonal_text
from inlet.core.words import fabric_name, length_text, size_text


def piece_text(piece: CutPiece, measure: Measure) -> str:
    """``3 7/8 in square``; ``2 x 3 1/2 in rectangle``; a template by its box; a strip by its width
    and length."""
    return f"{size_text(piece.cut, measure)} {piece.piece.shape}"


def _sized(piece: CutPiece, method: MethodPlan, measure: Measure) -> str:
    """The same; strips for sets by their width, as the cut list has their lengths."""
    if piece.in_set(method.sets):
        return f"{length_text(piece.cut[0], measure)} {piece.piece.shape}"
    return piece_text(piece, measure)


def move_text(
    text: str,
    method: MethodPlan,
    project: Project,
    stacks: Sequence[str] = (),
    times: int = 1,
) -> str:
    """A move's text with its sizes filled in, for the maker's ruler and fabrics; ``stacks`` are the
    labels of those the method's pieces lie in, where they are to be named. ``times`` is how many
    rows are sewn, where it is a row."""
    measure = project.measure
    wanted = {name for _, name, _, _ in Formatter().parse(text)}

    def said(piece: CutPiece) -> str:
        return f"{_sized(piece, method, measure)} of {fabric_name(project, piece.piece.fabric)}"

    everything = ""
    if "all" in wanted:
        everything = _all_text(method, stacks or [""] * len(method.pieces), project)
    several = any(name and name not in ("all", "seam", "trim", "row", "length") for name in wanted)
    one = [f"the {said(piece)}" for piece in method.pieces] if several else []
    lies = {f"s{i}": said for i, said in enumerate(one)}
    lies |= {f"s{i}": stack for i, stack in enumerate(stacks) if stack}
    trim = size_text(method.trim_to, measure) if method.trim_to else ""
    row = "a row" if times == 1 else f"{times} rows"
    seam = length_text(measure.seam, measure)
    return text.format(
        *one, all=everything, seam=seam, trim=trim, row=row, length=_Length(measure), **lies
    )


class _Length:
    """What a length stands for in a move's text: ``{length:3.25}``, to the nearest mark."""

    def __init__(self, measure: Measure) -> None:
        self.measure = measure

    def __format__(self, length: str) -> str:
        return about(float(length), self.measure)


def _all_text(method: MethodPlan, stacks: Sequence[str], project: Project) -> str:
    """Everything to cut, of one size together: “2 1/2 in squares: 18 of Fog (A1), 18 of Silt
    (A2)”. Strips for sets are counted in the cut list, with those of other units."""
    sizes: dict[str, list[tuple[str, str]]] = {}
    over: list[str] = []
    for piece, stack in zip(method.pieces, stacks, strict=True):
        lies = f" ({stack})" if stack else ""
        if piece.number:
            counted = not stack or not piece.in_set(method.sets)
            number = str(piece.number) if counted else ""
            of = f"{fabric_name(project, piece.piece.fabric)}{lies}"
            sizes.setdefault(_sized(piece, method, project.measure), []).append((number, of))
        if piece.spare:
            over.append(f"{spare_text(piece, project)}{lies}")
    said = []
    for size, each in sizes.items():
        number, of = each[0]
        if len(each) > 1:
            said.append(f"{size}s: {', '.join(' of '.join(filter(None, one)) for one in each)}")
        else:
            said.append(f"{number} × {size} of {of}" if number else f"{size}s of {of}")
    return "; ".join((*said, *over))


def spare_text(piece: CutPiece, project: Project) -> str:
    """The triangles a unit takes of squares cut for others."""
    triangles = "1 triangle" if piece.spare == 1 else f"{piece.spare} triangles"
    return f"{triangles} over of {fabric_name(project, piece.piece.fabric)}"


def apart_text(piece: CutPiece) -> str:
    """How a piece comes apart before it is sewn, see ``diagonal_text``; of a print that is to stand
    upright, how many squares on which diagonal."""
    kind, upright = piece.piece, piece.upright
    text = diagonal_text(kind.crosscut, kind.lean)
    if not text or upright is None or kind.shape != "square":
        return text
    leans = [f"{number} {LEANS[lean]}" for lean, number in upright.by_lean.items() if lean]
    return f"{text}, the print upright{': ' if leans else ''}{', '.join(leans)}"


def upright_notes(plan: UnitPlan, project: Project) -> Iterator[str]:
    """What to mind in a unit of a print with a direction."""
    method, directions = plan.in_use, plan.directions
    printed = [cut for cut in method.pieces if cut.piece.fabric in directions]
    if not printed or plan.turns is None or method.turns_print:
        return
    if not method.method.by_patches and (flipped := [c for c in method.pieces[1:] if c in printed]):
        yield (
            f"Lay the squares of {_names(flipped, project)} with the print across: once they are "
            "flipped it stands upright."
        )
    a, b, c, d = plan.turns
    if all(directions[cut.piece.fabric] == "two-way" for cut in printed):
        a, b, c, d = a + c, b + d, 0, 0
    ways = [f"{n} {words}" for n, words in zip((a, b, c, d), _TURNED, strict=True) if n]
    stands = f"The print of {_names(printed, project)} stands upright in the block"
    if len(ways) > 1:
        yield f"{stands}: sew {', '.join(ways)}, and keep them apart."
    elif any(cut.upright and cut.piece.crosscut != "none" for cut in printed):
        yield f"{stands}: lay out the triangles by the way they face before you sew."


def _names(cuts: Sequence[CutPiece], project: Project) -> str:
    names = dict.fromkeys(fabric_name(project, cut.piece.fabric) for cut in cuts)
    return " and ".join(names)


_TURNED = ("as drawn", "turned a quarter right", "turned half round", "turned a quarter left")


def over_text(method: MethodPlan) -> str:
    """What is over of each hand, in a sentence; empty where nothing is."""
    parts = []
    if method.surplus:
        parts.append(f"{method.surplus} will be over")
    if method.mirrored_over and not method.made_with:
        parts.append(f"{method.mirrored_over} of the mirror image will be over")
    return f"{', '.join(parts)}." if parts else ""


def method_words(name: str) -> str:
    """A method's file name as people say it."""
    return name.replace("-", " ")


def _run_parts(method: MethodPlan) -> list[str]:
    """Runs and hands in a few words: “2 a run”, “5 runs”."""
    if method.sets:
        sets = sum(s.number for s in method.sets)
        return ["1 strip set" if sets == 1 else f"{sets} strip sets"]
    if method.method.makes == 1 and not method.mirrored:
        return ["one by one"]
    hands = f" + {method.method.mirrored} mirrored" if method.method.mirrored else ""
    runs = "1 run" if method.runs == 1 else f"{method.runs} runs"
    return [f"{method.method.makes}{hands} a run", runs]


def runs_words(method: MethodPlan) -> str:
    """“2 a run · 5 runs”, “1 + 1 mirrored a run · 3 runs”, “2 strip sets”, “one by one”."""
    return " · ".join(_run_parts(method))


def times_words(method: MethodPlan) -> str:
    """The same with what is over and what is needed for it: “2 a run, 5 runs, 1 over”."""
    parts = _run_parts(method)
    if method.surplus:
        parts.append(f"{method.surplus} over")
    if method.mirrored_over:
        parts.append(f"{method.mirrored_over} mirrored over")
    if method.method.tool:
        parts.append(f"needs {method.method.tool}")
    return ", ".join(parts)


def offer_text(offer: Offer, measure: Measure) -> str:
    """Something over, and what it could be, in a sentence."""
    what = offer.what
    noun = kind_words(what.kind)
    hand = " of the other hand" if what.mirrored else ""
    said = f"Over: {what.number} × {noun}{hand}, {length_or_size(what.size, measure)} finished"
    uses = [
        f"{use.label} of {use.block}"
        + (f", cut down to {size_text(use.cut_down, measure)}" if use.cut_down else "")
        for use in offer.uses[:3]
    ]
    return f"{said}; could be {' or '.join(uses)}." if uses else f"{said}."


def length_or_size(size: tuple[Exact, Exact], measure: Measure) -> str:
    """A size that fabric left over happens to have: to the ruler mark below it."""
    marks = tuple(floor_exact(x / measure.mark) * measure.mark for x in size)
    about = "" if marks == size else "just over "
    return about + size_text((marks[0], marks[1]), measure)


def kind_words(kind: UnitKind) -> str:
    """A unit kind's file name as people say it."""
    return _KINDS.get(kind, kind.replace("-", " "))


_KINDS = {
    "half-square-triangle": "half-square triangle",
    "quarter-square-triangle": "quarter-square triangle",
    "half-rectangle-triangle": "half-rectangle triangle",
    "three-triangle": "three-triangle unit",
    "square-in-square": "square in a square",
    "corner-triangle": "stitch-and-flip corners",
    "four-patch": "four-patch",
    "nine-patch": "nine-patch",
    "eight-point-star": "eight-point star",
    "set-in": "set-in unit",
    "other": "odd piece",
}
