"""Plans are worked out aside; one that is no longer wanted stops."""

from __future__ import annotations

import time

import pytest

from inlet.core.cancellation import Stopped
from inlet.core.project.value import replace
from inlet.core.units.known import units_of
from inlet.ui.shell.session import Session
from inlet.ui.tasks import planner as planner_module
from inlet.ui.tasks.background import close_all
from inlet.ui.tasks.planner import Planner
from tests.blocks import block_of, project_of
from tests.core.assembly.corpus import herringbone


def test_a_plan_under_way_stops_for_the_next(qtbot):
    """A herringbone of 210 patches takes more than a second; a square asked for meanwhile does not
    wait."""
    planner, got = Planner(), []
    planner.done.connect(lambda plan: got.append(plan.block.name))
    slow = replace(herringbone(20, 20), name="slow")
    planner.ask(project_of(slow), slow, 1)
    qtbot.wait(100)
    assert not planner.at_rest
    quick = replace(block_of("0 0 1 1", 1, 1), name="quick")
    planner.ask(project_of(quick), quick, 1)
    qtbot.waitUntil(lambda: "quick" in got, timeout=20_000)
    close_all(planner.tasks)
    assert got == ["quick"]


def test_what_is_wished_for_is_handed_over_and_not_given_up_for_a_plan(qtbot):
    planner, got, handed = Planner(), [], []
    planner.done.connect(lambda plan: got.append(plan.block.name))
    planner.think(lambda: time.sleep(0.1) or 42, handed.append)
    quick = replace(block_of("0 0 1 1", 1, 1), name="quick")
    planner.ask(project_of(quick), quick, 1)
    qtbot.waitUntil(lambda: "quick" in got and bool(handed), timeout=20_000)
    close_all(planner.tasks)
    assert handed == [42]


def test_a_block_whose_look_was_stopped_is_looked_at_again(qtbot, monkeypatch):
    looks, got = [], []

    def look(block):
        looks.append(block.id)
        if len(looks) == 1:
            raise Stopped
        return units_of(block)

    monkeypatch.setattr(planner_module, "units_of", look)
    planner = Planner()
    planner.done.connect(got.append)
    big = replace(
        block_of("0 0 1 1"), id="big", methods={"half-square-triangle": "eight-at-a-time"}
    )
    project = project_of(big, replace(block_of("0 0 1 1", size=(2, 2)), id="small"))
    planner.ask(project, big, 1)
    qtbot.waitUntil(lambda: planner.at_rest, timeout=20_000)
    assert looks == ["small"]
    planner.ask(project, big, 1)
    qtbot.waitUntil(lambda: planner.at_rest, timeout=20_000)
    assert got[-1].offers[0].uses
    close_all(planner.tasks)
    assert looks == ["small", "small"]


@pytest.mark.parametrize(("bands", "at_once"), [(12, True), (13, False)])
def test_many_patches_are_checked_with_their_plan(qtbot, bands, at_once):
    session = Session()
    lines = [f"{k} 0 {k} {bands} / 0 {k} {bands} {k}" for k in range(1, bands)]
    block = replace(block_of(" / ".join(lines), bands, bands), fabric_at=())
    session.start(project_of(block), None)
    assert bool(session.checks) == at_once
    qtbot.waitUntil(lambda: session.plan is not None, timeout=20_000)
    assert sum(p.code == "patch-without-fabric" for p in session.plan.problems) == bands**2
