"""Exact numbers: fractions with √2, the ruler's marks, inches and centimetres, and how numbers are
read and shown.

Promise: no length is rounded but where a function says to which mark; bad text raises
``NumberError`` with a sentence.
"""

from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.marks import nearest_mark, next_mark
from inlet.core.numbers.root2 import (
    HALF_ROOT2,
    ROOT2,
    Exact,
    Root2,
    as_parts,
    ceil_exact,
    floor_exact,
    root_up,
    sqrt_exact,
    write_exact,
)
from inlet.core.numbers.spelled import spelled, whole_spelled
from inlet.core.numbers.systems import CENTIMETRES, INCHES, SYSTEMS, LongUnit, System, SystemName
from inlet.core.numbers.text import (
    LONGEST_NUMBER,
    NumberError,
    parse_exact,
    parse_length,
    show,
    vulgar_text,
)

__all__ = [
    "CENTIMETRES",
    "HALF_ROOT2",
    "INCHES",
    "LONGEST_NUMBER",
    "ROOT2",
    "SYSTEMS",
    "Exact",
    "Fraction",
    "LongUnit",
    "NumberError",
    "Root2",
    "System",
    "SystemName",
    "as_parts",
    "ceil_exact",
    "floor_exact",
    "nearest_mark",
    "next_mark",
    "parse_exact",
    "parse_length",
    "root_up",
    "show",
    "spelled",
    "sqrt_exact",
    "vulgar_text",
    "whole_spelled",
    "write_exact",
]
