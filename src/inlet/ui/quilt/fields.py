"""Choices of fabrics and blocks, and lengths, as every page of the quilt's ticket has them."""

from __future__ import annotations

from collections.abc import Callable

from inlet.core.numbers import Exact, parse_length, show
from inlet.core.project import Project, Quilt
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import Items
from inlet.ui.widgets.parts import ValueEdit

WIDEST_INCHES = 60


def fabric_choices(project: Project, none: str = "no fabric yet") -> Items:
    return [(none, ""), *((fabric.title, fabric.id) for fabric in project.fabrics)]


def laid(project: Project, quilt: Quilt, none: str = "no block yet") -> Items:
    """Blocks and motifs."""
    blocks = [(block.title, block.id) for block in project.blocks]
    motifs = [(f"{motif.name or motif.id} (motif)", motif.id) for motif in quilt.motifs]
    return [(none, ""), *blocks, *motifs]


class LengthEdit(ValueEdit):
    """A length of the quilt; empty is none where that may be."""

    def __init__(
        self,
        session: Session,
        name: str,
        take: Callable[[Exact | None], object],
        may_be_empty: bool,
    ) -> None:
        super().__init__(name, self._take_length, 52)
        self._session, self._give, self._may = session, take, may_be_empty
        self.refused.connect(session.said)

    def show_length(self, length: Exact | None) -> None:
        system = self._session.measure.system
        self.show_value("" if length is None else show(length, system=system, ruler=True))

    def _take_length(self, text: str) -> None:
        measure = self._session.measure
        if not text.strip() and self._may:
            self._give(None)
            return
        length = parse_length(text, measure.system)
        if not 0 < length <= measure.from_inches(WIDEST_INCHES):
            raise ValueError(f"it must be above 0, up to {WIDEST_INCHES} inches")
        self._give(length)
