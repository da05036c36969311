"""All pieces of a cut list laid out on the fabric there is, and on fabric to buy.

What is there is filled first: bundles cut already, scraps, panels, fat quarters, then lengths of
bolt; what finds no room on them is cut from new fabric of the fabric's width.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from functools import partial
from math import floor, lcm
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.cutlist import Cut, Standing
from inlet.core.layout.cut_down import MOST_CUT_DOWN, CutDownNumbers, cut_down
from inlet.core.layout.fabric_plan import CutDown, FabricPlan, Missing, ToCut
from inlet.core.layout.fill_strips import fill_strips
from inlet.core.layout.grain import is_long, lying
from inlet.core.layout.laid_places import (
    edge_squared,
    length_used,
    places_of,
    room_across,
)
from inlet.core.layout.laid_strips import number_on, widest_first, without_last
from inlet.core.layout.laid_wants import (
    LaidWant,
    angled_of,
    head_to_tail,
    one_piece,
    strips_of,
    wants_of,
)
from inlet.core.layout.lengths import (
    equal_ones_together,
    in_lengths,
    least_bought,
    ready_to_cut,
    taken_off,
)
from inlet.core.layout.patterns import Chosen, Kind, Price, Room, evened, parted
from inlet.core.layout.sources import Source, sources
from inlet.core.layout.strokes import strokes_of
from inlet.core.layout.tools import handled_by, limits_of_width, tools_of
from inlet.core.memo import memo
from inlet.core.numbers import Exact, Fraction, floor_exact, next_mark
from inlet.core.project import (
    Cutting,
    Fabric,
    LaidFabric,
    LaidStrip,
    Project,
    Rates,
    folded,
    replace,
)

ZERO = Fraction(0)
AT_ONCE, FEW, BEST = 0, 1_500, 3_000
"""How much work goes into a fabric's layout (``Work`` of ``program.py``): the first there is; one
of many pieces of fabric there are; the best."""
WHOLE_FROM = Fraction(2, 3)
"""A strip of which a set takes so much stays whole; what is left of others is of use."""


def lay_out(project: Project, wanted: ToCut, work: int) -> tuple[FabricPlan, ...]:
    """Every fabric of a cut list laid out, in the list's order, with so much ``work``: the same
    layout on every machine."""
    return tuple(lay_out_fabric(project, f, wanted, work) for f in wanted.by_fabric())


def lay_out_fabric(
    project: Project, fabric: str | None, wanted: ToCut, work: int, buys: bool = True
) -> FabricPlan:
    """One fabric's pieces laid out; only on what is there, unless ``buys``."""
    begun = [each.laid for each in wanted.begun if each.fabric == (fabric or "")]
    there = [laid for laid in begun if laid.kind != "new"]
    if len(there) < len(begun):
        before = _laid_out(project, fabric, wanted, there, work, buys)
        if (going_on := _bought_already(before, begun)) is not None:
            return going_on
    return _laid_out(project, fabric, wanted, begun, work, buys)


def _bought_already(before: FabricPlan, begun: Sequence[LaidFabric]) -> FabricPlan | None:
    """A layout of which some lengths are being cut: the others stay as they were laid out, and are
    there, as all were bought together. None where the fabric being cut is not among its lengths:
    then other pieces are wanted by now."""
    rest = list(before.laid[before.begun :])
    for laid in begun:
        if laid.kind == "new":
            if laid not in rest:
                return None
            rest.remove(laid)
    return before._replace(laid=(*begun, *rest), begun=len(begun), buy=ZERO, least=ZERO)


def _laid_out(
    project: Project,
    fabric: str | None,
    wanted: ToCut,
    begun: Sequence[LaidFabric],
    work: int,
    buys: bool,
) -> FabricPlan:
    """A fabric's pieces on what is being cut of it, on what is there, on new fabric."""
    fabric_cut = project.fabric(fabric or "") or Fabric(id=fabric or "")
    rules = project.cutting or Cutting()
    width = project.usable_width(fabric or "")
    laying = _FabricWork(
        project, fabric_cut, rules, width, wanted.by_fabric()[fabric], wanted.standing
    )
    for laid in begun:
        laying.go_on(laid)
    for source in sources(fabric_cut, rules, project):
        if not laying.left:
            break
        laying.fill(source, min(work, FEW))
    if buys and laying.left:
        laying.buy(work)
    return laying.plan()


class _Ground(NamedTuple):
    """What strips are laid on: the ``empty`` fabric, where it is from, and how far, in the layout's
    units, it reaches ``across`` and, where it ends, along (the ``longest``)."""

    empty: LaidFabric
    source: Source
    across: int
    longest: int | None


class _FabricWork:
    """One fabric being laid out."""

    def __init__(
        self,
        project: Project,
        fabric: Fabric,
        rules: Cutting,
        width: Exact,
        cuts: Sequence[Cut],
        standing: Standing,
    ) -> None:
        self.project, self.fabric, self.rules, self.width = project, fabric, rules, width
        self.tools = tools_of(project)
        self.wants = [want for cut in cuts for want in wants_of(cut, fabric, width, standing)]
        lengths = [side for want in self.wants for side in (want.wide, want.high)]
        if any(angled_of(want, project) for want in self.wants):
            lengths.append(project.measure.finest)
        self.unit = Fraction(1, lcm(*(side.denominator for side in lengths)))
        self.box_of = {want.cut.label: (want.wide, want.high) for want in self.wants}
        self.long = {want.cut.label for want in self.wants if is_long(want.cut, project.measure)}
        self.strips = {want.cut.label for want in self.wants if want.cut.shape == "strip"}
        self.laid: list[LaidFabric] = []
        self.bound: Exact = ZERO
        self.bought: Fraction = ZERO
        self.least: Exact = ZERO
        self.begun = 0
        self.cut_down: CutDownNumbers = {}
        self.on_grain: dict[str, bool] = {}  # long pieces of one stack lie one way: turned or not

    @property
    def left(self) -> bool:
        return any(want.number for want in self.wants)

    def go_on(self, laid: LaidFabric) -> None:
        """Fabric that is being cut stays as it was laid out."""
        self.laid.append(laid)
        self.begun += 1
        self._take(laid)
        per_inch = self.project.measure.system.per_inch
        self.wants = cut_down(laid, self.wants, MOST_CUT_DOWN * per_inch, self.cut_down)

    def fill(self, source: Source, work: int) -> None:
        """Lay down as much as one piece of fabric holds."""
        laid = self._filled(source, work, source.length)
        if laid is not None:
            self.laid.append(laid)
            self._take(laid)

    def buy(self, work: int) -> None:
        """What is left, on new fabric."""
        rules, system = self.rules, self.project.measure.system
        shrink = self.fabric.shrinkage if rules.wash else (ZERO, ZERO)
        width = self.width
        area = sum((self._area(w) * w.number for w in self.wants), ZERO)
        squaring = self.project.measure.squared_off
        source = Source("new", width, ZERO, folded(rules.folds), squaring)
        laid = self._filled(source, work, None)
        if laid is None:
            return
        self.bound = area / width
        along = 1 - shrink[0] / 100
        lengths = self._in_lengths(laid)
        self.least = least_bought(lengths) / along
        more = length_used(laid) * (1 + rules.margin / 100) / along
        self.bought = next_mark(max(more, self.least), system.buying)
        self.laid += taken_off(lengths, self.bought * along, system.coarse)
        self._take(laid)

    def _area(self, want: LaidWant) -> Exact:
        """The fabric one piece cannot do without: its box, or what it takes of a strip at an
        angle."""
        found = angled_of(want, self.project)
        if found is None:
            return want.wide * want.high
        return min(want.wide * want.high, Fraction(floor(found.each * found.strip * 64), 64))

    def _filled(self, source: Source, work: int, most: Exact | None) -> LaidFabric | None:
        """A piece of fabric with its strips; None where it holds nothing."""
        empty = LaidFabric(
            kind=source.kind,
            width=source.width,
            length=source.length,
            layers=source.layers,
            squaring=source.squaring,
            every=self.rules.square_every,
        )
        empty = self._folded(empty)
        if most is not None:
            most -= edge_squared(empty)  # the last edge is cut, too
        strips = self._whole_strips(empty, most)
        longest = None
        if most is not None:
            taken = length_used(replace(empty, strips=strips)) or edge_squared(empty)
            longest = floor_exact((most - taken) / self.unit)
        across = max(0, floor_exact(room_across(empty) / self.unit))
        on = _Ground(empty, source._replace(layers=empty.layers), across, longest)
        wants = [w for w in self.wants if w.number and not self._is_whole(w, empty)]
        if longest is None or longest > 0:
            ways = self._ways(wants, across * self.unit)
            if len(ways) > 1:

                def spent(forms: Sequence[LaidWant]) -> tuple[int, Exact]:
                    strips = self._on_one_grain(forms, AT_ONCE, on)
                    return self._spent(replace(empty, strips=strips), wants)

                ways.sort(key=spent)
            strips = (*strips, *self._on_one_grain(ways[0], work, on))
        laid = replace(empty, strips=widest_first(strips))
        while most is not None and laid.strips and length_used(laid) > most:
            laid = without_last(laid)
        return laid if laid.strips else None

    def _laid_down(
        self, forms: Sequence[LaidWant], work: int, on: _Ground
    ) -> tuple[LaidStrip, ...]:
        """Strips of what finds room on a piece of fabric."""
        halves = max(1, on.source.layers // 2)
        kinds, own_wants = [], []
        for want in forms:
            kind = self._kind(want, halves)
            if any(w <= on.across and h <= (on.longest or h) for w, h, _ in kind.ways()):
                kinds.append(kind)
                own_wants.append(want)
        check()
        room = Room(on.across, floor_exact(self.tools.longest / self.unit))
        price = self._price(on.source)
        choices = fill_strips_once(tuple(kinds), room, price, work, on.longest)
        if on.source.kind == "new":
            widest = floor_exact(self.tools.broadest / self.unit)
            choices = tuple(way for chosen in choices for way in parted(chosen, price, widest))
        if on.source.layers > 1:
            choices = tuple(evened(chosen, on.across) for chosen in choices)
        laid = [
            tuple(self._uncut(strip, on.empty) for strip in strips_of(chosen, own_wants, self.unit))
            for chosen in choices
        ]
        return laid[0] if len(laid) == 1 else min(laid, key=partial(self._cost, on, price))

    def _cost(self, on: _Ground, price: Price, strips: Sequence[LaidStrip]) -> float:
        """What strips of new fabric cost, with every cut as it will be made."""
        rates = self.project.rates or Rates()
        laid = replace(on.empty, strips=widest_first(strips))
        lengths = self._in_lengths(laid)
        strokes = [
            stroke for each in lengths for stroke in strokes_of(ready_to_cut(each), self.tools)
        ]
        more = sum(stroke.set_ups(self.tools)[0].seconds for stroke in strokes) / rates.cut
        fabric = float(sum(map(length_used, lengths), ZERO) / self.unit)
        return fabric + price.stroke * (len(strokes) + more)

    def _in_lengths(self, laid: LaidFabric) -> list[LaidFabric]:
        """A layout in lengths that the maker can handle."""
        stacked = max(1, self.tools.blade // laid.layers)
        return in_lengths(laid, handled_by(self.project), stacked)

    def _on_one_grain(
        self, forms: Sequence[LaidWant], work: int, on: _Ground
    ) -> tuple[LaidStrip, ...]:
        """The same, long pieces of one stack lying one way, unless fewer find room so. Where some
        lie both ways, all stacks keep the way most of their pieces lie on this fabric, so that it
        is laid out anew once; on what comes after it, those that lay both ways. On new fabric the
        first layout there is decides, so that the best one is seldom laid out twice."""
        kept = self.on_grain
        if work > AT_ONCE and on.longest is None:
            both, turned = lying(self._laid_down(forms, AT_ONCE, on), self.long - kept.keys())
            if both:
                self.on_grain = kept | turned
        strips = self._laid_down(forms, work, on)
        while True:
            both, turned = lying(strips, self.long - self.on_grain.keys())
            if not both:
                break
            self.on_grain = self.on_grain | turned
            on_one = self._laid_down(forms, work, on)
            if on.longest is not None and number_on(on_one) < number_on(strips):
                break
            strips = on_one
            kept = kept | {label: turned[label] for label in both}
        self.on_grain = kept
        return strips

    def _ways(self, wants: list[LaidWant], room: Exact) -> list[list[LaidWant]]:
        """The pieces one by one, and, where some are cut at an angle, those head to tail: as many
        as the strip is long, half as many, a third."""
        ways = [wants]
        for share in (1, 2, 3):
            forms = [form for want in wants for form in self._forms(want, room / share)]
            if forms not in ways:
                ways.append(forms)
        return ways

    def _forms(self, want: LaidWant, room: Exact) -> Iterable[LaidWant]:
        """A want in pieces that hold several head to tail, none longer than ``room``."""
        return [want] if self.fabric.lengthwise else head_to_tail(want, room, self.project)

    def _spent(self, laid_fabric: LaidFabric, wants: Sequence[LaidWant]) -> tuple[int, Exact]:
        """To compare layouts: how many pieces find no room, then how much fabric is cut up."""
        laid: Counter[str] = Counter()
        for place in places_of(laid_fabric):
            laid[place.label] += place.number
        left = sum(max(0, want.number - laid[want.cut.label]) for want in wants)
        return left, length_used(laid_fabric)

    def _kind(self, want: LaidWant, halves: int) -> Kind:
        wide, high = (int(side / self.unit) for side in (want.wide, want.high))
        turns = want.turns
        turned = self.on_grain.get(want.cut.label) if turns and want.holds == 1 else None
        if turned is None:
            return Kind(wide, high, -(-want.number // halves), turns)
        return Kind(wide, high, -(-want.number // halves), turned, turned)

    def _folded(self, laid: LaidFabric) -> LaidFabric:
        """The fabric in no more layers than leave room for every piece that finds room on it at
        all."""
        single = replace(laid, layers=1)
        wants = [w for w in self.wants if w.number and self._has_room(w, single)]
        while laid.layers > 1 and not all(self._has_room(w, laid) for w in wants):
            laid = replace(laid, layers=laid.layers // 2)
        return laid

    def _has_room(self, want: LaidWant, laid: LaidFabric) -> bool:
        least = min(want.wide, want.high) if want.turns else want.wide
        return least <= room_across(laid) or self._is_whole(want, laid)

    def _is_whole(self, want: LaidWant, laid: LaidFabric) -> bool:
        """Does a piece take a strip from selvage to selvage, so that no end is squared?"""
        return room_across(laid) < want.wide <= 2 * laid.width / max(2, laid.layers) and (
            not want.turns or want.high > room_across(laid)
        )

    def _whole_strips(self, laid: LaidFabric, most: Exact | None) -> tuple[LaidStrip, ...]:
        """The pieces that take a strip each, as many as lie on the length there is."""
        halves = max(1, laid.layers // 2)
        strips = []
        left = None if most is None else most - edge_squared(laid)
        for want in self.wants:
            if not want.number or not self._is_whole(want, laid):
                continue
            count = -(-want.number // halves)
            if left is not None:
                count = min(count, floor_exact(left / want.high))
                left -= count * want.high
            if count > 0:
                segments = (one_piece(want, want.wide, want.high, False),)
                strips.append(LaidStrip(width=want.high, count=count, segments=segments))
        return tuple(strips)

    def _uncut(self, strip: LaidStrip, laid: LaidFabric) -> LaidStrip:
        """A strip just as wide as the one length it gives for a strip set stays whole: what it is
        longer comes off with the set's ends, and a cut and a squared end are spared."""
        if sum(segment.count for segment in strip.segments) != 1 or len(strip.segments[0].rows) > 1:
            return strip
        (pieces, *others) = strip.segments[0].rows[0].pieces
        want = next(w for w in self.wants if w.cut.label == pieces.label)
        alone = pieces.count == 1 and not others and pieces.size == (want.wide, want.high)
        if not alone or want.cut.shape != "strip" or strip.width != want.high:
            return strip
        wide = 2 * laid.width / max(2, laid.layers)
        if want.wide < WHOLE_FROM * wide:
            return strip
        return replace(strip, segments=(one_piece(want, wide, strip.width, False),))

    def _price(self, source: Source) -> Price:
        """What the maker wishes to spare, in the layout's units of fabric length."""
        goal, every = self.rules.goal, self.rules.square_every
        squared = source.squaring if source.kind != "strips" else ZERO
        strip = float(squared / self.unit) / every if every else 0.0
        system, rates = self.project.measure.system, self.project.rates or Rates()
        stroke = rates.cut / 60 * system.fabric_a_minute / float(source.width) / float(self.unit)
        width = 4 * stroke
        weighed = {"cloth": 0.02, "cuts": 10 * stroke, "widths": stroke / 4}.get(goal, stroke)
        across = source.width / source.layers
        beyond = tuple(
            (floor_exact(limit / self.unit), weighed * seconds / rates.cut)
            for limit, seconds in limits_of_width(across, source.layers, self.tools)
        )
        widths = {"cloth": 0.0, "cuts": 0.0, "widths": 20 * width}.get(goal, width)
        return Price(1.0, weighed, strip, widths, beyond)

    def _take(self, new_laid: LaidFabric) -> None:
        """Count what is laid out off what is wanted."""
        laid: Counter[tuple[str, Exact, Exact]] = Counter()
        for place in places_of(new_laid):
            size = place.at.width, place.at.height
            wide, high = size[::-1] if place.turned else size
            box = self.box_of.get(place.label, (wide, high))
            if place.holds > 1:  # head to tail: counted with those that lie one by one
                wide, high = box
            elif place.label in self.strips and high == box[1]:  # it may be longer: see _uncut
                wide = min(wide, box[0])
            laid[place.label, wide, high] += place.number
        self.wants = [
            w._replace(number=max(0, w.number - laid[w.cut.label, w.wide, w.high]))
            for w in self.wants
        ]

    def plan(self) -> FabricPlan:
        smaller = tuple(CutDown(*what, number) for what, number in self.cut_down.items())
        missing = tuple(Missing(w.cut, w.number) for w in self.wants if w.number)
        laid = *self.laid[: self.begun], *equal_ones_together(self.laid[self.begun :])
        return FabricPlan(
            self.fabric.id or None, self.width, laid, self.bought, self.bound,
            missing, self.begun, smaller, self.least,
        )  # fmt: skip


@memo(500)
def fill_strips_once(
    kinds: tuple[Kind, ...], room: Room, price: Price, work: int, most: int | None
) -> tuple[Chosen, ...]:
    """``fill_strips``, worked out once for the same pieces."""
    return tuple(fill_strips(kinds, room, price, work, most))
