"""What a plan knows: worked out once, kept beside it, and what is known is told apart from what is
not."""

from __future__ import annotations

from dataclasses import dataclass, field

import pytest

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.log import LogEntry
from inlet.core.project.quilt import Quilt
from inlet.core.project.value import replace
from inlet.core.staged import Known, Staged, later
from tests.blocks import block_of, project_of


def test_staged_says_where_it_stands():
    asked = []
    fabric = Staged(lambda: asked.append("first") or 8, lambda: asked.append("best") or 7)
    assert not fabric.settled
    assert (fabric.now, fabric.at_once) == (8, 8)
    assert not fabric.settled
    assert fabric.best == 7
    assert fabric.settled
    assert (fabric.now, fabric.at_once) == (7, 8)
    assert asked == ["first", "best"]


def test_what_fails_is_asked_for_again():
    tries = []

    def work():
        tries.append(1)
        if len(tries) == 1:
            raise ValueError("stopped")
        return 5

    fabric = Staged(lambda: 6, work)
    with pytest.raises(ValueError, match="stopped"):
        _ = fabric.best
    assert not fabric.settled
    assert (fabric.now, fabric.best, fabric.now) == (6, 5, 5)


@dataclass(frozen=True)
class Plan:
    width: int
    known: Known = field(default_factory=Known)

    @later
    def area(self) -> int:
        """Its area."""
        tries.append(self.width)
        return self.width**2


tries: list[int] = []


def test_a_property_is_worked_out_when_it_is_first_asked_for():
    plan = Plan(3)
    assert tries == []
    assert not plan.known.has("area")
    assert (plan.area, plan.area) == (9, 9)
    assert tries == [3]
    assert Plan.area.__doc__ == "Its area."
    assert Plan(4, plan.known).area == 9  # handed on: known to be the same


def test_only_steps_done_keep_what_a_quilt_has_worked_out():
    block = block_of("0 0 1 1")
    project = replace(
        project_of(block), quilt=Quilt(setting="straight", columns=2, rows=2, block=block.id)
    )
    plan = plan_quilt(project)
    plan.work_out()
    ticked = replace(project, log=(LogEntry(what="Row 1"),))
    after = plan_quilt(ticked, plan)
    assert after.planned
    assert after.fabric_plans is plan.fabric_plans
    wider = replace(project, quilt=replace(project.quilt, columns=3))
    assert not plan_quilt(wider, plan).planned


def test_a_block_as_sewn_in_a_quilt_keeps_nothing_of_the_block_alone():
    block = block_of("0 0 1 1")
    project = replace(
        project_of(block), quilt=Quilt(setting="straight", columns=2, rows=3, block=block.id)
    )
    plan = plan_quilt(project)
    (of_quilt,), (sewn,) = plan.blocks, plan.sewn
    assert list(of_quilt.plan.compared) == ["A"]
    assert sewn.known is not of_quilt.plan.known
    assert sewn.copies == 6
    assert sewn.unfinished == plan_block(project, block).unfinished
    assert sewn.unfinished[0] == block.finished[0] + F(1, 2)
