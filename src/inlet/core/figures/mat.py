"""The fabric on the mat, to scale: folded as it lies, what is cut of it, and the ruler at the next
cut. Its length runs away from the squared end, to the right (for left-handers to the left); the
fold lies nearest to the maker."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import dist

from inlet.core.cutlist import Cut, rises
from inlet.core.figures.display import (
    Area,
    Box,
    BoxText,
    Corners,
    FabricArea,
    Figure,
    Item,
    Kind,
    Polyline,
    Spot,
    Tag,
    rectangle,
)
from inlet.core.layout import LaidPlace, Rect, SetUp, Stroke, Tools, Way, ready_after
from inlet.core.numbers import show
from inlet.core.project import LaidFabric, Measure, Pair
from inlet.core.templates import in_box, laid_outlines

LAYERS = {1: "a single layer", 2: "folded once, 2 layers", 4: "folded twice, 4 layers"}
BEYOND = 14.0
"""How far the ruler reaches over what is cut."""
NUMBER_APART = 17.0
LEAST_MARKS = 4.0


@dataclass(frozen=True)
class OnMat:
    """Fabric with its cuts, ``done`` of them made; None of them before the fabric is prepared. The
    next one is made as its ``set_up`` says. Of equal pieces of fabric the stack that is being cut
    is shown."""

    laid: LaidFabric
    fabric: str | None
    all_strokes: tuple[Stroke, ...]
    all_done: int | None
    cuts: Mapping[str, Cut]
    measure: Measure
    left_handed: bool
    tools: Tools
    set_up: SetUp | None = None

    @cached_property
    def strokes(self) -> tuple[Stroke, ...]:
        """The cuts of the stack that is being cut."""
        if self.laid.count == 1 or not self.all_strokes:
            return self.all_strokes
        turn = self.all_strokes[min(self.all_done or 0, len(self.all_strokes) - 1)].turn
        return tuple(stroke for stroke in self.all_strokes if stroke.turn == turn)

    @cached_property
    def done(self) -> int | None:
        """How many of them are made."""
        if self.all_done is None or not self.strokes:
            return self.all_done
        turn = self.strokes[0].turn
        return self.all_done - sum(stroke.turn < turn for stroke in self.all_strokes)

    @property
    def size(self) -> tuple[float, float]:
        """As it lies, folded: along, and across with what is laid open beyond the fold."""
        return float(self.laid.length), float(self.laid.width / self.laid.layers) + self.below

    @cached_property
    def places(self) -> list[tuple[LaidPlace, int]]:
        """Each piece with how many cuts release it."""
        return ready_after(self.laid, self.strokes)

    @cached_property
    def below(self) -> float:
        """How far what is opened reaches beyond the fold."""
        return max((-float(p.at.x) for p, _ in self.places if p.at.x < 0), default=0.0)

    @cached_property
    def outlines(self) -> dict[tuple[str, int], tuple[Corners, ...]]:
        """The templates in places of each kind."""
        kinds = {(place.label, place.holds) for place, _ in self.places}
        return {
            (label, holds): laid_outlines(self.cuts[label], holds, self.measure)
            for label, holds in kinds
            if label in self.cuts
        }


@dataclass(frozen=True)
class MatFrame:
    """Where the fabric lies in a picture: its left end, where its fold is, and its scale."""

    shown: OnMat
    left: float
    fold: float
    scale: float
    unit: float = 1.0

    @classmethod
    def fit(cls, shown: OnMat, room: Box, unit: float = 1.0) -> MatFrame:
        """The largest that has room, in the middle of it."""
        left, top, right, bottom = room
        wide, high = shown.size
        scale = max(0.5, min((right - left) / wide, (bottom - top) / high))
        x = left + max(0.0, (right - left - wide * scale) / 2)
        y = top + max(0.0, (bottom - top - high * scale) / 2)
        return cls(shown, x, y + (high - shown.below) * scale, scale, unit)

    @property
    def whole(self) -> Box:
        """The folded fabric."""
        laid = self.shown.laid
        right = self.left + float(laid.length) * self.scale
        return (
            self.left,
            self.fold - float(laid.width / laid.layers) * self.scale,
            right,
            self.fold,
        )

    def box(self, rect: Rect) -> Box:
        """A piece of the fabric: along it to the right, across it upward from the fold."""
        along, wide = float(rect.y) * self.scale, float(rect.height) * self.scale
        left, _, right, _ = self.whole
        x = right - along - wide if self.shown.left_handed else left + along
        bottom = self.fold - float(rect.x) * self.scale
        return x, bottom - float(rect.width) * self.scale, x + wide, bottom

    def lines(self, stroke: Stroke) -> list[Corners]:
        """A cut, one line in each piece of fabric."""
        lines: list[Corners] = []
        for near in list(stroke.parts())[::2]:
            left, top, right, bottom = self.box(near)
            if stroke.way == "along":
                lines.append(((left, top), (right, top)))
            else:
                x = left if self.shown.left_handed else right
                lines.append(((x, top), (x, bottom)))
        return lines


def mat_figure(frame: MatFrame, chosen: str = "", plain: bool = False) -> Figure:
    """The fabric and its pieces, those of the stack ``chosen`` standing out; of the cuts those
    made, and the ruler at the next. A ``plain`` one has no words at its edges and does not show
    what is laid open."""
    return tuple(_mat(frame, chosen, plain))


def _mat(frame: MatFrame, chosen: str, plain: bool) -> Iterator[Item]:
    shown = frame.shown
    done = shown.done or 0
    yield FabricArea(rectangle(frame.whole), shown.fabric, "uncut")
    yield from _edges(frame, plain)
    if shown.strokes and shown.strokes[0].what == "square" and done == 0:
        first = shown.strokes[0]
        yield Area(rectangle(frame.box(first.of[0]._replace(height=first.size))), "square-off")
    for stroke in (
        () if plain else shown.strokes[: done + 1]
    ):  # laid open by now, or by the next cut
        for rect in stroke.of if stroke.opens else ():
            yield FabricArea(rectangle(frame.box(rect)), shown.fabric, "uncut")
    for place, when in shown.places:
        yield from _piece(frame, place, 0 < when <= done, place.label == chosen)
    for stroke in shown.strokes[:done]:
        for line in frame.lines(stroke):
            yield Polyline(line, "cut-done")
    if shown.done is not None and done < len(shown.strokes):
        yield from _next(frame, shown.strokes[done])


def _edges(frame: MatFrame, plain: bool) -> Iterator[Item]:
    """Selvages, fold, grain."""
    shown, unit = frame.shown, frame.unit
    folded, bolt = shown.laid.layers > 1, shown.laid.kind in ("new", "bolt")
    left, top, right, bottom = frame.whole
    band = 5 * unit
    if bolt:
        yield Area(rectangle((left, top - band, right, top)), "selvage")
        if not folded:
            yield Area(rectangle((left, bottom, right, bottom + band)), "selvage")
    if folded:
        yield Polyline(((left, bottom), (right, bottom)), "fold")
    if plain:
        return
    words = LAYERS[shown.laid.layers]
    edge = "selvages" if folded else "selvage"
    above = left, top - 26 * unit, right, top - 6 * unit
    yield BoxText(above, f"{edge}  ·  {words}" if bolt else words, 9, "soft-words", wide=True)
    fold = "fold, nearest to you" if folded else ("selvage, nearest to you" if bolt else "")
    if not shown.below:
        below = left, bottom + 6 * unit, right, bottom + 26 * unit
        kind: Kind = "words" if folded else "soft-words"
        yield BoxText(below, f"{fold}   ⟷ straight grain".strip(), 9, kind, wide=True)


def _piece(frame: MatFrame, place: LaidPlace, ready: bool, chosen: bool) -> Iterator[Item]:
    shown = frame.shown
    box = left, top, right, bottom = frame.box(place.at)
    outline = rectangle(box)
    if ready:
        inset = frame.unit
        outline = rectangle((left + inset, top + inset, right - inset, bottom - inset))
        yield FabricArea(outline, shown.fabric, "ready")
    kind: Kind = "piece-chosen" if chosen else "piece-ready" if ready else "piece-to-cut"
    yield Area(outline, kind)
    on = shown.fabric if ready else None
    cut = shown.cuts.get(place.label)
    if cut is not None and cut.crosscut in ("once", "twice"):
        # Fabric lies on its side here, and so does the print of a square.
        upright = cut.shape != "square" and bottom - top > right - left
        rising = rises(cut, upright)
        if cut.crosscut == "twice" or not rising:
            yield Polyline(((left, top), (right, bottom)), "crosscut", on=on)
        if cut.crosscut == "twice" or rising:
            yield Polyline(((left, bottom), (right, top)), "crosscut", on=on)
    for corners in shown.outlines.get((place.label, place.holds), ()):
        size = (right - left) / frame.scale, (bottom - top) / frame.scale
        laid = in_box(corners, *size, place.turned)
        points = tuple((left + x * frame.scale, top + y * frame.scale) for x, y in laid)
        yield Polyline((*points, points[0]), "template", on=on)
    text = place.label if place.holds == 1 else f"{place.label} × {place.holds}"
    yield BoxText(box, text, 9, "words" if ready else "soft-words", on=on)


def _next(frame: MatFrame, stroke: Stroke) -> Iterator[Item]:
    """The pieces of fabric the next cut goes through, the ruler on the part that comes off, and the
    line to cut along."""
    for rect in stroke.of:
        yield Area(rectangle(frame.box(rect)), "next-piece")
    first, other_rect = list(stroke.parts())[:2]
    size = first.width if stroke.way == "along" else first.height
    left, top, right, bottom = off = frame.box(first if size == stroke.size else other_rect)
    rulers = _rulers(frame, stroke, off)
    for ruler in rulers:
        yield Area(rectangle(ruler), "next-ruler")
    yield from _ruler_marks(frame, stroke, _over(off, rulers[0], stroke.way))
    yield from _folded_again(frame, stroke)
    for line in frame.lines(stroke):
        yield Polyline(line, "next-cut")
    text = show(stroke.size, system=frame.shown.measure.system, vulgar=True)
    yield Tag(((left + right) / 2, (top + bottom) / 2), text, 14, "size")


def _rulers(frame: MatFrame, stroke: Stroke, off: Box) -> list[Box]:
    """The ruler along the cut, over what comes off, once for each time it is moved on; then the
    one that measures beside it."""
    set_up, rulers = frame.shown.set_up, frame.shown.tools.rulers
    left, top, right, bottom = off
    if set_up is None:
        beyond = BEYOND * frame.unit
        if stroke.way == "along":
            return [(left - beyond, top, right + beyond, bottom)]
        return [(left, top - beyond, right, bottom + beyond)]
    long = float(stroke.length) / (1 << set_up.folds)
    wide, reach = _lying(rulers[set_up.ruler], float(stroke.measured), long)
    places = [_ruler_at(frame, stroke, off, 0, wide, reach, i) for i in range(set_up.shifts + 1)]
    if set_up.beside is not None:
        beside = sorted(map(float, rulers[set_up.beside]))
        needed = float(stroke.size) - wide
        measuring, along = beside if beside[0] >= needed else beside[::-1]
        places.append(_ruler_at(frame, stroke, off, wide, measuring, along, 0))
    return places


def _lying(ruler: Pair, size: float, long: float) -> tuple[float, float]:
    """How a ruler lies: what it measures, and how long it is along the cut; the better of both
    ways."""
    short, length = sorted(map(float, ruler))
    return (length, short) if size > short and long <= short else (short, length)


def _ruler_at(
    frame: MatFrame, stroke: Stroke, off: Box, start: float, wide: float, reach: float, which: int
) -> Box:
    """A ruler so wide and long beside the cut line, from ``start`` of it on, moved on so often."""
    left, top, right, bottom = off
    scale = frame.scale
    near, far = start * scale, (start + wide) * scale
    (x, y), (x1, y1) = frame.lines(stroke)[0]
    centre_x, centre_y = (left + right) / 2, (top + bottom) / 2
    if stroke.way == "along":
        low, high = min(x, x1), max(x, x1)
        begin = _begin(low, high, reach * scale, which)
        sides = (y - far, y - near) if centre_y < y else (y + near, y + far)
        return begin, sides[0], begin + reach * scale, sides[1]
    low, high = min(y, y1), max(y, y1)
    begin = _begin(low, high, reach * scale, which)
    sides = (x - far, x - near) if centre_x < x else (x + near, x + far)
    return sides[0], begin, sides[1], begin + reach * scale


def _begin(low: float, high: float, reach: float, which: int) -> float:
    """Where a ruler begins along a cut: in the middle where it reaches over all of it."""
    return (low + high - reach) / 2 if reach >= high - low else low + which * reach


def _over(off: Box, ruler: Box, way: Way) -> Box:
    """The part of what comes off that the ruler lies beside, where its marks are."""
    left, top, right, bottom = off
    if way == "along":
        return max(left, ruler[0]), top, min(right, ruler[2]), bottom
    return left, max(top, ruler[1]), right, min(bottom, ruler[3])


def _folded_again(frame: MatFrame, stroke: Stroke) -> Iterator[Item]:
    """Where the fabric is folded again for a cut."""
    folds = frame.shown.set_up.folds if frame.shown.set_up is not None else 0
    for rect in stroke.of if folds else ():
        left, top, right, bottom = frame.box(rect)
        for i in range(1, 1 << folds):
            share = i / (1 << folds)
            if stroke.way == "along":
                x = left + (right - left) * share
                yield Polyline(((x, top), (x, bottom)), "fold")
            else:
                y = top + (bottom - top) * share
                yield Polyline(((left, y), (right, y)), "fold")


def _ruler_marks(frame: MatFrame, stroke: Stroke, ruler: Box) -> Iterator[Item]:
    """The ruler's whole marks, counted from the cut line, on which its edge lies."""
    system = frame.shown.measure.system
    step = float(system.per_inch if system.fractions else 1) * frame.scale
    if step < LEAST_MARKS * frame.unit:
        return
    left, top, right, bottom = ruler
    (x, y), _ = frame.lines(stroke)[0]
    for i in range(1, int(float(stroke.size) * frame.scale / step) + 1):
        if stroke.way == "along":
            at = y + i * step * (1 if y < (top + bottom) / 2 else -1)
            yield Polyline(((left, at), (right, at)), "ruler-mark")
        else:
            at = x + i * step * (1 if x < (left + right) / 2 else -1)
            yield Polyline(((at, top), (at, bottom)), "ruler-mark")


def numbers_figure(frame: MatFrame, numbers: Sequence[int]) -> Figure:
    """The number that each cut has in the list where it begins; not where it would hide another."""
    tags: list[Tag] = []
    for number, stroke in zip(numbers, frame.shown.strokes, strict=False):
        at = _begins(frame, stroke)
        if all(dist(at, tag.at) >= NUMBER_APART * frame.unit for tag in tags):
            tags.append(Tag(at, str(number), 8))
    return tuple(tags)


def _begins(frame: MatFrame, stroke: Stroke) -> Spot:
    left, top, right, bottom = frame.box(next(iter(stroke.parts())))
    if stroke.way == "along":
        return (left + right) / 2, top
    return left if frame.shown.left_handed else right, (top + bottom) / 2
