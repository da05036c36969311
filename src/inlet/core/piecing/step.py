"""One card of the piecing stage."""

from __future__ import annotations

from typing import NamedTuple

from inlet.core.assembly import Join
from inlet.core.planning import UnitPlan
from inlet.core.table import Move, Size
from inlet.core.units import Part


class Step(NamedTuple):
    """One card: sew what ``makes`` names, ``times`` of them.

    ``measures`` is the size to check, raw edge to raw edge, as it comes out of what is cut (width,
    height as it lies in the block; None for a shape that is no rectangle); ``after_each`` the sizes
    after each seam on the way.
    ``part`` is where one of them lies in the block; ``unit`` is set for units, ``join`` where a
    single seam that is in no row is the step. ``ends`` say where the seam begins and stops,
    ``notes`` what to watch for, ``points`` the vertices where points lie at the raw edge. ``needs``
    are the labels and names of what it is made of, in the order they are picked up beside the
    machine; ``seams`` how many are sewn for one, ``length`` how long they are with their
    allowances. ``alike`` are the other parts of the block that the step makes too. A step that
    slices has ``cuts`` for each, the names of the pieces it ``gives``, and its pictures, ``moves``.
    """

    number: int
    makes: str
    times: int
    text: str
    measures: Size | None
    after_each: tuple[Size, ...]
    part: Part
    unit: UnitPlan | None
    join: Join | None = None
    ends: str = ""
    notes: tuple[str, ...] = ()
    points: tuple[int, ...] = ()
    needs: tuple[str, ...] = ()
    seams: int = 0
    length: float = 0.0
    alike: tuple[Part, ...] = ()
    cuts: int = 0
    gives: tuple[str, ...] = ()
    moves: tuple[Move, ...] = ()
