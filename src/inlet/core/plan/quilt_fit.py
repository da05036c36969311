"""Where the edges of a quilt differ, in words, and what can be done about it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import NamedTuple, Protocol

from inlet.core.fitting import EASED, as_exact
from inlet.core.numbers import nearest_mark
from inlet.core.problem import Problem
from inlet.core.project import Measure, Project
from inlet.core.setting import Apart
from inlet.core.words import length_text

MOST_TOLD = 4
"""Kinds of seams that are told one by one."""


class UnevenSeams(NamedTuple):
    """Seams of one kind whose edges differ: what is sewn to what, by how much at most, over what
    length, and at how many places."""

    what: tuple[str, str]
    differs: float
    length: float
    number: int

    @property
    def eased(self) -> bool:
        """Can so much be eased over such a length?"""
        return self.differs <= self.length * float(EASED)


def uneven_seams(apart: Sequence[Apart]) -> tuple[UnevenSeams, ...]:
    """Seams that differ, alike ones together, the worst first."""
    kinds: dict[tuple[str, str], list[Apart]] = {}
    for seam in apart:
        kinds.setdefault(seam.what, []).append(seam)
    uneven = []
    for what, seams in kinds.items():
        worst = max(seams, key=lambda seam: seam.differs)
        uneven.append(UnevenSeams(what, worst.differs, worst.length, len(seams)))
    return tuple(sorted(uneven, key=lambda seams: -seams.differs))


def differs_text(differs: float, measure: Measure) -> str:
    """A difference, no finer than can be read: ``5/64 in``."""
    fine = measure.system.fine_mark
    return length_text(max(fine, nearest_mark(as_exact(differs, measure), fine)), measure)


def meeting_text(meeting: UnevenSeams, measure: Measure) -> str:
    """``Four is 5/64 in longer than Nine where they meet (3 places)``."""
    longer, other = meeting.what
    places = "1 place" if meeting.number == 1 else f"{meeting.number} places"
    beside = f"another {other}" if longer == other else other
    verb = "are" if longer[0].isdigit() else "is"
    more = f"{differs_text(meeting.differs, measure)} longer"
    return f"{longer[0].upper()}{longer[1:]} {verb} {more} than {beside} where they meet ({places})"


def apart_text(apart: Sequence[Apart], measure: Measure) -> str:
    """All of it in a line; nothing where every edge meets to a thread."""
    if not apart:
        return ""
    worst = differs_text(max(seam.differs for seam in apart), measure)
    seams = "1 seam" if len(apart) == 1 else f"{len(apart)} seams"
    return f"Edges differ by up to {worst} at {seams}."


class PlannedTop(Protocol):
    """What of a quilt's plan says how it fits."""

    @property
    def project(self) -> Project: ...
    @property
    def apart(self) -> tuple[Apart, ...]: ...


def apart_problems(plan: PlannedTop) -> Iterator[Problem]:
    """Each kind of seam whose edges differ by more than a thread."""
    measure = plan.project.measure
    uneven = uneven_seams(plan.apart)
    for meeting in uneven[:MOST_TOLD]:
        length = nearest_mark(as_exact(meeting.length, measure), measure.system.checked_to)
        over = length_text(length, measure)
        ease = (
            f"Ease it in over {over}" if meeting.eased else f"That is too much to ease over {over}"
        )
        yield Problem("warning", "edges-differ", (), f"{meeting_text(meeting, measure)}. {ease}.")
    if len(uneven) > MOST_TOLD:
        more = len(uneven) - MOST_TOLD
        kinds = "kind of seam differs" if more == 1 else "kinds of seams differ"
        yield Problem("warning", "edges-differ", (), f"{more} more {kinds}.")
