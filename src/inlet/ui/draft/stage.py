"""The draft stage: the tools, what they are set to, the dial, and the drawing."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtGui import QFontMetricsF
from PySide6.QtWidgets import QBoxLayout, QButtonGroup, QToolButton, QWidget

from inlet.core.draft import DIVISIONS, without_marks
from inlet.ui import theme
from inlet.ui.draft.dial import Dial
from inlet.ui.draft.drawing import Drawing
from inlet.ui.draft.seam_tools import CurveTool
from inlet.ui.draft.tools import TOOLS
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import ToolButton
from inlet.ui.widgets.parts import column, label

LOW = 330
"""A stage lower than this, in units of the text's size, has its tools beside the drawing."""
BESIDE = 132
"""How wide they are there: four buttons."""
QWIDGETSIZE_MAX = 16777215


@guarded
class DraftStage(QWidget):
    """The drawing with its tools above it."""

    used = Signal(str)  # the tool taken up

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.drawing = Drawing(session)
        self.drawing.asked.connect(self.use)
        self.pointed = self.drawing.pointed
        self.outer = QBoxLayout(QBoxLayout.Direction.TopToBottom, self)
        self.outer.setContentsMargins(*(theme.px(12),) * 4)
        self.outer.setSpacing(theme.px(8))
        self.tool_buttons: dict[str, QToolButton] = {}
        self.snap_buttons: dict[int, QToolButton] = {}
        left = column(spacing=6)
        left.addWidget(self._tools())
        left.addWidget(self._options())
        self.dial = Dial(session)
        self.head = QWidget()
        self.head_box = QBoxLayout(QBoxLayout.Direction.LeftToRight, self.head)
        self.head_box.setContentsMargins(0, 0, 0, 0)
        self.head_box.addLayout(left, 1)
        self.head_box.addWidget(self.dial, 0, Qt.AlignmentFlag.AlignTop)
        self.outer.addWidget(self.head)
        self.outer.addWidget(self.drawing, 1)
        session.changed.connect(self._refresh)
        self.use("seam")

    def _tools(self) -> QWidget:
        bar = QWidget()
        flow = FlowLayout(bar, 0, theme.px(5))
        group = QButtonGroup(self)
        for tool in TOOLS:
            button = ToolButton()
            button.setIconSize(QSize(theme.px(20), theme.px(20)))
            button.setCheckable(True)
            button.setText(tool.words)
            button.setAccessibleName(tool.words)
            button.setToolTip(f"{tool.words} ({tool.letter})")
            button.clicked.connect(lambda _=False, key=tool.key: self.use(key))
            group.addButton(button)
            self.tool_buttons[tool.key] = button
            button.setIcon(theme.icon(tool.icon))
            flow.addWidget(button)
        return bar

    @property
    def hears(self) -> QWidget:
        """What takes the keys that its card or picture tells of."""
        return self.drawing

    def reading(self) -> Reading | None:
        return self.drawing.reading()

    def _options(self) -> QWidget:
        bar = QWidget()
        flow = FlowLayout(bar, 0, theme.px(5))
        self.snap_words = label("Bands in", "small")
        self.snap_words.setMinimumHeight(theme.px(30))
        flow.addWidget(self.snap_words)
        group = QButtonGroup(self)
        for divide in DIVISIONS:
            button = ToolButton()
            button.setText(str(divide))
            button.setCheckable(True)
            button.setChecked(divide == 1)
            button.setMinimumWidth(theme.px(28))
            button.setToolTip(
                f"Snap to each band in {divide}" if divide > 1 else "Snap to the grid"
            )
            button.setAccessibleName(f"Snap: bands in {divide}")
            button.clicked.connect(lambda _=False, d=divide: self.drawing.divide_by(d))
            group.addButton(button)
            self.snap_buttons[divide] = button
            flow.addWidget(button)
        self.lock = ToolButton()
        self.lock.setText("45°")
        self.lock.setCheckable(True)
        self.lock.setToolTip("Keep to straight and 45° (L; Shift turns it round)")
        self.lock.setAccessibleName("Keep to 45 degrees")
        self.lock.toggled.connect(lambda on: setattr(self.drawing, "locked", on))
        flow.addWidget(self.lock)
        self.curve_buttons: dict[bool, QToolButton] = {}
        curves = QButtonGroup(self)
        for about, text, icon in (
            (False, "Quarter circle", "tool-curve"),
            (True, "About a centre", "tool-centre"),
        ):
            button = ToolButton()
            button.setText(text)
            button.setIcon(theme.icon(icon))
            button.setIconSize(QSize(theme.px(20), theme.px(20)))
            button.setToolTip(text)
            button.setAccessibleName(text)
            button.setCheckable(True)
            button.setChecked(not about)
            button.clicked.connect(lambda _=False, a=about: self._choose_curve(a))
            curves.addButton(button)
            self.curve_buttons[about] = button
            flow.addWidget(button)
        self.clear_marks = ToolButton()
        self.clear_marks.setText("Clear marks")
        self.clear_marks.clicked.connect(
            lambda: self.session.edit_block(without_marks(self.session.block))
        )
        flow.addWidget(self.clear_marks)
        return bar

    def resizeEvent(self, event: object) -> None:
        """Buttons have their words on them where one row holds all the tools. Where it does not and
        the stage is low, the tools stand beside the drawing, which needs the height more."""
        room = self.width() - self.dial.width() - theme.px(40)
        buttons = self.tool_buttons.values()
        words = QFontMetricsF(theme.font())
        wanted = sum(words.horizontalAdvance(b.text()) + theme.px(44) for b in buttons)
        style, roomy = Qt.ToolButtonStyle, wanted <= room
        for button in buttons:
            button.setToolButtonStyle(
                style.ToolButtonTextBesideIcon if roomy else style.ToolButtonIconOnly
            )
        for button in self.curve_buttons.values():
            button.setToolButtonStyle(
                style.ToolButtonTextOnly if roomy else style.ToolButtonIconOnly
            )
        self.snap_words.setVisible(roomy)
        beside = not roomy and self.height() < theme.px(LOW)
        across, down = QBoxLayout.Direction.LeftToRight, QBoxLayout.Direction.TopToBottom
        self.outer.setDirection(across if beside else down)
        self.head_box.setDirection(down if beside else across)
        self.head.setMaximumWidth(theme.px(BESIDE) if beside else QWIDGETSIZE_MAX)
        self.head.setMinimumWidth(theme.px(BESIDE) if beside else 0)

    def use(self, key: str) -> None:
        """Take up a tool, by its key; what a tool asks of the tray goes by."""
        if key == "lock":
            self.lock.toggle()
            return
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
        self.drawing.update()

    def _refresh(self) -> None:
        """Only what the tool in the hand can be set to is shown."""
        key = self.drawing.tool.key
        for button in self.curve_buttons.values():
            button.setVisible(key == "curve")
        self.lock.setVisible(key in ("seam", "curve"))
        self.clear_marks.setVisible(key == "swing" and bool(self.session.block.marks))
