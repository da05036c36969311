"""Stretches of a seam: the least parts of it that begin and end at junctions of both its sides.

Along a straight line of seams lie edges on either side of it. Where edges of both sides begin at
one place and end at one, the seam between is a *stretch*: its two sides differ by what the edges on
one come to less those on the other. Junctions are matched, so nothing is carried over from one
stretch to the next.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

Place = tuple[float, float]


class SewnStretch(NamedTuple):
    """A seam between two junctions that both its sides have: the edges on either side, by their
    numbers."""

    one: tuple[int, ...]
    other: tuple[int, ...]

    def differs(self, long: Sequence[float]) -> float:
        """How much longer one side is than the other, its edges being ``long``."""
        return sum(long[i] for i in self.one) - sum(long[i] for i in self.other)


class EdgeSpan(NamedTuple):
    """An edge on its line: the places it begins and ends at, and its number."""

    begin: Place
    end: Place
    number: int


def stretches(one: list[EdgeSpan], other: list[EdgeSpan]) -> Iterator[SewnStretch]:
    """The stretches of a line with these edges on its two sides, in any order."""
    spans, other_spans = sorted(one), sorted(other)
    i = j = 0
    while i < len(spans) and j < len(other_spans):
        if spans[i].begin != other_spans[j].begin:
            if spans[i].begin < other_spans[j].begin:
                i += 1
            else:
                j += 1
            continue
        these, those = [spans[i]], [other_spans[j]]
        i, j = i + 1, j + 1
        while these[-1].end != those[-1].end:
            if these[-1].end < those[-1].end:
                if i == len(spans) or spans[i].begin != these[-1].end:
                    break
                these.append(spans[i])
                i += 1
            else:
                if j == len(other_spans) or other_spans[j].begin != those[-1].end:
                    break
                those.append(other_spans[j])
                j += 1
        else:
            yield SewnStretch(tuple(s.number for s in these), tuple(s.number for s in those))
