"""A quilt as it is first looked at, worked out off the window's thread."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.plan import QuiltPlan, plan_quilt
from inlet.core.project import Project
from inlet.core.setting import Odd, odd_ones
from inlet.ui.quilt.scene import Scene


class QuiltView(NamedTuple):
    """The plan of a quilt with its top, what is painted of it (nothing where it has no top), and
    the places that lie otherwise than the pattern."""

    plan: QuiltPlan
    scene: Scene | None
    odd: tuple[Odd, ...]


def quilt_view(project: Project, before: QuiltView) -> QuiltView:
    """The view of the project's quilt; what that ``before`` it has is taken over where it is the
    same."""
    plan = plan_quilt(project, before.plan)
    _ = plan.apart, plan.backings  # shown with the top
    scene = None
    if plan.top.rows:
        scene = before.scene.of(plan.top, project) if before.scene else Scene(plan.top, project)
    return QuiltView(plan, scene, odd_ones(project))


def no_quilt() -> QuiltView:
    """Before anything is known."""
    return QuiltView(plan_quilt(Project()), None, ())
