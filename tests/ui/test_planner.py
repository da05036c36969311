"""Plans are worked out aside; one that is no longer wanted stops."""

from __future__ import annotations

import time

from inlet.core.project.value import replace
from inlet.ui.planner import Planner
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
