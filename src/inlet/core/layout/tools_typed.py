"""Rulers and mats as they are typed and shown: ``6 x 24, 12 1/2``."""

from __future__ import annotations

import re
from collections.abc import Sequence

from inlet.core.numbers import Exact, NumberError, System, parse_length, show
from inlet.core.project import MOST_RULERS, Pair

LEAST_SIDE, MOST_SIDE = 1, 1_000


def rulers_typed(text: str, system: System) -> tuple[Pair, ...]:
    """Rulers with commas between them, each ``6 x 24``, or ``12 1/2`` for a square; none where the
    text is empty: those usual in the system. Raises ``NumberError`` with a sentence."""
    parts = [part for part in re.split(r"\s*[,;]\s*", text.strip()) if part]
    if len(parts) > MOST_RULERS:
        raise NumberError(f"{MOST_RULERS} rulers are the most")
    return tuple(_sides_typed(part, system) for part in parts)


def mat_typed(text: str, system: System) -> Pair | None:
    """A mat, ``24 x 36``; None where the text is empty. Raises ``NumberError`` with a sentence."""
    return _sides_typed(text, system) if text.strip() else None


def handled_typed(text: str, system: System) -> Exact | None:
    """How long a piece of fabric the maker handles; None where the text is empty. Raises
    ``NumberError`` with a sentence."""
    if not text.strip():
        return None
    length = parse_length(text, system)
    if not LEAST_HANDLED <= length <= MOST_HANDLED:
        raise NumberError(f"it must be from {LEAST_HANDLED} to {MOST_HANDLED} {system.unit}")
    return length


LEAST_HANDLED, MOST_HANDLED = 5, 10_000


def _sides_typed(text: str, system: System) -> Pair:
    sides = [parse_length(side, system) for side in re.split(r"\s*[x×]\s*", text.strip())]
    if len(sides) > 2:
        raise NumberError(f"“{text}” has more than two sides; write 6 x 24")
    if any(not LEAST_SIDE <= side <= MOST_SIDE for side in sides):
        raise NumberError(f"a side must be from {LEAST_SIDE} to {MOST_SIDE} {system.unit}")
    return sides[0], sides[-1]


def tools_shown(sides: Sequence[Pair], system: System) -> str:
    """As ``rulers_typed`` reads them."""
    return ", ".join(
        " x ".join(show(side, system=system) for side in dict.fromkeys(pair)) for pair in sides
    )
