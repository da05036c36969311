"""A block as it is sewn: its steps, and how each is pressed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from inlet.core.cutlist import Stacks
from inlet.core.improvised import ImprovisedSquare, ScrapPool, scrap_pool
from inlet.core.piecing import Step
from inlet.core.plan.prepared import PreparedBlock
from inlet.core.pressing import PressingPlan, StepPress, find_pressing, step_press
from inlet.core.staged import Staged, later


@dataclass(frozen=True, eq=False, kw_only=True)
class SewnBlock(PreparedBlock):
    """``stacks`` are those each unit's pieces lie in; ``squares`` are its copies, where corners are
    improvised."""

    stacks: Stacks
    steps: Sequence[Step]
    squares: tuple[ImprovisedSquare, ...] = ()

    @later
    def scraps(self) -> ScrapPool:
        """What the corners of its squares take."""
        return scrap_pool(self.squares, self.measure)

    @later
    def pressing(self) -> Staged[PressingPlan | None]:
        """Which way every seam is pressed; None where there is none to press, or no order."""
        if self.assembly is None:
            return Staged(lambda: None, lambda: None)
        find = partial(find_pressing, self.project, self.draft, self.root, self.units)
        return Staged(partial(find, 0), find)

    def sewn_in(self, step: Step) -> SewnBlock:
        """The block that a step belongs to."""
        return self

    def press(self, step: Step) -> StepPress | None:
        """How the seams of a step are pressed; None where it has none."""
        pressing = self.pressing.best
        return None if pressing is None else step_press(pressing, step, self.project)
