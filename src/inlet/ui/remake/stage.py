"""The remake stage: a page for each way to make a block out of others."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QStackedWidget, QWidget

from inlet.ui.guard import guarded
from inlet.ui.remake.corners_page import CornersPage
from inlet.ui.remake.gallery_page import GalleryPage
from inlet.ui.remake.improvising import Improvising
from inlet.ui.remake.panel_model import PanelModel
from inlet.ui.remake.panels_page import PanelsPage
from inlet.ui.remake.slice_page import SlicePage
from inlet.ui.remake.slicing import Slicing
from inlet.ui.remake.start_sizes_page import StartSizesPage
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.parts import column, scrolled
from inlet.ui.widgets.tabs import opens, tabs

PAGES = ("Slice and set again", "Start sizes", "Improvised corners", "Centre a motif",
         "See before you choose")  # fmt: skip
CORNERS = PAGES.index("Improvised corners")
PANELS = PAGES.index("Centre a motif")
GALLERY = PAGES.index("See before you choose")


@guarded
class RemakeStage(QWidget):
    pointed = Signal(object)
    turned = Signal(int)

    def __init__(self, session: Session, slicing: Slicing) -> None:
        super().__init__()
        self.session, self.slicing = session, slicing
        layout = column(self, 16, 8)
        line, self.page_buttons = tabs(self, enumerate(PAGES), self.turn_to)
        layout.addWidget(line)
        self.slice_page = SlicePage(slicing)
        self.pages = QStackedWidget()
        self.sizes = StartSizesPage(slicing)
        self.gallery = GalleryPage(session)
        self.corners = CornersPage(Improvising(session))
        self.panels = PanelsPage(PanelModel(session))
        bodies = (self.slice_page, self.sizes, self.corners, self.panels, self.gallery)
        page_areas = [scrolled(body, "page") for body in bodies]
        for page in page_areas:
            self.pages.addWidget(page)
        opens(self.page_buttons, dict(enumerate(page_areas)))
        self.panels.pointed.connect(self.pointed)
        self.corners.pointed.connect(self.pointed)
        layout.addWidget(self.pages, 1)
        self.slice_page.pointed.connect(self.pointed)
        self.turn_to(0)

    def turn_to(self, page: int) -> None:
        self.pages.setCurrentIndex(page)
        self.page_buttons[page].setChecked(True)
        self.turned.emit(page)

    @property
    def hears(self) -> QWidget | None:
        """What takes the keys that its card or picture tells of."""
        at = self.pages.currentIndex()
        return {0: self.slice_page.result, CORNERS: self.corners.picture,
                PANELS: self.panels.piece}.get(at)  # fmt: skip

    def reading(self) -> Reading | None:
        """The piece chosen, for the tape."""
        if self.pages.currentIndex() > 0:
            return None
        return self.slice_page.result.reading(self.slicing.chosen)
