"""The corners of a block: which seams and fabrics they may have, and what is in the way."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from inlet.core.draft import Draft, draft, too_near
from inlet.core.improvised.field import CornerRules, Spot, improvised_squares
from inlet.core.improvised.seams import ImprovisedSquare, lengths_within, raw_size
from inlet.core.memo import memo
from inlet.core.problem import Problem
from inlet.core.project import Block, Fabric, Improvised, Project
from inlet.core.words import fabric_name


class CornerChoice(NamedTuple):
    """What chance draws the corners of a block from, and the fabric of the square itself."""

    rules: CornerRules
    background: str | None

    @property
    def possible(self) -> bool:
        """Is there a corner at all?"""
        return bool(self.rules.lengths and self.rules.fabrics)

    def squares(self, spots: tuple[Spot, ...]) -> tuple[ImprovisedSquare, ...]:
        """A square for each spot; none where no corner is possible."""
        return _squares(spots, self.rules)


@memo(20)
def _squares(spots: tuple[Spot, ...], rules: CornerRules) -> tuple[ImprovisedSquare, ...]:
    return tuple(improvised_squares(spots, rules))


def corner_choice(block: Block, project: Project) -> CornerChoice | None:
    """What the corners of a block are drawn from; None of one that has none: that is not
    improvised, or has more patches than one."""
    bounds = block.improvised
    if bounds is None:
        return None
    patches = draft(block).patches
    if len(patches) != 1:
        return None
    background, measure = patches[0].fabric, project.measure
    lengths = lengths_within(bounds, raw_size(block.finished, measure), measure.seam)
    fabrics = _fabrics(bounds, background, project)
    rules = CornerRules(
        lengths, fabrics, bounds.fewest, bounds.most, bounds.seed, bounds.balance
    )  # fmt: skip
    return CornerChoice(rules, background)


def _fabrics(bounds: Improvised, background: str | None, project: Project) -> tuple[str, ...]:
    """The fabrics of the corners: those that differ from the square in value, where the maker
    wishes that."""
    known = {fabric.id: fabric for fabric in project.fabrics}
    square = known.get(background or "")
    return tuple(
        name
        for name in bounds.fabrics
        if name in known
        and not (bounds.contrast and square is not None and _reads_as_one(name, square.id, known))
    )


def _reads_as_one(name: str, square: str, known: dict[str, Fabric]) -> bool:
    return name == square or too_near(known[name], known[square])


def corner_problems(block: Block, drawn: Draft, project: Project) -> Iterator[Problem]:
    """Why corners that the maker wishes are not sewn on."""
    if block.improvised is None:
        return
    if len(drawn.patches) != 1:
        yield Problem(
            "warning", "corners-need-one-patch", (),
            f"Corners are improvised on one patch: {block.title} has {len(drawn.patches)}, and "
            "gets none.",
        )  # fmt: skip
        return
    choice = corner_choice(block, project)
    assert choice is not None, "one patch has corners"
    if not choice.rules.lengths:
        yield Problem(
            "warning", "corner-bounds", (),
            "No seam across a corner lies within the bounds: begin nearer to the corner, reach "
            "farther, or allow steeper seams.",
        )  # fmt: skip
    if not block.improvised.fabrics:
        yield Problem(
            "warning", "corner-fabrics", (), "No fabric is chosen for the corners.",
        )  # fmt: skip
    elif not choice.rules.fabrics:
        square = fabric_name(project, choice.background)
        yield Problem(
            "warning", "corner-fabrics", (),
            f"No fabric chosen for the corners differs from {square} in value.",
        )  # fmt: skip
