"""The ways to close a junction: which two of its seams are sewn last, as one or in turn."""

from __future__ import annotations

from itertools import combinations
from typing import NamedTuple

from inlet.core.assembly.net import Net, NetJunction
from inlet.core.cancellation import check

Awkward = tuple[int, int]
"""Pivots, then partial seams."""


class JoinOption(NamedTuple):
    """A closing pair; ``left_open`` is the seam sewn only part of the way till then."""

    pair: tuple[int, int]
    cost: Awkward
    left_open: int | None = None


def options_at(
    net: Net, junction: NetJunction, reach: dict[tuple[int, int], float], depth: dict[int, int]
) -> list[JoinOption]:
    """Every way to close a junction, the cheapest and most usual first."""
    check()
    options: list[tuple[Awkward, tuple[float, float], JoinOption]] = []
    for one, other in combinations(junction.seams, 2):
        pair = frozenset((one, other))
        if pair in junction.straight:
            length = reach[one, junction.vertex] + reach[other, junction.vertex]
            options.append(((0, 0), (-round(length, 6), 0.0), JoinOption((one, other), (0, 0))))
            continue
        ways = [(end, wait) for end in pair if (wait := junction.onward(end)) is not None]
        for end, wait in ways:
            # Sew last what leads out toward the edge, and leave the longer side open.
            out_at = depth.get(net.seams[end].far(junction.vertex), 0)
            key = (out_at, -round(reach[wait, junction.vertex], 6))
            options.append(((0, 1), key, JoinOption((one, other), (0, 1), wait)))
        if not ways:
            a, b = net.seams[one].length, net.seams[other].length
            uneven = round(abs(a - b) / (a + b), 6)
            even = (_skew(net, junction, pair), uneven)
            options.append(((1, 0), even, JoinOption((one, other), (1, 0))))
    return [
        option for _, _, option in sorted(options, key=lambda row: (row[0], row[1], row[2].pair))
    ]


def _skew(net: Net, junction: NetJunction, pair: frozenset[int]) -> float:
    """How far two seams are from being alike on either side of the others: what is set in between
    them goes in evenly if it is nothing."""
    v = junction.vertex
    x, y = (sum(net.headings[n, v][k] for n in pair) for k in (0, 1))
    u, w = (sum(net.headings[n, v][k] for n in junction.seams if n not in pair) for k in (0, 1))
    return round(abs(x * w - y * u), 6)
