"""Units that come out in both hands, and settings that use both.

A method may give m units and k mirror images a run. With a blocks as drawn and b mirrored, each
with c of the unit, it takes the larger of ac/m and bc/k runs, rounded up; what is over of each hand
is what those give less what is used.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.plan.quilt import QuiltPlan
from inlet.core.plan.shared_units import QuiltBlock
from inlet.core.planning import UnitPlan
from inlet.core.project import Quilt, replace
from inlet.core.setting import Placed, mirrored_at, placed, row_lengths


class BothHands(NamedTuple):
    """A setting that uses both hands of a block's unit: in ``words``, the ``quilt`` so, and what is
    ``over`` of the unit as drawn and of its mirror image; ``now`` is what is over as it is set."""

    block: str
    unit: str
    words: str
    quilt: Quilt
    over: tuple[int, int]
    now: tuple[int, int]


def both_hands(plan: QuiltPlan) -> tuple[BothHands, ...]:
    """For every block with a unit whose mirror images are left over: settings that leave fewer,
    the best first."""
    hands = []
    for block in plan.blocks:
        for unit in block.plan.units:
            if unit.in_use.mirrored_over and not unit.need.mirrored and unit.unit.tiles:
                hands += list(_for_unit(plan.quilt, block, unit, plan.top.square))
    return tuple(sorted(hands, key=lambda found: sum(found.over)))


def over_of(unit: UnitPlan, drawn: int, mirrored: int, each: int) -> tuple[int, int]:
    """What is over of a unit and of its mirror image, with so many blocks of both, each with so
    many of it."""
    method = unit.in_use.method
    runs = max(-(-drawn * each // method.makes), -(-mirrored * each // method.mirrored))
    return runs * method.makes - drawn * each, runs * method.mirrored - mirrored * each


def _for_unit(quilt: Quilt, block: QuiltBlock, unit: UnitPlan, square: bool) -> Iterator[BothHands]:
    each = len(unit.unit.places)
    now = over_of(unit, block.number, 0, each)
    for words, other_quilt in _settings(quilt, square):
        places = [p for p in placed(other_quilt, square) if p.block == block.block.id]
        mirrored = sum(p.mirror for p in places)
        over = over_of(unit, len(places) - mirrored, mirrored, each)
        if mirrored and sum(over) < sum(now):
            yield BothHands(block.name, unit.unit.label, words, other_quilt, over, now)


def _settings(quilt: Quilt, square: bool) -> Iterator[tuple[str, Quilt]]:
    """Every other column mirrored; the ring at the edge mirrored."""
    yield "in mirror pairs", replace(quilt, turning="mirror-pairs", places=())
    plain = replace(quilt, places=())
    lengths = row_lengths(plain)
    ring = [
        (p.column, p.row)
        for p in placed(plain, square)
        if _at_edge(p, lengths) and p.block == quilt.block
    ]
    yield "mirrored in the outer ring", mirrored_at(plain, ring, square)


def _at_edge(place: Placed, lengths: list[int]) -> bool:
    return place.row in (0, len(lengths) - 1) or place.column in (0, lengths[place.row] - 1)


def hands_text(hands: BothHands) -> str:
    """One proposal in words."""
    one, other = hands.over
    return (
        f"{hands.block} {hands.unit} comes out in both hands, {sum(hands.now)} left over now; "
        f"{hands.words} {one} and {other} would be left"
    )


def hands_lines(plan: QuiltPlan) -> list[str]:
    return [f"{hands_text(found)}." for found in both_hands(plan)]
