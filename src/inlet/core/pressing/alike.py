"""Equal parts press alike, wherever they stand and however they are turned.

Of equal parts of a block (some turn of one is the other, fabric for fabric, sewn of the same seams)
the first is decided; the others follow it. A part that looks the same when it is turned (a row of
one fabric) can be sewn in either way round, which is a choice of its own at each place. Where the
maker allows two versions, each place of a part takes one of them.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import permutations
from math import atan2, cos, hypot, sin
from typing import NamedTuple

from inlet.core.assembly import Join, faces_of
from inlet.core.cancellation import check
from inlet.core.geometry import (
    Alike,
    Curve,
    Motion,
    Picture,
    at_origin,
    canonical,
    corner_of,
    motion_between,
    sweep,
)
from inlet.core.numbers import Fraction
from inlet.core.pressing.spans import PressedSeams, Span
from inlet.core.units import picture_of


class Follows(NamedTuple):
    """What a seam follows: a decision, or the contrary of it (the other side; open stays open)."""

    decision: int
    contrary: bool

    def other(self, contrary: bool) -> Follows:
        return Follows(self.decision, self.contrary ^ contrary)


class VersionOption(NamedTuple):
    """One way to take a part at a place: its ``version``, and what each of the place's decisions
    follows then."""

    version: int
    follows: tuple[Follows, ...]


class VersionChoice(NamedTuple):
    """At a place of a part, ``decisions`` that follow one of several options, in their order.
    ``part`` numbers the part, ``sewn`` are the spans in one of it."""

    part: int
    sewn: tuple[int, ...]
    decisions: tuple[int, ...]
    options: tuple[VersionOption, ...]


class Decisions(NamedTuple):
    """How the spans of a block follow its decisions, ``number`` in all; those in ``choices`` follow
    others. ``versions`` are the spans in one block for each version of it."""

    number: int
    choices: tuple[VersionChoice, ...]
    versions: tuple[tuple[Follows, ...], ...]

    @property
    def free(self) -> tuple[int, ...]:
        """The decisions that follow no other."""
        bound = {d for choice in self.choices for d in choice.decisions}
        return tuple(d for d in range(self.number) if d not in bound)


def find_decisions(seams: PressedSeams, versions: int = 1, blocks: int = 1) -> Decisions:
    """The decisions of a block whose parts may be pressed in so many versions, in so many versions
    of the block."""
    return _Decider(seams, versions).decide(blocks)


Placed = dict[int, Follows]
"""What the spans of a part, each by its number, follow at one of its places."""


class _Kind(NamedTuple):
    """Equal parts: the join that makes the first, and for each turn in which that looks the same,
    which span comes to lie where another was (and whether their sides change places)."""

    first: Join
    turns: tuple[Mapping[int, tuple[int, bool]], ...]
    versions: list[Placed]


class _Decider:
    def __init__(self, seams: PressedSeams, versions: int) -> None:
        self.seams, self.allowed = seams, versions
        self.draft = seams.draft
        self.joins = sorted(seams.joins, key=lambda join: join.number)
        self.number = 0
        self.choices: list[VersionChoice] = []
        self.kinds: list[_Kind] = []
        self.kind_of: dict[int, int] = {}
        self.mapped: dict[int, Mapping[int, tuple[int, bool]]] = {}
        self.own: dict[int, list[int]] = {join.number: [] for join in self.joins}
        for s, span in enumerate(seams.spans):
            self.own[span.join.number].append(s)
        self.middles = Middles(seams)
        self.sewn = self._sewn_in()

    def _sewn_in(self) -> dict[int, tuple[int, ...]]:
        """The spans in the part that each join makes."""
        sewn_in: dict[int, tuple[int, ...]] = {}
        for join in self.joins:
            inner = [
                s for side in join.sides if isinstance(side, Join) for s in sewn_in[side.number]
            ]
            sewn_in[join.number] = (*inner, *self.own[join.number])
        return sewn_in

    def decide(self, blocks: int) -> Decisions:
        self._find_kinds()
        root = self.joins[-1]
        often = Counter(self.kind_of.values())
        # What is in a part is smaller than it.
        for kind in sorted(self.kinds, key=lambda kind: len(kind.first.faces)):
            check()
            join = kind.first
            inner = [side for side in join.sides if isinstance(side, Join)]
            kind.versions.append(self._made(join, map(self._first_or_placed, inner)))
            many = blocks > 1 or often[self.kind_of[join.number]] > 1
            for _ in range(1, blocks if join is root else self.allowed if many else 1):
                kind.versions.append(self._made(join, map(self._placed, inner)))
        whole = self.kinds[self.kind_of[root.number]].versions
        spans = range(len(self.seams.spans))
        follow = tuple(tuple(version[s] for s in spans) for version in whole)
        return Decisions(self.number, tuple(self.choices), follow)

    def _first_or_placed(self, join: Join) -> Placed:
        kind = self.kinds[self.kind_of[join.number]]
        return kind.versions[0] if kind.first is join else self._placed(join)

    def _placed(self, join: Join) -> Placed:
        still = {s: (s, False) for s in self.sewn[join.number]}
        return self._place(join, self.mapped.get(join.number, still))

    def _made(self, join: Join, inner: Iterable[Placed]) -> Placed:
        """A version of a part: its parts as they are placed in it, its own seams decided."""
        follow: Placed = {}
        for part in inner:
            follow.update(part)
        for s in self.own[join.number]:
            follow[s] = Follows(self._decision(), False)
        return follow

    def _decision(self) -> int:
        self.number += 1
        return self.number - 1

    def _place(self, join: Join, onto: Mapping[int, tuple[int, bool]]) -> Placed:
        """What a part's spans follow at a place; ``onto`` says where the first's come to lie."""
        kind, spans = self.kind_of[join.number], sorted(onto)
        options: list[VersionOption] = []
        for v, version in enumerate(self.kinds[kind].versions):
            for turn in self.kinds[kind].turns:
                follows = []
                for s in spans:
                    source, swapped = turn[s]
                    follows.append(version[source].other(swapped))
                option = VersionOption(v, tuple(follows))
                if all(option.follows != other_option.follows for other_option in options):
                    options.append(option)
        if len(options) == 1:
            follow: Sequence[Follows] = options[0].follows
        else:
            decisions = tuple(self._decision() for _ in spans)
            self.choices.append(VersionChoice(kind, tuple(spans), decisions, tuple(options)))
            follow = [Follows(d, False) for d in decisions]
        return {
            onto[s][0]: follows.other(onto[s][1]) for s, follows in zip(spans, follow, strict=True)
        }

    # --- what is equal ----------------------------------------------------------------------------

    def _find_kinds(self) -> None:
        """The kind of part that joins make, from the whole block down. A part that follows another
        whole is not looked into: what is in it follows as well."""
        alike = Alike()
        firsts: dict[int, list[tuple[int, Motion]]] = {}
        looked_at = {self.joins[-1].number}
        for join in reversed(self.joins):
            if join.number not in looked_at:
                continue
            check()
            picture = picture_of(self.draft, join.faces)
            group, motion = alike.add(picture)
            for kind, before in firsts.get(group, ()):
                first = self.kinds[kind].first
                onto = self.middles.onto(self.sewn[first.number], _after(motion, before))
                if onto is not None:
                    self.kind_of[join.number], self.mapped[join.number] = kind, onto
                    break
            else:
                self.kind_of[join.number] = len(self.kinds)
                firsts.setdefault(group, []).append((len(self.kinds), motion))
                self.kinds.append(_Kind(join, tuple(self._turns(join, picture)), []))
                looked_at |= {side.number for side in join.sides if isinstance(side, Join)}

    def _turns(self, join: Join, picture: Picture) -> Iterator[Mapping[int, tuple[int, bool]]]:
        """The turns in which a part looks the same, as it lies first: for each span, the one that
        comes to lie there."""
        still = {s: (s, False) for s in self.sewn[join.number]}
        yield still
        for motion in turns_of(picture):
            onto = self.middles.onto(self.sewn[join.number], motion)
            if onto is not None:
                yield {there: (s, swapped) for s, (there, swapped) in onto.items()}


def turns_of(picture: Picture) -> Iterator[Motion]:
    """The turns by quarters, but for none at all, that lay a picture on itself."""
    if len(picture) >= MOST_TURNED:
        return
    wanted = canonical(at_origin(picture))
    for cos_, sin_ in ((-1, 0), (0, 1), (0, -1)):
        turn = Motion(Fraction(cos_), Fraction(sin_))
        turned = turn.picture(picture)
        if canonical(at_origin(turned)) == wanted:
            yield turn.then_move(corner_of(picture).minus(corner_of(turned)))


def motions_between(one: Picture, other: Picture) -> Iterator[Motion]:
    """Motions that lay a picture on another: one, and those after a turn by quarters."""
    first = motion_between(one, other)
    if first is not None:
        yield first
        for turn in turns_of(one):
            moved = first(turn.by)
            yield Motion(
                first.cos * turn.cos - first.sin * turn.sin,
                first.sin * turn.cos + first.cos * turn.sin,
                moved,
            )


MOST_TURNED = 400
"""Patches of a part that is turned to see whether it looks the same."""


def _after(second: Motion, first: Motion) -> Motion:
    """The motion that undoes ``first``, then does ``second``."""
    back_cos, back_sin = first.cos, -first.sin
    c = second.cos * back_cos - second.sin * back_sin
    s = second.sin * back_cos + second.cos * back_sin
    turn = Motion(c, s)
    moved = turn(first.by)
    return turn.then_move(second.by.minus(moved))


class _Middle(NamedTuple):
    """The middle of an edge of a span, the direction the seam runs in there, and whether the span's
    first side lies on the right hand then."""

    x: float
    y: float
    step: tuple[float, float]
    right: bool


class Middles:
    """The middles of a block's seams, edge by edge, to find which comes to lie on which."""

    def __init__(self, seams: PressedSeams) -> None:
        self.of_span = [tuple(_middles(seams, span)) for span in seams.spans]
        self.found = {
            _key(middle.x, middle.y): (s, middle)
            for s, middles in enumerate(self.of_span)
            for middle in middles
        }
        self.sewn = [span.join.number for span in seams.spans]
        self.meets: dict[int, set[int]] = {}
        for junction in seams.junctions:
            met = {seams.of[arm.join.number, arm.place][0] for arm in junction.arms}
            for one, other in permutations(met, 2):
                early, late = seams.spans[one].join, seams.spans[other].join
                if early.faces < late.faces:
                    self.meets.setdefault(other, set()).add(one)

    def onto(
        self, spans: Sequence[int], motion: Motion, mirror: bool = False
    ) -> Mapping[int, tuple[int, bool]] | None:
        """Where a motion (after a mirror, left to right) brings spans, and whether their sides
        change places; None where there is no seam, or seams that meet are sewn in another order."""
        c, s = float(motion.cos), float(motion.sin)
        bx, by = motion.by.floats()
        renumbered: dict[int, tuple[int, bool]] = {}
        for span in spans:
            for middle in self.of_span[span]:
                x, y, (dx, dy) = middle.x, middle.y, middle.step
                if mirror:
                    x, dx = -x, -dx
                there, other_middle = self.found.get(
                    _key(c * x - s * y + bx, s * x + c * y + by), (-1, middle)
                )
                if there < 0:
                    return None
                ex, ey = other_middle.step
                against = (c * dx - s * dy) * ex + (s * dx + c * dy) * ey < 0
                turned = there, (middle.right != other_middle.right) ^ against ^ mirror
                if renumbered.setdefault(span, turned) != turned:
                    return None
        if len({there for there, _ in renumbered.values()}) < len(renumbered):
            return None
        in_order = all(
            self.sewn[renumbered[early][0]] < self.sewn[renumbered[late][0]]
            for late in spans
            for early in self.meets.get(late, ())
            if early in renumbered
        )
        return renumbered if in_order else None


def _middles(seams: PressedSeams, span: Span) -> Iterator[_Middle]:
    edges = seams.draft.arrangement.edges
    for join, begin, end, swapped in span.pieces:
        first = faces_of(join.sides[0])
        for place in range(begin, end):
            edge, curve = edges[join.edges[place]], join.curves[place]
            right = edge.right if edge.start == join.vertices[place] else edge.left
            step = curve.end.minus(curve.start).floats()
            yield _Middle(*middle_of(curve), step, (right in first) ^ swapped)


def _key(x: float, y: float) -> tuple[int, int]:
    return round(x * 1e5), round(y * 1e5)


def middle_of(curve: Curve) -> tuple[float, float]:
    """The middle of an edge of a seam, along it."""
    (x0, y0), (x1, y1) = curve.start.floats(), curve.end.floats()
    if curve.centre is None:
        return (x0 + x1) / 2, (y0 + y1) / 2
    cx, cy = curve.centre.floats()
    angle = atan2(y0 - cy, x0 - cx) + sweep(curve) / 2
    far = hypot(x0 - cx, y0 - cy)
    return cx + far * cos(angle), cy + far * sin(angle)
