"""Fabric cut already: strips, squares, scraps, and what of a unit can be made from it."""

from __future__ import annotations

import re
from typing import Literal, NamedTuple

from inlet.core.methods import Method, method_named
from inlet.core.numbers import Exact, Fraction, NumberError, System, floor_exact, parse_length
from inlet.core.table import Piece, Size
from inlet.core.units import Unit

StockShape = Literal["strip", "square", "scrap"]


class Stock(NamedTuple):
    """Fabric already cut, ``width`` wide. A strip is as long as its fabric is wide, a square as
    long as wide, a scrap ``length`` long."""

    shape: StockShape
    width: Exact
    length: Exact | None = None

    def long(self, usable: Exact) -> Exact:
        """Its length; of a strip, the usable width of the fabric."""
        if self.shape == "strip":
            return usable
        return self.length if self.length is not None else self.width

    def holds(self, cut: Size, usable: Exact) -> int:
        """How many rectangles of this cut size come off one of it, all lying the same way."""
        low, high = self.width, self.long(usable)
        ways_ = (cut, (cut[1], cut[0]))
        return max(floor_exact(low / a) * floor_exact(high / b) for a, b in ways_)


_SHAPES: dict[str, StockShape] = {"strip": "strip", "square": "square", "scrap": "scrap"}


def parse_stock(text: str, system: System) -> tuple[Stock, ...]:
    """``2 1/2 strips, 5 squares, 7 x 9 scraps`` as stock. Raises ``NumberError`` with a
    sentence."""
    stocks = []
    for part in filter(None, (p.strip() for p in re.split(r"[,;]", text))):
        match = re.fullmatch(r"(.*?)\s*(strip|square|scrap)s?", part, re.IGNORECASE)
        if not match:
            raise NumberError(
                f"“{part}” is neither strips, squares nor scraps; write it like 5 squares or "
                "7 x 9 scraps"
            )
        shape = match[2].lower()
        sides = [s for s in re.split(r"\s*[x×]\s*", match[1]) if s] or [""]
        if len(sides) != (2 if shape == "scrap" else 1):
            like = (
                "two sizes, like 7 x 9 scraps" if shape == "scrap" else "one size, like 5 squares"
            )
            raise NumberError(f"“{part}”: write {like}")
        unit = re.search(r"\s*(in|cm|mm)$", sides[-1], re.IGNORECASE)
        if unit:  # said once, it holds for both: 7 x 9 in scraps
            sides[:-1] = [f"{side} {unit[1]}" for side in sides[:-1]]
        lengths = sorted(parse_length(side, system) for side in sides)
        if lengths[0] <= 0:
            raise NumberError("fabric must be wider than 0")
        stocks.append(Stock(_SHAPES[shape], lengths[0], lengths[1] if shape == "scrap" else None))
    return tuple(stocks)


def largest_from(
    stock: Stock, unit: Unit, method: Method, seam: Exact, usable: Exact
) -> Size | None:
    """The largest finished size of the unit for which each of the method's pieces still comes off
    one piece of the stock; None where none does. Every cut is a·k + c at k times the size: the
    smallest of (stock - c)/a over them is the k that fills it."""
    twice = method_named(method.name, unit.scaled(Fraction(2)), seam)
    if twice is None:
        return None
    low, high = stock.width, stock.long(usable)
    best: Exact | None = None
    for now, then in zip(method.pieces, twice.pieces, strict=True):
        grows = tuple(b - a for a, b in zip(now.exact, then.exact, strict=True))
        adds = tuple(a - g for a, g in zip(now.exact, grows, strict=True))
        room = (low, high)  # the shorter side to the shorter side
        k = min(
            ((r - c) / g for r, c, g in zip(room, adds, grows, strict=True) if g > 0), default=None
        )
        if k is None or k <= 0:
            return None
        best = k if best is None else min(best, k)
    return None if best is None else (unit.size[0] * best, unit.size[1] * best)


def uses_whole(stock: Stock, piece: Piece, usable: Exact) -> bool:
    """Is a piece so near the size of the stock that cutting it down is waste: one comes off, and
    it is a square that is cut apart only after sewing?"""
    return (
        stock.shape == "square"
        and piece.crosscut == "sewn"
        and stock.holds(piece.exact, usable) == 1
    )
