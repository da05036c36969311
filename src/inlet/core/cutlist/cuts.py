"""The cut list: equal pieces of all units taken together, by fabric, widest first."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.cutlist.strip_sets import PlannedSet
from inlet.core.geometry import Polygon, SameShapes
from inlet.core.planning import (
    CutPiece,
    CutSize,
    UnitPlan,
    triangles_given,
    triangles_needed,
)
from inlet.core.table import Crosscut, Lean, Shape, diagonal_text


class Cut(NamedTuple):
    """``number`` shapes of one cut size from one fabric. ``cut`` is (shorter, longer side), of a
    strip (width, length); ``labels`` are the units they go into; ``outline`` is a template's
    finished outline; ``lean`` the way a rectangle's diagonal runs. ``label`` is what is pinned to
    the stack: the unit that first wants it, numbered where that one wants several. ``owned`` comes
    from fabric cut already; ``over`` are triangles that are not needed."""

    fabric: str | None
    shape: Shape
    cut: CutSize
    crosscut: Crosscut
    number: int
    labels: tuple[str, ...]
    outline: Polygon = ()
    lean: Lean = ""
    label: str = ""
    owned: bool = False
    over: int = 0

    @property
    def diagonal(self) -> str:
        """How it is cut on its diagonals before it is sewn, in words; empty where it is not."""
        return diagonal_text(self.crosscut, self.lean, self.shape == "square")


def cut_list(units: Sequence[UnitPlan], sets: Sequence[PlannedSet] = ()) -> tuple[Cut, ...]:
    """Every piece of the methods in use, strips of sets as ``sets`` shares them; by fabric in order
    of first use, then widest first."""
    cuts: dict[tuple[object, ...], Cut] = {}
    same = SameShapes()
    first_of: dict[Polygon, Cut] = {}
    fabrics: dict[str | None, int] = {}
    for cut in (*_pieces(units), *_set_strips(units, sets)):
        fabrics.setdefault(cut.fabric, len(fabrics))
        if cut.outline:  # a template lies any way on the fabric
            outline = same.first_like(cut.outline)
            first = first_of.setdefault(outline, cut)
            cut = cut._replace(outline=outline, cut=first.cut)
        key = cut._replace(number=0, labels=(), over=0)
        known_cut = cuts.get(key)
        if known_cut:
            labels = tuple(dict.fromkeys((*known_cut.labels, *cut.labels)))
            number, over = known_cut.number + cut.number, known_cut.over + cut.over
            cut = known_cut._replace(number=number, over=over, labels=labels)
        cuts[key] = cut
    return tuple(
        sorted(
            _labelled(list(cuts.values()), units),
            key=lambda c: (fabrics[c.fabric], -c.cut[0], -c.cut[1]),
        )
    )


def rises(cut: Cut, upright: bool) -> bool:
    """Does the diagonal of a rectangle run from the bottom left as it lies, its long side upright
    or not? A quarter turn changes that."""
    return bool(cut.lean) and (cut.lean == "rising") == upright


Stacks = Mapping[str, tuple[str, ...]]
"""By a unit's label: the stack that each piece of its method in use goes to, by its label."""


def stacks_of(units: Sequence[UnitPlan], cuts: Sequence[Cut]) -> Stacks:
    """Which stack of the cut list each unit's pieces go to; of the strips for its sets, which may
    be of several lengths, all of them: ``B1, B2``."""
    same = SameShapes()

    def key(cut: Cut) -> tuple[object, ...]:
        outline = same.first_like(cut.outline) if cut.outline else ()
        return cut.fabric, cut.shape, cut.crosscut, outline or cut.cut, cut.lean, cut.owned

    stacks: dict[object, str] = {}
    for cut in cuts:
        stacks.setdefault(key(cut), cut.label)
    strips = [cut for cut in cuts if cut.shape == "strip"]

    def stack(plan: UnitPlan, piece: CutPiece) -> str:
        if not piece.in_set(plan.in_use.sets):
            labels = (stacks.get(key(cut), "") for cut in _cuts_of(plan, piece))
            return ", ".join(dict.fromkeys(labels))
        cut = _cut_of(plan, piece)
        label, kind = plan.unit.label, (cut.fabric, cut.cut[0], cut.owned)
        own_cuts = [
            c for c in strips if label in c.labels and (c.fabric, c.cut[0], c.owned) == kind
        ]
        return ", ".join(c.label for c in own_cuts)

    return {
        plan.unit.label: tuple(stack(plan, piece) for piece in plan.in_use.pieces) for plan in units
    }


def _pieces(units: Sequence[UnitPlan]) -> Iterator[Cut]:
    for plan in units:
        for cut_piece in plan.in_use.pieces:
            if not cut_piece.in_set(plan.in_use.sets):  # those are shared with others
                yield from _cuts_of(plan, cut_piece)


def _cuts_of(plan: UnitPlan, cut_piece: CutPiece) -> Iterator[Cut]:
    """A piece of a unit as the cut list has it: squares whose print stands upright by the diagonal
    they are cut on."""
    cut, upright = _cut_of(plan, cut_piece), cut_piece.upright
    if upright is None or cut.crosscut != "once" or cut.shape != "square":
        yield cut
        return
    by_lean = upright.by_lean
    for lean in dict.fromkeys(facing.lean for facing in upright.needed):
        over = sum(n for facing, n in upright.over.items() if facing.lean == lean)
        yield cut._replace(lean=lean, number=by_lean[lean], over=over)


def _cut_of(plan: UnitPlan, cut_piece: CutPiece) -> Cut:
    """The same, of either diagonal. Squares that come apart only after sewing are cut as any other
    square."""
    piece, size = cut_piece.piece, cut_piece.cut
    given = triangles_given(cut_piece).total()
    over = given - triangles_needed(cut_piece, plan.in_use.runs).total()
    return Cut(
        piece.fabric,
        piece.shape,
        size if piece.shape == "strip" else (min(size), max(size)),
        piece.crosscut if piece.crosscut in ("once", "twice") else "none",
        cut_piece.number,
        (plan.unit.label,),
        piece.outline,
        piece.lean,
        owned=cut_piece.stock is not None,
        over=over,
    )


def _set_strips(units: Sequence[UnitPlan], sets: Sequence[PlannedSet]) -> Iterator[Cut]:
    for planned_set in sets:
        plan = next(plan for plan in units if plan.unit.label in planned_set.labels)
        slanted = any(
            s.strips.slanted for s in plan.in_use.sets if s.strips.bands == planned_set.bands
        )
        for width, fabric in planned_set.bands:
            across = plan.cutting.as_sewn(width + 2 * plan.measure.seam, slanted)
            for length in planned_set.lengths:
                check()
                yield Cut(fabric, "strip", (across, length), "none", 1, planned_set.labels)


def _labelled(cuts: list[Cut], units: Sequence[UnitPlan]) -> Iterator[Cut]:
    """Each with its own label, the same on every screen and page: that of the unit it is cut for
    first, numbered where the unit is not just that, so that no stack is called as what is made."""
    counts = Counter(cut.labels[0] for cut in cuts)
    into = Counter(label for cut in cuts for label in cut.labels)
    patches = {plan.unit.label for plan in units if len(plan.unit.part.faces) == 1}
    count: Counter[str] = Counter()
    for cut in cuts:
        unit = cut.labels[0]
        count[unit] += 1
        all_of_it = unit in patches or (into[unit] == 1 and cut.labels == (unit,))
        number = "" if counts[unit] == 1 and all_of_it else str(count[unit])
        yield cut._replace(label=f"{unit} {number}".strip() if " " in unit else f"{unit}{number}")
