"""What is wrong or worth knowing, in words, with its place."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from inlet.core.geometry.point import Point


class Problem(NamedTuple):
    """``level`` is "error" (the plan stops there) or "warning"; ``at`` are points of the block in
    grid units; ``text`` is one sentence for the maker."""

    level: str
    code: str
    at: tuple[Point, ...]
    text: str


def numbered(problems: Sequence[Problem]) -> list[Problem]:
    """The problems that have a number, in a list and on the drawing; a patch without cloth is
    plain to see, and is left out."""
    return [p for p in problems if p.code != "patch-without-fabric"]
