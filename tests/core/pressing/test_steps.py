"""What is said and drawn of pressing a step."""

from __future__ import annotations

import pytest

from inlet.core.draft.symmetry import turned
from inlet.core.plan.block import plan_block
from inlet.core.pressing.advice import pressing_advice
from inlet.core.pressing.pins import pin_wish
from inlet.core.project.measure import METRIC
from inlet.core.project.pressing import BlockPressing, Pin
from inlet.core.project.value import replace
from inlet.files.text.plan_json import plan_dict
from inlet.files.text.plan_text import plan_text
from tests.blocks import F, block_of, point, project_of
from tests.core.assembly.test_assembly import ALL
from tests.core.pressing.drawn import NAMED, grid, painted


def planned(block, **wishes):
    block = replace(block, pressing=BlockPressing(**wishes))
    return plan_block(project_of(block), block)


def texts(plan):
    return [pressed.text for step in plan.steps if (pressed := plan.press(step))]


def test_units_are_pressed_toward_a_fabric_and_rows_toward_a_part():
    plan = planned(painted(f"{grid(3, 1)} / 0 0 1 1 / 3 0 2 1", 3, 1, lambda x, y: half(x, y)))
    assert texts(plan) == ["Press toward B.", "Press both seams toward B."]
    assert [step.makes for step in plan.steps] == ["A", "block"]


def half(x, y):
    """A dark half of a square either side of a light one."""
    if 1 < x < 2:
        return "a"
    return "b" if (x < 1 and y > x) or (x > 2 and y > 3 - x) else "a"


def test_a_row_of_one_sort_is_told_by_direction():
    plan = planned(painted(grid(2, 2), 2, 2, lambda x, y: "a"))
    assert texts(plan)[-1].endswith("seen from the front.")


def test_who_presses_at_the_end_is_told_to_fold_on_the_way():
    for text in texts(planned(NAMED["nine-patch"], method="end")):
        assert text.startswith("Fold ")
        assert text.endswith("press when the block is done.")


@pytest.mark.parametrize("name", list(NAMED))
def test_every_seam_of_the_block_is_told_once_and_drawn(name):
    """Counted on the steps: each join stands in one step; a picture has an arrow a seam, toward the
    side it goes."""
    plan = planned(NAMED[name])
    for step in plan.steps:
        pressed = plan.press(step)
        *_, last = pressed.moves
        arrows = [line for line in last.lines if line.kind == "press"]
        assert len(arrows) >= (1 if step.unit else step.seams)
        for arrow in arrows:
            ends = zip(arrow.start.floats(), arrow.end.floats(), strict=True)
            at = point(*(F((a + b) / 2) for a, b in ends))
            ways = {stretch.toward for stretch in plan.pressing.best.stretches
                    if near(plan.pressing.best.middle(stretch), arrow.start.floats())}  # fmt: skip
            inside = plan.draft.patch_at(at.scaled(*(1 / s for s in plan.block.scale)))
            assert inside is None or inside.face in ways or arrow.number


def near(p, q):
    return max(abs(a - b) for a, b in zip(p, q, strict=True)) < 0.01


def test_spins_are_moves_with_their_marks():
    plan = planned(NAMED["pinwheel"])
    (pressed,) = [plan.press(step) for step in plan.steps if step.makes == "block"]
    assert "undo the stitches" in pressed.text
    assert [line.kind for line in pressed.moves[-1].lines].count("whirl") == 1


def test_the_seam_is_set_with_what_it_goes_toward_on_top_and_bias_is_cared_for():
    plan = planned(NAMED["pinwheel"])
    unit = next(step for step in plan.steps if step.unit)
    setting = plan.press(unit).moves[0]
    assert setting.text.startswith("Set the seam as it was sewn, B on top.")
    assert "Bias edges" in setting.text
    assert {fabric for _, fabric in setting.upper} == {"b"}
    squares = planned(NAMED["nine-patch"])
    assert all("Bias" not in move.text
               for step in squares.steps for move in squares.press(step).moves)  # fmt: skip


def test_units_of_both_hands_from_one_run_are_pressed_alike_or_again():
    """Three triangles in both hands: crossed pairs give one of each, their first seam one way."""
    three = "0 0 1 1 / 1/2 1/2 1 0"
    mirror = " / 2 0 1 1 / 3/2 1/2 1 0"
    block = block_of(f"{three}{mirror} / 1 0 1 1", 2, 1, (6, 3), "a")
    fabric = {0: "c", 1: "a", 2: "b"}
    spots = []
    for spot in block.fabric_at:
        x, y = map(float, spot.point)
        x = min(x, 2 - x)
        spots.append(replace(spot, fabric=fabric[0 if y > x else 1 if y < 1 - x else 2]))
    plan = planned(replace(block, fabric_at=tuple(spots)))
    twins = [unit for unit in plan.units if unit.in_use.made_with]
    assert len(twins) == 1
    again = "pressed again" in " ".join(texts(plan))
    assert again == bool(plan.pressing.best.again)
    unit = next(u for u in plan.units if u.unit.label == twins[0].in_use.made_with)
    ways = [first_seam(plan, u.unit.part) for u in (unit, twins[0])]
    assert (ways[0] != ways[1]) == again


def first_seam(plan, part):
    """The fabric toward which a unit's first seam is pressed."""
    own = [s for s in plan.pressing.best.stretches if s.join.faces < part.faces]
    (stretch,) = [s for s in own if len(s.join.faces) == 2]
    return plan.draft.patches[stretch.toward].fabric


def test_plans_tell_it_in_json_and_text_in_inches_and_centimetres():
    for name in ("dash", "ring", "four quarter circles"):
        block = NAMED[name]
        for measure in (None, METRIC):
            project = project_of(block)
            if measure:
                project = replace(project, measure=measure)
            plan = plan_block(project, block)
            told = plan_dict(plan)
            assert told["pressing_gap"] == 0
            assert told["pressing_cost"] >= 0
            ids = {patch["id"] for patch in told["patches"]} | {"open"}
            joins = {f"j{join.number}" for join in plan.pressing.best.seams.joins}
            for entry in told["pressing"]:
                assert entry["toward"] in ids
                assert entry["join"] in joins
                assert entry["reason"].endswith(".")
            assert {entry["join"] for entry in told["pressing"]} == joins
            assert all(step["press"] in plan_text(plan) for step in told["steps"])
            inner = [each for each in told["junctions"] if each["state"] != "tee"]
            assert sum(each["state"] in ("nests", "whirled") for each in inner) == len(inner)
            assert len(told["edges"]) == len({tuple(edge["at"]) for edge in told["edges"]})


def test_advice_names_the_thickest_junction_and_what_flattens_it():
    block = NAMED["hourglasses"]
    plan = planned(block, pins=tuple(
        Pin(point=(F(x), F(y)), toward="flat") for x in (1, 2) for y in (1, 2)
    ))  # fmt: skip
    found = pressing_advice(plan.pressing.best, plan.project)
    most = max(met.layers for met in plan.pressing.best.junctions)
    assert str(most) in found[0].text
    flatter = [each for each in found if each.take is not None]
    assert flatter
    assert "Nothing flatter" not in found[0].text
    taken = pin_wish(plan.pressing.best, flatter[-1].take)
    assert taken.pressing.pins
    pins = [each for each in found if each.drop is not None]
    assert all("costs" in each.text or "cannot be kept" in each.text for each in pins)


def test_advice_tells_when_two_versions_would_nest_all_round():
    plan = planned(NAMED["dash"], setting="one-way")
    told = " ".join(each.text for each in pressing_advice(plan.pressing.best, plan.project))
    assert "With two versions all of them nest: 8 of version 1 and 8 of version 2" in told


def test_a_step_in_two_versions_says_how_many_of_each():
    """A unit that a pin presses otherwise in one place, where two versions are allowed."""
    block = turned(NAMED["pinwheel"], (0, False))
    pins = (Pin(point=(F(1, 2), F(1, 2)), toward="open"), Pin(point=(F(3, 2), F(3, 2)),
            toward=inside(block)))  # fmt: skip
    plan = planned(block, versions=2, pins=pins)
    assert all(pin.kept for pin in plan.pressing.best.pins)
    unit = next(step for step in plan.steps if step.unit)
    assert "In a second version" in plan.press(unit).text


def inside(block):
    """A point in the dark half of the last unit."""
    return next(spot.point for spot in block.fabric_at
                if spot.fabric == "b" and min(map(float, spot.point)) > 1)  # fmt: skip


def test_a_block_without_seams_or_order_has_no_pressing():
    plan = plan_block(project_of(ALL["Square"]), ALL["Square"])
    assert plan.pressing.best is None
    assert plan_dict(plan)["pressing"] == []
    assert plan.pressing.at_once is None
