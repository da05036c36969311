"""The draft stage: the tools, what they are set to, the dial, and the drawing."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import QButtonGroup, QHBoxLayout, QSizePolicy, QToolButton, QWidget

from inlet.core.draft.compass import without_marks
from inlet.core.draft.snapping import DIVISIONS
from inlet.ui import theme
from inlet.ui.draft.dial import Dial
from inlet.ui.draft.drawing import Drawing
from inlet.ui.draft.tools import TOOLS, CurveTool
from inlet.ui.flow import FlowLayout
from inlet.ui.parts import column, label
from inlet.ui.session import Session


class DraftStage(QWidget):
    """The drawing with its tools above it."""

    used = Signal(str)  # the tool taken up

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.drawing = Drawing(session)
        self.drawing.asked.connect(self.use)
        layout = column(self, 12, 8)
        self.tool_buttons: dict[str, QToolButton] = {}
        self.snap_buttons: dict[int, QToolButton] = {}
        left = column(spacing=6)
        left.addWidget(self._tools())
        left.addWidget(self._options())
        self.dial = Dial(session)
        head = QHBoxLayout()
        head.addLayout(left, 1)
        head.addWidget(self.dial, 0, Qt.AlignmentFlag.AlignTop)
        layout.addLayout(head)
        layout.addWidget(self.drawing, 1)
        session.changed.connect(self._refresh)
        self.use("seam")

    def _tools(self) -> QWidget:
        bar = QWidget()
        flow = FlowLayout(bar, 0, theme.px(5))
        group = QButtonGroup(self)
        for tool in TOOLS:
            made = QToolButton()
            made.setIconSize(QSize(theme.px(20), theme.px(20)))
            made.setCheckable(True)
            made.setText(tool.words)
            made.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
            made.setToolTip(f"{tool.words} ({tool.letter})")
            made.clicked.connect(lambda _=False, key=tool.key: self.use(key))
            made.toggled.connect(lambda on, b=made, i=tool.icon: _tint(b, i, on))
            group.addButton(made)
            self.tool_buttons[tool.key] = made
            _tint(made, tool.icon, False)
            flow.addWidget(made)
        return bar

    def _options(self) -> QWidget:
        bar = QWidget()
        flow = FlowLayout(bar, 0, theme.px(5))
        words = label("Bands in", "small")
        words.setMinimumHeight(theme.px(30))
        flow.addWidget(words)
        group = QButtonGroup(self)
        for divide in DIVISIONS:
            made = QToolButton()
            made.setText(str(divide))
            made.setCheckable(True)
            made.setChecked(divide == 1)
            made.setMinimumWidth(theme.px(28))
            made.setToolTip(f"Snap to each band in {divide}" if divide > 1 else "Snap to the grid")
            made.setAccessibleName(f"Snap: bands in {divide}")
            made.clicked.connect(lambda _=False, d=divide: self.drawing.divide_by(d))
            group.addButton(made)
            self.snap_buttons[divide] = made
            flow.addWidget(made)
        self.curve_buttons: dict[bool, QToolButton] = {}
        curves = QButtonGroup(self)
        for about, text in ((False, "Quarter circle"), (True, "About a centre")):
            made = QToolButton()
            made.setText(text)
            made.setCheckable(True)
            made.setChecked(not about)
            made.clicked.connect(lambda _=False, a=about: self._choose_curve(a))
            curves.addButton(made)
            self.curve_buttons[about] = made
            flow.addWidget(made)
        self.clear_marks = QToolButton()
        self.clear_marks.setText("Clear marks")
        self.clear_marks.clicked.connect(
            lambda: self.session.edit_block(without_marks(self.session.block))
        )
        flow.addWidget(self.clear_marks)
        self.prompt = label("", "small", wrap=True)
        self.prompt.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
        self.prompt.setMinimumSize(theme.px(230), theme.px(30))
        flow.addWidget(self.prompt)
        self.drawing.prompted.connect(self.prompt.setText)
        return bar

    def use(self, key: str) -> None:
        """Take up a tool, by its key; what a tool asks of the tray goes by."""
        if key not in self.tool_buttons:
            self.used.emit(key)
            return
        self.drawing.use(key)
        self.tool_buttons[key].setChecked(True)
        self._refresh()
        self.used.emit(key)

    def _choose_curve(self, about_centre: bool) -> None:
        tool = self.drawing.tools["curve"]
        assert isinstance(tool, CurveTool)
        tool.choose(about_centre)
        self.drawing.prompt()
        self.drawing.update()

    def _refresh(self) -> None:
        """Only what the tool in the hand can be set to is shown."""
        key = self.drawing.tool.key
        for made in self.curve_buttons.values():
            made.setVisible(key == "curve")
        self.clear_marks.setVisible(key == "swing" and bool(self.session.block.marks))


def _tint(made: QToolButton, icon: str, on: bool) -> None:
    made.setIcon(theme.icon(icon, theme.PAPER if on else theme.INK))
