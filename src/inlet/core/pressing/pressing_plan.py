"""A block pressed: which way every seam goes, what comes of it where seams meet, what it costs."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import NamedTuple

import numpy as np

from inlet.core.assembly import Faces, Join
from inlet.core.geometry import Point, curve_length
from inlet.core.numbers import Exact
from inlet.core.pressing.alike import Decisions, Middles, middle_of, motions_between
from inlet.core.pressing.costs import PressedBlock, over_decisions
from inlet.core.pressing.folding import Layer, folded, without_slivers
from inlet.core.pressing.holding import PIN, Pinned, held
from inlet.core.pressing.junctions import Arm, Junction
from inlet.core.pressing.neighbours import EdgeEnd, Grid, Meeting
from inlet.core.pressing.outcomes import OPEN, State, outcome
from inlet.core.pressing.program import WORK, PressingAnswer, Program, cost_of_answer
from inlet.core.pressing.solver import solve
from inlet.core.pressing.spans import PressedSeams, Toward
from inlet.core.project import PressingMethod
from inlet.core.units import Part, picture_of

FLIP_WORK = WORK // 4
"""How much work goes into what a flip costs, see ``solve``."""


class Stretch(NamedTuple):
    """A seam from one junction to the next: edges ``begin`` up to ``end`` of a join, of ``span``,
    pressed ``toward`` the patch that lies beside its middle on that side; None where it is open."""

    join: Join
    begin: int
    end: int
    span: int
    toward: int | None
    beside: tuple[int, int]
    """The patches at its middle, on the first and on the second side of its join."""

    @property
    def ends(self) -> tuple[Point, Point]:
        points = self.join.points
        return points[self.begin], points[self.end]


class Met(NamedTuple):
    """What came of a junction."""

    junction: Junction
    state: State
    layers: int

    @property
    def counts(self) -> bool:
        """Does it nest or not, or is it only a T?"""
        return self.state != "tee"

    @property
    def good(self) -> bool:
        return self.state in ("nests", "whirled")


class AtEdge(NamedTuple):
    """What came of a seam that reaches the block's edge: the patch it is pressed toward there (None
    where it is open), and how it meets its neighbours', in the worst place; ``tee`` where nothing
    meets it."""

    end: EdgeEnd
    toward: int | None
    state: State


@dataclass(frozen=True, eq=False)
class PressingPlan:
    """How a block is pressed, in one version or in two that lie by turns.

    ``root`` is the block broken down; ``versions`` say for each span which side it is pressed to.
    Spans in ``again`` came pressed the other way out of a run that makes units of both hands.
    ``cost`` is in thousandths of a point for one block, ``gap`` how far from the least it may be.
    ``meetings`` are with neighbours as they lie in the ``grid``, which is the ``setting`` in words.
    In it every other block is ``turned`` by so many quarters, as it looks the same so and nests.
    """

    block: PressedBlock
    root: Part
    method: PressingMethod
    decisions: Decisions
    program: Program
    answer: PressingAnswer
    versions: tuple[tuple[Toward, ...], ...]
    pins: tuple[Pinned, ...]
    again: frozenset[int]
    ends: tuple[EdgeEnd, ...]
    meetings: tuple[Meeting, ...]
    grid: Grid
    setting: str
    cost: int
    gap: int
    seam: Exact
    turned: int = 0

    @property
    def seams(self) -> PressedSeams:
        return self.block.seams

    @cached_property
    def stretches(self) -> tuple[Stretch, ...]:
        """The seams of the block, from junction to junction, in the first version."""
        return self.stretches_of(0)

    def stretches_of(self, version: int) -> tuple[Stretch, ...]:
        """The same in a version."""
        return tuple(_stretches(self.seams, self.versions[version]))

    @cached_property
    def junctions(self) -> tuple[Met, ...]:
        """Every junction, with what came of it in the first version."""
        return self.junctions_of(0)

    def junctions_of(self, version: int) -> tuple[Met, ...]:
        """Every junction of a version: its state is that of the seams that cross there."""
        return tuple(met(self.seams, self.versions[version], j) for j in self.seams.junctions)

    @cached_property
    def second(self) -> PressingPlan:
        """The second version, as if it were the only one."""
        return replace(self, versions=self.versions[1:2], pins=(), meetings=())

    @cached_property
    def touching(self) -> Mapping[int, tuple[Junction, ...]]:
        """The junctions at which each span has an arm."""
        touched: dict[int, list[Junction]] = {}
        for junction in self.seams.junctions:
            for s in {self.seams.of[arm.join.number, arm.place][0] for arm in junction.arms}:
                touched.setdefault(s, []).append(junction)
        return {s: tuple(junctions) for s, junctions in touched.items()}

    @cached_property
    def known_reasons(self) -> dict[tuple[int, Toward], str]:
        """Why seams go the way they do, as far as it was asked for: by join and way."""
        return {}

    @cached_property
    def known_outcomes(self) -> dict[tuple[int, ...], tuple[int, int]]:
        """What crossings cost, and layers, as far as it was asked for: by vertex and ways."""
        return {}

    @cached_property
    def of_join(self) -> Mapping[int, tuple[Stretch, ...]]:
        """The stretches of each join, by its number."""
        in_join: dict[int, list[Stretch]] = {}
        for stretch in self.stretches:
            in_join.setdefault(stretch.join.number, []).append(stretch)
        return {number: tuple(stretches) for number, stretches in in_join.items()}

    @cached_property
    def _middles(self) -> Middles:
        return Middles(self.seams)

    def alike(self, one: Faces, other: Faces) -> bool:
        """Are two equal parts pressed alike, in some turn in which they look the same?"""
        ways, draft = self.versions[0], self.seams.draft
        spans = [s for s, span in enumerate(self.seams.spans) if span.join.faces <= one]
        for motion in motions_between(picture_of(draft, one), picture_of(draft, other)):
            onto = self._middles.onto(spans, motion)
            if onto is not None and all(
                ways[there] == (1 - way if swapped and way is not None else way)
                for s, (there, swapped) in onto.items()
                for way in [ways[s]]
            ):
                return True
        return False

    @property
    def of_each(self) -> tuple[int, ...]:
        """How many blocks of the grid are pressed in each version."""
        counts = Counter(lying.version for lying in self.grid.values())
        return tuple(counts[v] for v in range(len(self.versions)))

    @property
    def nests_beside(self) -> bool:
        """Does every seam at the edge nest with the block beside, where one meets it?"""
        return all(at_edge.state in ("tee", "nests") for at_edge in self.edges)

    @property
    def nesting(self) -> tuple[int, int]:
        """How many junctions nest (or are whirled), of all where seams cross."""
        counted = [junction for junction in self.junctions if junction.counts]
        return sum(junction.good for junction in counted), len(counted)

    @cached_property
    def edges(self) -> tuple[AtEdge, ...]:
        return tuple(_at_edges(self))

    @cached_property
    def layers(self) -> tuple[Layer, ...]:
        """The allowances behind the block, folded, in the first version, without slivers."""
        return self.layers_of(0)

    def layers_of(self, version: int) -> tuple[Layer, ...]:
        there = folded(self.seams, self.seam, self.versions[version])
        return without_slivers(self.seams.draft, there, self.seam)

    @cached_property
    def spun(self) -> frozenset[int]:
        """The vertices of centres that are whirled."""
        return frozenset(m.junction.vertex for m in self.junctions if m.state == "whirled")

    def at_vertex(self, vertex: int) -> Met:
        """The junction at a vertex."""
        return next(junction for junction in self.junctions if junction.junction.vertex == vertex)

    def pinned(self, span: int) -> bool:
        return any(pin.span == span for pin in self.pins)

    def toward(self, join: Join, place: int = 0, version: int = 0) -> Toward:
        """Which side of a join one of its edges is pressed to."""
        return self.seams.toward(self.versions[version], join, place)

    def middle(self, stretch: Stretch) -> tuple[float, float]:
        """The middle of a seam from junction to junction, finished lengths."""
        place = _middle_edge(stretch.join, stretch.begin, stretch.end)
        return middle_of(stretch.join.curves[place])

    def square(self, stretch: Stretch) -> tuple[float, float]:
        """A step square to a seam at its middle, toward the side it is pressed to (to its first
        side where it is open)."""
        place = _middle_edge(stretch.join, stretch.begin, stretch.end)
        edge = self.seams.draft.arrangement.edges[stretch.join.edges[place]]
        dx, dy = stretch.join.curves[place].end.minus(stretch.join.curves[place].start).floats()
        ahead = edge.start == stretch.join.vertices[place]
        right = edge.right if ahead else edge.left
        wanted = stretch.beside[0] if stretch.toward is None else stretch.toward
        return (-dy, dx) if right == wanted else (dy, -dx)

    def thickest(self) -> Met | None:
        """The junction with most layers."""
        return max(self.junctions, key=lambda m: m.layers, default=None)


def met(seams: PressedSeams, ways: Sequence[Toward], junction: Junction) -> Met:
    """What comes of a junction when the spans go those ways."""
    values = np.array([[value_of(seams, ways, arm) for arm in junction.arms]])
    outcome_there = outcome(junction, values)
    return Met(
        junction, outcome_there.state(0, bool(junction.crossings)), int(outcome_there.layers[0])
    )


def value_of(seams: PressedSeams, ways: Sequence[Toward], arm: Arm) -> int:
    """How an arm is pressed, as outcomes count it: the side of its join, or open."""
    way = seams.toward(ways, arm.join, arm.place)
    return OPEN if way is None else way


def _stretches(seams: PressedSeams, ways: Sequence[Toward]) -> Iterator[Stretch]:
    for join in sorted(seams.joins, key=lambda each: each.number):
        for leg in join.legs:
            low, high = sorted((leg.begin, leg.end))
            stops = [i for i in range(low + 1, high) if join.vertices[i] in seams.at]
            for begin, end in zip([low, *stops], [*stops, high], strict=True):
                place = _middle_edge(join, begin, end)
                beside = sides_beside(seams, join, place)
                way = seams.toward(ways, join, place)
                toward = None if way is None else beside[way]
                span, _ = seams.of[join.number, place]
                yield Stretch(join, begin, end, span, toward, beside)


def sides_beside(seams: PressedSeams, join: Join, place: int) -> tuple[int, int]:
    """The patches along an edge of a join, on its first and on its second side."""
    edge = seams.draft.arrangement.edges[join.edges[place]]
    one = join.sides[0].faces if isinstance(join.sides[0], Join) else join.sides[0]
    return (edge.right, edge.left) if edge.right in one else (edge.left, edge.right)


def _middle_edge(join: Join, begin: int, end: int) -> int:
    """The edge on which the middle of a stretch lies."""
    lengths = [curve_length(curve) for curve in join.curves[begin:end]]
    left = sum(lengths) / 2
    for k, length in enumerate(lengths):
        left -= length
        if left <= 0:
            return begin + k
    return end - 1


_WORST: Mapping[State, int] = {
    "tee": 0, "nests": 1, "whirled": 1, "open": 2, "mixed": 3, "stacks": 4,
}  # fmt: skip


def _at_edges(plan: PressingPlan) -> Iterator[AtEdge]:
    ways = [
        [plan.toward(end.arm.join, end.arm.place, v) for end in plan.ends]
        for v in range(len(plan.versions))
    ]
    states: list[State] = ["tee"] * len(plan.ends)
    for meeting in plan.meetings:
        state = meeting_state(plan.ends, meeting, ways)
        for i in (meeting.one, meeting.other):
            states[i] = max(states[i], state, key=lambda s: _WORST[s])
    for i, end in enumerate(plan.ends):
        way = ways[0][i]
        beside = sides_beside(plan.seams, end.arm.join, end.arm.place)
        yield AtEdge(end, None if way is None else beside[way], states[i])


def meeting_state(
    ends: Sequence[EdgeEnd], meeting: Meeting, ways: Sequence[Sequence[Toward]]
) -> State:
    """How two ends that meet lie to one another, where those of each version go ``ways``."""
    one = ways[meeting.versions[0]][meeting.one]
    other = ways[meeting.versions[1]][meeting.other]
    if one is None or other is None:
        return "open" if one is other else "mixed"
    same = (one == ends[meeting.one].ahead) == (other == ends[meeting.other].ahead)
    return "nests" if same != meeting.mirrored else "stacks"


def cost_if(plan: PressingPlan, wish: Pinned) -> int:
    """What the block would cost if the maker pinned a seam or a centre so, in thousandths of a
    point, as far as is found in time."""
    table = held(plan.seams, wish, 2 * PIN)  # heavier than a pin that says otherwise
    pinned = over_decisions([table], plan.decisions.versions[0])
    program = plan.program._replace(tables=(*plan.program.tables, *pinned))
    now = plan.answer
    known = now._replace(cost=cost_of_answer(program, now.ways, now.options))
    answer = solve(program, FLIP_WORK, ties=False, known=known)
    return answer.cost % PIN // len(plan.versions)
