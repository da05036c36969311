"""Numbers written out in words, so that a half is not read as the mark beside it."""

from __future__ import annotations

from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.systems import System

ONES = (
    *("zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"),
    *("eleven", "twelve", "thirteen", "fourteen", "fifteen", "sixteen", "seventeen", "eighteen"),
    "nineteen",
)
TENS = ("twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety")
PARTS = {2: "half", 4: "quarter", 8: "eighth", 16: "sixteenth", 32: "thirty-second",
         64: "sixty-fourth"}  # fmt: skip


def spelled(x: Fraction, system: System) -> str:
    """A length on the ruler's marks, in words: ``three and a half``, ``eight point nine``; the
    digits again where it lies on no mark that has a name.

    >>> from inlet.core.numbers.systems import CENTIMETRES, INCHES
    >>> spelled(Fraction(7, 2), INCHES), spelled(Fraction(3, 8), INCHES)
    ('three and a half', 'three eighths')
    >>> spelled(Fraction(89, 10), CENTIMETRES)
    'eight point nine'
    """
    whole, part = divmod(x, 1)
    if not part:
        return whole_spelled(int(whole))
    if not system.fractions:
        hundredths = part * 100
        if hundredths.denominator != 1:
            return str(float(x))
        digits = f"{int(hundredths):02d}".rstrip("0")
        return f"{whole_spelled(int(whole))} point {' '.join(ONES[int(d)] for d in digits)}"
    name = PARTS.get(part.denominator)
    if name is None:
        return str(x)
    number = part.numerator
    parts = f"a{'n' if name == 'eighth' else ''} {name}" if number == 1 else (
        f"{whole_spelled(number)} {name}s"
    )  # fmt: skip
    return f"{whole_spelled(int(whole))} and {parts}" if whole else parts


def whole_spelled(n: int) -> str:
    """A whole number in words, up to 9999."""
    if n < 20:
        return ONES[n]
    if n < 100:
        tens, ones = divmod(n, 10)
        return TENS[tens - 2] + (f"-{ONES[ones]}" if ones else "")
    size, name = (1000, "thousand") if n >= 1000 else (100, "hundred")
    many, rest = divmod(n, size)
    joined = " and " if 0 < rest < 100 else " "
    return f"{whole_spelled(many)} {name}" + (f"{joined}{whole_spelled(rest)}" if rest else "")
