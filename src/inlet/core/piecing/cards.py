"""Steps on cards: units of one shape, made in one way of other fabrics, share a card."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.cutlist import Stacks
from inlet.core.piecing.step import Step
from inlet.core.planning import over_text
from inlet.core.project import Project
from inlet.core.table import in_any_turn
from inlet.core.words import fabric_name


class StepCard(NamedTuple):
    """Steps that are done alike: the pictures of the first stand for all."""

    steps: tuple[Step, ...]

    @property
    def first(self) -> Step:
        return self.steps[0]


def cards(steps: Sequence[Step]) -> list[StepCard]:
    """The steps in their order, those that differ in nothing but their fabrics on one card."""
    found: dict[object, list[Step]] = {}
    for step in steps:
        found.setdefault(_work_of(step), []).append(step)
    return [StepCard(tuple(each)) for each in found.values()]


def _work_of(step: Step) -> object:
    """What is done in a step, fabrics aside; the step itself where it is like no other: what holds
    other units waits for them."""
    plan = step.unit
    if plan is None or plan.inside or plan.in_use.made_with is not None:
        return step.number
    method = plan.in_use
    pieces = tuple(
        (
            cut_piece.cut,
            cut_piece.piece.shape,
            cut_piece.piece.crosscut,
            cut_piece.piece.lean,
            cut_piece.piece.quantity,
        )
        for cut_piece in method.pieces
    )
    moves = tuple((m.do, m.text, m.times) for m in method.moves)
    which = {c: str(i) for i, c in enumerate(dict.fromkeys(p.piece.fabric for p in method.pieces))}
    drawn = tuple((outline, which.get(fabric)) for outline, fabric in plan.unit.picture)
    whole = (plan.unit.kind, method.name, method.trim_to, step.measures)
    return whole, pieces, moves, in_any_turn(drawn)


def fabric_rows(card: StepCard, stacks: Stacks, project: Project) -> list[list[str]]:
    """A table of the units of a card: label, how many, of each piece its stack and fabric, and what
    is over."""
    rows = []
    for step in card.steps:
        pieces = step.unit.in_use.pieces if step.unit else ()
        named = zip(stacks[step.makes], pieces, strict=True)
        fabrics = [
            f"{stack} {fabric_name(project, cut_piece.piece.fabric)}".strip()
            for stack, cut_piece in named
        ]
        over = over_text(step.unit.in_use) if step.unit else ""
        rows.append([step.makes, f"{step.times} ×", *fabrics, over])
    return rows
