"""What is wrong or worth knowing, in words, with its place."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal, NamedTuple

from inlet.core.geometry import Point

Level = Literal["error", "warning"]


class Problem(NamedTuple):
    """``level`` is "error" (the plan stops there) or "warning"; ``at`` are points of the block in
    grid units; ``text`` is one sentence for the maker."""

    level: Level
    code: str
    at: tuple[Point, ...]
    text: str


def has_error(problems: Iterable[Problem]) -> bool:
    return any(problem.level == "error" for problem in problems)


def errors_first(problems: Iterable[Problem]) -> tuple[Problem, ...]:
    return tuple(sorted(problems, key=lambda problem: problem.level != "error"))


def numbered(problems: Sequence[Problem]) -> list[Problem]:
    """The problems that have a number, in a list and on the drawing; a patch without fabric is
    plain to see, and is left out."""
    return [p for p in problems if p.code != "patch-without-fabric"]
