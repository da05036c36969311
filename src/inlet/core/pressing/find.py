"""Finding how a block is pressed: from its seams, its fabrics and the maker's wishes to the
plan."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from math import hypot
from typing import NamedTuple

import numpy as np

from inlet.core.assembly import Join, faces_of
from inlet.core.draft import Draft, points_of
from inlet.core.geometry import Point, distance_to, mirrored, motion_between
from inlet.core.planning import UnitPlan
from inlet.core.pressing.alike import Decisions, Follows, Middles, find_decisions
from inlet.core.pressing.costs import (
    OUTWARD_KINDS,
    CostTable,
    PressedBlock,
    all_tables,
    lightness_of,
    over_decisions,
)
from inlet.core.pressing.greedy import greedy
from inlet.core.pressing.holding import PIN, Pinned, held
from inlet.core.pressing.neighbours import (
    SETTING_TITLES,
    EdgeEnd,
    Grid,
    Meeting,
    by_turns,
    edge_ends,
    every_other,
    grid_of,
    meetings,
    quilt_grid,
    unseen_turns,
)
from inlet.core.pressing.outcomes import OPEN, WAYS
from inlet.core.pressing.pressing_plan import PressingPlan, meeting_state
from inlet.core.pressing.program import WORK, PressingAnswer, Program, taken_together
from inlet.core.pressing.solver import solve
from inlet.core.pressing.spans import PressedSeams, Toward, find_seams
from inlet.core.pressing.weights import weights_of
from inlet.core.project import Block, BlockPressing, Pin, Pressing, PressingMethod, Project
from inlet.core.units import Part, walk

ON_SEAM = 1 / 50
"""How far beside its seam a pin's point may lie, in grid units."""


class Wishes(NamedTuple):
    """What the maker decided: method, versions allowed, pins, and how blocks lie (empty: as the
    project's quilt says, if it does)."""

    method: PressingMethod
    versions: int
    pins: tuple[Pin, ...]
    setting: str


def wishes_of(project: Project, block: Block) -> Wishes:
    wishes, whole = block.pressing or BlockPressing(), project.pressing or Pressing()
    return Wishes(wishes.method or whole.method, wishes.versions, wishes.pins, wishes.setting)


FIRM = 1000
"""How much more a panel's seams weigh when they are not pressed away from the motif."""


def find_pressing(
    project: Project,
    draft: Draft,
    root: Part,
    units: Sequence[UnitPlan],
    work: int = WORK,
) -> PressingPlan | None:
    """How a block is pressed; None for one without seams or without an order of sewing. With no
    ``work`` it is the greedy answer."""
    if not root.joins:
        return None
    return _Finder(project, draft, root, units, work).find()


class _Finder:
    def __init__(
        self,
        project: Project,
        draft: Draft,
        root: Part,
        units: Sequence[UnitPlan],
        work: int,
    ) -> None:
        self.project, self.draft, self.root = project, draft, root
        self.work = work
        self.drafted = draft.block
        self.wishes = wishes_of(project, self.drafted)
        fabrics_of = (project.pressing or Pressing()).weights
        self.seams = find_seams(draft, root.joins[-1])
        self.block = PressedBlock(
            self.seams,
            lightness_of(self.seams, project.fabrics),
            weights_of(self.wishes.method, fabrics_of),
            outward_sides(self.seams, root),
            FIRM if self.drafted.panel is not None else 1,
        )
        self.in_sets = spans_in_sets(self.seams, units)
        self.twins = list(twin_spans(self.seams, units))
        self.pins = [pin for pin in map(self._read, enumerate(self.wishes.pins)) if pin]
        self.ends = edge_ends(self.seams)

    def find(self) -> PressingPlan:
        grid, setting = self._grid()
        pressing = self._solved(grid, setting, 1)
        if grid and not pressing.nests_beside:
            others = [self._turned(grid, setting, turn) for turn in self._looks_alike()]
            pressing = min((pressing, *others), key=lambda each: each.cost)
            grid, setting = pressing.grid, pressing.setting
        if grid and self.wishes.versions > 1 and not pressing.nests_beside:
            two = self._solved(by_turns(grid), setting, 2)
            if two.cost < pressing.cost:
                return two
        return pressing

    def _grid(self) -> tuple[Grid | None, str]:
        """How the block lies beside others like it, and that in words."""
        quilt, wished = self.project.quilt, self.wishes.setting
        if wished in SETTING_TITLES:
            square = self.drafted.finished[0] == self.drafted.finished[1]
            return grid_of(wished, square), SETTING_TITLES[wished]
        if quilt is not None and not wished:
            block_lyings = quilt_grid(quilt, self.drafted.id)
            if block_lyings and len(block_lyings) > 1:
                return block_lyings, "as the quilt places it"
        return None, ""

    def _looks_alike(self) -> Sequence[int]:
        """By how many quarters every other block of the quilt may be turned to nest, unless the
        maker wants it as it lies."""
        quilt = self.project.quilt
        if quilt is None or quilt.as_placed or self.wishes.setting:
            return ()
        if any(motif.columns % 2 or motif.rows % 2 for motif in quilt.motifs):
            return ()  # its blocks would lie otherwise from one to the next
        return unseen_turns(self.drafted, self.project)

    def _turned(self, grid: Grid, setting: str, quarters: int) -> PressingPlan:
        """The block pressed with every other one turned."""
        way = "a quarter" if quarters == 1 else "upside down"
        words = f"{setting}, every other one turned {way}"
        return replace(self._solved(every_other(grid, quarters), words, 1), turned=quarters)

    def _solved(self, grid: Grid | None, setting: str, blocks: int) -> PressingPlan:
        decisions = find_decisions(self.seams, self.wishes.versions, blocks)
        met = meetings(self.ends, grid) if grid else ()
        program = self._program(decisions, met, blocks, len(grid) if grid else 1)
        answer = solve(program, self.work) if self.work else greedy(program)
        versions = tuple(
            tuple(_way(answer, follows) for follows in version) for version in decisions.versions
        )
        pins = tuple(self._judged(pin, versions[0]) for pin in self.pins)
        unmet = PIN * sum(not pin.kept for pin in pins)
        cost = (answer.cost - unmet) // blocks
        return PressingPlan(
            block=self.block,
            root=self.root,
            method=self.wishes.method,
            decisions=decisions,
            program=program,
            answer=answer,
            versions=versions,
            pins=pins,
            again=frozenset(twin.other for twin in self.twins if not _alike(twin, versions[0])),
            ends=self.ends,
            meetings=met,
            grid=grid or {},
            setting=setting,
            cost=cost,
            gap=-(-answer.gap // blocks),  # never told smaller than it is
            seam=self.project.measure.seam,
        )

    def _program(
        self, decisions: Decisions, met: Sequence[Meeting], blocks: int, places: int
    ) -> Program:
        w = self.block.weights
        follows = [follow for version in decisions.versions for follow in version]
        tables = [
            table for version in decisions.versions for table in all_tables(self.block, version)
        ]
        others = [self._met(meeting, blocks, places) for meeting in met]
        others += [held(self.seams, pin) for pin in self.pins]
        others += [_pressed_once(twin, w["again"]) for twin in self.twins]
        tables += over_decisions(others, follows)
        together: dict[tuple[int, int, int], list[Follows]] = {}
        for v, version in enumerate(decisions.versions):
            for s, span in enumerate(self.seams.spans):
                join, begin, _, _ = span.pieces[0]
                leg = join.leg_of(begin)
                together.setdefault((v, join.number, leg), []).append(version[s])
        choices = decisions.choices
        again = tuple(
            w["again"] * len(self.in_sets.intersection(choice.sewn)) for choice in choices
        )
        # What parts a second version of the block has is a matter of that version.
        second = {choice.part: 0 if blocks > 1 else w["version"] for choice in choices}
        whole = taken_together(tables)
        extra = w["version"] * blocks if blocks > 1 else 0
        return Program(decisions, whole, tuple(map(tuple, together.values())), second, again, extra)

    def _met(self, meeting: Meeting, blocks: int, places: int) -> CostTable:
        """What a meeting with a neighbour costs, its share for one block of each version."""
        w, number = self.block.weights, len(self.seams.spans)
        arms = [self.ends[i].arm for i in (meeting.one, meeting.other)]
        met_at = [self.seams.of[arm.join.number, arm.place] for arm in arms]
        costs = np.zeros((WAYS, WAYS), int)
        weight = {"stacks": w["stacked"], "mixed": w["half-open"], "open": w["both-open"]}
        for a in range(WAYS):
            for b in range(WAYS):
                pair = [
                    None if value == OPEN else value ^ swapped
                    for value, (_, swapped) in zip((a, b), met_at, strict=True)
                ]
                state = _state_of(self.ends, meeting, pair)
                share = meeting.times * blocks / places
                costs[a, b] = round(weight.get(state, 0) * share)
        spans = tuple(s + v * number for (s, _), v in zip(met_at, meeting.versions, strict=True))
        return CostTable(spans, costs)

    # --- pins ---------------------------------------------------------------------------------

    def _read(self, numbered: tuple[int, Pin]) -> Pinned | None:
        """What a pin holds; None where there is no seam at its point any more."""
        number, pin = numbered
        at = Point(*pin.point).scaled(*self.drafted.scale)
        if pin.toward in ("whirl", "flat"):
            points = points_of(self.draft)
            near = min(
                (j for j in self.seams.junctions if j.spin),
                key=lambda j: _apart(points[j.vertex], at),
                default=None,
            )
            if near is None or _apart(points[near.vertex], at) > self.reach:
                return None
            return Pinned(number, None, near.vertex, int(pin.toward == "whirl"))
        answer = self._edge_at(at)
        if answer is None:
            return None
        join, place = answer
        span, swapped = self.seams.of[join.number, place]
        if isinstance(pin.toward, str):
            return Pinned(number, span, None, OPEN)
        side = self._side_of(join, Point(*pin.toward))
        return None if side is None else Pinned(number, span, None, side ^ swapped)

    @property
    def reach(self) -> float:
        return ON_SEAM * min(float(x) for x in self.drafted.scale)

    def _edge_at(self, at: Point) -> tuple[Join, int] | None:
        places = [
            (distance_to(curve, at.floats()), join.number, place, join)
            for join in self.seams.joins
            for place, curve in enumerate(join.curves)
        ]
        far, _, place, join = min(places, key=lambda each: each[:3])
        return (join, place) if far <= self.reach else None

    def _side_of(self, join: Join, toward: Point) -> int | None:
        patch = self.draft.patch_at(toward)
        for side in (0, 1):
            if patch is not None and patch.face in faces_of(join.sides[side]):
                return side
        return None

    def _judged(self, pin: Pinned, ways: Sequence[Toward]) -> Pinned:
        if pin.span is not None:
            way = ways[pin.span]
            return pin._replace(kept=(OPEN if way is None else way) == pin.way)
        assert pin.vertex is not None
        spin = self.seams.at[pin.vertex].spin
        assert spin is not None
        before, after = (self.seams.toward(ways, arm.join, arm.place) for arm in spin.arms)
        return pin._replace(kept=(before != after) == bool(pin.way))


def _state_of(ends: Sequence[EdgeEnd], meeting: Meeting, pair: Sequence[Toward]) -> str:
    one = meeting._replace(one=0, other=1, versions=(0, 0))
    return meeting_state([ends[meeting.one], ends[meeting.other]], one, [pair])


def _way(answer: PressingAnswer, follows: Follows) -> Toward:
    way = answer.ways[follows.decision]
    if way == OPEN:
        return None
    return 1 - way if follows.contrary else way


def _apart(point: Point, other_point: Point) -> float:
    return hypot(*point.minus(other_point).floats())


def outward_sides(seams: PressedSeams, root: Part) -> dict[int, int]:
    """For the spans of parts that go round a centre, which side lies farther out."""
    sides: dict[int, int] = {}
    for part in walk(root):
        if part.kind not in OUTWARD_KINDS:
            continue
        nested = [inner.faces for inner in part.nested]
        middle = _middle_of(seams.draft, part.faces)
        for s, span in enumerate(seams.spans):
            join = span.join
            if join.faces <= part.faces and not any(join.faces <= n for n in nested):
                far = [
                    hypot(x - middle[0], y - middle[1])
                    for x, y in (_middle_of(seams.draft, faces_of(side)) for side in join.sides)
                ]
                if abs(far[0] - far[1]) > 1e-6:
                    sides[s] = int(far[1] > far[0])
    return sides


def _middle_of(draft: Draft, faces: Iterable[int]) -> tuple[float, float]:
    boxes = [draft.arrangement.boxes[f] for f in faces]
    sx, sy = (float(x) for x in draft.block.scale)
    left, top = min(b[0] for b in boxes), min(b[1] for b in boxes)
    right, bottom = max(b[2] for b in boxes), max(b[3] for b in boxes)
    return (left + right) / 2 * sx, (top + bottom) / 2 * sy


class PressedTwin(NamedTuple):
    """A span pressed before a run is cut apart into units of both hands: that of the one hand, of
    the other, whether they count their sides the other way round, and how many units there are."""

    one: int
    other: int
    swapped: bool
    number: int


def twin_spans(seams: PressedSeams, units: Iterable[UnitPlan]) -> Iterator[PressedTwin]:
    """The spans that come out of runs in both hands."""
    by_label = {plan.unit.label: plan for plan in units}
    middles = Middles(seams) if any(plan.in_use.made_with for plan in by_label.values()) else None
    for plan in by_label.values():
        other_unit = by_label.get(plan.in_use.made_with or "")
        if other_unit is None or middles is None:
            continue
        motion = motion_between(mirrored(other_unit.unit.picture), plan.unit.picture)
        faces = other_unit.unit.part.faces
        early = [s for s, span in enumerate(seams.spans) if span.join.faces < faces]
        onto = middles.onto(early, motion, True) if motion else None
        number = len(plan.unit.places)
        yield from (PressedTwin(s, *there, number) for s, there in (onto or {}).items())


def _alike(twin: PressedTwin, ways: Sequence[Toward]) -> bool:
    """Is a seam pressed as it came out of its run, in both hands?"""
    one, other = ways[twin.one], ways[twin.other]
    return other == (1 - one if twin.swapped and one is not None else one)


def _pressed_once(twin: PressedTwin, again: int) -> CostTable:
    """What it costs to press a seam again the other way in all units of one hand."""
    costs = np.full((WAYS, WAYS), again * twin.number)
    for way in range(WAYS):
        costs[way, 1 - way if twin.swapped and way != OPEN else way] = 0
    return CostTable((twin.one, twin.other), costs)


def spans_in_sets(seams: PressedSeams, units: Iterable[UnitPlan]) -> frozenset[int]:
    """The spans sewn in long strips, before these are cut across."""
    faces = [
        (place.part, inner)
        for plan in units
        if plan.in_use.sets
        for place in plan.unit.places
        for inner in [{p.faces for p in place.part.parts}]
    ]
    return frozenset(_long(seams, faces))


def _long(seams: PressedSeams, parts: Sequence[tuple[Part, set[frozenset[int]]]]) -> Iterator[int]:
    for s, span in enumerate(seams.spans):
        for part, rows in parts:
            if span.join.faces <= part.faces and (
                part.kind == "strips" or any(span.join.faces <= row for row in rows)
            ):
                yield s
