"""What is typed behind an option of the command line, read; what it cannot be is said in a
sentence."""

from __future__ import annotations

import argparse

from inlet.core.numbers import LONGEST_NUMBER, Exact, NumberError, parse_length
from inlet.core.plan import MOST_COPIES
from inlet.core.project import LARGEST_BLOCK_INCHES, MOST_BANDS
from inlet.core.templates import MOST_SPARES
from inlet.files.problem import shown


def whole_number(text: str, low: int, most: int) -> int:
    """A whole number typed as an option."""
    if not text.isdecimal() or len(text) > LONGEST_NUMBER or not low <= int(text) <= most:
        raise argparse.ArgumentTypeError(f"{shown(text)} is not a number from {low} to {most}")
    return int(text)


def few_spares(text: str) -> int:
    return whole_number(text, 0, MOST_SPARES)


def block_size(text: str) -> Exact:
    try:
        length = parse_length(text)
    except NumberError as why:
        raise argparse.ArgumentTypeError(str(why)) from None
    if not 0 < length <= LARGEST_BLOCK_INCHES:
        raise argparse.ArgumentTypeError(f"{shown(text)} is not a size a block can have")
    return length


def band_count(text: str) -> int:
    return whole_number(text, 1, MOST_BANDS)


def whole_copies(text: str) -> int:
    return whole_number(text, 1, MOST_COPIES)
