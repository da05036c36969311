"""What the maker has of a fabric, read from what is typed and told in words."""

from __future__ import annotations

import re

from inlet.core.numbers import Exact, Fraction, NumberError, System, parse_exact, parse_length, show
from inlet.core.project import Have, HaveKind, Measure, replace
from inlet.core.words import unit_of

TITLES: dict[HaveKind, str] = {
    "bolt": "Length of bolt", "fat-quarter": "Fat quarter", "strips": "Strips",
    "squares": "Squares", "scrap": "Scrap", "panel": "Panel",
}  # fmt: skip


def new_have(kind: HaveKind, system: System) -> Have:
    """A piece of a kind as it is usually had."""
    one = system.long_unit.length
    square = Fraction(5) * system.per_inch
    return {
        "bolt": Have(kind=kind, length=Fraction(one)),
        "fat-quarter": Have(kind=kind),
        "strips": Have(kind=kind, width=square / 2, count=10),
        "squares": Have(kind=kind, width=square, count=10),
    }.get(kind, Have(kind=kind, width=2 * square, length=2 * square))


def size_typed(have: Have, text: str, measure: Measure) -> Have:
    """A piece with its size as typed: ``42 x 60``, across then along; of strips and squares how
    wide, and of strips how long if that is told. Empty: the usual size of a fat quarter. Raises
    ``NumberError`` with a sentence."""
    sides = [side for side in re.split(r"\s*[x×]\s*", text.strip()) if side]
    if not sides and have.kind == "fat-quarter":
        return replace(have, width=None, length=None)
    lengths = [parse_length(side, measure.system) for side in sides]
    if any(length <= 0 for length in lengths):
        raise NumberError("fabric must be longer and wider than 0")
    if have.kind == "squares" or (have.kind == "strips" and len(lengths) == 1):
        if len(lengths) != 1:
            raise NumberError("write one size, like 5")
        return replace(have, width=lengths[0], length=None)
    if have.kind == "bolt" and len(lengths) == 1:
        return replace(have, width=None, length=lengths[0])
    if len(lengths) != 2:
        raise NumberError("write two sizes, like 18 x 21: across, then along the selvage")
    if have.kind == "strips":
        return replace(have, width=lengths[0], length=lengths[1])
    return replace(have, width=lengths[0], length=lengths[1])


def size_shown(have: Have, measure: Measure) -> str:
    """As ``size_typed`` reads it."""
    sides = [side for side in (have.width, have.length) if side is not None]
    return " x ".join(show(side, system=measure.system) for side in sides)


def per_cent(text: str, most: int) -> Exact:
    """A share typed as ``3`` or ``3 %``. Raises ``NumberError``."""
    share = parse_exact(text.strip().removesuffix("%").strip())
    if not 0 <= share < most:
        raise NumberError(f"it must be per cent from 0 to {most}")
    return share


def price_typed(text: str) -> Exact | None:
    """A price typed as a number; empty for none. Raises ``NumberError``."""
    if not text.strip():
        return None
    try:
        price = parse_exact(text.strip())
    except NumberError:
        raise NumberError(f"“{text.strip()}” is not a price; write a number, like 12.50") from None
    if price < 0:
        raise NumberError("a price must be 0 or more")
    return price


def size_hint(kind: str, measure: Measure) -> str:
    """What is to be typed."""
    unit = unit_of(measure)
    return {
        "bolt": f"across x along, {unit}", "squares": f"side, {unit}",
        "strips": f"width, or width x length, {unit}",
    }.get(kind, f"across x along, {unit}")  # fmt: skip
