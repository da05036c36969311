"""How each junction is closed: the search for an order with the fewest awkward seams.

When two parts are sewn together along a path of seams, every junction inside that path is *closed*:
from then on all cells round it are one part. The two seams of the path that meet there are its
closing pair; the junction's other seams have been sewn before. So an order of sewing chooses one
pair at each junction, and a choice is an order exactly if nothing has to be sewn before itself:

- Seams paired with one another are sewn in one go: a *path*.
- Every seam that is not in its junction's pair comes before the path that is.
- For a whole without holes, cells - seams + junctions = 1 (Euler), and pairing takes one from the
  number of paths at each junction: there are cells - 1 paths, as many as it takes to sew the cells
  together. Hence if paths can be put in order each of them joins two parts, along all of what they
  share.

What a pair costs: nothing if one seam goes straight on into the other. If one of them goes
straight on into a third seam, that one can be sewn part of the way, and finished when this path
is: a partial seam. Otherwise the path turns a corner: a pivot. A junction that nothing passes
costs a pivot whatever is done, and that is the least number of pivots. The usual way at every
junction most often can be sewn as it is; where paths wait for one another in a circle, an integer
program finds the fewest partial seams (``program``).
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple

from inlet.core.assembly.growing import grown
from inlet.core.assembly.net import Net
from inlet.core.assembly.options import Awkward, JoinOption, options_at
from inlet.core.assembly.paths import tangled

LARGE = 700
"""Seams from which on a tangled order is grown cell by cell, not searched for."""


class Closing(NamedTuple):
    """An option for each junction, by vertex; ``at_least`` is proved to be the least cost. It is
    optimal where the two agree."""

    chosen: dict[int, JoinOption]
    cost: Awkward
    at_least: Awkward


def close(net: Net) -> Closing | None:
    """The cheapest way found to close every junction, one that can be sewn; None if none was found,
    which no drawing is known to do."""
    reach, depth = _reach(net), _depth(net)
    options = {v: options_at(net, j, reach, depth) for v, j in net.junctions.items()}
    usual = {v: found[0] for v, found in options.items()}
    chosen: dict[int, JoinOption] | None = usual
    at_least = 0
    if tangled(net, usual):
        chosen = None
        if len(net.seams) <= LARGE:
            # Few drawings need SciPy, and it takes a while to load.
            from inlet.core.assembly.program import fewest_partial

            chosen, at_least = fewest_partial(net, options)
        chosen = chosen or grown(net, options)
    if chosen is None:
        return None
    pivots = sum(not j.passed for j in net.junctions.values())
    return Closing(chosen, _cost(chosen.values()), (pivots, at_least))


def _cost(options: Iterable[JoinOption]) -> Awkward:
    costs = [o.cost for o in options]
    return sum(c[0] for c in costs), sum(c[1] for c in costs)


def _reach(net: Net) -> dict[tuple[int, int], float]:
    """How far one can go straight on from a junction along each of its seams."""
    reach: dict[tuple[int, int], float] = {}
    for v, junction in net.junctions.items():
        for first in junction.seams:
            length, at, seen = 0.0, v, [first]
            while True:
                length += net.seams[seen[-1]].length
                at = net.seams[seen[-1]].far(at)
                here = net.junctions.get(at)
                onward = here.onward(seen[-1]) if here else None
                if onward is None or onward in seen:
                    break
                seen.append(onward)
            reach[first, v] = length
    return reach


def _depth(net: Net) -> dict[int, int]:
    """How many seams lie between each junction and the edge; those on the edge are left out."""
    beside: dict[int, set[int]] = {v: set() for v in net.places}
    for seam in net.seams:
        beside[seam.start].add(seam.end)
        beside[seam.end].add(seam.start)
    depth: dict[int, int] = {}
    level, reached = 0, {v for v in net.places if v not in net.junctions}
    while reached:
        level += 1
        reached = {w for v in reached for w in beside[v] if w in net.junctions and w not in depth}
        depth.update(dict.fromkeys(reached, level))
    return depth
