"""Methods with their counts: what to cut, at the maker's ruler mark, for the units needed."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from types import MappingProxyType
from typing import NamedTuple

from inlet.core.methods import (
    ByProduct,
    Method,
    SetOfStrips,
    Trim,
    centred_panel,
    method_named,
    methods_for,
    sewn_large_move,
    trim_move,
    trim_of,
)
from inlet.core.numbers import INCHES, Exact, Fraction, ceil_exact, floor_exact, next_mark
from inlet.core.panels import PanelCut
from inlet.core.planning.cut_piece import CutPiece, CutSize, TriangleKey, with_spare
from inlet.core.planning.cut_rule import CutRule, usual_rule
from inlet.core.planning.made_size import MadeSize
from inlet.core.planning.stock import Stock, parse_stock, uses_whole
from inlet.core.planning.upright import Directions, Turns, Upright, upright_pieces
from inlet.core.project import Choice, Measure, UnitKind
from inlet.core.table import Move, Piece, Size
from inlet.core.units import Unit, fabric_in

Widths = Callable[[str | None], Exact]
"""The usable width of each fabric."""


def usual_width(_: str | None) -> Exact:
    return INCHES.fabric_width


class SewnSet(NamedTuple):
    """A set of strips to sew: ``number`` of them, ``length`` long, ``segments`` cut from each."""

    strips: SetOfStrips
    number: int
    segments: int
    length: Fraction


class MethodPlan(NamedTuple):
    """A method with its counts: what makes the units asked for.

    ``runs`` times ``method.makes`` units, ``surplus`` over. ``mirrored`` of the other hand come out
    as well, ``mirrored_over`` of them not needed; ``made_with`` is the label of the unit in whose
    runs these are made, so that nothing more is cut. ``trim_to`` is the unfinished size to trim to.
    ``short``: the fabric cut already that was asked for is too small for it, and new fabric is cut.
    ``turns_print``: a print with a direction does not stand upright in what it makes.
    """

    method: Method
    kind: UnitKind
    runs: int
    surplus: int
    trim_to: Size | None
    pieces: tuple[CutPiece, ...]
    sets: tuple[SewnSet, ...] = ()
    mirrored: int = 0
    mirrored_over: int = 0
    made_with: str | None = None
    short: bool = False
    turns_print: bool = False

    @property
    def name(self) -> str:
        return self.method.name

    @property
    def made(self) -> int:
        return self.runs * self.method.makes

    @property
    def left_over(self) -> tuple[ByProduct, ...]:
        """What all the runs leave besides the units."""
        by_products = tuple(b._replace(number=b.number * self.runs) for b in self.method.left_over)
        return by_products + (self.method.odd_run if self.runs % 2 else ())

    @property
    def trim(self) -> Trim | None:
        """Where the ruler goes to trim a unit, from pieces at their cut size."""
        if self.trim_to is None or not self.method.products or not self.pieces:
            return None
        if self.method.there:
            return None  # its last move trims it
        large = self.method.work(tuple(p.cut for p in self.pieces)).products
        return trim_of(large[0], self.method.products[0])

    @property
    def moves(self) -> tuple[Move, ...]:
        """What to do at the table: the method's moves, then the trim; nothing but to look at them
        where they come out of another unit's runs."""
        if self.made_with is not None:
            text = f"These come out of the runs of {self.made_with}; keep the two stacks apart."
            return (Move("open", text, self.method.products[0]),)
        trim = self.trim
        if trim is None:
            moves = self.method.moves
            if self.trim_to is None or not moves or moves[-1].do != "open":
                return moves
            return (*moves, sewn_large_move(moves[-1].lower, self.kind))
        large = self.method.work(tuple(p.cut for p in self.pieces)).moves
        return (*large, trim_move(trim, self.kind))


class Need(NamedTuple):
    """What is wanted of a unit: how many, how many of its mirror image (0 where it has none in the
    block), and the label of that one where it leads."""

    number: int
    mirrored: int = 0
    made_with: str | None = None


class Twin(NamedTuple):
    """The mirror image of a unit that the block has, too, and how many of it are needed."""

    label: str
    number: int


@dataclass(frozen=True, eq=False)
class UnitPlan:
    """A unit with how many are needed, every method worked out, and the one in use.

    ``wanted`` is the method asked for, if any, ``advised`` the one to take where nothing (or what
    cannot be done) is asked for; ``choice`` what the maker chose for this unit alone; ``inside``
    are the units nested in it. ``rule`` says which marks its pieces are cut at, where that is not
    the usual one, and ``trimmed`` to which size it is trimmed, whatever the style, as it would not
    fit otherwise; ``spare`` are triangles that units before it leave of the squares they cut, which
    it takes first. ``turns`` are the ways it lies in the block, and ``directions`` the prints that
    are to stand upright in it; ``panel`` how its panel is cut and sewn, where it is one; ``made``
    what it measured, unfinished, where that was taken. What is worked out from these is so when it
    is first asked for.
    """

    unit: Unit
    need: Need
    measure: Measure
    wanted: str | None = None
    advised: Method | None = None
    choice: Choice | None = None
    usable: Widths = usual_width
    twin: Twin | None = None
    inside: tuple[UnitPlan, ...] = ()
    rule: CutRule | None = None
    trimmed: CutSize | None = None
    spare: Mapping[TriangleKey, int] = field(default_factory=dict)
    turns: Turns | None = None
    directions: Directions = field(default_factory=dict)
    panel: PanelCut | None = None
    made: MadeSize | None = None

    @property
    def count(self) -> int:
        return self.need.number

    @property
    def is_sewn(self) -> bool:
        """Is anything done to it once its pieces are cut?"""
        return len(self.unit.part.faces) > 1 or self.panel is not None

    def scaled(self, k: Exact) -> UnitPlan:
        """The unit at k times its size, made in the same way."""
        panel = self.panel and self.panel.scaled(k)
        plan = replace(self, unit=self.unit.scaled(k), advised=None, panel=panel)
        if self.advised is None:
            return plan
        return replace(plan, advised=plan.method_named(self.advised.name))

    @property
    def hands(self) -> dict[str, int]:
        """How many are needed of each hand: this one, and its mirror image where the block has
        it."""
        twin = {self.twin.label: self.twin.number} if self.twin is not None else {}
        return {self.unit.label: self.count, **twin}

    @property
    def style(self) -> str:
        return (self.choice.style if self.choice else "") or self.measure.style

    @cached_property
    def stock(self) -> Stock | None:
        """The fabric cut already that this unit is to be made from."""
        text = self.choice.stock if self.choice else ""
        return next(iter(parse_stock(text, self.measure.system)), None) if text else None

    @cached_property
    def methods(self) -> tuple[MethodPlan, ...]:
        """Every method for this unit, the usual one first; never empty."""
        return tuple(self.planned(method) for method in self.known_methods())

    @cached_property
    def in_use(self) -> MethodPlan:
        """The method in use: the one asked for where this unit can be made so, else the one
        advised, else the usual."""
        planned = self.planned(self._asked_for or self.advised or next(self.known_methods()))
        if not self.spare:
            return planned
        left = Counter(self.spare)
        pieces = tuple(with_spare(cut, planned.runs, left) for cut in planned.pieces)
        return planned._replace(pieces=pieces)

    @cached_property
    def _asked_for(self) -> Method | None:
        return self.method_named(self.wanted) if self.wanted else None

    @property
    def chosen_for_you(self) -> bool:
        """Is the method in use nobody's choice?"""
        return self._asked_for is None

    def known_methods(self) -> Iterator[Method]:
        if self.panel is not None:
            return iter((centred_panel(self.unit, self.panel, self.measure.seam),))
        return methods_for(self.unit, self.measure.seam)

    def method_named(self, name: str) -> Method | None:
        """Of the methods known, the one of that name; None where there is none."""
        if self.panel is not None:
            return next((m for m in self.known_methods() if m.name == name), None)
        return method_named(name, self.unit, self.measure.seam)

    def planned(self, method: Method, need: Need | None = None) -> MethodPlan:
        """The method planned for what is needed of the unit."""
        return plan_method(
            method,
            self.unit,
            need or self.need,
            self.measure,
            self.style,
            self.usable,
            self.stock,
            self.cutting,
            self.trimmed,
            upright_pieces(method, self.turns, self.directions),
        )

    @cached_property
    def cutting(self) -> CutRule:
        """The rule its pieces are cut by."""
        return self.rule or usual_rule(self.measure)

    @cached_property
    def fabric(self) -> float:
        """The fabric in one sewn unit."""
        return fabric_in(self.unit, self.measure.seam)

    @cached_property
    def own_fabric(self) -> float:
        """The fabric in one sewn unit without the units nested in it, which are made of their
        own."""
        places = len(self.unit.places)
        nested = sum(p.fabric * p.unit.nested_in(self.unit) / places for p in self.inside)
        return self.fabric - nested

    @property
    def unfinished(self) -> Size:
        return _with_seams(self.unit.size, self.measure)


def plan_method(
    method: Method,
    unit: Unit,
    need: Need,
    measure: Measure,
    style: str | None = None,
    usable: Widths = usual_width,
    stock: Stock | None = None,
    rule: CutRule | None = None,
    trimmed: CutSize | None = None,
    upright: Mapping[int, Upright] | None = MappingProxyType({}),
) -> MethodPlan:
    """``method`` for the units needed: whole runs, whole squares even where one gives more
    triangles than are needed. Where a run gives both hands, the runs serve both. ``rule`` and
    ``trimmed``: see ``UnitPlan``; ``upright``: see ``upright_pieces``."""
    rule = rule or usual_rule(measure)
    runs = -(-need.number // method.makes)
    if method.mirrored:
        runs = max(runs, -(-need.mirrored // method.mirrored))
    shared_runs = bool(method.mirrored and need.made_with)
    trims = method.trims and (style or measure.style) == "trim"
    sets = tuple(_sewn_set(s, runs, measure, usable) for s in method.sets)
    pieces: list[CutPiece] = []
    short = False
    if not shared_runs:
        width = min((usable(p.fabric) for p in method.pieces), default=usual_width(None))
        for i, piece in enumerate(method.pieces):
            lie = upright.get(i) if upright else None
            if i < method.there:
                pieces.append(_there(piece, runs))
                continue
            cut, fits, whole = _cut(piece, runs, measure, rule, trims, width, stock, lie)
            pieces.append(cut)
            short |= not fits
            trims |= whole
        pieces += _strips(sets, measure, rule)
    return MethodPlan(
        method,
        unit.kind,
        runs,
        runs * method.makes - need.number,
        trimmed or (_trim_size(unit, measure, rule) if trims or method.there else None),
        tuple(pieces),
        sets,
        runs * method.mirrored,
        runs * method.mirrored - need.mirrored if method.mirrored else 0,
        need.made_with if shared_runs else None,
        short,
        upright is None,
    )


def _there(piece: Piece, runs: int) -> CutPiece:
    """A piece that is there already, as large as it is."""
    low, high = (
        side if isinstance(side, Fraction) else next_mark(side, Fraction(1, 64))
        for side in piece.exact
    )
    number = piece.quantity * runs
    return CutPiece(piece, (low, high), number, number)


def _trim_size(unit: Unit, measure: Measure, rule: CutRule) -> CutSize:
    """The unfinished size, where the ruler shows it, to trim a unit to."""
    wide, high = _with_seams(unit.size, measure)
    return rule.as_sewn(wide), rule.as_sewn(high)


def _cut(
    piece: Piece,
    runs: int,
    measure: Measure,
    rule: CutRule,
    trims: bool,
    usable: Exact,
    stock: Stock | None,
    upright: Upright | None,
) -> tuple[CutPiece, bool, bool]:
    """A piece for all the runs; whether the stock holds it; whether it uses its squares whole, and
    so is trimmed."""
    if piece.shape == "strip":
        return _strip(piece, runs, measure, rule, usable), stock is None, False
    cut = rule.cut(piece, trims)
    number = upright.number if upright else piece.shapes(runs)
    if stock is None:
        return CutPiece(piece, cut, number, upright=upright), True, False
    if uses_whole(stock, piece, usable):
        whole = next_mark(stock.width, measure.mark)
        return CutPiece(piece, (whole, whole), number, number), True, True
    each = stock.holds(cut, usable)
    of_stock = -(-number // each) if each else None
    return CutPiece(piece, cut, number, of_stock, upright=upright), each > 0, False


def _strip(piece: Piece, runs: int, measure: Measure, rule: CutRule, usable: Exact) -> CutPiece:
    """Whole lengths of a piece laid along strips, shared evenly among as few strips as do."""
    lengths = piece.quantity * runs
    along = piece.exact[1]
    room = usable - measure.squared_off
    each = floor_exact(room / along)
    if each:
        number = -(-lengths // each)
        long = along * -(-lengths // number) + measure.squared_off
    else:  # one length is longer than the fabric: strips are joined
        number = ceil_exact(along * lengths / room) if room > 0 else lengths
        long = usable
    width = rule.cut(piece)[0]
    whole = piece._replace(exact=(piece.exact[0], long))
    return CutPiece(whole, (width, next_mark(long, measure.mark)), number)


def _sewn_set(strips: SetOfStrips, runs: int, measure: Measure, usable: Widths) -> SewnSet:
    """Sets for all the runs: as few as fabric of this width allows, all of one length. A set gives
    floor((usable - squaring)/(f + 2s)) segments."""
    width = min(usable(fabric) for _, fabric in strips.bands)
    lengths = strips.number * runs
    along = strips.height + 2 * measure.seam
    each = max(1, floor_exact((width - measure.squared_off) / along))
    number = -(-lengths // each)
    segments = -(-lengths // number)
    long = next_mark(along * segments + measure.squared_off, measure.mark)
    return SewnSet(strips, number, segments, long)


def _strips(sets: tuple[SewnSet, ...], measure: Measure, rule: CutRule) -> Iterator[CutPiece]:
    """The strips of sewn sets, those of one fabric and width taken together."""
    strips: dict[tuple[object, ...], CutPiece] = {}
    for sewn in sets:
        for width, fabric in sewn.strips.bands:
            exact = width + 2 * measure.seam
            key = (fabric, exact, sewn.length)
            piece = Piece(fabric, "strip", (exact, sewn.length), "none", 1)
            known_cut_piece = strips.get(key)
            number = sewn.number + (known_cut_piece.number if known_cut_piece else 0)
            strips[key] = CutPiece(
                piece, (rule.as_sewn(exact, sewn.strips.slanted), sewn.length), number
            )
    yield from strips.values()


def _with_seams(size: Size, measure: Measure) -> Size:
    return size[0] + 2 * measure.seam, size[1] + 2 * measure.seam
