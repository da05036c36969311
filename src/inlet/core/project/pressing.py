"""What the maker decided about pressing: a method, weights of their own, seams pinned."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from msgspec import field

from inlet.core.numbers import Exact
from inlet.core.project.value import Pair, Value, replace

PressingMethod = Literal["mixed", "dark", "nest", "open", "whirl", "end"]
"""Ways to press: weighing all, to the dark, nesting first, open, four-way centres whirled, and all
at the end."""
Beside = Literal["alone", "one-way", "quarter-turns", "round"]
"""Beside no other, all one way, in alternate quarter turns, four round a centre."""
MOST_VERSIONS = 2
PinnedTo = Literal["open", "whirl", "flat"]
"""What a pin may say but a part: a seam pressed open; a centre whirled, or not."""


class Pin(Value, frozen=True, kw_only=True):
    """A seam, by a ``point`` on it, pressed ``toward`` the part around another point, or ``open``;
    or a centre, by its own point, to ``whirl`` or to leave ``flat``. Grid units."""

    point: Pair
    toward: Pair | PinnedTo = "open"


class BlockPressing(Value, frozen=True, kw_only=True):
    """How one block is pressed: by the ``method`` of the project where it is empty, in up to so
    many ``versions`` of a unit or of the block, with ``pins``. ``setting`` is how it will lie
    beside others like it; empty where the quilt says."""

    method: PressingMethod | Literal[""] = field(name="school", default="")
    versions: int = 1
    setting: Beside | Literal[""] = ""
    pins: tuple[Pin, ...] = ()


def pins_moved(
    pressing: BlockPressing | None, move: Callable[[Pair], Pair | None]
) -> BlockPressing | None:
    """The same decisions in a block whose points were moved; pins whose place is gone are left
    out."""
    if pressing is None or not pressing.pins:
        return pressing
    pins = []
    for pin in pressing.pins:
        point = move(pin.point)
        toward = pin.toward if isinstance(pin.toward, str) else move(pin.toward)
        if point is not None and toward is not None:
            pins.append(replace(pin, point=point, toward=toward))
    return replace(pressing, pins=tuple(pins))


class Pressing(Value, frozen=True, kw_only=True):
    """How the project's blocks are pressed: ``weights`` in place of the method's own, by name."""

    method: PressingMethod = field(name="school", default="mixed")
    weights: dict[str, Exact] = field(default_factory=dict)
