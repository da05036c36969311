"""Strips filled kind by kind in an order, and a good order looked for by trying many.

A kind fills what is free in strips cut already: rows below rows of the same segment, then segments
in the strip's end, several pieces in a stack where they fit; what is over gets strips of its own.
All equal strips are filled at once, so that an order is tried in a fraction of a millisecond.
"""

from __future__ import annotations

import random
from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, factorial, prod

from inlet.core.cancellation import check
from inlet.core.layout.patterns import (
    Bit,
    Chosen,
    Kind,
    Pattern,
    PatternRow,
    PatternSegment,
    Price,
    Room,
    in_order,
)


@dataclass(slots=True)
class _Block:
    """``number`` equal segments side by side, ``wide`` each, with ``free`` of their height left
    below their ``rows``: (height, kind, turned, pieces side by side)."""

    wide: int
    number: int
    free: int
    rows: list[tuple[int, int, bool, int]]

    def copy(self) -> _Block:
        return _Block(self.wide, self.number, self.free, list(self.rows))


@dataclass(slots=True)
class _Strips:
    """``number`` equal strips still being filled, with ``free`` of their length left and no more
    than ``free_below`` below the rows of any segment; so many ``strokes`` each, counted as
    ``Pattern.strokes`` does."""

    high: int
    free: int
    number: int
    blocks: list[_Block]
    strokes: int
    free_below: int = 0

    def split(self, number: int) -> _Strips:
        """The last ``number`` of them, on their own from now on."""
        self.number -= number
        blocks = [block.copy() for block in self.blocks]
        return _Strips(self.high, self.free, number, blocks, self.strokes, self.free_below)

    def below(self, kind: int, wide: int, high: int, turned: bool, left: int, reach: int) -> int:
        """Rows of a kind below what lies in segments already; how many pieces are left over."""
        for block in list(self.blocks):
            if block.free < high or not wide <= block.wide <= reach:
                continue
            beside = block.wide // wide
            each = beside * block.number * self.number
            rows = min(block.free // high, left // each)
            if rows:
                left -= rows * each
                block.free -= rows * high
                block.rows += [(high, kind, turned, beside)] * rows
                self.strokes += rows * (1 + block.number * (beside - 1))
            if self.number == 1 and block.free >= high and beside <= left < each:
                part = block
                if left // beside < block.number:
                    part = block.copy()
                    part.number = left // beside
                    block.number -= part.number
                    self.blocks.append(part)
                    self.strokes += len(part.rows) - 1  # its rows are cut apart once more
                part.free -= high
                part.rows.append((high, kind, turned, beside))
                self.strokes += 1 + part.number * (beside - 1)
                left -= part.number * beside
            if not left:
                break
        return left

    def at_end(self, kind: int, wide: int, high: int, turned: bool, number: int, rows: int) -> None:
        """So many more segments, each with a stack of one kind."""
        free = self.high - rows * high
        self.blocks.append(_Block(wide, number, free, [(high, kind, turned, 1)] * rows))
        if free > self.free_below:
            self.free_below = free
        self.free -= wide * number
        self.strokes += number + rows - 1

    def pattern(self) -> Pattern:
        return Pattern(
            self.high,
            in_order(
                PatternSegment(
                    block.wide,
                    tuple(
                        sorted(
                            (PatternRow(h, (Bit(k, t, n),)) for h, k, t, n in block.rows),
                            reverse=True,
                        )
                    ),
                    block.number,
                )
                for block in self.blocks
            ),
        )


Ways = tuple[tuple[int, int, bool], ...]


def filled(
    kinds: Sequence[Kind], ways: Sequence[Ways], order: Sequence[int], room: Room
) -> list[_Strips]:
    """Strips that hold everything, kinds taken in ``order``, each lying
    the first of its ``ways`` where it gets strips of its own."""
    strips: list[_Strips] = []
    for i in order:
        left = kinds[i].number
        for way in ways[i]:
            if left:
                left = _into_free(strips, i, way, left, room.reach)
        if not left:
            continue
        wide, high, turned = ways[i][0]
        each = room.across // wide
        for number, segments in ((left // each, each), (1, left % each)):
            if number and segments:
                block = _Block(wide, segments, 0, [(high, i, turned, 1)])
                free = room.across - wide * segments
                strips.append(_Strips(high, free, number, [block], 1 + segments))
    return strips


def _into_free(
    strips: list[_Strips], kind: int, way: tuple[int, int, bool], left: int, reach: int
) -> int:
    """Fill what is free in strips with pieces of a kind; how many are left over."""
    wide, high, turned = way
    for strip in list(strips):
        if strip.high < high:
            continue
        if strip.free_below >= high:
            left = strip.below(kind, wide, high, turned, left, reach)
        while left and (across := strip.free // wide):
            rows = strip.high // high if wide <= reach else 1
            most = rows * across
            if left >= most:
                number, segments = min(strip.number, left // most), across
            else:
                number, segments = 1, left // rows
            if not segments:  # a last segment that is not full
                rows, segments = left, 1
            part = strip if number == strip.number else strip.split(number)
            if part is not strip:
                strips.append(part)
            part.at_end(kind, wide, high, turned, segments, rows)
            left -= number * rows * segments
        if not left:
            break
    return left


def _cost(strips: Sequence[_Strips], price: Price, of_strip: dict[int, float]) -> float:
    """What strips cost; ``of_strip`` keeps what a strip of each width does, without its cuts."""
    widths = {strip.high for strip in strips}
    for high in widths - of_strip.keys():
        of_strip[high] = price.of_strip(high)
    cost = price.width * len(widths)
    for strip in strips:
        cost += strip.number * (of_strip[strip.high] + price.stroke * strip.strokes)
    return cost


AT_ONCE = 100
"""Orders tried for the first answer."""
MOST_WORK = 25_000
"""Kinds put somewhere, over all orders tried: many kinds take longer each time."""
FIRST_WARMTH = 0.01
"""Of the cost: how much worse an order may be and still be gone on from, at the start."""


def fill_in_turn(kinds: Sequence[Kind], room: Room, price: Price, tries: int = AT_ONCE) -> Chosen:
    """Strips that hold all the kinds, the cheapest of so many orders. Every kind must fit across
    one way. Orders are changed a little at a time, and worse ones gone on from less and less
    (simulated annealing, with chances that are the same each time)."""
    wanted = [i for i, kind in enumerate(kinds) if kind.number]
    ways: list[Ways] = [
        tuple(sorted((way for way in kind.ways() if way[0] <= room.across), key=lambda way: way[1]))
        for kind in kinds
    ]
    order = sorted(wanted, key=lambda i: (-ways[i][0][1], -kinds[i].area, i))
    best = filled(kinds, ways, order, room)
    of_strip: dict[int, float] = {}
    least = cost = _cost(best, price, of_strip)
    cost_of = {(*order, *ways): cost}  # half the orders of few kinds come up again
    all_orders = factorial(len(wanted)) * prod(len(ways[i]) for i in wanted)
    tries = min(tries, MOST_WORK // len(wanted))
    chance = random.Random(len(wanted))
    for step in range(tries):
        if len(cost_of) == all_orders:
            break  # nothing new can come
        check()
        other, lying = list(order), list(ways)
        _change(other, lying, chance)
        warmth = least * FIRST_WARMTH * (1 - step / tries) + 1e-9
        tried = (*other, *lying)
        if tried not in cost_of:
            strips = filled(kinds, lying, other, room)
            cost_of[tried] = _cost(strips, price, of_strip)
            if cost_of[tried] < least:
                least, best = cost_of[tried], strips
        cost_now = cost_of[tried]
        if cost_now <= cost or chance.random() < exp((cost - cost_now) / warmth):
            order, ways, cost = other, lying, cost_now
    return [(strip.pattern(), strip.number) for strip in best if strip.number]


def _change(order: list[int], ways: list[Ways], chance: random.Random) -> None:
    """Another place in the order for one kind, or another way for it to lie, or both."""
    what = chance.random()
    here, there = chance.randrange(len(order)), chance.randrange(len(order))
    kind = order[here]
    if what < 0.5:
        order.insert(there, order.pop(here))
    elif what > 0.8:
        order[here], order[there] = order[there], order[here]
    if what >= 0.5:
        ways[kind] = ways[kind][::-1]
