"""A window's stages and their tickets, each made when it is first asked for.

All of them at once take a tenth of a second of the window's thread, a long wait for another text
size: the stage looked at is made at once, the others soon after, one at a time. A widget made late
takes up what the session knows by then.
"""

from __future__ import annotations

from functools import cached_property
from typing import Protocol

from PySide6.QtCore import QTimer, SignalInstance
from PySide6.QtWidgets import QWidget

from inlet.files.project.recovery import Desk
from inlet.ui.bench.stage import BenchStage
from inlet.ui.bench.ticket import BenchTicket
from inlet.ui.cutting.stage import CuttingStage
from inlet.ui.cutting.ticket import CuttingTicket
from inlet.ui.draft.stage import DraftStage
from inlet.ui.draft.ticket import DraftTicket
from inlet.ui.guard import guarded
from inlet.ui.piecing.stage import PiecingStage
from inlet.ui.piecing.ticket import PiecingTicket
from inlet.ui.pressing.stage import PressingStage
from inlet.ui.pressing.ticket import PressingTicket
from inlet.ui.quilt.stage import QuiltStage
from inlet.ui.quilt.ticket import QuiltTicket
from inlet.ui.remake.slicing import Slicing
from inlet.ui.remake.stage import RemakeStage
from inlet.ui.remake.ticket import RemakeTicket
from inlet.ui.shell.actions import ActionWindow
from inlet.ui.shell.rail import STAGES
from inlet.ui.shell.session import Session
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.tape import Reading
from inlet.ui.units.stage import UnitsStage
from inlet.ui.units.ticket import UnitsTicket


class StageWidget(Protocol):
    """What a stage tells the window."""

    @property
    def pointed(self) -> SignalInstance:
        """Tells of the ``Reading`` of what is under the pointer, or None."""
        ...

    @property
    def hears(self) -> QWidget | None:
        """What takes the keys that its card or picture tells of."""
        ...

    def reading(self) -> Reading | None:
        """What the tape shows with nothing under the pointer, if not the block."""
        ...


BETWEEN = 40
"""Milliseconds between one stage made ahead and the next, for what the hand does."""


@guarded
class StageWindow(ActionWindow):
    """``draft`` and ``draft_ticket``, and so on for each of ``STAGES``."""

    def __init__(
        self, session: Session, settings: Settings | None = None, desk: Desk | None = None
    ) -> None:
        super().__init__(session, settings, desk)
        self.slicing = Slicing(session)
        self._ahead = QTimer(self)
        self._ahead.setInterval(BETWEEN)
        self._ahead.timeout.connect(self._make_ahead)

    @cached_property
    def draft(self) -> DraftStage:
        return DraftStage(self.session)

    @cached_property
    def draft_ticket(self) -> DraftTicket:
        return DraftTicket(self.session)

    @cached_property
    def remake(self) -> RemakeStage:
        return RemakeStage(self.session, self.slicing)

    @cached_property
    def remake_ticket(self) -> RemakeTicket:
        return RemakeTicket(self.remake)

    @cached_property
    def units(self) -> UnitsStage:
        return UnitsStage(self.session)

    @cached_property
    def units_ticket(self) -> UnitsTicket:
        return UnitsTicket(self.session)

    @cached_property
    def cutting(self) -> CuttingStage:
        return CuttingStage(self.session)

    @cached_property
    def cutting_ticket(self) -> CuttingTicket:
        ticket = CuttingTicket(self.session)
        self.cutting.chose.connect(ticket.show_fabric)
        self.cutting.cuts.connect(ticket.show_plan)
        return ticket

    @cached_property
    def piecing(self) -> PiecingStage:
        return PiecingStage(self.session)

    @cached_property
    def piecing_ticket(self) -> PiecingTicket:
        return PiecingTicket(self.session, self.piecing)

    @cached_property
    def pressing(self) -> PressingStage:
        return PressingStage(self.session)

    @cached_property
    def pressing_ticket(self) -> PressingTicket:
        return PressingTicket(self.session, self.pressing)

    @cached_property
    def quilt(self) -> QuiltStage:
        return QuiltStage(self.session, self.quilt_ticket)

    @cached_property
    def quilt_ticket(self) -> QuiltTicket:
        return QuiltTicket(self.session)

    @cached_property
    def bench(self) -> BenchStage:
        return BenchStage(self.session)

    @cached_property
    def bench_ticket(self) -> BenchTicket:
        return BenchTicket(self.session, self.bench)

    def pair(self, stage: str) -> tuple[QWidget, QWidget]:
        """A stage of ``STAGES`` and its ticket."""
        return getattr(self, stage), getattr(self, f"{stage}_ticket")

    def stage_widget(self, stage: str) -> StageWidget:
        """The stage of this name."""
        widget: StageWidget = getattr(self, stage)
        return widget

    def make_stages_anew(self) -> None:
        """Those there are go; new ones come as they are asked for, and ahead of that."""
        for name in _NAMES:
            widget = vars(self).get(name)
            if widget is not None:
                delattr(self, name)
                widget.deleteLater()
        self._ahead.start()

    def _make_ahead(self) -> None:
        """One more of those that nobody asked for yet."""
        missing = [name for name in _NAMES if name not in vars(self)]
        if missing:
            getattr(self, missing[0])
        if len(missing) < 2:
            self._ahead.stop()


_NAMES = tuple(name for stage in STAGES for name in (stage, f"{stage}_ticket"))
