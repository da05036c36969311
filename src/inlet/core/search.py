"""Finding by the words people use: commands, help, designs. Every word that is typed must be in
what is found: at the beginning of a word, inside one, or with one letter wrong, in this order."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable
from typing import NamedTuple

INSIDE, NEAR = 3, 4
"""Letters a word must have to be looked for inside words, and with one letter wrong."""


class Findable(NamedTuple):
    """Something with its ``title``, and other ``words`` it is looked for by."""

    title: str
    words: str = ""


def plain_words(text: str) -> tuple[str, ...]:
    """The words of a text in small letters without accents; ½-square and half-square alike end in
    two words."""
    letters = (c for c in unicodedata.normalize("NFKD", text) if not unicodedata.combining(c))
    return tuple(re.findall(r"[a-z0-9]+", "".join(letters).casefold()))


class Index:
    """Things made ready to be looked through with each key."""

    def __init__(self, things: Iterable[Findable]) -> None:
        self._words = [(plain_words(t.title), plain_words(t.words)) for t in things]

    def find(self, typed: str) -> list[int]:
        """The numbers of all that have every word typed, the best first: words that begin the title
        before words inside it, the title before other words, shorter titles first; all things in
        their order where nothing is typed."""
        wanted = plain_words(typed)
        if not wanted:
            return list(range(len(self._words)))
        ranks = []
        for i, (title, _) in enumerate(self._words):
            rank = self._rank(wanted, i)
            if rank is not None:
                ranks.append((rank, len(title), i))
        return [i for _, _, i in sorted(ranks)]

    def _rank(self, wanted: tuple[str, ...], i: int) -> int | None:
        """How far from the title what is typed is; None where a word of it is nowhere."""
        title, words = self._words[i]
        total = 0
        for place, word in enumerate(wanted):
            costs = [
                *(_cost(word, other, at == place) for at, other in enumerate(title)),
                *(_cost(word, other, False, 2) for other in words),
            ]
            cost = min((cost for cost in costs if cost is not None), default=None)
            if cost is None:
                return None
            total += cost
        return total


def _cost(typed: str, word: str, in_place: bool, more: int = 0) -> int | None:
    """How well a word fits what is typed: 0 where it begins so at its place."""
    if word.startswith(typed):
        return more + (0 if in_place else 1)
    if len(typed) >= INSIDE and typed in word:
        return more + 4
    if len(typed) >= NEAR and _one_letter_off(typed, word):
        return more + 8
    return None


def _one_letter_off(typed: str, word: str) -> bool:
    """Does a word begin with what is typed, but for one letter left out, put in, changed, or two
    changed over?"""
    pairs = enumerate(zip(typed, word, strict=False))
    at = next((i for i, (a, b) in pairs if a != b), min(len(typed), len(word)))
    rest = typed[at:]
    return (
        word[at:].startswith(rest[1:])
        or word[at + 1 :].startswith(rest)
        or word[at + 1 :].startswith(rest[1:])
        or (len(rest) > 1 and word[at:].startswith(rest[1] + rest[0] + rest[2:]))
    )
