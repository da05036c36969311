"""What comes of pressing the seams at a junction one way or another: its state and its layers."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from inlet.core.assembly import faces_of
from inlet.core.memo import memo
from inlet.core.pressing.cones import (
    SHEET,
    TURN,
    Cone,
    Crease,
    crease,
    folded_back,
    layers_in,
    sectors,
)
from inlet.core.pressing.junctions import Arm, Crossing, Junction, Seat

State = Literal["nests", "stacks", "open", "mixed", "whirled", "tee"]
OPEN = 2
"""A seam's value where it is pressed open; else it is the side of its join it is pressed to."""

WAYS = 3

Values = NDArray[np.int64]
"""(ways, arms): how each arm of a junction is pressed, in the order of its seats."""


class Outcome(NamedTuple):
    """What comes of each way: whether it can be done; how many crossings stack, have one seam open,
    have both; whether the centre is whirled; the most layers that lie on one another."""

    possible: NDArray[np.bool_]
    stacked: NDArray[np.int64]
    half_open: NDArray[np.int64]
    both_open: NDArray[np.int64]
    spun: NDArray[np.bool_]
    layers: NDArray[np.int64]

    def state(self, way: int, crossed: bool) -> State:
        """In a word; where more than one pair of seams cross, the worst of them."""
        if self.spun[way]:
            return "whirled"
        if not crossed:
            return "tee"
        if self.stacked[way]:
            return "stacks"
        if self.half_open[way]:
            return "mixed"
        return "open" if self.both_open[way] else "nests"


def outcome(junction: Junction, values: Values) -> Outcome:
    """What comes of every way to press the arms of a junction."""
    arms = list(junction.arms)
    column = {(arm.join.number, arm.place): i for i, arm in enumerate(arms)}

    def of(arm: Arm) -> NDArray[np.int64]:
        return values[:, column[arm.join.number, arm.place]]

    possible, spun = _spun(junction, values, of)
    counts = np.zeros((3, len(values)), int)
    for crossing in junction.crossings:
        counts += _crossed(crossing, of)
    layers = _layers(junction, values, column)
    return Outcome(possible, counts[0], counts[1], counts[2], spun, layers)


def _crossed(crossing: Crossing, of: object) -> NDArray[np.int64]:
    """(3, ways): stacked, one open, both open."""
    one, other = (of(arm) for arm in crossing.ends)  # type: ignore[operator]
    opened = (one == OPEN).astype(int) + (other == OPEN)
    ahead = (one == crossing.forward[0]) == (other == crossing.forward[1])
    return np.array([(opened == 0) & ahead, opened == 1, opened == 2]).astype(int)


def _spun(
    junction: Junction, values: Values, of: object
) -> tuple[NDArray[np.bool_], NDArray[np.bool_]]:
    """Which ways can be done, and which of them whirl the centre: the later seam changes sides
    there, all four seams turned the same way round."""
    none = np.zeros(len(values), bool)
    if junction.spin is None:
        return ~none, none
    before, after = (of(arm) for arm in junction.spin.arms)  # type: ignore[operator]
    changes = before != after
    round_ = none
    for clockwise in (True, False):
        turned = ~none
        for arm in (*junction.spin.ends, *junction.spin.arms):
            turned &= of(arm) == arm.side(clockwise)  # type: ignore[operator]
        round_ |= turned
    return ~changes | round_, changes & round_


class _Sheet(NamedTuple):
    """A patch near a junction: the cone in which it shows, which is never folded, and the creases
    it is given, each with the arm that decides it and the side of that arm's join on which the
    patch lies."""

    shows: tuple[Cone, ...]
    creases: tuple[tuple[int, int, Crease], ...]


def _layers(
    junction: Junction, values: Values, column: dict[tuple[int, int], int]
) -> NDArray[np.int64]:
    """(ways,): the most layers near the junction."""
    sheets = [_sheet(junction, face, column) for face in junction.faces]
    folded = [_folded(sheet.shows, tuple(c for _, _, c in sheet.creases)) for sheet in sheets]
    directions = sectors(cones for ways in folded for cones in ways)
    total = np.zeros((len(values), len(directions)), int)
    for sheet, ways in zip(sheets, folded, strict=True):
        covered = np.array([layers_in(cones, directions) for cones in ways])
        pattern = np.zeros(len(values), int)
        for bit, (arm, side, _) in enumerate(sheet.creases):
            back = (values[:, arm] == side) | (values[:, arm] == OPEN)
            pattern |= back.astype(int) << bit
        total += covered[pattern]
    most: NDArray[np.int64] = total.max(axis=1)
    return most


def _sheet(junction: Junction, face: int, column: dict[tuple[int, int], int]) -> _Sheet:
    creases = []
    for seat in junction.seats:
        if face not in seat.join.faces:
            continue
        side = int(face in faces_of(seat.join.sides[1]))
        for arm in _arms_for(junction, seat, face):
            along = crease(arm.angle, arm.side(True) == side, seat.whole)
            creases.append((column[arm.join.number, arm.place], side, _rounded(along)))
    turning = any(seat.turns for seat in junction.seats)
    return _Sheet(_shows(junction, face) if turning else (), tuple(creases))


def _shows(junction: Junction, face: int) -> tuple[Cone, ...]:
    """The directions in which a patch lies, where it lies between two arms."""
    begins = [arm.angle for arm in junction.arms if arm.clockwise == face]
    ends = [arm.angle for arm in junction.arms if arm.other == face]
    if len(begins) != 1 or len(ends) != 1:
        return ()
    begin = round(begins[0], 9)
    return ((begin, begin + round((ends[0] - begins[0]) % TURN, 9)),)


def _arms_for(junction: Junction, seat: Seat, face: int) -> Sequence[Arm]:
    """The arms of a seam by which a patch is folded: where it turns, those the patch lies along;
    where a centre can be whirled, the one it lies beside."""
    if seat.turns:
        return [arm for arm in seat.arms if face in (arm.clockwise, arm.other)]
    spin = junction.spin
    if spin is not None and seat.arms[0] in spin.arms and face in spin.beside:
        return (spin.beside[face],)
    return seat.arms[:1]


def _rounded(along: Crease) -> Crease:
    """Angles of equal junctions as equal numbers."""
    return Crease(round(along.at, 9), (round(along.beyond[0], 9), round(along.beyond[1], 9)))


@memo(4096)
def _folded(shows: tuple[Cone, ...], creases: tuple[Crease, ...]) -> tuple[tuple[Cone, ...], ...]:
    """A sheet's cones for every choice of creases along which it is folded back, by the bits of the
    choice."""
    rest: tuple[Cone, ...] = tuple((end, begin + TURN) for begin, end in shows) or SHEET
    folded: list[tuple[Cone, ...]] = []
    for pattern in range(1 << len(creases)):
        cones = rest
        for bit, along in enumerate(creases):
            if pattern >> bit & 1:
                cones = folded_back(cones, along)
        folded.append((*shows, *cones))
    return tuple(folded)
