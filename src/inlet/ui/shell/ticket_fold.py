"""What is left of the ticket where it is folded: a narrow strip that opens it."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QWidget

from inlet.ui import theme
from inlet.ui.widgets.parts import column, icon_button


class TicketFold(QWidget):
    def __init__(self, open_ticket: Callable[[], object]) -> None:
        super().__init__()
        self.setObjectName("ticketFold")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        layout = column(self, 5, 6)
        self.button = icon_button("tool-ticket", "Open the ticket (F8)", open_ticket)
        self.button.setIconSize(QSize(theme.px(20), theme.px(20)))
        layout.addWidget(self.button)
        layout.addStretch(1)
