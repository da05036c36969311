"""The help beside the stage: pages to read and to search, with pictures as those of a plan."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt, QUrl, Signal
from PySide6.QtGui import QImage, QPainter, QTextCursor, QTextDocument
from PySide6.QtWidgets import QFrame, QLineEdit, QTextBrowser

from inlet.core.figures import CraftPicture, craft_picture
from inlet.core.project import first_project
from inlet.core.search import Findable, Index
from inlet.files.help_pages import HelpSection, all_sections, help_pages
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.widgets.painting import draw_figure
from inlet.ui.widgets.parts import column, icon_button, row

WIDE, WIDEST = 320, 470
"""Pixels it is wide, growing with the text, and at most."""
FOUND = 20
"""Sections listed at most."""
EDGE = 5
"""Pixels round a picture, for its outermost lines."""
SHARP = 2
"""Pixels drawn for each pixel of the screen's usual ones, so that pictures are sharp on any."""


@guarded
class Pages(QTextBrowser):
    """Shows Markdown; its pictures are drawn when it asks for them."""

    def loadResource(self, kind: int, name: QUrl | str) -> object:
        name = QUrl(name)
        picture = craft_picture(name.path()) if name.scheme() == "picture" else None
        return drawn(picture) if picture is not None else None


def drawn(picture: CraftPicture) -> QImage:
    """A picture of the craft on paper."""
    scale = theme.px(100) / 100
    edge = 2 * EDGE
    size = QSize(round(picture.width * scale) + edge, round(picture.height * scale) + edge)
    image = QImage(size * SHARP, QImage.Format.Format_ARGB32_Premultiplied)
    image.setDevicePixelRatio(SHARP)
    image.fill(0)
    with QPainter(image) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.translate(EDGE, EDGE)
        painter.scale(scale, scale)
        draw_figure(painter, picture.figure, first_project())
    return image


@guarded
class HelpPanel(QFrame):
    """One page at a time, the way back, and a line to search all pages."""

    asked_stage = Signal(str)
    closed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("help")
        self.page, self.anchor = "", ""
        self._before: list[tuple[str, str]] = []
        layout = column(self, 10, 8)
        self.line = QLineEdit()
        self.line.setPlaceholderText("Search the help")
        self.line.setAccessibleName("Search the help")
        self.line.setClearButtonEnabled(True)
        self.line.textChanged.connect(self._look)
        self.back = icon_button("chevron-left", "The page before", self._go_back)
        self.contents = icon_button("menu", "All pages of the help", self.show_contents)
        self.close_ = icon_button("x", "Close the help (F1)", self.closed.emit)
        layout.addLayout(row(self.back, self.contents, self.line, self.close_))
        self.text = Pages()
        self.text.setObjectName("helpText")
        self.text.setAccessibleName("Help")
        self.text.setOpenLinks(False)
        self.text.setFrameShape(QFrame.Shape.NoFrame)
        self.text.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.text.anchorClicked.connect(self._follow)
        layout.addWidget(self.text, 1)
        self._sections: list[HelpSection] = []
        self._index: Index | None = None

    def breadth(self) -> int:
        """How wide it is, in pixels."""
        return min(theme.px(WIDE), WIDEST)

    def show_page(self, name: str, anchor: str = "") -> None:
        """A page, from one of its headings on; the contents where there is no such page."""
        page = help_pages().get(name)
        if page is None:
            self.show_contents()
            return
        if self.page and (self.page, self.anchor) != (name, anchor):
            self._before.append((self.page, self.anchor))
        self.page, self.anchor = name, anchor
        self.back.setEnabled(bool(self._before))
        self._show(page.markdown)
        heading = page.heading_of(anchor)
        if heading:
            self._scroll_to(heading)

    def show_contents(self) -> None:
        """All pages."""
        lines = [f"- [{page.title}](help:{page.name})" for page in help_pages().values()]
        self.page, self.anchor = "", ""
        self._show("# Help\n\n" + "\n".join(lines))

    def _show(self, markdown: str) -> None:
        document = self.text.document()
        document.setDefaultFont(theme.font(10.5))
        document.setDocumentMargin(theme.px(4))
        self.text.setMarkdown(markdown)
        self.text.moveCursor(QTextCursor.MoveOperation.Start)
        self.text.verticalScrollBar().setValue(0)

    def _scroll_to(self, heading: str) -> None:
        """The heading at the top, as far as the page is long."""
        document = self.text.document()
        cursor = document.find(heading, 0, QTextDocument.FindFlag.FindCaseSensitively)
        while not cursor.isNull():
            block = cursor.block()
            if block.blockFormat().headingLevel() and block.text() == heading:
                top = document.documentLayout().blockBoundingRect(block).top()
                self.text.verticalScrollBar().setValue(round(top))
                return
            cursor = document.find(heading, cursor)

    def _look(self, typed: str) -> None:
        """The sections that have the words typed; the page again where there are none."""
        if not typed.strip():
            self.show_page(self.page or "begin", self.anchor)
            return
        if self._index is None:
            self._sections = all_sections()
            self._index = Index(Findable(s.heading, s.text) for s in self._sections)
        sections = [self._sections[i] for i in self._index.find(typed)[:FOUND]]
        lines = [
            f"- [{section.heading}]({_written(section.link)}) ({help_pages()[section.page].title})"
            for section in sections
        ]
        self._show("\n".join(lines) or "Nothing is called that. Try another word.")

    def _follow(self, link: QUrl) -> None:
        if link.scheme() == "go":
            self.asked_stage.emit(link.path())
        elif link.scheme() == "help":
            self.line.blockSignals(True)
            self.line.clear()
            self.line.blockSignals(False)
            self.show_page(link.path(), link.fragment())

    def _go_back(self) -> None:
        if self._before:
            page, anchor = self._before.pop()
            self.page = ""
            self.show_page(page, anchor)


def _written(link: str) -> str:
    """A link as Markdown takes it, blanks and all."""
    return f"<{link}>" if " " in link else link
