"""Exact lengths: the field, reading and writing, ruler marks."""

from __future__ import annotations

from decimal import Decimal, getcontext
from numbers import Real

import pytest
from hypothesis import given
from hypothesis import strategies as st

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.marks import nearest_mark, next_mark
from inlet.core.numbers.root2 import (
    ROOT2,
    Root2,
    ceil_exact,
    floor_exact,
    root_up,
    sqrt_exact,
    write_exact,
)
from inlet.core.numbers.systems import CENTIMETRES
from inlet.core.numbers.text import NumberError, parse_exact, parse_length, show, vulgar_text
from tests.blocks import exacts, fractions, ratios

getcontext().prec = 60


def decimal(x) -> Decimal:
    """``x`` to 60 digits, by another way than the code under test."""
    if isinstance(x, Root2):
        a, b = decimal(x.a), decimal(x.b)
        return a + b * Decimal(2).sqrt()
    return Decimal(x.numerator) / Decimal(x.denominator)


def near(x, value: Decimal) -> bool:
    return abs(decimal(x) - value) < Decimal(10) ** -40


@given(exacts, exacts)
def test_arithmetic_is_that_of_real_numbers(x, y):
    assert near(x + y, decimal(x) + decimal(y))
    assert near(x - y, decimal(x) - decimal(y))
    assert near(x * y, decimal(x) * decimal(y))
    if y != 0:
        assert near(x / y, decimal(x) / decimal(y))
        assert (x / y) * y == x


@given(exacts, exacts)
def test_order_is_exact(x, y):
    assert (x < y) == (decimal(x) < decimal(y))
    assert (x <= y) == (decimal(x) <= decimal(y))
    assert (x == y) == (x - y == 0)
    assert max(x, y) - min(x, y) == abs(x - y)


@given(exacts)
def test_floats_are_right_to_the_last_digits_even_where_terms_cancel(x):
    assert float(x) == pytest.approx(float(decimal(x)), rel=1e-14, abs=1e-300)


def test_nearly_equal_numbers_are_told_apart():
    # Convergents of √2 come within 10⁻¹¹ of it.
    low, high = F(665857, 470832) - F(1, 10**11), F(665857, 470832)
    assert low < ROOT2 < high
    assert ROOT2 not in (low, high)


@given(fractions)
def test_without_a_root_a_number_is_a_fraction(a):
    whole = Root2.of(a, 0)
    assert type(whole) is F
    assert type(Root2.of(a, 1) - ROOT2) is F
    assert isinstance(ROOT2, Real)
    assert ROOT2 * ROOT2 == 2
    assert hash(Root2.of(a, 3)) == hash(3 * ROOT2 + a)


@given(exacts)
def test_floor_and_ceiling(x):
    assert floor_exact(x) <= x < floor_exact(x) + 1
    assert ceil_exact(x) - 1 < x <= ceil_exact(x)


@given(exacts, st.sampled_from([F(1, 8), F(1, 16), F(1, 10), F(1, 2)]))
def test_marks(x, mark):
    up, near_ = next_mark(x, mark), nearest_mark(x, mark)
    assert (up / mark).denominator == 1
    assert up - mark < x <= up
    assert abs(near_ - x) <= mark / 2


@given(exacts)
def test_square_roots_are_found_where_the_field_has_them(x):
    square = x * x
    assert sqrt_exact(square) == abs(x)
    assert root_up(square) == abs(x)


@given(ratios(min_value=0, max_value=1000, max_denominator=50))
def test_other_roots_are_taken_upward_and_closely(x):
    root = root_up(x)
    assert root * root >= x
    less = root - F(2, 10**12)
    assert less * less < x or root < F(1, 10**11)
    if sqrt_exact(x) is not None:
        assert root * root == x


@given(exacts)
def test_written_numbers_read_back(x):
    assert parse_exact(write_exact(x)) == x


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("3", F(3)), ("7/2", F(7, 2)), ("2.5", F(5, 2)), (".5", F(1, 2)), ("-3", F(-3)),
        ("5-5/2√2", 5 - F(5, 2) * ROOT2), ("√2", ROOT2), ("-√2", -ROOT2), ("1/4√2", ROOT2 / 4),
        ("7/2+1/4√2", F(7, 2) + ROOT2 / 4), ("2.5+0.5√2", F(5, 2) + ROOT2 / 2),
    ],
)  # fmt: skip
def test_numbers_of_files(text, value):
    assert parse_exact(text) == value


@pytest.mark.parametrize(
    "text",
    ["", " ", "abc", "3 1/2", "1/0", "inf", "nan", "1e5", "3//2", "√3", "3√2√2", "--3", "9" * 50],
)
def test_what_is_no_number_in_a_file_is_refused(text):
    with pytest.raises(NumberError):
        parse_exact(text)


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("3 1/2", F(7, 2)), ("3-1/2", F(7, 2)), ("3½", F(7, 2)), ("3.5", F(7, 2)),
        ("3,5", F(7, 2)), (" 3 1/2 in", F(7, 2)), ('3 1/2"', F(7, 2)), ("10 3/4", F(43, 4)),
        ("3⁷⁄₁₆", F(55, 16)), ("½", F(1, 2)), ("9 cm", F(450, 127)), ("90mm", F(450, 127)),
        ("6-3√2", 6 - 3 * ROOT2),
    ],
)  # fmt: skip
def test_lengths_as_people_type_them(text, value):
    assert parse_length(text) == value


def test_lengths_in_the_other_system():
    assert parse_length("1 in", CENTIMETRES) == F(254, 100)
    assert parse_length("13.5", CENTIMETRES) == F(27, 2)
    assert parse_length("135 mm", CENTIMETRES) == F(27, 2)


@pytest.mark.parametrize("text", ["", "three", "3 5", "1/0", "3..5", "3 ft", "5 1.5", "1" * 60])
def test_what_is_no_length_says_so(text):
    with pytest.raises(NumberError) as why:
        parse_length(text)
    assert str(why.value)


@given(ratios(min_value=0, max_value=200, max_denominator=64))
def test_shown_lengths_read_back_and_show_no_more_than_they_know(x):
    for vulgar in (False, True):
        assert parse_length(show(x, vulgar=vulgar)) == x
    assert parse_length(vulgar_text(f"{show(x)} in")) == x


def test_shown_lengths():
    assert show(F(7, 2)) == "3 1/2"
    assert show(F(7, 2), vulgar=True) == "3½"
    assert show(F(55, 16), vulgar=True) == "3⁷⁄₁₆"
    assert show(F(89, 10), system=CENTIMETRES) == "8.9"
    assert show(ROOT2).startswith("≈1.414")
    assert vulgar_text("cut 2 x 3 7/8 in, 12/10/26") == "cut 2 x 3⅞ in, 12/10/26"


def test_floats_of_numbers_made_of_enormous_integers():
    big = 7**800
    assert float(Root2.of(F(big + 1, big), F(1, big))) == 1.0
    near = Root2.of(F(3, big) - 1, F(big + 2, big))
    assert abs(float(near) - (2**0.5 - 1)) < 1e-15
    assert abs(float(Root2.of(-1, F(big - 1, big))) - (2**0.5 - 1)) < 1e-15
