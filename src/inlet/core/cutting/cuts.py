"""The cut list: equal pieces of all units taken together, by cloth, widest first."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.cutting.sets import PlannedSet
from inlet.core.geometry.motion import SameShapes
from inlet.core.geometry.polygon import Polygon
from inlet.core.numbers.fraction import Fraction
from inlet.core.planning.unit_plan import UnitPlan, cut_size

CutSize = tuple[Fraction, Fraction]


class Cut(NamedTuple):
    """``number`` shapes of one cut size from one cloth. ``cut`` is (shorter, longer side), of a
    strip (width, length); ``labels`` are the units they go into; ``outline`` is a template's
    finished outline; ``lean`` the way a rectangle's diagonal runs. ``label`` is what is pinned to
    the stack: the unit that first wants it, numbered where that one wants several. ``owned`` comes
    from cloth cut already."""

    fabric: str | None
    shape: str
    cut: CutSize
    crosscut: str
    number: int
    labels: tuple[str, ...]
    outline: Polygon = ()
    lean: str = ""
    label: str = ""
    owned: bool = False


def cut_list(units: Sequence[UnitPlan], sets: Sequence[PlannedSet] = ()) -> tuple[Cut, ...]:
    """Every piece of the methods in use, strips of sets as ``sets`` shares them; by cloth in order
    of first use, then widest first."""
    found: dict[tuple[object, ...], Cut] = {}
    same = SameShapes()
    first_of: dict[Polygon, Cut] = {}
    cloths: dict[str | None, int] = {}
    for cut in (*_pieces(units), *_set_strips(units, sets)):
        cloths.setdefault(cut.fabric, len(cloths))
        if cut.outline:  # a template lies any way on the cloth
            outline = same.first_like(cut.outline)
            first = first_of.setdefault(outline, cut)
            cut = cut._replace(outline=outline, cut=first.cut)
        key = cut._replace(number=0, labels=())
        known = found.get(key)
        if known:
            labels = tuple(dict.fromkeys((*known.labels, *cut.labels)))
            cut = known._replace(number=known.number + cut.number, labels=labels)
        found[key] = cut
    return tuple(
        sorted(
            _labelled(list(found.values())),
            key=lambda c: (cloths[c.fabric], -c.cut[0], -c.cut[1]),
        )
    )


def name_stacks(units: Sequence[UnitPlan], cuts: Sequence[Cut]) -> None:
    """Tell each unit which stack each piece of its method in use goes to."""
    same = SameShapes()
    stacks: dict[object, str] = {}
    for cut in cuts:
        outline = same.first_like(cut.outline) if cut.outline else ()
        key = (cut.fabric, cut.shape, cut.crosscut, outline or cut.cut, cut.lean, cut.owned)
        stacks.setdefault(key, cut.label)
    for plan in units:
        found = []
        for piece, size, _, stock in plan.method.pieces:
            crosscut = piece.crosscut if piece.crosscut in ("once", "twice") else "none"
            outline = same.first_like(piece.outline) if piece.outline else ()
            cut_ = size if piece.shape == "strip" else (min(size), max(size))
            key = (
                piece.fabric, piece.shape, crosscut, outline or cut_, piece.lean, stock is not None
            )  # fmt: skip
            found.append(stacks.get(key, ""))
        plan.stacks = tuple(found)


def _pieces(units: Sequence[UnitPlan]) -> Iterator[Cut]:
    for plan in units:
        for piece, size, number, stock in plan.method.pieces:
            if piece.shape == "strip" and plan.method.sets:
                continue  # shared with other units
            # Squares that come apart only after sewing are cut as any other square.
            crosscut = piece.crosscut if piece.crosscut in ("once", "twice") else "none"
            yield Cut(
                piece.fabric,
                piece.shape,
                size if piece.shape == "strip" else (min(size), max(size)),
                crosscut,
                number,
                (plan.unit.label,),
                piece.outline,
                piece.lean,
                owned=stock is not None,
            )


def _set_strips(units: Sequence[UnitPlan], sets: Sequence[PlannedSet]) -> Iterator[Cut]:
    for one in sets:
        measure = units[0].measure
        for width, cloth in one.bands:
            across = cut_size(width + 2 * measure.seam, measure)
            for length in one.lengths:
                yield Cut(cloth, "strip", (across, length), "none", 1, one.labels)


def _labelled(cuts: list[Cut]) -> Iterator[Cut]:
    """Each with its own label, the same on every screen and page."""
    own: dict[str, int] = {}
    for cut in cuts:
        own[cut.labels[0]] = own.get(cut.labels[0], 0) + 1
    count: dict[str, int] = {}
    for cut in cuts:
        unit = cut.labels[0]
        count[unit] = count.get(unit, 0) + 1
        number = "" if own[unit] == 1 else str(count[unit])
        yield cut._replace(label=f"{unit} {number}".strip() if " " in unit else f"{unit}{number}")
