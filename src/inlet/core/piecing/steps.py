"""The block as steps to follow: units first, then what they make, the whole block last."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.draft.patches import Draft
from inlet.core.geometry.motion import motion_between
from inlet.core.geometry.polygon import Polygon, squared_length
from inlet.core.geometry.shapes import is_rectangle
from inlet.core.numbers import Exact, root_up
from inlet.core.project import Measure, Project
from inlet.core.units.breakdown import Part
from inlet.core.units.chosen import UnitPlan
from inlet.core.units.pieces import Size
from inlet.core.units.units import picture_of
from inlet.core.units.words import move_text, over_text
from inlet.core.words import size_text


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
    draft: Draft, root: Part, units: Sequence[UnitPlan], copies: int, project: Project
) -> tuple[Step, ...]:
    """Steps in sewing order for ``copies`` blocks. What cannot be sewn yet (a stuck part) has no
    step; its parts have."""
    measure = project.measure
    name_of = {place.part.faces: plan.unit.label for plan in units for place in plan.unit.places}
    steps: list[Step] = []
    for plan in _nested_first(units):
        if len(plan.unit.part.faces) > 1:
            steps.append(_unit_step(plan, len(steps) + 1, project))
    if root.kind is None:
        for name, parts in _assemblies(draft, root, name_of):
            steps.append(
                _assembly_step(draft, name, parts, name_of, len(steps) + 1, copies, measure)
            )
    return tuple(steps)


def _nested_first(units: Sequence[UnitPlan]) -> list[UnitPlan]:
    """The units in their order, each after those it is built with."""
    out: dict[str, UnitPlan] = {}

    def add(plan: UnitPlan) -> None:
        for inner in plan.inside:
            add(inner)
        out.setdefault(plan.unit.label, plan)

    for plan in units:
        add(plan)
    return list(out.values())


def _unit_step(plan: UnitPlan, number: int, project: Project) -> Step:
    method = plan.method
    lines = [move_text(m.text, plan, project) for m in method.moves if m.text]
    text = " ".join(dict.fromkeys(lines))
    if method.trim_to and not any(m.do == "trim" for m in method.moves):
        text += f" Trim to {size_text(method.trim_to, project.measure)}."
    over = over_text(method)
    if over:
        text += f" {over}"
    return Step(
        number, plan.unit.label, plan.count, text, plan.unfinished, (), plan.unit.part, plan
    )


def _assemblies(
    draft: Draft, root: Part, name_of: dict[frozenset[int], str]
) -> list[tuple[str, list[Part]]]:
    """Parts between the units and the block, equal ones together, in sewing order; names are added
    to ``name_of``. Equal means some turn of one is the other, cloth for cloth."""
    groups: list[tuple[str, list[Part]]] = []
    # Equal parts are made of parts of equal names, in this order or the other way round: only
    # those need their pictures compared.
    same_names: dict[tuple[str, ...], list[int]] = defaultdict(list)
    counters: dict[str, int] = defaultdict(int)

    def visit(part: Part, noun: str) -> None:
        if part.faces in name_of or not part.parts:
            return
        inner = _noun(part)
        for p in part.parts:
            visit(p, inner if part is root else "part")
        if part.stuck or any(p.faces not in name_of for p in part.parts):
            return  # it, or something in it, cannot be sewn
        names = tuple(name_of[p.faces] for p in part.parts)
        own = same_names[min(names, names[::-1])]
        picture = picture_of(draft, part) if own else ()
        for g in own:
            if motion_between(picture_of(draft, groups[g][1][0]), picture):
                break
        else:
            g = len(groups)
            own.append(g)
            counters[noun] += 1
            groups.append(("block" if part is root else f"{noun} {counters[noun]}", []))
        name_of[part.faces] = groups[g][0]
        groups[g][1].append(part)

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
    names = [name_of[p.faces] for p in part.parts]
    order = _run_lengths(names)
    many = len(part.parts) - 1
    seams = "one seam" if many == 1 else f"{many} seams"
    how = {"row": "top to bottom", "column": "left to right"}.get(_noun(part), "in order")
    text = f"Sew {order}, {how}: {seams}. Press, then measure."
    s = measure.seam
    return Step(
        number,
        name,
        len(parts) * copies,
        text,
        raw_size(part.outline, s),
        _sizes_on_the_way(part, s),
        part,
        None,
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


def _sizes_on_the_way(part: Part, seam: Exact) -> tuple[Size, ...]:
    """Raw sizes after each seam of a row or column of rectangles but the last."""
    across = part.across
    if across is None or (across.x != 0 and across.y != 0):
        return ()
    out: list[Size] = []
    so_far: Size | None = None
    for inner in part.parts[:-1]:
        size = raw_size(inner.outline, seam)
        if size is None:
            return ()
        if so_far is None:
            so_far = size
        elif across.x == 0:
            so_far = (so_far[0], so_far[1] + size[1] - 2 * seam)
        else:
            so_far = (so_far[0] + size[0] - 2 * seam, so_far[1])
        out.append(so_far)
    return tuple(out[1:])


def raw_size(outline: Polygon, seam: Exact) -> Size | None:
    """Raw edge to raw edge (width, height as it lies) of a rectangle; None for other shapes."""
    if not is_rectangle(outline):
        return None
    a, b, c, _ = outline
    if a.x == b.x or a.y == b.y:
        return abs(c.x - a.x) + 2 * seam, abs(c.y - a.y) + 2 * seam
    first = root_up(squared_length(a, b)) + 2 * seam
    second = root_up(squared_length(b, c)) + 2 * seam
    return first, second
