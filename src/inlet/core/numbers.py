"""Exact lengths.

A length is an ``Exact``: a ``Fraction``, or a ``Root2`` (``a + b√2`` with b ≠ 0) where 45°
geometry needs one. Arithmetic on them never rounds and never leaves those two types, so two
lengths are equal exactly when ``==`` says so. Rounding happens in one place only, ``next_mark``
and ``nearest_mark``, when a size is about to be cut.
"""

from __future__ import annotations

import numbers
import re
from abc import ABC
from functools import lru_cache
from math import gcd, isqrt
from typing import TYPE_CHECKING, TypeAlias

from inlet.core.fraction import Fraction

__all__ = [
    "HALF_ROOT2",
    "ROOT2",
    "Exact",
    "NumberError",
    "Root2",
    "ceil_exact",
    "floor_exact",
    "nearest_mark",
    "next_mark",
    "parse_exact",
    "parse_length",
    "root_up",
    "show",
    "sqrt_exact",
    "vulgar_text",
    "write_exact",
]

CM_PER_INCH = Fraction(254, 100)


class NumberError(ValueError):
    """Text that is not a length; the message is a sentence fit for the maker."""


class Root2:
    """``(p + q√2) / d`` with integers p, q ≠ 0, d > 0 and no common factor.

    Make one with ``Root2.of(a, b)``, which gives a ``Fraction`` when b is 0. Three integers rather
    than two Fractions: one reduction an operation instead of four.
    """

    __slots__ = ("d", "p", "q")
    p: int
    q: int
    d: int

    @staticmethod
    def of(a: int | Fraction, b: int | Fraction) -> Exact:
        """The length ``a + b√2``, as a ``Fraction`` when ``b`` is 0."""
        a, b = Fraction(a), Fraction(b)
        d = a.denominator * b.denominator
        return _reduced(a.numerator * b.denominator, b.numerator * a.denominator, d)

    @property
    def a(self) -> Fraction:
        """The rational part."""
        return Fraction(self.p, self.d)

    @property
    def b(self) -> Fraction:
        """The factor of √2."""
        return Fraction(self.q, self.d)

    # Registered as numbers.Real below; Fraction's own comparisons look at these two.
    @property
    def real(self) -> Root2:
        return self

    @property
    def imag(self) -> int:
        return 0

    def __repr__(self) -> str:
        return f"Root2({self})"

    def __str__(self) -> str:
        return write_exact(self)

    def __hash__(self) -> int:
        return hash((self.p, self.q, self.d))  # irrational: never equal to a Fraction

    def __float__(self) -> float:
        # p and q√2 may nearly cancel: where they do, divide by the conjugate instead.
        try:
            if (self.p > 0) == (self.q > 0) or self.p == 0:
                return (self.p + self.q * 2**0.5) / self.d
            return (self.p * self.p - 2 * self.q * self.q) / (self.p - self.q * 2**0.5) / self.d
        except OverflowError:  # integers past what a float holds: q√2 by an integer root
            bits = 64 + self.q.bit_length()
            root = isqrt(2 * self.q * self.q << 2 * bits)
            top = (self.p << bits) + (root if self.q > 0 else -root)
            return float(Fraction(top, self.d << bits))

    def __neg__(self) -> Exact:
        return _reduced(-self.p, -self.q, self.d)

    def __pos__(self) -> Root2:
        return self

    def __abs__(self) -> Exact:
        return self if _sign(self.p, self.q) > 0 else -self

    def __add__(self, other: object) -> Exact:
        o = _parts(other)
        if o is None:
            return NotImplemented
        p, q, d = o
        return _reduced(self.p * d + p * self.d, self.q * d + q * self.d, self.d * d)

    __radd__ = __add__

    def __sub__(self, other: object) -> Exact:
        o = _parts(other)
        if o is None:
            return NotImplemented
        p, q, d = o
        return _reduced(self.p * d - p * self.d, self.q * d - q * self.d, self.d * d)

    def __rsub__(self, other: object) -> Exact:
        return -(self - other)

    def __mul__(self, other: object) -> Exact:
        o = _parts(other)
        if o is None:
            return NotImplemented
        p, q, d = o
        return _reduced(self.p * p + 2 * self.q * q, self.p * q + self.q * p, self.d * d)

    __rmul__ = __mul__

    def __truediv__(self, other: object) -> Exact:
        o = _parts(other)
        if o is None:
            return NotImplemented
        return _divided((self.p, self.q, self.d), o)

    def __rtruediv__(self, other: object) -> Exact:
        o = _parts(other)
        if o is None:
            return NotImplemented
        return _divided(o, (self.p, self.q, self.d))

    def __eq__(self, other: object) -> bool:
        if isinstance(other, Root2):
            return self.p == other.p and self.q == other.q and self.d == other.d
        return False if isinstance(other, int | float | Fraction) else NotImplemented

    def __lt__(self, other: object) -> bool:
        return self._compare(other) < 0

    def __le__(self, other: object) -> bool:
        return self._compare(other) <= 0

    def __gt__(self, other: object) -> bool:
        return self._compare(other) > 0

    def __ge__(self, other: object) -> bool:
        return self._compare(other) >= 0

    def _compare(self, other: object) -> int:
        o = _parts(other)
        if o is None:
            raise TypeError(f"cannot compare a length with {type(other).__name__}")
        p, q, d = o
        return _sign(self.p * d - p * self.d, self.q * d - q * self.d)


numbers.Real.register(Root2)

if TYPE_CHECKING:
    Exact: TypeAlias = Fraction | Root2
else:

    class Exact(ABC):  # noqa: B024 - a name two types are registered under
        """The type of every exact length, ``Fraction`` or ``Root2``.

        One class at run time rather than a union, so that msgspec can be told how to read it.
        """

    Exact.register(Fraction)
    Exact.register(Root2)


def _parts(x: object) -> tuple[int, int, int] | None:
    """``x`` as (p, q, d) of ``(p + q√2)/d``; None for what is not an exact number."""
    if isinstance(x, Root2):
        return x.p, x.q, x.d
    if isinstance(x, int):
        return x, 0, 1
    if isinstance(x, Fraction):
        return x.numerator, 0, x.denominator
    return None


def _reduced(p: int, q: int, d: int) -> Exact:
    """``(p + q√2)/d``, d ≠ 0, in lowest terms; a ``Fraction`` when q is 0."""
    if q == 0:
        return Fraction(p, d)
    if d < 0:
        p, q, d = -p, -q, -d
    g = gcd(p, q, d)
    made = object.__new__(Root2)
    made.p, made.q, made.d = p // g, q // g, d // g
    return made


def _divided(x: tuple[int, int, int], y: tuple[int, int, int]) -> Exact:
    """x / y by the conjugate: ``1/(p + q√2) = (p - q√2)/(p² - 2q²)``; the norm is 0 only for 0."""
    (xp, xq, xd), (yp, yq, yd) = x, y
    norm = yp * yp - 2 * yq * yq
    if norm == 0:
        raise ZeroDivisionError("division of a length by zero")
    return _reduced((xp * yp - 2 * xq * yq) * yd, (xq * yp - xp * yq) * yd, xd * norm)


def _sign(p: int, q: int) -> int:
    """The sign of ``p + q√2``, by comparing squares where the two terms pull apart."""
    if q == 0:
        return (p > 0) - (p < 0)
    if p == 0 or (p > 0) == (q > 0):
        return 1 if q > 0 else -1
    larger_p = p * p > 2 * q * q
    return (1 if p > 0 else -1) if larger_p else (1 if q > 0 else -1)


ROOT2: Exact = Root2.of(0, 1)
HALF_ROOT2: Exact = Root2.of(0, Fraction(1, 2))


# --- rounding ---------------------------------------------------------------------------------


def floor_exact(x: Exact | int) -> int:
    """The largest integer not above ``x``, exactly: floor(q√2) comes from an integer root."""
    parts = _parts(x)
    assert parts is not None
    p, q, d = parts
    if q == 0:
        return p // d
    # floor((p + q√2)/d) = floor((p + floor(q√2))/d), as d is an integer. √(2q²) is never whole.
    root = isqrt(2 * q * q) if q > 0 else -isqrt(2 * q * q) - 1
    return (p + root) // d


def ceil_exact(x: Exact | int) -> int:
    """The smallest integer not below ``x``, exactly."""
    return -floor_exact(-x)


def next_mark(x: Exact, mark: Fraction) -> Fraction:
    """The first ruler mark (multiple of ``mark``) at or above ``x``: what a cut is made at."""
    return ceil_exact(x / mark) * mark


def nearest_mark(x: Exact, mark: Fraction) -> Fraction:
    """The ruler mark nearest to ``x``; from half way, the upper one."""
    return floor_exact(x / mark + Fraction(1, 2)) * mark


def sqrt_exact(x: Exact | int) -> Exact | None:
    """The square root of ``x`` ≥ 0 where it is again an ``Exact``, else None.

    √((p + q√2)/d): for q = 0 it is rational, or a rational times √2. Otherwise look for u + v√2
    with u² + 2v² = a and 2uv = b, so u² = (a ± √(a² - 2b²))/2.
    """
    parts = _parts(x)
    assert parts is not None
    p, q, d = parts
    if q == 0:
        whole = _sqrt_fraction(Fraction(p, d))
        if whole is not None:
            return whole
        half = _sqrt_fraction(Fraction(p, 2 * d))
        return None if half is None else Root2.of(0, half)
    a, b = Fraction(p, d), Fraction(q, d)
    norm = _sqrt_fraction(a * a - 2 * b * b)
    if norm is None:
        return None
    for square in ((a + norm) / 2, (a - norm) / 2):
        u = _sqrt_fraction(square)
        if u:
            root = Root2.of(u, b / (2 * u))
            return root if root > 0 else -root
    return None


def _sqrt_fraction(x: Fraction) -> Fraction | None:
    if x < 0:
        return None
    n, d = isqrt(x.numerator), isqrt(x.denominator)
    return Fraction(n, d) if n * n == x.numerator and d * d == x.denominator else None


def root_up(x: Exact) -> Exact:
    """√x for ``x`` ≥ 0: exact where it can be, else a Fraction at most 10⁻¹² above it.

    For lengths that leave the field (the slope of a half rectangle): kept squared until a size is
    needed, rooted once here, upward because it is about to be cut.
    """
    exact = sqrt_exact(x)
    if exact is not None:
        return exact
    scale = 10**12
    return Fraction(isqrt(floor_exact(x * (scale * scale))) + 1, scale)


# --- reading ----------------------------------------------------------------------------------

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
_LONGEST = 40
"""Characters of a number: enough for any real size, and no denial of service by digits."""


def _fraction(text: str) -> Fraction:
    try:
        return Fraction(text)
    except ZeroDivisionError:
        raise NumberError(f"“{text}” divides by zero") from None


@lru_cache(maxsize=4096)
def parse_exact(text: str) -> Exact:
    """Read a number as files write it: ``3``, ``7/2``, ``2.5``, ``5-5/2√2``, ``√2``.

    Raises ``NumberError`` for anything else.
    """
    plain = text.strip()
    found = _EXACT.fullmatch(plain) if 0 < len(plain) <= _LONGEST else None
    if not found:
        raise NumberError(f"“{text[:_LONGEST]}” is not a number")
    rational, sign, factor = found.groups()
    a = _fraction(rational) if rational else Fraction(0)
    if "√" not in plain:
        return a
    if rational and not sign:
        raise NumberError(f"“{text}” needs a + or - before √2")
    b = _fraction(factor) if factor else Fraction(1)
    return Root2.of(a, -b if sign == "-" else b)


def parse_length(text: str, system: str = "inch") -> Exact:
    """Read what a person types as a length in ``system`` ("inch" or "cm").

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
    found = _LENGTH.fullmatch(plain) if len(plain) <= _LONGEST else None
    if not found or (found["whole"] and "/" not in found["rest"]):
        raise NumberError(f"“{text.strip()[:_LONGEST]}” is not a size; write it like 3 1/2 or 3.5")
    value = _fraction(found["rest"]) + int(found["whole"] or 0)
    unit = found["unit"] or ("cm" if system == "cm" else "in")
    if unit == "mm":
        value, unit = value / 10, "cm"
    if unit == "cm" and system == "inch":
        value /= CM_PER_INCH
    elif unit != "cm" and system == "cm":
        value *= CM_PER_INCH
    return -value if found["sign"] else value


# --- writing ----------------------------------------------------------------------------------


def write_exact(x: Exact | int) -> str:
    """``x`` as files write it; ``parse_exact`` reads it back to the same number."""
    parts = _parts(x)
    assert parts is not None
    p, q, d = parts
    if q == 0:
        return str(Fraction(p, d))
    a, b = Fraction(p, d), Fraction(q, d)
    factor = "" if abs(b) == 1 else str(abs(b))
    sign = "-" if b < 0 else "+" if a else ""
    return f"{a if a else ''}{sign}{factor}√2"


_ONE_GLYPH = {text: sign for sign, text in _VULGAR.items()}
_TO_SUPER = str.maketrans("0123456789", "⁰¹²³⁴⁵⁶⁷⁸⁹")
_TO_SUB = str.maketrans("0123456789", "₀₁₂₃₄₅₆₇₈₉")
_LARGEST_DENOMINATOR = 64
"""Past this a fraction is not one a person reads on a ruler; decimals are shown."""


def show(x: Exact | int, *, system: str = "inch", vulgar: bool = False, ruler: bool = False) -> str:
    """``x`` as a person reads it: ``3 1/2`` (``3½`` if ``vulgar``) in inches, ``8.9`` in cm.

    What no short fraction holds is shown as a decimal of three places, marked ``≈``; with
    ``ruler`` so is what no inch ruler is divided into (thirds, tenths).
    """
    parts = _parts(x)
    assert parts is not None
    p, q, d = parts
    value = Fraction(p, d)
    if system == "cm":
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

    def sign(found: re.Match[str]) -> str:
        value = Fraction(int(found[2]), int(found[3]) or 1) + int(found[1] or 0)
        return show(value, vulgar=True) if int(found[3]) else found[0]

    return _IN_TEXT.sub(sign, text)
