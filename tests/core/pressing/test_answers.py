"""What an experienced maker would choose, block by block, and why."""

from __future__ import annotations

from collections import Counter
from itertools import product

import pytest

from inlet.core.draft.symmetry import turned
from inlet.core.geometry.point import Point
from inlet.core.plan.block import plan_block
from inlet.core.pressing.pressing_plan import meeting_state
from inlet.core.pressing.reasons import reason
from inlet.core.project.pressing import BlockPressing, Pin, Pressing
from inlet.core.project.quilt import Quilt, QuiltPlace, Sashing
from inlet.core.project.value import replace
from tests.blocks import F, block_of, in_fabrics, project_of
from tests.core.pressing.drawn import DARK, NAMED
from tests.core.pressing.test_solver import pressed
from tests.sample import sampled


def states(plan):
    return [met.state for met in plan.junctions if met.counts]


def fabric(plan, face):
    return plan.seams.draft.patches[face].fabric


def to_the_dark(plan, stretch):
    return stretch.toward is not None and fabric(plan, stretch.toward) == DARK


def between_two_patches(stretch):
    return len(stretch.join.faces) == 2


@pytest.mark.parametrize(
    ("name", "crossings"),
    [("four-patch", 1), ("nine-patch", 4), ("checkerboard", 25), ("hourglasses", 21),
     ("star of geese", 4), ("dash", 4), ("four quarter circles", 1)],
)  # fmt: skip
def test_every_junction_nests_or_is_spun(name, crossings):
    """Units turned a half or a quarter turn bring their seams to opposite sides, so pressing all of
    them to the dark nests everywhere: there is nothing to give up."""
    plan = pressed(NAMED[name])
    assert plan.nesting == (crossings, crossings)
    assert plan.gap == 0


@pytest.mark.parametrize("name", ["four-patch", "nine-patch", "checkerboard", "pinwheel"])
def test_first_seams_go_to_the_dark(name):
    """Light fabric shows what lies under it; dark does not."""
    plan = pressed(NAMED[name])
    short = [s for s in plan.stretches if between_two_patches(s)]
    assert short
    assert all(to_the_dark(plan, s) for s in short)


def test_rows_of_a_nine_patch_go_opposite_ways():
    """Rows lock where odd ones go in and even ones out, which is to the dark in both."""
    plan = pressed(NAMED["nine-patch"])
    for y, wanted in ((1, "out"), (4, "in"), (7, "out")):
        row = [
            s
            for s in plan.stretches
            if s.ends[0].x == s.ends[1].x and abs((s.ends[0].y + s.ends[1].y) / 2 - y) < 1
        ]
        ways = set()
        for s in row:
            middle = plan.seams.draft.arrangement.boxes[s.toward]
            ways.add("in" if middle[0] == 1 else "out")
        assert ways == {wanted}


@pytest.mark.parametrize("name", ["bricks", "bricks of one fabric"])
def test_bricks_are_pressed_by_rows_by_turns(name):
    """Nothing crosses in bricks: rows go one way each, the next the other way."""
    plan = pressed(NAMED[name])
    boxes = plan.seams.draft.arrangement.boxes
    ways = {}
    for s in plan.stretches:
        if s.ends[0].x == s.ends[1].x:
            at = float(s.ends[0].x / plan.seams.draft.block.scale[0])
            row = int(min(s.ends[0].y, s.ends[1].y) / plan.seams.draft.block.scale[1])
            ways.setdefault(row, set()).add(boxes[s.toward][0] >= at)
    if name == "bricks of one fabric":
        assert [len(own) for own in ways.values()] == [1, 1, 1, 1]
        assert ways[0] != ways[1] != ways[2] != ways[3]
    assert states(plan) == []


def test_a_pinwheel_is_spun_at_its_centre():
    """Eight seams meet: whirled, ten layers lie there instead of fifteen."""
    plan = pressed(NAMED["pinwheel"])
    assert states(plan) == ["whirled"]
    assert plan.thickest().layers == 10
    at = (F(1), F(1))
    flat = pressed(NAMED["pinwheel"], pins=(Pin(point=at, toward="flat"),))
    assert states(flat) == ["nests"]
    assert flat.thickest().layers == 15


def test_geese_are_pressed_away_from_the_nose():
    """Two seams end at a nose: folded back they make a lump, under the next goose there is room."""
    plan = pressed(NAMED["geese"])
    level = [s for s in plan.stretches if level_(s)]
    assert len(level) == 6
    for s in level:
        assert plan.seams.draft.arrangement.boxes[s.toward][3] * 3 == float(s.ends[0].y)
    one_fabric = in_fabrics(NAMED["geese"], "a")
    plan = pressed(one_fabric)
    told = {reason(plan, s.span, project_of(one_fabric)) for s in plan.stretches if level_(s)}
    assert told == {"Away from the point where seams meet: fewer layers lie there."}


def level_(stretch):
    return stretch.ends[0].y == stretch.ends[1].y


@pytest.mark.parametrize("name", ["rounds", "ring"])
def test_what_is_built_about_a_centre_is_pressed_away_from_it(name):
    """There is room outside, and the next strip lies flat; a partial seam has to lie so."""
    plan = pressed(NAMED[name])
    middle = [float(x) / 2 for x in plan.seams.draft.block.finished]
    for s in plan.stretches:
        far = [
            sum(abs(a - b) for a, b in zip(centre(plan, f), middle, strict=True)) for f in s.beside
        ]
        other = s.beside[s.beside[0] == s.toward]
        if middle_patch(plan) in s.beside:
            assert s.toward != middle_patch(plan)
        elif far[0] != far[1] and name == "rounds":
            assert far[s.beside.index(s.toward)] > far[s.beside.index(other)]


def middle_patch(plan):
    width, height = plan.seams.draft.block.grid
    return plan.seams.draft.patch_at(Point(width / 2, height / 2)).face


def centre(plan, face):
    box = plan.seams.draft.arrangement.boxes[face]
    scale = [float(x) for x in plan.seams.draft.block.scale]
    return (box[0] + box[2]) / 2 * scale[0], (box[1] + box[3]) / 2 * scale[1]


def test_a_set_in_block_nests_with_itself_however_it_is_turned():
    """Its four outer seams lie the same way round: each meets the next block's the other way."""
    block = NAMED["set-in centre"]
    for setting in ("one-way", "quarter-turns", "round"):
        plan = pressed(block, setting=setting)
        assert len(plan.versions) == 1
        assert {each.state for each in plan.edges} <= {"nests", "tee"}


def test_methods_press_as_they_say():
    block = NAMED["nine-patch"]
    opened = pressed(block, method="open")
    assert all(way is None for way in opened.versions[0])
    assert states(pressed(block, method="whirl")) == ["whirled"] * 4
    for method in ("dark", "nest", "end"):
        plan = pressed(block, method=method)
        assert states(plan) == ["nests"] * 4
        assert None not in plan.versions[0]
    heavy = Pressing(weights={"open": F(0), "closed": F(100)})
    plan = plan_block(replace(project_of(block), pressing=heavy), block)
    assert all(way is None for way in plan.pressing.best.versions[0])


# --- neighbours -----------------------------------------------------------------------------------


def quilted(block, columns, rows, **more):
    quilt = Quilt(columns=columns, rows=rows, block=block.id, **more)
    return replace(project_of(block), quilt=quilt)


def test_in_a_quilt_one_pressing_is_found_or_two_lie_by_turns():
    """A four-patch all one way: its last seam would meet itself, so two versions lie by turns."""
    block = NAMED["four-patch"]
    for versions in (1, 2):
        wished = replace(block, pressing=BlockPressing(method="nest", versions=versions))
        plan = plan_block(quilted(wished, 4, 4), wished).pressing.best
        assert plan.setting == "as the quilt places it"
        assert len(plan.versions) == versions or {e.state for e in plan.edges} == {"nests"}
        if len(plan.versions) == 2:
            assert {e.state for e in plan.edges} == {"nests"}
            assert plan.versions[0] != plan.versions[1]


def test_what_meets_is_told_by_blocks_laid_out_on_the_floor():
    """A quilt of turned and mirrored blocks: every two ends at one place, and whether they lie
    opposite ways, told by where they come to lie; against what the plan says of its meetings."""
    block = block_of("1 0 1 3 / 0 1 3 1 / 1 2 3 2 / 2 0 2 1", 3, 3, (9, 9), "abcab")
    places = [QuiltPlace(column=x, row=y, turn=90 * (x + 2 * y) % 360, mirror=x == 1)
              for x in range(3) for y in range(4)]  # fmt: skip
    plan = plan_block(quilted(block, 3, 4, places=tuple(places)), block).pressing.best
    side, seen, ends = 9.0, Counter(), {}
    for place in places:
        for each in plan.edges:
            stretch = next(s for s in plan.stretches if s.join is each.end.arm.join
                           and s.begin <= each.end.arm.place < s.end)  # fmt: skip
            spots = [tuple(c - side / 2 for c in each.end.at.floats()), plan.square(stretch)]
            for k, (x, y) in enumerate(spots):
                x = -x if place.mirror else x
                for _ in range(place.turn // 90):
                    x, y = -y, x
                spots[k] = x, y
            (x, y), way = spots
            spot = (round(x + side * (place.column + 0.5), 6),
                    round(y + side * (place.row + 0.5), 6))  # fmt: skip
            if spot in ends:
                other = ends[spot]
                if each.toward is None or other is None:
                    seen["open" if each.toward is None is other else "mixed"] += 1
                else:
                    opposite = way[0] * other[0] + way[1] * other[1] < 0
                    seen["nests" if opposite else "stacks"] += 1
            ends[spot] = None if each.toward is None else way
    ways = [[plan.toward(e.end.arm.join, e.end.arm.place) for e in plan.edges]]
    told = Counter()
    for meeting in plan.meetings:
        told[meeting_state(plan.ends, meeting, ways)] += meeting.times
    assert told == seen
    assert sum(seen.values()) > 5


def test_sashing_keeps_blocks_apart_and_other_blocks_are_no_neighbours():
    block = NAMED["four-patch"]
    apart = quilted(block, 4, 4, sashing=Sashing(width=F(1)))
    assert plan_block(apart, block).pressing.best.meetings == ()
    alone = replace(block, pressing=BlockPressing(setting="alone"))
    assert plan_block(quilted(alone, 4, 4), alone).pressing.best.meetings == ()
    other = replace(block, id="other")
    mixed = [QuiltPlace(column=x, row=y, block="other")
             for x in range(4) for y in range(4) if (x + y) % 2]  # fmt: skip
    project = replace(quilted(block, 4, 4, places=tuple(mixed)), blocks=(block, other))
    assert plan_block(project, block).pressing.best.meetings == ()


# --- turning --------------------------------------------------------------------------------------


TURNED = product(
    (name for name in NAMED if name != "set-in centre"),
    [(1, False), (2, False), (0, True), (1, True)],
)


@pytest.mark.parametrize(("name", "turn"), sampled(TURNED, 3))
def test_a_turned_block_is_pressed_alike(name, turn):
    """No cost is changed, nor what comes of its junctions. (The order in which awkward seams are
    sewn may be another in another turn, and with it what is pressed first: not in these.)"""
    block = NAMED[name]
    plan, other = pressed(block), pressed(turned(block, turn))
    assert other.cost == plan.cost
    assert outcomes(other) == outcomes(plan)


def outcomes(plan):
    return sorted((met.state, met.layers, met.junction.inside) for met in plan.junctions)
