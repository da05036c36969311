"""Which pages to print, as they are typed: all, or 2-5, 8."""

from __future__ import annotations


def pages_typed(text: str, count: int) -> list[int]:
    """The pages, from 0 on, in the order typed; all of ``count`` where nothing is typed. Raises
    ``ValueError`` with a sentence."""
    if text.strip().casefold() in ("", "all"):
        return list(range(count))
    numbers: list[int] = []
    for part in text.split(","):
        first, dash, last = part.strip().partition("-")
        if not first.strip().isdecimal() or (dash and not last.strip().isdecimal()):
            raise ValueError(f"“{part.strip()}” is no page; type all, or 2-5, 8")
        low, high = int(first), int(last) if dash else int(first)
        if not 1 <= low <= high <= count:
            raise ValueError(f"there are pages 1 to {count}; “{part.strip()}” is not among them")
        numbers += range(low - 1, high)
    return numbers
