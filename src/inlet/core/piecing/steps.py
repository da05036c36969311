"""The block as steps to follow: units first, then what they make, the whole block last."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from fractions import Fraction
from typing import NamedTuple

from inlet.core.draft.patches import Draft
from inlet.core.geometry.motion import Picture, likeness, motion_between
from inlet.core.geometry.polygon import Polygon, squared_length
from inlet.core.numbers import Exact, root_up
from inlet.core.project import Measure
from inlet.core.units.breakdown import Part
from inlet.core.units.chosen import UnitPlan
from inlet.core.units.kinds import is_rectangle
from inlet.core.units.pieces import Size
from inlet.core.units.units import picture_of
from inlet.core.words import move_text, size_text


class Step(NamedTuple):
    """One card: sew what ``makes`` names, ``times`` of them.

    ``measures`` is the size to check, raw edge to raw edge (width, height as it lies in the block;
    None for a shape that is no rectangle); ``after_each`` the sizes after each seam on the way.
    ``part`` is where one of them lies in the block; ``unit`` is set for units.
    """

    number: int
    makes: str
    times: int
    text: str
    measures: Size | None
    after_each: tuple[Size, ...]
    part: Part
    unit: UnitPlan | None


def find_steps(
    draft: Draft, root: Part, units: Sequence[UnitPlan], copies: int, measure: Measure
) -> tuple[Step, ...]:
    """Steps in sewing order for ``copies`` blocks. What cannot be sewn yet (a stuck part) has no
    step; its parts have."""
    name_of = {place.part.faces: plan.unit.label for plan in units for place in plan.unit.places}
    steps: list[Step] = []
    for plan in units:
        if len(plan.unit.part.faces) > 1:
            steps.append(_unit_step(plan, len(steps) + 1, measure))
    if root.kind is None:
        for name, parts in _assemblies(draft, root, name_of):
            steps.append(
                _assembly_step(draft, name, parts, name_of, len(steps) + 1, copies, measure)
            )
    return tuple(steps)


def _unit_step(plan: UnitPlan, number: int, measure: Measure) -> Step:
    method = plan.method
    lines = [f"{move_text(m.text, method.pieces, measure)}" for m in method.way.moves if m.text]
    text = " ".join(dict.fromkeys(lines))
    if method.trim_to:
        text += f" Trim to {size_text(method.trim_to, measure)}."
    if method.surplus:
        text += f" {method.surplus} will be over."
    return Step(
        number, plan.unit.label, plan.count, text, plan.unfinished, (), plan.unit.part, plan
    )


def _assemblies(
    draft: Draft, root: Part, name_of: dict[frozenset[int], str]
) -> list[tuple[str, list[Part]]]:
    """Parts between the units and the block, equal ones together, in sewing order; names are added
    to ``name_of``. Equal means some turn of one is the other, cloth for cloth."""
    groups: list[tuple[str, list[Part]]] = []
    pictures: list[Picture] = []
    alike: dict[tuple[object, ...], list[int]] = defaultdict(list)
    counters: dict[str, int] = defaultdict(int)

    def visit(part: Part, noun: str) -> None:
        if part.faces in name_of or not part.parts:
            return
        inner = _noun(part)
        for p in part.parts:
            visit(p, inner if part is root else "part")
        if part.stuck:
            return
        picture = picture_of(draft, part)
        key = likeness(picture)
        for g in alike[key]:
            if motion_between(pictures[g], picture):
                groups[g][1].append(part)
                name_of[part.faces] = groups[g][0]
                return
        counters[noun] += 1
        name = "block" if part is root else f"{noun} {counters[noun]}"
        name_of[part.faces] = name
        alike[key].append(len(groups))
        pictures.append(picture)
        groups.append((name, [part]))

    visit(root, "block")
    return groups


def _noun(part: Part) -> str:
    """What the parts of a part are called, by how its last seams run."""
    if part.across is None:
        return "part"
    if part.across.x == 0:
        return "row"
    return "column" if part.across.y == 0 else "section"


def _assembly_step(
    draft: Draft,
    name: str,
    parts: list[Part],
    name_of: dict[frozenset[int], str],
    number: int,
    copies: int,
    measure: Measure,
) -> Step:
    part = parts[0]
    names = [name_of.get(p.faces, "?") for p in part.parts]
    order = _run_lengths(names)
    many = len(part.parts) - 1
    seams = "one seam" if many == 1 else f"{many} seams"
    how = {"row": "top to bottom", "column": "left to right"}.get(_noun(part), "in order")
    text = f"Sew {order}, {how}: {seams}. Press, then measure."
    s = measure.seam
    after: list[Size] = []
    for k in range(2, len(part.parts)):
        size = _first_k_size(part, k, s)
        if size is not None:
            after.append(size)
    return Step(
        number, name, len(parts) * copies, text, raw_size(part.outline, s), tuple(after), part, None
    )


def _run_lengths(names: list[str]) -> str:
    """“A, B, A”; long runs of one name are counted."""
    out: list[str] = []
    i = 0
    while i < len(names):
        j = i
        while j < len(names) and names[j] == names[i]:
            j += 1
        out += [f"{j - i} × {names[i]}"] if j - i > 3 else names[i:j]
        i = j
    return ", ".join(out)


def _first_k_size(part: Part, k: int, seam: Exact) -> Size | None:
    """Raw size of the first k parts of a row of rectangles sewn together."""
    sizes = [raw_size(p.outline, seam) for p in part.parts[:k]]
    if any(size is None for size in sizes) or part.across is None:
        return None
    known = [size for size in sizes if size is not None]
    along = 1 if part.across.x == 0 else 0
    if part.across.x != 0 and part.across.y != 0:
        return None
    total: Exact = Fraction(0)
    for size in known:
        total = total + size[along] - 2 * seam
    total = total + 2 * seam
    return (total, known[0][1]) if along == 0 else (known[0][0], total)


def raw_size(outline: Polygon, seam: Exact) -> Size | None:
    """Raw edge to raw edge (width, height as it lies) of a rectangle; None for other shapes."""
    if not is_rectangle(outline):
        return None
    first = root_up(squared_length(outline[0], outline[1])) + 2 * seam
    second = root_up(squared_length(outline[1], outline[2])) + 2 * seam
    return (second, first) if outline[0].x == outline[1].x else (first, second)
