"""Where seams meet: their arms at a point, which of them cross, which centres can be whirled."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from math import atan2, pi, sin
from typing import NamedTuple

from inlet.core.assembly import Faces, Join, all_joins, faces_of
from inlet.core.cancellation import check
from inlet.core.draft import Draft
from inlet.core.geometry import Circle, Point
from inlet.core.pressing.cones import NEAR


class Arm(NamedTuple):
    """An edge of a seam, going out from a point where seams meet. ``place`` is its place among the
    edges of its join, ``angle`` the direction it leaves in (radians, clockwise on screen);
    ``clockwise`` and ``other`` are the patches on its two sides."""

    join: Join
    place: int
    angle: float
    clockwise: int
    other: int

    def side(self, clockwise: bool) -> int:
        """The side of its join that lies on its clockwise side, or on the other."""
        return int((self.clockwise if clockwise else self.other) in faces_of(self.join.sides[1]))


class Seat(NamedTuple):
    """A join where seams meet, and its arms there: two where it passes or ``turns`` a corner, one
    where it ends; ``whole`` if its stitches go on past the point to the raw edge."""

    join: Join
    arms: tuple[Arm, ...]
    turns: bool
    whole: bool


class Crossing(NamedTuple):
    """A ``later`` seam crosses the ends of two earlier ones, one on each of its sides; ``forward``
    are the sides of those that lie ahead, going along the later one."""

    later: Join
    ends: tuple[Arm, Arm]
    forward: tuple[int, int]


class Spin(NamedTuple):
    """A centre that can be whirled: the ends of the earlier seams, the two arms of the later one,
    and which of these each patch there lies beside."""

    ends: tuple[Arm, Arm]
    arms: tuple[Arm, Arm]
    beside: dict[int, Arm]


class Junction(NamedTuple):
    """A point where seams meet, finished lengths, ``inside`` the block or at its edge; its seats
    are in the order in which their seams are pressed."""

    vertex: int
    at: Point
    inside: bool
    faces: tuple[int, ...]
    seats: tuple[Seat, ...]
    crossings: tuple[Crossing, ...]
    spin: Spin | None

    @property
    def arms(self) -> Iterator[Arm]:
        return (arm for seat in self.seats for arm in seat.arms)


def pressing_order(last: Join) -> tuple[Join, ...]:
    """The joins in the order in which they are pressed: as they are sewn, a partial seam when it is
    finished."""
    after: dict[int, list[Join]] = defaultdict(list)
    joins = list(all_joins(last))
    for join in joins:
        finished = [end.finished_by for end in join.left_open]
        after[max(finished, default=join.number)].append(join)
    return tuple(
        each for join in joins for each in sorted(after[join.number], key=lambda j: -j.number)
    )


def find_junctions(draft: Draft, last: Join, points: Sequence[Point]) -> tuple[Junction, ...]:
    """Every point of a block where seams meet; ``points`` are its vertices at finished size."""
    arms: dict[int, list[Arm]] = defaultdict(list)
    order = pressing_order(last)
    for join in order:
        for place in range(len(join.edges)):
            for v, arm in arms_of(draft, join, place, points):
                arms[v].append(arm)
    rim = _rim(draft)
    junctions = []
    for v in sorted(arms):
        check()
        met_arms = arms[v]
        seats = tuple(_seats(v, met_arms))
        if len(met_arms) < 2 or (len(seats) == 1 and not seats[0].turns):
            continue
        faces = tuple(sorted({f for arm in met_arms for f in (arm.clockwise, arm.other)}))
        crossings = tuple(_crossings(seats))
        inside = v not in rim
        spin = _spin(seats, crossings) if inside else None
        junctions.append(Junction(v, points[v], inside, faces, seats, crossings, spin))
    return tuple(junctions)


def _rim(draft: Draft) -> set[int]:
    """The vertices on the block's edge."""
    edges = (e for e in draft.arrangement.edges if e.right < 0 or e.left < 0)
    return {v for e in edges for v in (e.start, e.end)}


def arms_of(
    draft: Draft, join: Join, place: int, points: Sequence[Point]
) -> Iterator[tuple[int, Arm]]:
    """An edge of a join as arms, going out from each of its two vertices."""
    edge = draft.arrangement.edges[join.edges[place]]
    centre = join.curves[place].centre
    round_ = isinstance(draft.arrangement.lines[edge.line], Circle)
    for v, w, cw, ccw in (
        (edge.start, edge.end, edge.right, edge.left),
        (edge.end, edge.start, edge.left, edge.right),
    ):
        x, y = points[w].minus(points[v]).floats()
        if round_ and centre is not None:
            u, t = points[v].minus(centre).floats()
            x, y = (-t, u) if x * -t + y * u > 0 else (t, -u)  # along the circle, not the chord
        yield v, Arm(join, place, atan2(y, x), cw, ccw)


def _seats(v: int, arms: Sequence[Arm]) -> Iterator[Seat]:
    of: dict[int, list[Arm]] = defaultdict(list)
    for arm in arms:
        of[arm.join.number].append(arm)
    for own_arms in of.values():
        join = own_arms[0].join
        stops = v in join.pivots or v in join.dots
        inner = len(own_arms) == 2 and own_arms[1].place - own_arms[0].place == 1
        turns = inner and not _opposite(*own_arms)
        if len(own_arms) == 1 or (inner and not turns):
            yield Seat(join, tuple(own_arms), False, inner or not stops)
        else:
            yield Seat(join, tuple(_as_sewn(join, own_arms)), True, not stops)


def _as_sewn(join: Join, arms: Sequence[Arm]) -> list[Arm]:
    """Arms of a join in the order in which its legs are sewn."""
    return sorted(arms, key=lambda arm: join.leg_of(arm.place))


def _opposite(arm: Arm, other_arm: Arm) -> bool:
    return abs(abs(arm.angle - other_arm.angle) - pi) < NEAR


class End(NamedTuple):
    """The last seam that ends at a point of a later one on one ``side`` of that: its arm, and the
    side of its own that lies ``ahead``, going along the later seam."""

    side: int
    arm: Arm
    ahead: int


def ends_on(seats: Sequence[Seat], later: Seat) -> tuple[End, ...]:
    """The ends that a later seam meets there, on one of its sides or on both."""
    if later.turns:
        return ()
    along = later.arms[-1].angle
    ends = []
    for side, part in enumerate(later.join.sides):
        arm = _end_within(faces_of(part), seats)
        if arm is None:
            continue
        lean = sin(along - arm.angle)
        if abs(lean) > NEAR:
            # Clockwise of an end lies ahead where turning that way from it leads along the seam.
            ends.append(End(side, arm, arm.side(lean > 0)))
    return tuple(ends)


def _crossings(seats: Sequence[Seat]) -> Iterator[Crossing]:
    for seat in seats:
        ends = ends_on(seats, seat)
        if len(ends) == 2:
            end, other_end = ends
            yield Crossing(seat.join, (end.arm, other_end.arm), (end.ahead, other_end.ahead))


def _end_within(side: Faces, seats: Sequence[Seat]) -> Arm | None:
    """The arm of the last seam sewn in a part that ends there."""
    open_seats = [seat for seat in seats if len(seat.arms) == 1 and seat.join.faces <= side]
    return max(open_seats, key=lambda seat: seat.join.number).arms[0] if open_seats else None


def _spin(seats: Sequence[Seat], crossings: Sequence[Crossing]) -> Spin | None:
    last = max(seats, key=lambda seat: seat.join.number)
    crossing = next((c for c in crossings if c.later is last.join), None)
    if crossing is None or len(last.arms) != 2 or last.turns or last.join.finishes:
        return None
    beside: dict[int, Arm] = {}
    for end in crossing.ends:
        for arm in last.arms:
            for face in (arm.clockwise, arm.other):
                for side in end.join.sides:
                    if face in faces_of(side):
                        beside.update(dict.fromkeys(faces_of(side), arm))
    return Spin(crossing.ends, (last.arms[0], last.arms[1]), beside)
