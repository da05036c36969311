"""How lengths are read and written: exactly for files, on the ruler's marks for the maker."""

from __future__ import annotations

import re

from inlet.core.memo import memo
from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact, Root2, as_parts
from inlet.core.numbers.systems import INCHES, SYSTEMS, System


class NumberError(ValueError):
    """Text that is not a length; the message is a sentence fit for the maker."""


_VULGAR = {
    "½": "1/2", "⅓": "1/3", "⅔": "2/3", "¼": "1/4", "¾": "3/4", "⅕": "1/5", "⅖": "2/5",
    "⅗": "3/5", "⅘": "4/5", "⅙": "1/6", "⅚": "5/6", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8",
    "⅞": "7/8",
}  # fmt: skip
_SUPER = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹", "0123456789")
_SUB = str.maketrans("₀₁₂₃₄₅₆₇₈₉", "0123456789")
_PLAIN = r"(?:\d+/\d+|\d+\.\d+|\d+\.?|\.\d+)"
_EXACT = re.compile(rf"(?:([+-]?{_PLAIN})(?![\d/.]*√))?(?:([+-]?)({_PLAIN})?√2)?")
_LENGTH = re.compile(
    r"(?P<sign>-)?(?:(?P<whole>\d+)[\s-]+)?(?P<rest>\d+/\d+|\d+\.\d*|\.\d+|\d+)"
    r"\s*(?P<unit>in|inch|inches|\"|″|cm|mm)?"
)
_PER_INCH = {"cm": SYSTEMS["cm"].per_inch, "mm": SYSTEMS["cm"].per_inch * 10}
LONGEST_NUMBER = 40
"""Characters of a number: enough for any real size, and no denial of service by digits."""


def _fraction(text: str) -> Fraction:
    try:
        return Fraction(text)
    except ZeroDivisionError:
        raise NumberError(f"“{text}” divides by zero") from None


def _refuse_too_long(text: str) -> None:
    if len(text) > LONGEST_NUMBER:
        begin = text[: LONGEST_NUMBER - 1]
        raise NumberError(f"“{begin}…” is too long; {LONGEST_NUMBER} letters are the most")


@memo(4096)
def parse_exact(text: str) -> Exact:
    """Read a number as files write it: ``3``, ``7/2``, ``2.5``, ``5-5/2√2``, ``√2``.

    Raises ``NumberError`` for anything else.
    """
    plain = text.strip()
    _refuse_too_long(plain)
    match = _EXACT.fullmatch(plain)
    if not match or not plain:
        raise NumberError(f"“{text}” is not a number")
    rational, sign, factor = match.groups()
    a = _fraction(rational) if rational else Fraction(0)
    if "√" not in plain:
        return a
    if rational and not sign:
        raise NumberError(f"“{text}” needs a + or - before √2")
    b = _fraction(factor) if factor else Fraction(1)
    return Root2.of(a, -b if sign == "-" else b)


def parse_length(text: str, system: System = INCHES) -> Exact:
    """Read what a person types as a length in ``system``.

    ``3 1/2``, ``3-1/2``, ``3½``, ``3.5``, ``3,5``, ``3 1/2 in``, ``9 cm``, ``90mm``; a unit of the
    other system is converted exactly (1 in = 2.54 cm). Raises ``NumberError`` with a sentence.
    """
    if "√" in text:
        return parse_exact(text.replace(" ", ""))
    plain = text.strip().lower()
    for sign, ascii_ in _VULGAR.items():
        plain = plain.replace(sign, f" {ascii_}")
    plain = re.sub(
        r"([⁰¹²³⁴⁵⁶⁷⁸⁹]+)[⁄/]([₀₁₂₃₄₅₆₇₈₉]+)",
        lambda m: f" {m[1].translate(_SUPER)}/{m[2].translate(_SUB)}",
        plain,
    )
    plain = plain.replace("⁄", "/").replace(",", ".").strip()
    if not plain:
        raise NumberError("a size is missing here")
    _refuse_too_long(plain)
    match = _LENGTH.fullmatch(plain)
    if not match or (match["whole"] and "/" not in match["rest"]):
        raise NumberError(f"“{text.strip()}” is not a size; write it like 3 1/2 or 3.5")
    value = _fraction(match["rest"]) + int(match["whole"] or 0)
    if match["unit"]:
        value *= system.per_inch / _PER_INCH.get(match["unit"], Fraction(1))
    return -value if match["sign"] else value


_ONE_GLYPH = {text: sign for sign, text in _VULGAR.items()}
_TO_SUPER = str.maketrans("0123456789", "⁰¹²³⁴⁵⁶⁷⁸⁹")
_TO_SUB = str.maketrans("0123456789", "₀₁₂₃₄₅₆₇₈₉")
_LARGEST_DENOMINATOR = 64
"""Past this a fraction is not one a person reads on a ruler; decimals are shown."""


def show(
    x: Exact | int, *, system: System = INCHES, vulgar: bool = False, ruler: bool = False
) -> str:
    """``x`` as a person reads it: ``3 1/2`` (``3½`` if ``vulgar``) in inches, ``8.9`` in cm.

    What no short fraction holds is shown as a decimal of three places, marked ``≈``; with
    ``ruler`` so is what no inch ruler is divided into (thirds, tenths).
    """
    parts = as_parts(x)
    assert parts is not None
    p, q, d = parts
    value = Fraction(p, d)
    if not system.fractions:
        exact = not q and 1000 % value.denominator == 0
        text = f"{float(x):.3f}".rstrip("0").rstrip(".")
        return text if exact else f"≈{float(x):.2f}"
    divisor = value.denominator
    if q or divisor > _LARGEST_DENOMINATOR or (ruler and divisor & (divisor - 1)):
        return f"≈{float(x):.3f}"
    sign = "-" if value < 0 else ""
    whole, rest = divmod(abs(value), 1)
    if not rest:
        return f"{sign}{whole}"
    if not vulgar:
        return f"{sign}{whole} {rest}" if whole else f"{sign}{rest}"
    one = _ONE_GLYPH.get(str(rest))
    top, bottom = str(rest.numerator), str(rest.denominator)
    part = one or f"{top.translate(_TO_SUPER)}⁄{bottom.translate(_TO_SUB)}"
    return f"{sign}{whole or ''}{part}"


_IN_TEXT = re.compile(r"(?<![\d/.])(?:(\d+) )?(\d{1,2})/(\d{1,2})(?![\d/])")


def vulgar_text(text: str) -> str:
    """A sentence with its sizes as a screen shows them: ``3 7/8`` becomes ``3⅞``."""

    def sign(match: re.Match[str]) -> str:
        value = Fraction(int(match[2]), int(match[3]) or 1) + int(match[1] or 0)
        return show(value, vulgar=True) if int(match[3]) else match[0]

    return _IN_TEXT.sub(sign, text)
