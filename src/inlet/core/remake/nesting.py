"""Seams that a cut goes through lie as they were pressed: where two of them meet again at a new
seam they nest, or stack. Which pieces are pressed again so that they nest.

A seam inside a slice is pressed one way as a whole. Two that meet nest if they lie opposite ways
along the new seam; so what is pressed again follows, from seam to seam, once one of them is chosen:
of its two ways the one with fewer seams to press again is taken. Where seams follow one another in
a circle that cannot be, some stay as they are.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.assembly import faces_of
from inlet.core.geometry import EIGHTH_TURN, Point, cross
from inlet.core.numbers import HALF_ROOT2, Exact
from inlet.core.pressing import PressingPlan, State, Stretch
from inlet.core.remake.follow import Remade
from inlet.core.remake.set_again import at_sides, places_of

WORST: tuple[State, ...] = ("nests", "open", "mixed", "stacks")
"""What may come of seams that meet, the worst last."""
SeamInPiece = tuple[int, int]
"""A seam inside a slice: its place, and which stretch of the start block's seams it is."""


class SliceJunction(NamedTuple):
    """Two old seams that meet at a new one: where, in the new block, and how they lie."""

    at: Point
    state: State


class Nesting(NamedTuple):
    """What comes of the junctions at the new seams, and the seams to press again so that as many as
    can be nest: by their place, and how many junctions are left that do not."""

    junctions: tuple[SliceJunction, ...]
    press_again: tuple[int, ...]
    left: int


class _SeamEnd(NamedTuple):
    """A seam that ends at a side of a place: how far along it, and which way along it the seam's
    allowances lie, 1 or -1; 0 where they are open; the seam ``runs`` so, as its piece lies."""

    seam: SeamInPiece
    along: Exact
    way: int
    runs: Point


def nesting(how: Remade, pressing: PressingPlan) -> Nesting:
    """How the seams of slices meet at the new seams, as the start block is pressed."""
    number = {(s.column, s.row): i for i, s in enumerate(how.slices)}
    junctions: list[SliceJunction] = []
    met: list[tuple[_SeamEnd, _SeamEnd]] = []
    corners, at_side = places_of(how.slices), _SideEnds(how, pressing)
    for i, place in enumerate(how.slices):
        (left, top), (wide, high) = corners[i], place.size
        for side, right, below in ((1, 1, 0), (2, 0, 1)):
            beside = number.get((place.column + right, place.row + below))
            if beside is None:
                continue
            ends, others = list(at_side.of(i, side)), list(at_side.of(beside, side + 2))
            for along in dict.fromkeys(end.along for end in ends):
                pairs = _pairs(ends, others, along)
                if not pairs:
                    continue
                at = (
                    Point(left + wide, top + high / 2 + along)
                    if right
                    else Point(left + wide / 2 + along, top + high)
                )
                if how.on_point and any(line.side(at) <= 0 for line in how.on_point.lines):
                    continue  # it is trimmed away
                states = [_state(*pair) for pair in pairs]
                junctions.append(SliceJunction(at, max(states, key=WORST.index)))
                met += pairs
    again, left_over = _pressed_again([pair for pair in met if pair[0].way and pair[1].way])
    return Nesting(tuple(junctions), again, left_over)


def nesting_text(result: Nesting, how: Remade) -> str:
    """How many junctions at the new seams nest, and which pieces to press again; nothing where no
    old seams meet there."""
    number = len(result.junctions)
    if not number:
        return ""
    nests = sum(each.state == "nests" for each in result.junctions)
    junctions = "junction" if number == 1 else "junctions"
    text = f"{nests} of {number} {junctions} at the new seams nest as the start block is pressed."
    if result.press_again:
        labels = [how.slices[how.laid[place].piece].label for place in result.press_again]
        noun = "piece" if len(labels) == 1 else "pieces"
        then = "then all nest" if not result.left else f"then all but {result.left} nest"
        text += f" Press the seams in {noun} {', '.join(labels)} the other way: {then}."
    return text


def _pairs(
    ends: Sequence[_SeamEnd], others: Sequence[_SeamEnd], along: Exact
) -> list[tuple[_SeamEnd, _SeamEnd]]:
    """The seams that meet at a place of a new seam: those that go straight on over it, or, where
    none does, each with each."""
    here = [(a, b) for a in ends for b in others if a.along == along == b.along]
    return [(a, b) for a, b in here if cross(a.runs, b.runs) == 0] or here


def _state(end: _SeamEnd, other: _SeamEnd) -> State:
    if end.way == 0 or other.way == 0:
        return "open" if end.way == other.way else "mixed"
    return "nests" if end.way == -other.way else "stacks"


class _SideEnds:
    """The straight seams that end at the sides of places, those of each slice looked for once."""

    def __init__(self, how: Remade, pressing: PressingPlan) -> None:
        self.how = how
        self.straight = [
            (number, _lying(how, stretch.ends), _turned(how, _toward(pressing, stretch)))
            for number, stretch in enumerate(pressing.stretches)
            if stretch.join.curves[stretch.begin].centre is None
        ]
        self._known: dict[int, list[tuple[int, int, Exact, Point, Point]]] = {}

    def of(self, place: int, side: int) -> Iterator[_SeamEnd]:
        """The seams that end at a side of a place, as its piece lies; from the top clockwise."""
        laid = self.how.laid[place]
        here = (side - laid.quarters) % 4  # the side before it was turned
        same = (here in (0, 1)) == (side % 4 in (0, 1))
        for number, at, along, toward, runs in self._ends(laid.piece):
            if at != here:
                continue
            for _ in range(laid.quarters % 4):
                toward, runs = Point(-toward.y, toward.x), Point(-runs.y, runs.x)
            component = toward.y if side % 2 else toward.x
            way = 0 if component == 0 else 1 if component > 0 else -1
            yield _SeamEnd((place, number), along if same else -along, way, runs)

    def _ends(self, piece: int) -> list[tuple[int, int, Exact, Point, Point]]:
        if piece not in self._known:
            self._known[piece] = [
                (number, side, along, toward, q.minus(p))
                for number, (p, q), toward in self.straight
                for side, along in at_sides(p, q, self.how.slices[piece].kept).items()
            ]
        return self._known[piece]


def _lying(how: Remade, ends: tuple[Point, Point]) -> tuple[Point, Point]:
    """The ends of a seam of the start block as it lies to be cut."""
    if how.on_point is None:
        return ends
    wide = how.starts[0].block.finished[0]
    side = wide * HALF_ROOT2
    middle, to = Point(side / 2, side / 2), Point(wide / 2, wide / 2)
    p, q = (EIGHTH_TURN(end.minus(middle)).plus(to) for end in ends)
    return p, q


def _turned(how: Remade, step: Point) -> Point:
    """A step in the start block as it lies to be cut."""
    return step if how.on_point is None else EIGHTH_TURN(step)


def _toward(pressing: PressingPlan, stretch: Stretch) -> Point:
    """A step from a seam to where its allowances lie, square to it; none where they are open."""
    p, q = stretch.ends
    x, y = p.y - q.y, q.x - p.x  # to the right of a walk from p to q
    if stretch.toward is None:
        return Point(x - x, y - y)
    edge = pressing.seams.draft.arrangement.edges[stretch.join.edges[stretch.begin]]
    first = faces_of(stretch.join.sides[0])
    walks = stretch.join.vertices[stretch.begin] == edge.start
    right_is_first = (edge.right in first) == walks
    to_first = stretch.toward == stretch.beside[0]
    return Point(x, y) if right_is_first == to_first else Point(-x, -y)


def _pressed_again(met: list[tuple[_SeamEnd, _SeamEnd]]) -> tuple[tuple[int, ...], int]:
    """The places with a seam to press again, and how many junctions do not nest even then."""
    beside: dict[SeamInPiece, list[tuple[SeamInPiece, bool]]] = {}
    for end, other in met:
        differ = end.way == other.way  # just one of them is turned over
        beside.setdefault(end.seam, []).append((other.seam, differ))
        beside.setdefault(other.seam, []).append((end.seam, differ))
    again: set[int] = set()
    wrong = 0
    done: set[SeamInPiece] = set()
    for seam in beside:
        if seam in done:
            continue
        turned, waiting = {seam: False}, [seam]
        for here in waiting:
            for there, differ in beside[here]:
                if there not in turned:
                    turned[there] = turned[here] != differ
                    waiting.append(there)
        done |= set(turned)
        wrong += sum(
            (turned[here] != turned[there]) != differ
            for here in turned
            for there, differ in beside[here]
        )
        over = [each for each, flip in turned.items() if flip]
        if 2 * len(over) > len(turned):
            over = [each for each, flip in turned.items() if not flip]
        again |= {place for place, _ in over}
    return tuple(sorted(again)), wrong // 2
