"""The maker's pins: seams held the way they say, until they let go."""

from __future__ import annotations

from inlet.core.assembly import Faces
from inlet.core.draft import Draft, anchor_in
from inlet.core.geometry import Curve, Point, midpoint, short_point
from inlet.core.numbers import Fraction
from inlet.core.pressing.holding import Pinned
from inlet.core.pressing.junctions import Junction
from inlet.core.pressing.outcomes import OPEN
from inlet.core.pressing.pressing_plan import PressingPlan, Stretch
from inlet.core.project import Block, BlockPressing, Pair, Pin, replace


def pin_stretch(plan: PressingPlan, stretch: Stretch, toward: int | None) -> Block:
    """The block with a seam pinned toward a patch, or open; a pin it had is replaced."""
    return _with_pins(plan, {"span": stretch.span}, (_pin(plan, stretch, toward),))


def _pin(plan: PressingPlan, stretch: Stretch, toward: int | None) -> Pin:
    draft = plan.seams.draft
    point = _middle(draft, stretch.join.edges[stretch.begin])
    return Pin(point=point, toward="open" if toward is None else _inside(draft, toward))


def unpin_stretch(plan: PressingPlan, stretch: Stretch) -> Block:
    """The block with a seam pinned no more."""
    return _with_pins(plan, {"span": stretch.span}, ())


def pin_within(plan: PressingPlan, faces: Faces) -> Block:
    """The block with all seams inside a part pinned as they are."""
    block, seen = plan.seams.draft.block, {pin.span for pin in plan.pins}
    wishes = block.pressing or BlockPressing()
    pins = list(wishes.pins)
    for stretch in plan.stretches:
        if stretch.join.faces <= faces and stretch.span not in seen:
            seen.add(stretch.span)
            pins.append(_pin(plan, stretch, stretch.toward))
    return replace(block, pressing=replace(wishes, pins=tuple(pins)))


def pin_centre(plan: PressingPlan, junction: Junction, spin: bool | None) -> Block:
    """The block with a centre pinned to be whirled or not; no more, if None."""
    sx, sy = plan.seams.draft.block.scale
    at = junction.at.scaled(1 / sx, 1 / sy)
    pins = () if spin is None else (Pin(point=at, toward="whirl" if spin else "flat"),)
    return _with_pins(plan, {"vertex": junction.vertex}, pins)


def pin_wish(plan: PressingPlan, wish: Pinned) -> Block:
    """The block with what was thought of pinned."""
    if wish.vertex is not None:
        return pin_centre(plan, plan.seams.at[wish.vertex], bool(wish.way))
    stretch = next(each for each in plan.stretches if each.span == wish.span)
    if wish.way == OPEN:
        return pin_stretch(plan, stretch, None)
    _, swapped = plan.seams.of[stretch.join.number, stretch.begin]
    return pin_stretch(plan, stretch, stretch.beside[wish.way ^ swapped])


def unpin_all(block: Block) -> Block:
    """A block without any pin."""
    wishes = block.pressing or BlockPressing()
    return replace(block, pressing=replace(wishes, pins=()))


def _with_pins(plan: PressingPlan, held: dict[str, int], pins: tuple[Pin, ...]) -> Block:
    """The block with new pins in place of those that hold a span or a junction."""
    block = plan.seams.draft.block
    wishes = block.pressing or BlockPressing()
    ((name, value),) = held.items()
    gone = {pin.number for pin in plan.pins if getattr(pin, name) == value}
    kept = tuple(pin for i, pin in enumerate(wishes.pins) if i not in gone)
    return replace(block, pressing=replace(wishes, pins=kept + pins))


def _middle(draft: Draft, number: int) -> Pair:
    """A point in the middle of an edge, grid units."""
    arrangement = draft.arrangement
    curve: Curve = arrangement.curve(arrangement.edges[number])
    middle = midpoint(curve.start, curve.end)
    if curve.centre is None:
        return middle
    # From the centre through the middle of the chord, out to the circle.
    step, full = middle.minus(curve.centre), curve.start.minus(curve.centre)
    k = Fraction(_length(full) / _length(step)).limit_denominator(10**6)
    return short_point(curve.centre.plus(step.scaled(k, k)))


def _length(step: Point) -> float:
    x, y = step.floats()
    return float((x * x + y * y) ** 0.5)


def _inside(draft: Draft, face: int) -> Pair:
    """A point in a patch: its fabric's, where it has one."""
    for home, spot in zip(draft.homes, draft.block.fabric_at, strict=True):
        if home == face:
            return spot.point
    found = anchor_in(draft.arrangement, face)
    assert found is not None, "every patch has an inside"
    return found
