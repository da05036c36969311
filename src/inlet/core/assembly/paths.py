"""What a choice of closing pairs comes to: the paths that are sewn in one go, and which wait for
which. Paths that wait for one another in a circle cannot be sewn."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Mapping

from inlet.core.assembly.net import Net
from inlet.core.assembly.options import JoinOption


def partners(chosen: Mapping[int, JoinOption]) -> dict[tuple[int, int], int]:
    """(seam, vertex) -> the seam it is sewn on into there, for every closing pair."""
    partner_of: dict[tuple[int, int], int] = {}
    for v, option in chosen.items():
        one, other = option.pair
        partner_of[one, v], partner_of[other, v] = other, one
    return partner_of


def tangled(net: Net, chosen: Mapping[int, JoinOption]) -> bool:
    """Does some path that the closing pairs make close on itself, or wait for itself?"""
    path = list(range(len(net.seams)))

    def of(n: int) -> int:
        while path[n] != n:
            path[n] = path[path[n]]
            n = path[n]
        return n

    for option in chosen.values():
        one, other = map(of, option.pair)
        if one == other:
            return True
        path[one] = other
    later: dict[int, list[int]] = defaultdict(list)
    waits_for: Counter[int] = Counter()
    for v, option in chosen.items():
        late = of(option.pair[0])
        for n in net.junctions[v].seams:
            if n not in option.pair:
                later[of(n)].append(late)
                waits_for[late] += 1
    paths = {of(n) for n in range(len(path))}
    ready = [p for p in paths if not waits_for[p]]
    sewn = 0
    while ready:
        sewn += 1
        for late in later[ready.pop()]:
            waits_for[late] -= 1
            if not waits_for[late]:
                ready.append(late)
    return sewn < len(paths)
