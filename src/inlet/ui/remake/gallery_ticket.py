"""The ticket of the page “See before you choose”: what was chosen last, large, in words."""

from __future__ import annotations

from PySide6.QtCore import QRectF
from PySide6.QtGui import QPainter
from PySide6.QtWidgets import QWidget

from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.remake.gallery_page import GalleryPage
from inlet.ui.widgets.parts import button, column, label, rule
from inlet.ui.widgets.thumbnails import draw_repeated


class GalleryTicket(QWidget):
    def __init__(self, page: GalleryPage) -> None:
        super().__init__()
        self.page = page
        self.setObjectName("ticketBody")
        layout = column(self, 16, 9)
        self.title = label("", "title", True)
        self.picture = ChosenPicture(page)
        self.words = label("", "", True)
        self.keep = button("Keep beside", page.keep)
        layout.addWidget(self.title)
        layout.addWidget(rule())
        layout.addWidget(self.picture)
        layout.addWidget(self.words)
        layout.addWidget(self.keep)
        layout.addWidget(rule())
        layout.addWidget(
            label(
                "First come those that look the same in most turns, and those whose figures go on "
                "from block to block; of exchanges, those in which every shape still shows.",
                "small",
                True,
            )
        )
        layout.addStretch(1)
        page.shown.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        last = self.page.last
        self.title.setText(self.page.session.block.title)
        self.words.setText(last.words if last is not None else "Nothing is chosen yet.")
        self.picture.setVisible(last is not None)
        self.keep.setVisible(last is not None)
        self.picture.update()


@guarded
class ChosenPicture(QWidget):
    """The picture chosen last."""

    def __init__(self, page: GalleryPage) -> None:
        super().__init__()
        self.page = page
        self.setMinimumHeight(theme.px(270))
        self.setAccessibleName("Chosen last")

    def paintEvent(self, event: object) -> None:
        last = self.page.last
        if last is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        session = self.page.session
        side = min(self.width(), self.height())
        box = QRectF(0, 0, side, side)
        draw_repeated(painter, box, last.small, session.project, last.across, session.grey)
        painter.end()
