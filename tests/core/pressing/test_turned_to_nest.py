"""Every other block of a quilt turned where nobody sees it, so that seams nest."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.quilt import plan_quilt, turned_text
from inlet.core.pressing.neighbours import unseen_turns
from inlet.core.project.quilt import Motif, Quilt, QuiltPlace, Sashing, Triangles
from inlet.core.project.value import replace
from inlet.files.text.quilt_json import quilt_dict
from tests.blocks import block_of, project_of
from tests.core.setting.test_edit import picture
from tests.sample import many

NINE = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"


def block(drawn, grid, size, fabrics):
    made = block_of(drawn, grid, grid, (F(size),) * 2 if isinstance(size, int) else size, fabrics)
    return replace(made, id="b", name="Bee")


PATCHES = block(NINE, 3, 9, "ab")
RAIL = block("1 0 1 3 / 2 0 2 3", 3, 6, "aba")
FOUR = block("1 0 1 2 / 0 1 2 1", 2, 6, "abba")


def of(drawn, quilt, **more):
    return replace(project_of(drawn), quilt=quilt, **more)


def test_nine_patches_nest_once_alternate_ones_are_turned():
    """42 of them: 29.81 points as they are placed, 6.668 with all nested."""
    quilt = Quilt(columns=6, rows=7, block="b")
    plan = plan_quilt(of(PATCHES, quilt))
    pressing = plan.sewn[0].pressing.best
    assert (pressing.turned, pressing.cost, pressing.gap) == (1, 6668, 0)
    assert pressing.nests_beside
    placed = plan_quilt(of(PATCHES, replace(quilt, as_placed=True)))
    pressing = placed.sewn[0].pressing.best
    assert (pressing.turned, pressing.cost) == (0, 29810)
    assert (placed.turned, turned_text(placed)) == ({}, "")
    assert turned_text(plan) == (
        "Every other Bee is turned a quarter: it looks the same, and its seams nest."
    )
    assert any(turned_text(plan) in step.text for step in plan.steps)
    assert plan.rows[0].items[:3] == ("Bee", "Bee, a quarter turn right", "Bee")
    piece = quilt_dict(plan)["rows"][0]["pieces"][1]
    assert (piece["turn"], piece["turned_to_nest"]) == (90, 90)


@given(st.sampled_from([PATCHES, RAIL, FOUR]), st.integers(2, 4), st.integers(2, 4), st.booleans())
@settings(max_examples=many(6, 12), deadline=None)
def test_turning_is_not_seen_and_never_nests_less(drawn, columns, rows, on_point):
    """Laid as the plan says, the quilt is the same picture; pressed as the plan says, it costs what
    the same quilt costs with those turns drawn, and no more than as it was."""
    quilt = Quilt(
        setting="on-point" if on_point else "straight", columns=columns, rows=rows, block="b",
        triangles=Triangles(fabric="c"),
    )  # fmt: skip
    project = of(drawn, quilt)
    plan = plan_quilt(project)
    spots = tuple(
        QuiltPlace(column=column, row=row, turn=90 * turn)
        for (_, column, row), turn in plan.turned.items()
    )
    laid = replace(project, quilt=replace(quilt, places=spots, as_placed=True))
    assert picture(laid) == picture(project)
    cost = plan.sewn[0].pressing.best.cost
    assert plan_quilt(laid).sewn[0].pressing.best.cost == cost
    as_it_was = plan_quilt(replace(project, quilt=replace(quilt, as_placed=True)))
    assert cost <= as_it_was.sewn[0].pressing.best.cost


@pytest.mark.parametrize(
    ("drawn", "direction", "turns"),
    [
        (PATCHES, "", (1, 2)), (PATCHES, "two-way", (2,)), (PATCHES, "one-way", ()),
        (RAIL, "", (2,)), (FOUR, "", (2,)), (block("0 1 1 0", 1, 4, "ab"), "", ()),
        (block("1 0 1 2", 2, (F(4), F(6)), "aa"), "", (2,)),
    ],
)  # fmt: skip
def test_turns_that_nobody_sees(drawn, direction, turns):
    project = project_of(drawn)
    prints = tuple(replace(fabric, direction=direction) for fabric in project.fabrics)
    assert unseen_turns(drawn, replace(project, fabrics=prints)) == turns


def test_nothing_is_turned_where_no_seams_meet_or_motifs_would_differ():
    sashing = Sashing(width=F(1), fabric="c")
    quilt = Quilt(columns=3, rows=3, block="b")
    assert plan_quilt(of(PATCHES, replace(quilt, sashing=sashing))).turned == {}
    for size, turned in ((3, 0), (2, 1)):
        motif = Motif(id="m", columns=size, rows=size, block="b")
        plan = plan_quilt(of(PATCHES, replace(quilt, block="m", motifs=(motif,))))
        assert plan.sewn[0].pressing.best.turned == turned
