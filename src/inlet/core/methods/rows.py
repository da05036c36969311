"""Rows sewn in one go: what a person says of them, and chains, so that as little is walked as can
be."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise, zip_longest
from typing import NamedTuple

from inlet.core.table import Move

PRESS = "Press."
"""Said with the picture; in a text the move before says it."""


class Walk(NamedTuple):
    """Moves made at the machine one after the other, in a chain, and what is pressed then."""

    sewing: tuple[Move, ...]
    pressing: tuple[Move, ...]


def side_by_side(walks: Sequence[Walk], other_walks: Sequence[Walk]) -> list[Walk]:
    """The walks of two parts that do not wait for each other, made together."""
    none = Walk((), ())
    return [
        Walk((*a.sewing, *b.sewing), (*a.pressing, *b.pressing))
        for a, b in zip_longest(walks, other_walks, fillvalue=none)
    ]


def all_moves(walks: Sequence[Walk]) -> list[Move]:
    """The moves of walks in their order."""
    return [move for walk in walks for move in (*walk.sewing, *walk.pressing)]


def row_text(names: Sequence[str]) -> str:
    """What is sewn in a row of single pieces: “a row of 6: A1 and A2 in turn”. Read from the end
    that is named first, so that equal rows are told alike however they lie."""
    read = min(list(names), list(names)[::-1])
    sorts = list(dict.fromkeys(read))
    if len(sorts) == 1:
        said = read[0]
    elif len(sorts) == 2 and len(read) > 3 and all(a != b for a, b in pairwise(read)):
        said = f"{sorts[0]} and {sorts[1]} in turn"
    else:
        said = ", ".join(read)
    return f"Sew {{row}} of {len(read)}, right sides together: {said}; press."


def sides_text(one: str, other: str, middle: str, what: str) -> str:
    """Two pieces (``what`` they are) sewn to opposite sides of what lies between them."""
    both = f"two {what} {one}" if one == other else f"the {what} {one} and {other}"
    return f"Sew {both} to opposite sides of {middle}; press."


def every_second(number: int) -> str:
    """Of rows in turn, those that are not like the first."""
    return "the second one" if number == 2 else "every second one"


def together_text(what: str, starts: Sequence[str]) -> str:
    """Rows sewn together: ``what`` they are, and what each begins with, where that is known."""
    begin = ""
    sorts = list(dict.fromkeys(starts))
    if len(sorts) == 2 and all(a != b for a, b in pairwise(starts)):
        begin = f", {every_second(len(starts))} beginning with {sorts[1]}"
    elif len(sorts) > 1:
        begin = f", beginning with {', '.join(starts)}"
    return f"Sew the {len(starts)} {what} together, seams meeting{begin}; press."
