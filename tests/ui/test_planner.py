"""Plans are worked out aside; one that is no longer wanted stops."""

from __future__ import annotations

import time

import pytest

from inlet.core.project.value import replace
from inlet.ui.planner import Planner
from inlet.ui.session import Session
from tests.blocks import block_of, project_of
from tests.core.assembly.corpus import herringbone


def test_a_plan_under_way_stops_for_the_next(qtbot):
    """A herringbone takes a good part of a second; a square asked for meanwhile does not wait."""
    planner, got = Planner(), []
    planner.done.connect(lambda plan: got.append(plan.block.name))
    slow = replace(herringbone(8, 8), name="slow")
    planner.ask(project_of(slow), slow, 1)
    end = time.monotonic() + 0.1
    while time.monotonic() < end:
        qtbot.wait(5)
    assert planner._busy
    quick = replace(block_of("0 0 1 1", 1, 1), name="quick")
    planner.ask(project_of(quick), quick, 1)
    qtbot.waitUntil(lambda: "quick" in got, timeout=20_000)
    planner.stop()
    assert got == ["quick"]


def test_what_is_wished_for_is_handed_over_and_not_given_up_for_a_plan(qtbot):
    planner, got, handed = Planner(), [], []
    planner.done.connect(lambda plan: got.append(plan.block.name))
    planner.think(lambda: time.sleep(0.1) or 42, handed.append)
    quick = replace(block_of("0 0 1 1", 1, 1), name="quick")
    planner.ask(project_of(quick), quick, 1)
    qtbot.waitUntil(lambda: "quick" in got, timeout=20_000)
    planner.stop()
    assert handed == [42]


@pytest.mark.parametrize(("bands", "at_once"), [(12, True), (13, False)])
def test_many_patches_are_checked_with_their_plan(qtbot, bands, at_once):
    session = Session()
    lines = [f"{k} 0 {k} {bands} / 0 {k} {bands} {k}" for k in range(1, bands)]
    block = replace(block_of(" / ".join(lines), bands, bands), fabric_at=())
    session.start(project_of(block), None)
    assert bool(session.checks) == at_once
    qtbot.waitUntil(lambda: session.plan is not None, timeout=20_000)
    assert sum(p.code == "patch-without-fabric" for p in session.plan.problems) == bands**2
