"""The maker's choices for single units: found by a point in one of its patches, and made."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from inlet.core.draft import Draft, anchor_in
from inlet.core.geometry import Point
from inlet.core.project import Block, Choice, replace
from inlet.core.units import Unit


def choices_for(drawn: Draft, block: Block, units: Sequence[Unit]) -> list[Choice | None]:
    """The choice for each unit: the last one whose point lies in a patch of it, and in none nested
    in it."""
    choices: list[Choice | None] = [None] * len(units)
    for choice in block.units:
        patch = drawn.patch_at(Point(*choice.point))
        if patch is None:
            continue
        holding = [
            (len(place.part.faces), i)
            for i, unit in enumerate(units)
            for place in unit.places
            if patch.face in place.part.faces
        ]
        if holding:
            choices[min(holding)[1]] = choice
    return choices


def with_choice(
    drawn: Draft, units: Sequence[Unit], unit: Unit, known_choice: Choice | None, **changes: Any
) -> Block:
    """The block with a choice for one unit changed; one that says nothing is dropped.
    ``known_choice`` is the choice it has now. Raises ``ValueError`` where another unit has the
    label wanted."""
    block = drawn.block
    label = changes.get("label")
    if label and any(u.label == label for u in units if u is not unit):
        raise ValueError(f"another unit is labelled {label}")
    if known_choice is None:
        nested = {f for part in unit.part.nested for f in part.faces}
        face = min(unit.part.faces - nested or unit.part.faces)
        point = anchor_in(drawn.arrangement, face)
        if point is None:
            raise ValueError("that unit is too small to keep a choice for")
        known_choice = Choice(point=point)
    return _with(block, known_choice, replace(known_choice, **changes))


def _with(block: Block, known_choice: Choice, new: Choice) -> Block:
    """The block with a choice in place of another at its point; dropped if it says nothing."""
    says = any((new.label, new.method, new.style, new.stock))
    kept = tuple(c for c in block.units if c.point != known_choice.point)
    return replace(block, units=(*kept, new) if says else kept)


def without_method(drawn: Draft, units: Sequence[tuple[Unit, Choice | None]]) -> Block:
    """The block without a method chosen for these units (a unit and its mirror image, each with its
    choice), or for all of their kind: the plan chooses."""
    block = drawn.block
    for unit, known_choice in units:
        if known_choice is not None and known_choice.method:
            block = _with(block, known_choice, replace(known_choice, method=""))
        if unit.kind in block.methods:
            methods = {kind: name for kind, name in block.methods.items() if kind != unit.kind}
            block = replace(block, methods=methods)
    return block
