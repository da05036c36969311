"""Fabric being cut: begun, gone on with, stepped back, what is left of it kept.

What is begun is laid out for good: the fabric on the mat is the one the cuts were made in, whatever
is changed in the block meanwhile.
"""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.layout.cut_lines import CuttingLine, cut_lines, line_at, next_cut
from inlet.core.layout.laid_places import Rect, length_used
from inlet.core.layout.sources import WASHED, have_size
from inlet.core.layout.strokes import Stroke, left_over, strokes_of
from inlet.core.layout.tools import SetUp, Tools, tools_for
from inlet.core.memo import Latest
from inlet.core.numbers import Fraction
from inlet.core.project import Begun, Cutting, Fabric, Have, LaidFabric, Project, replace

KEPT_INCHES = Fraction(2)
"""What is narrower than this is not worth keeping."""


_CUTS: Latest[LaidFabric, tuple[Tools, tuple[Stroke, ...]]] = Latest(24)


def cuts_of(laid: LaidFabric, project: Project) -> tuple[Stroke, ...]:
    """The cuts of laid fabric as this maker makes them; those of the latest fabrics are known."""
    tools = tools_for(laid, project)
    known = _CUTS.get(laid)
    if known is None or known[0] != tools:
        known = _CUTS.keep(laid, (tools, tuple(strokes_of(laid, tools))))
    return known[1]


_LINES: Latest[LaidFabric, tuple[Tools, tuple[CuttingLine, ...]]] = Latest(24)


def lines_of(laid: LaidFabric, project: Project) -> tuple[CuttingLine, ...]:
    """The cuts of laid fabric, equal ones told once; those of the latest fabrics are known."""
    tools = tools_for(laid, project)
    known = _LINES.get(laid)
    if known is None or known[0] != tools:
        known = _LINES.keep(laid, (tools, cut_lines(cuts_of(laid, project), tools)))
    return known[1]


def next_set_up(laid: LaidFabric, done: int, project: Project) -> SetUp | None:
    """How the next cut is made, where so many are; None where there is none."""
    strokes, lines = cuts_of(laid, project), lines_of(laid, project)
    if done >= len(strokes):
        return None
    line = lines[line_at(lines, done)]
    return next_cut(line, strokes, done, tools_for(laid, project)).set_up


def begun_at(
    project: Project, block: str, copies: int, fabric: str | None, laid: LaidFabric
) -> int | None:
    """Which of the project's begun fabrics this one is; None if it is not begun. ``block`` is the
    id of the one it is cut for, empty for the whole quilt."""
    begun = project.cutting.begun if project.cutting is not None else ()
    wanted = Begun(fabric=fabric or "", block=block, copies=copies, laid=laid)
    return next((i for i, b in enumerate(begun) if _as_laid(b) == wanted), None)


def _as_laid(begun: Begun) -> Begun:
    """Begun fabric without what was done, and what it is cut with."""
    return replace(begun, done=0, rulers=(), mat=None, blade=None)


def under_way(project: Project) -> Begun | None:
    """The fabric that was begun last and is not cut up yet."""
    begun = project.cutting.begun if project.cutting is not None else ()
    open_ = (b for b in reversed(begun) if b.done < len(cuts_of(b.laid, project)))
    return next(open_, None)


def begin(
    project: Project, block: str, copies: int, fabric: str | None, laid: LaidFabric
) -> Project:
    """The fabric is laid down: it stays as it is laid out, and is taken off what there is."""
    rules = project.cutting or Cutting()
    tools = tools_for(laid, project)
    new = Begun(
        fabric=fabric or "", block=block, copies=copies, laid=laid,
        rulers=tools.rulers, mat=tools.mat, blade=tools.blade,
    )  # fmt: skip
    new_project = replace(project, cutting=replace(rules, begun=(*rules.begun, new)))
    found = project.fabric(fabric or "")
    if found is None or laid.kind == "new":
        return new_project
    have = tuple(_without(found, laid, project))
    return new_project.with_fabric(found.id, replace(found, have=have))


def _without(fabric: Fabric, laid: LaidFabric, project: Project) -> Iterator[Have]:
    """What there is of a fabric without a piece of fabric: of a bolt the length that is cut up, of
    others the whole piece."""
    washed = bool(project.cutting and project.cutting.wash) and laid.kind in WASHED
    across, along = (
        (1 - fabric.shrinkage[1] / 100, 1 - fabric.shrinkage[0] / 100) if washed else (1, 1)
    )
    wanted = laid.count  # they may stand in several entries
    for have in fabric.have:
        wide, long = have_size(have, fabric, project)
        same = have.kind == laid.kind and (wide * across, long * along) == (
            laid.width,
            laid.length,
        )
        taken = min(have.count, wanted) if same else 0
        wanted -= taken
        if have.count > taken:
            yield replace(have, count=have.count - taken)
        if not taken:
            continue
        left = long - length_used(laid) / along
        if have.kind == "bolt" and left >= KEPT_INCHES * project.measure.system.per_inch:
            yield replace(have, length=left, count=1)


def gone_on(project: Project, which: int, by: int) -> Project:
    """So many cuts more are made, or fewer; never past the first or the last."""
    rules = project.cutting or Cutting()
    begun = rules.begun[which]
    done = max(0, min(len(cuts_of(begun.laid, project)), begun.done + by))
    beguns = (*rules.begun[:which], replace(begun, done=done), *rules.begun[which + 1 :])
    return replace(project, cutting=replace(rules, begun=beguns))


def differ_in_cuts_only(project: Project, other_project: Project) -> bool:
    """Are two projects the same but for how many cuts are made of the fabrics that are begun? What
    is laid out and bought for them is the same then."""
    if project is other_project:
        return True
    same = all(
        getattr(project, name) is getattr(other_project, name)
        for name in project.__struct_fields__
        if name not in ("cutting", "log", "bench", "extra")
    )
    return same and _before_cuts(project) == _before_cuts(other_project)


def _before_cuts(project: Project) -> Cutting:
    rules = project.cutting or Cutting()
    return replace(rules, begun=tuple(replace(begun, done=0) for begun in rules.begun))


def given_up(project: Project, which: int) -> Project:
    """The fabric is laid out anew; what was cut of it is not counted any more."""
    rules = project.cutting or Cutting()
    rest = (*rules.begun[:which], *rules.begun[which + 1 :])
    return replace(project, cutting=replace(rules, begun=rest))


def worth_keeping(laid: LaidFabric, project: Project) -> list[Rect]:
    """What is left of fabric once it is cut, as far as it is of use; a length of bolt goes back to
    what there is of it and is not among it."""
    least = KEPT_INCHES * project.measure.system.per_inch
    used = length_used(laid)
    return [
        rect
        for rect in left_over(laid, cuts_of(laid, project))
        if min(rect.width, rect.height) >= least
        and not (laid.kind == "bolt" and rect.y == used and rect.bottom == laid.length)
    ]


def kept(project: Project, fabric: str | None, laid: LaidFabric) -> Project:
    """What is left of fabric put with the scraps there are."""
    found = project.fabric(fabric or "")
    if found is None:
        return project
    have = list(found.have)
    for rect in worth_keeping(laid, project):
        scrap = Have(kind="scrap", width=rect.width, length=rect.height, count=rect.layers)
        at = next((i for i, h in enumerate(have) if replace(h, count=rect.layers) == scrap), None)
        if at is None:
            have.append(scrap)
        else:
            have[at] = replace(have[at], count=have[at].count + rect.layers)
    return project.with_fabric(found.id, replace(found, have=tuple(have)))
