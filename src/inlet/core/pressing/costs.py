"""What a block's pressing costs, as tables over the ways its seams are pressed.

Every fault is weighed where it lies: at a junction by what comes of the seams there, along a seam
by its fabrics and by what it folds back. A cost is the sum of tables, each over a few seams, so
that it is the same sum for the solver, for the maker's flip of one seam, and for the words.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from itertools import groupby, pairwise, product
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.assembly import Join, faces_of
from inlet.core.cancellation import check
from inlet.core.draft import DARK_TO, LIGHT_FROM, TOO_NEAR, lightness
from inlet.core.geometry import curve_length
from inlet.core.pressing.alike import Follows
from inlet.core.pressing.junctions import Arm, Crossing, Junction, ends_on
from inlet.core.pressing.outcomes import OPEN, WAYS, Outcome, outcome
from inlet.core.pressing.spans import PressedSeams, Span
from inlet.core.pressing.weights import Weights
from inlet.core.project import Fabric

MOST_SEAMS_AT = 7
"""Seams at one junction, those that follow one decision as one, that are weighed all together; of
more, only those that cross."""
NEVER = 10**12
"""What cannot be done costs this."""
FULL_CONTRAST = 50.0
"""L* apart from which a shadow counts in full."""
TO_DARK, ALTERNATE, ONE_WAY = 40, 20, 5
"""How ties fall, in thousandths of a point: to the dark, rows by turns, a row all one way."""
OUTWARD_KINDS = ("rounds", "ring", "square-in-square", "panel")


class CostTable(NamedTuple):
    """Costs over the ways some spans are pressed, or some decisions made: an axis for each of
    ``spans``, to its side 0, 1 or open. A ``tie`` costs nothing, but decides between equals."""

    spans: tuple[int, ...]
    costs: NDArray[np.int64]
    tie: bool = False


class PressedBlock(NamedTuple):
    """What costs are worked out of: the seams, the lightness (L*) of each patch (None without a
    fabric), the weights, for spans that go round a centre which side is the outer one, and how
    many times as much that weighs."""

    seams: PressedSeams
    lightness: tuple[float | None, ...]
    weights: Weights
    outward: dict[int, int]
    firm: int = 1


def lightness_of(seams: PressedSeams, fabrics: Iterable[Fabric]) -> tuple[float | None, ...]:
    """L* of each patch's fabric."""
    known = {f.id: lightness(f.colour) for f in fabrics}
    return tuple(known.get(patch.fabric or "") for patch in seams.draft.patches)


def all_tables(block: PressedBlock, follows: Sequence[Follows]) -> list[CostTable]:
    """Everything that pressing a version of a block costs, ties too, over the decisions that its
    spans follow."""
    tables = [table for s in range(len(block.seams.spans)) for table in along(block, s)]
    tables += _rows_by_turns(block.seams)
    cost_tables = over_decisions(tables, follows)
    for junction in block.seams.junctions:
        check()
        cost_tables += at_junction(block, junction, follows)
    return cost_tables


def over_decisions(tables: Iterable[CostTable], follows: Sequence[Follows]) -> list[CostTable]:
    """Tables over spans as tables over the decisions that the spans follow."""
    decisions = []
    for table in tables:
        follow = [follows[s] for s in table.spans]
        own = tuple(dict.fromkeys(f.decision for f in follow))
        ways = np.indices((WAYS,) * len(own)).reshape(len(own), -1)
        index = tuple(_turned(ways[own.index(f.decision)], f.contrary) for f in follow)
        decisions.append(CostTable(own, table.costs[index].reshape((WAYS,) * len(own)), table.tie))
    return decisions


# --- along a seam ---------------------------------------------------------------------------------


def along(block: PressedBlock, s: int) -> tuple[CostTable, CostTable]:
    """What a span costs pressed to its side 0, to its side 1, and open, apart from its ends; and
    the tie between its sides, to the dark."""
    w, span = block.weights, block.seams.spans[s]
    share = share_of_seam(span)
    costs = [round(share * w[name]) for name in ("closed", "closed", "open")]
    back, ties = folded_back(block.seams, span), [0, 0, 0]
    for side in (0, 1):
        shade, darker = shadow(block, span, side)
        costs[side] += round(share * w["shadow"] * shade)
        ties[side] = round(TO_DARK * max(0.0, -darker))
        costs[side] += w["folded-back"] * max(0, back[side] - back[1 - side]) // 2
        if block.outward.get(s) == 1 - side:
            costs[side] += round(share * w["inward"] * block.firm)
    waits = waiting_side(span)
    if waits is not None:
        costs[1 - waits] += w["against"]
    return CostTable((s,), np.array(costs)), CostTable((s,), np.array(ties), True)


def share_of_seam(span: Span) -> float:
    """How much of its seam's length a span is: the rest lies beyond centres that can be whirled."""
    share = whole = 0.0
    for join, begin, end, _ in span.pieces:
        lengths = [curve_length(curve) for curve in join.curves]
        share += sum(lengths[begin:end])
        leg = join.legs[join.leg_of(begin)]
        whole += sum(lengths[slice(*sorted((leg.begin, leg.end)))])
    return share / whole


def shadow(block: PressedBlock, span: Span, side: int) -> tuple[float, float]:
    """How much a seam pressed to a side shows through there, 0 to 1, and how much darker that side
    is than the other: shares of its length, weighed by how far apart the fabrics are."""
    shade = darker = whole = 0.0
    for join, begin, end, swapped in span.pieces:
        own_faces = faces_of(join.sides[side ^ swapped])
        for place in range(begin, end):
            edge = block.seams.draft.arrangement.edges[join.edges[place]]
            one, other = (
                (edge.right, edge.left) if edge.right in own_faces else (edge.left, edge.right)
            )
            length = curve_length(join.curves[place])
            whole += length
            above, below = block.lightness[one], block.lightness[other]
            if above is None or below is None:
                continue
            apart = min(1.0, max(-1.0, (above - below) / FULL_CONTRAST))
            darker -= apart * length
            shade += shown_through(above, below) * length
    return shade / whole, darker / whole


def shown_through(above: float, below: float) -> float:
    """How much of a fabric is seen through another on it, of 1: from their lightness (L*)."""
    if above - below < TOO_NEAR:
        return 0.0
    return min(1.0, (above - below) / FULL_CONTRAST) * _shows(above)


def _shows(level: float) -> float:
    """How well a fabric of that L* lets a darker one be seen: light fabric does, dark does not."""
    return min(1.0, max(0.0, (level - DARK_TO) / (LIGHT_FROM - DARK_TO)))


def folded_back(seams: PressedSeams, span: Span) -> tuple[int, int]:
    """Twice how many seams are folded back on themselves if a span is pressed to either side: those
    that end at it from there, the ones at its own ends half."""
    counts = [0, 0]
    for join, begin, end, swapped in span.pieces:
        for i in range(begin, end + 1):
            junction = seams.at.get(join.vertices[i])
            for arm in junction.arms if junction else ():
                if arm.join.number < join.number:
                    for side in (0, 1):
                        if arm.join.faces <= faces_of(join.sides[side]):
                            counts[side ^ swapped] += 1 if i in (begin, end) else 2
    return counts[0], counts[1]


def waiting_side(span: Span) -> int | None:
    """The side to which a partial seam must be pressed: away from the part that is sewn across its
    open end."""
    first = span.pieces[0].join
    for join, _, _, swapped in span.pieces[1:]:
        for side in (0, 1):
            if first.faces <= faces_of(join.sides[side]):
                return side ^ swapped
    return None


# --- at junctions ---------------------------------------------------------------------------------


def ways_of(
    seams: PressedSeams, arms: Iterable[Arm], follows: Sequence[Follows]
) -> tuple[tuple[int, ...], NDArray[np.int64]]:
    """The decisions that arms follow, and (ways, arms): how each arm is pressed in every way to
    make them."""
    follow = []
    for arm in arms:
        span, swapped = seams.of[arm.join.number, arm.place]
        follow.append(follows[span].other(swapped))
    own_ways = tuple(dict.fromkeys(follow.decision for follow in follow))
    ways = np.indices((WAYS,) * len(own_ways)).reshape(len(own_ways), -1)
    columns = [_turned(ways[own_ways.index(follow.decision)], follow.contrary) for follow in follow]
    return own_ways, np.stack(columns, axis=1)


def _turned(column: NDArray[np.int64], swapped: bool) -> NDArray[np.int64]:
    return np.where(column == OPEN, OPEN, 1 - column) if swapped else column


def at_junction(
    block: PressedBlock, junction: Junction, follows: Sequence[Follows]
) -> Iterator[CostTable]:
    """What the seams at a junction cost together, over the decisions they follow."""
    roots = {follows[block.seams.of[arm.join.number, arm.place][0]][0] for arm in junction.arms}
    if len(roots) <= MOST_SEAMS_AT:
        yield _weighed(block, junction, follows)
        return
    for crossing in junction.crossings:
        yield _weighed(block, only_crossing(junction, crossing), follows)


def _weighed(block: PressedBlock, junction: Junction, follows: Sequence[Follows]) -> CostTable:
    own_ways, values = ways_of(block.seams, junction.arms, follows)
    costs = cost_of(block, junction, outcome(junction, values))
    return CostTable(own_ways, costs.reshape((WAYS,) * len(own_ways)))


def only_crossing(junction: Junction, crossing: Crossing) -> Junction:
    """Of a junction of many seams, those that cross, and whether its centre is whirled."""
    spin = junction.spin
    is_own = spin is not None and crossing.later is spin.arms[0].join
    arms = [*crossing.ends, *(spin.arms if is_own and spin is not None else ())]
    seats = tuple(
        seat._replace(arms=crossing_arms)
        for seat in junction.seats
        if (crossing_arms := tuple(arm for arm in seat.arms if arm in arms))
    )
    return junction._replace(
        seats=seats, crossings=(crossing,), spin=spin if is_own else None, faces=()
    )


def cost_of(block: PressedBlock, junction: Junction, outcome_there: Outcome) -> NDArray[np.int64]:
    """(ways,): what each outcome at a junction costs."""
    w = block.weights
    costs = w["stacked"] * outcome_there.stacked + w["half-open"] * outcome_there.half_open
    costs = costs + w["both-open"] * outcome_there.both_open
    costs = costs + w["layer"] * np.maximum(0, outcome_there.layers - w["foot"])
    if junction.spin is not None:
        costs = costs + np.where(outcome_there.spun, w["whirl"], w["not-whirled"])
    return np.where(outcome_there.possible, costs, NEVER)


# --- ties -----------------------------------------------------------------------------------------


class _Met(NamedTuple):
    """An end met going along a later seam: on which of its sides, at which of its vertices, of
    which span, and which side of that lies ahead."""

    side: int
    place: int
    span: int
    ahead: int


def _rows_by_turns(seams: PressedSeams) -> Iterator[CostTable]:
    """Seams that end one after the other along a later one: from opposite sides they go opposite
    ways, where nothing weighs more; from one side, the same way."""
    for join in seams.joins:
        met = list(_ends_along(seams, join))
        for side in (0, 1):
            junctions = [end for end in met if end.side == side]
            yield from (_tie(a, b, True) for a, b in pairwise(junctions) if a.span != b.span)
        places = [list(junctions) for _, junctions in groupby(met, key=lambda end: end.place)]
        for here, next_ in pairwise(places):
            for a, b in product(here, next_):
                if a.side != b.side and a.span != b.span:
                    yield _tie(a, b, False)


def _ends_along(seams: PressedSeams, join: Join) -> Iterator[_Met]:
    for i, vertex in enumerate(join.vertices):
        junction = seams.at.get(vertex)
        for seat in junction.seats if junction else ():
            if seat.join is join:
                for end in ends_on(junction.seats, seat):  # type: ignore[union-attr]
                    span, swapped = seams.of[end.arm.join.number, end.arm.place]
                    yield _Met(end.side, i, span, end.ahead ^ swapped)


def _tie(junction: _Met, other_junction: _Met, same: bool) -> CostTable:
    costs = np.zeros((3, 3), int)
    for a, b in product((0, 1), repeat=2):
        if ((a == junction.ahead) == (b == other_junction.ahead)) != same:
            costs[a, b] = ONE_WAY if same else ALTERNATE
    return CostTable((junction.span, other_junction.span), costs, True)
