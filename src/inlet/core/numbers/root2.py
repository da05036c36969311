"""Exact lengths.

A length is an ``Exact``: a ``Fraction``, or a ``Root2`` (``a + b√2`` with b ≠ 0) where 45°
geometry needs one. Arithmetic on them never rounds and never leaves those two types, so two
lengths are equal exactly when ``==`` says so. Rounding happens in ``marks`` only, when a size is
about to be cut.
"""

from __future__ import annotations

import numbers
from abc import ABC
from math import gcd, isqrt
from typing import TYPE_CHECKING, TypeAlias

from inlet.core.numbers.fraction import Fraction


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
        o = as_parts(other)
        if o is None:
            return NotImplemented
        p, q, d = o
        return _reduced(self.p * d + p * self.d, self.q * d + q * self.d, self.d * d)

    __radd__ = __add__

    def __sub__(self, other: object) -> Exact:
        o = as_parts(other)
        if o is None:
            return NotImplemented
        p, q, d = o
        return _reduced(self.p * d - p * self.d, self.q * d - q * self.d, self.d * d)

    def __rsub__(self, other: object) -> Exact:
        return -(self - other)

    def __mul__(self, other: object) -> Exact:
        o = as_parts(other)
        if o is None:
            return NotImplemented
        p, q, d = o
        return _reduced(self.p * p + 2 * self.q * q, self.p * q + self.q * p, self.d * d)

    __rmul__ = __mul__

    def __truediv__(self, other: object) -> Exact:
        o = as_parts(other)
        if o is None:
            return NotImplemented
        return _divided((self.p, self.q, self.d), o)

    def __rtruediv__(self, other: object) -> Exact:
        o = as_parts(other)
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
        o = as_parts(other)
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


def as_parts(x: object) -> tuple[int, int, int] | None:
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
    parts = as_parts(x)
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


def sqrt_exact(x: Exact | int) -> Exact | None:
    """The square root of ``x`` ≥ 0 where it is again an ``Exact``, else None.

    √((p + q√2)/d): for q = 0 it is rational, or a rational times √2. Otherwise look for u + v√2
    with u² + 2v² = a and 2uv = b, so u² = (a ± √(a² - 2b²))/2.
    """
    parts = as_parts(x)
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


def write_exact(x: Exact | int) -> str:
    """``x`` as files write it; ``parse_exact`` reads it back to the same number."""
    parts = as_parts(x)
    assert parts is not None
    p, q, d = parts
    if q == 0:
        return str(Fraction(p, d))
    a, b = Fraction(p, d), Fraction(q, d)
    factor = "" if abs(b) == 1 else str(abs(b))
    sign = "-" if b < 0 else "+" if a else ""
    return f"{a if a else ''}{sign}{factor}√2"
