"""Laid fabric cut stroke by stroke, in the order in which the cuts are made.

Every stroke goes from edge to edge through the pieces of fabric it is made in; several may lie in a
stack, or side by side, and are cut by the same stroke.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import chain, groupby
from typing import Literal, NamedTuple

from inlet.core.cancellation import check
from inlet.core.layout.laid_places import (
    ZERO,
    LaidPlace,
    Rect,
    StripCell,
    Way,
    places_of,
    strip_plan,
    strip_tops,
)
from inlet.core.layout.tools import SetUp, Tools, best_set_ups
from inlet.core.numbers import Exact
from inlet.core.project import LaidFabric, LaidRow, LaidStrip, replace

What = Literal["square", "strip", "segment", "row", "piece", "trim"]


class Stroke(NamedTuple):
    """One cut, ``across`` the fabric at a y or ``along`` it at an x, from ``start`` to ``end``,
    through each of ``of``, which lie in a stack, ``stacked`` high, or side by side. ``at`` is its
    place in the first of them; in the others it is as far from their own edge. ``size`` is what the
    ruler shows: how wide what is cut off is. ``opens``: they are unfolded first. ``finishes`` are
    the pieces that come off ready, by the label of their stack. Equal pieces of fabric are cut in
    turn, so many ``copies`` of them on top of one another."""

    way: Way
    at: Exact
    start: Exact
    end: Exact
    of: tuple[Rect, ...]
    stacked: int
    what: What
    size: Exact
    opens: bool
    finishes: tuple[tuple[str, int], ...]
    copies: int = 1
    turn: int = 0

    @property
    def layers(self) -> int:
        """Layers under the cutter."""
        return self.of[0].layers * self.stacked * self.copies

    @property
    def length(self) -> Exact:
        return self.end - self.start

    @property
    def measured(self) -> Exact:
        """What the ruler must measure: where an edge is only squared, nothing."""
        return ZERO if self.what == "square" else self.size

    def set_ups(self, tools: Tools) -> tuple[SetUp, ...]:
        """The quickest ways to make it."""
        return best_set_ups(self.measured, self.length, self.layers, tools)

    def parts(self) -> Iterator[Rect]:
        """What it leaves, on either side, of each piece."""
        along = self.way == "along"
        off = self.at - (self.of[0].x if along else self.of[0].y)
        for rect in self.of:
            yield from rect.parted(self.way, (rect.x if along else rect.y) + off)


def strokes_of(laid: LaidFabric, tools: Tools) -> list[Stroke]:
    """The cuts in their order: strips off the fabric, then each strip cut up, equal ones together,
    in as many layers as the blade goes through; several equal pieces of fabric in stacks."""
    strokes: list[Stroke] = []
    left, turn = laid.count, 0
    while left:
        copies = min(left, max(1, tools.blade // laid.layers))
        table = _Table(laid, tools._replace(blade=tools.blade // copies))
        for strip, rects in table.strips_off():
            for pile in piles(rects, table.tools.blade, tools.longest):
                table.cut_up(strip, pile)
        for stroke in table.strokes:
            finishes = tuple((label, number * copies) for label, number in stroke.finishes)
            strokes.append(stroke._replace(finishes=finishes, copies=copies, turn=turn))
        left, turn = left - copies, turn + 1
    return strokes


def ready_after(laid: LaidFabric, strokes: Sequence[Stroke]) -> list[tuple[LaidPlace, int]]:
    """Each place with how many cuts release what lies there; 0 where the whole fabric is it."""
    when: dict[Rect, int] = {}
    for number, stroke in enumerate(strokes, 1):
        for part in stroke.parts():
            when |= dict.fromkeys(_lying(part, laid), number)
    return [(place, when.get(place.at, 0)) for place in places_of(laid)]


def left_over(laid: LaidFabric, strokes: Sequence[Stroke]) -> list[Rect]:
    """What lies there besides the pieces once all cuts are made, the largest first."""
    there = {Rect(ZERO, ZERO, laid.width / laid.layers, laid.length, laid.layers)}
    for stroke in strokes:
        check()
        for rect in stroke.of:
            if stroke.opens:
                there.discard(rect._replace(x=ZERO, width=rect.right, layers=rect.layers * 2))
            there.discard(rect)
        there.update(stroke.parts())
    places = {place.at for place in places_of(laid)}
    rest = [_lying(r, laid)[-1] for r in there if not places.intersection(_lying(r, laid))]
    rest = [rect._replace(layers=rect.layers * laid.count) for rect in rest]
    return sorted(rest, key=lambda r: (-r.width * r.height, r))


class Pile(NamedTuple):
    """Equal pieces of fabric cut by the same strokes, ``stacked`` high or side by side."""

    rects: tuple[Rect, ...]
    stacked: int

    def beside(self, other_pile: Pile) -> Pile:
        return Pile((*self.rects, *other_pile.rects), self.stacked)

    def opened(self) -> Pile:
        return self._replace(rects=tuple(rect.opened() for rect in self.rects))


def piles(rects: Sequence[Rect], stack: int, ruler: Exact) -> Iterator[Pile]:
    """Equal strips taken together: in stacks as high as the maker cuts, or, where one is as high as
    that, side by side as far as the ruler reaches."""
    each = stack // rects[0].layers
    if each > 1:
        for i in range(0, len(rects), each):
            own_rects = tuple(rects[i : i + each])
            yield Pile(own_rects, len(own_rects))
        return
    row: list[Rect] = []
    for rect in rects:
        if row and (row[-1].bottom != rect.y or rect.bottom - row[0].y > ruler):
            yield Pile(tuple(row), 1)
            row = []
        row.append(rect)
    yield Pile(tuple(row), 1)


def in_line(rects: Sequence[Rect], way: Way) -> Iterator[tuple[Rect, ...]]:
    """Pieces that one stroke cuts, as they begin on one line and lie edge to edge."""
    run: list[Rect] = []
    for rect in rects:
        if run:
            last = run[-1]
            joins = (
                (last.x == rect.x and last.bottom == rect.y)
                if way == "along"
                else (last.y == rect.y and last.right == rect.x)
            )
            if not joins:
                yield tuple(run)
                run = []
        run.append(rect)
    yield tuple(run)


def _lying(part: Rect, laid: LaidFabric) -> tuple[Rect, ...]:
    """A piece of fabric as it lies, and laid open where it is still folded at the fold."""
    folded = laid.layers > 1 and part.layers == laid.layers and part.x == 0
    return (part, part.opened()) if folded else (part,)


class _Table:
    """Fabric under the cutter: what was cut so far."""

    def __init__(self, laid: LaidFabric, tools: Tools) -> None:
        self.laid, self.tools = replace(laid, count=1), tools
        self.strokes: list[Stroke] = []
        self.opening = False  # is what is cut next to be opened first?
        self.wanted = {place.at: place for place in places_of(self.laid)}

    def cut(
        self, pile: Pile, way: Way, size: Exact, what: What, far: bool = False
    ) -> tuple[Pile, Pile | None]:
        """``size`` cut off every piece of a pile, from its far edge where ``far``: what comes off,
        and the rest; no stroke where nothing is left."""
        check()
        first = pile.rects[0]
        along = way == "along"
        whole = first.width if along else first.height
        if size >= whole:
            return pile, None
        off = whole - size if far else size
        runs = [pile.rects] if pile.stacked > 1 else list(in_line(pile.rects, way))
        near: list[Rect] = []
        beyond: list[Rect] = []
        for rects in runs:
            parts = [r.parted(way, (r.x if along else r.y) + off) for r in rects]
            counts: Counter[str] = Counter()
            for part in chain(*parts):
                for lying in _lying(part, self.laid):
                    if lying in self.wanted:
                        place = self.wanted.pop(lying)
                        counts[place.label] += place.number
            ends = [(r.y, r.bottom) if along else (r.x, r.right) for r in rects]
            start, end = ends[0] if pile.stacked > 1 else (ends[0][0], ends[-1][1])
            at = (rects[0].x if along else rects[0].y) + off
            done = tuple(counts.items())
            self.strokes.append(
                Stroke(way, at, start, end, rects, pile.stacked, what, size, self.opening, done)
            )
            near += [part[0] for part in parts]
            beyond += [part[1] for part in parts]
        self.opening = False
        sides = Pile(tuple(near), pile.stacked), Pile(tuple(beyond), pile.stacked)
        return (sides[1], sides[0]) if far else sides

    def strips_off(self) -> list[tuple[LaidStrip, list[Rect]]]:
        """The strips cut off across the fabric, and where they lie; equal ones together."""
        laid = self.laid
        whole = Rect(ZERO, ZERO, laid.width / laid.layers, laid.length, laid.layers)
        rest: Pile | None = Pile((whole,), 1)
        strips: list[tuple[LaidStrip, list[Rect]]] = []
        for strip, _, squares in strip_tops(laid):
            if squares and rest is not None:
                _, rest = self.cut(rest, "across", laid.squaring, "square")
            assert rest is not None, "a strip beyond the end of its fabric"
            pile, rest = self.cut(rest, "across", strip.width, "strip")
            if not strips or strips[-1][0] is not strip:
                strips.append((strip, []))
            strips[-1][1].append(pile.rects[0])
        return strips

    def cut_up(self, strip: LaidStrip, pile: Pile) -> None:
        """Equal strips cut into segments, from the squared end on."""
        plan = strip_plan(self.laid, strip)
        far = self.laid.layers > 1
        rest: Pile | None = pile
        if plan.squared:
            _, rest = self.cut(pile, "along", plan.squared, "square", far)
        rest = self.segments(plan.pairs, rest, far)
        if plan.opened and rest is not None:
            self.opening = True
            self.segments(plan.opened, rest.opened(), True)
            self.opening = False

    def segments(self, cells: Sequence[StripCell], pile: Pile | None, far: bool) -> Pile | None:
        """Segments cut off one after the other, those with equal rows together; what is left."""
        for (width, rows), run in groupby(cells, key=lambda c: (c.width, c.rows)):
            number = len(list(run))
            assert pile is not None, "a segment beyond the end of its strip"
            if len(rows) == 1 and rows[0].width == pile.rects[0].height and _fills(rows[0], width):
                for _ in range(number):
                    assert pile is not None, "a segment beyond the end of its strip"
                    _, pile = self.cut(pile, "along", width, "segment", far)
                continue
            while number:
                assert pile is not None, "a segment beyond the end of its strip"
                some = self.within_reach(width, number, pile)
                block, pile = self.cut(pile, "along", width * some, "segment", far)
                self.block(block, width, rows, some)
                number -= some
        return pile

    def within_reach(self, width: Exact, number: int, pile: Pile) -> int:
        """How many segments side by side are cut off at once: as many as rulers measure, as the
        rows in them are cut through all then."""
        first = pile.rects[0]
        layers = first.layers * pile.stacked

        def measured(some: int) -> bool:
            size, broadest = width * some, self.tools.broadest
            set_up = best_set_ups(size, first.height, layers, self.tools)[0]
            beyond = size > broadest and first.height > broadest
            return set_up.by in ("ruler", "rulers") and not beyond

        return next((some for some in range(number, 1, -1) if measured(some)), 1)

    def block(self, block: Pile, width: Exact, rows: Sequence[LaidRow], number: int) -> None:
        """Equal segments side by side: rows first, through all of them, then what is in each row;
        where each row is one piece a segment, the strokes along go through all rows at once."""
        levels = []
        rest: Pile | None = block
        for row in rows:
            assert rest is not None, "a row beyond the end of its segment"
            level, rest = self.cut(rest, "across", row.width, "row")
            levels.append(level)
        if all(_fills(row, width) for row in rows):
            level = levels[0]
            for other_pile in levels[1:]:
                level = level.beside(other_pile)
            self.equal_parts(level, width, number, "piece")
            return
        for row, level in zip(rows, levels, strict=True):
            self.row(row, level, width, number)

    def equal_parts(self, pile: Pile, size: Exact, number: int, what: What) -> Pile | None:
        rest: Pile | None = pile
        for _ in range(number):
            if rest is None:
                break
            _, rest = self.cut(rest, "along", size, what)
        return rest

    def row(self, row: LaidRow, level: Pile, width: Exact, number: int) -> None:
        """A row through ``number`` segments, each with its pieces from its left edge on. Pieces all
        lower than the row are cut to their height at once, others one by one."""
        heights = {pieces.size[1] for pieces in row.pieces}
        if len(heights) == 1:
            level, _ = self.cut(level, "across", heights.pop(), "trim")
        rest: Pile | None = level
        for _ in range(number):
            assert rest is not None, "a segment beyond the end of its row"
            segment, rest = self.cut(rest, "along", width, "piece")
            left: Pile | None = segment
            for pieces in row.pieces:
                wide, high = pieces.size
                for _ in range(pieces.count):
                    assert left is not None, "a piece beyond the end of its row"
                    piece, left = self.cut(left, "along", wide, "piece")
                    self.cut(piece, "across", high, "trim")


def _fills(row: LaidRow, width: Exact) -> bool:
    """Is a row one piece that takes all of it?"""
    laid = row.pieces[0]
    return len(row.pieces) == 1 and laid.count == 1 and laid.size == (width, row.width)
