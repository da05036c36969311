"""What will it do? The block as a hand will sew it, its points marked by how likely they are off;
what would help; the rows and borders of a quilt."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QTransform
from PySide6.QtWidgets import (
    QBoxLayout,
    QHBoxLayout,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from inlet.core.figures import (
    Figure,
    risk_figure,
    risk_mark,
    row_risk_figure,
    sewn_block_figure,
)
from inlet.core.numbers import vulgar_text
from inlet.core.plan import BlockPlan, QuiltPlan
from inlet.core.project import Project
from inlet.core.tolerance import (
    OWN,
    THREAD,
    WHOSE,
    HelpAdvice,
    Outlook,
    QuiltForecast,
    RiskLevel,
    SewingHand,
    SewnLook,
    advice_lines,
    advised,
    as_sewn,
    forecast_lines,
    look_ahead,
    outlook,
    quilt_forecast,
    quilt_lines,
    risk_line,
    size_at,
    thread_text,
)
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.quilt.scene import Scene, TopLook
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.choices import LARGE, ChoiceField, field
from inlet.ui.widgets.drawing import ScreenFrame
from inlet.ui.widgets.inputs import CheckBox, Slider
from inlet.ui.widgets.painting import draw_figure
from inlet.ui.widgets.parts import button, column, empty, label, row

TITLE = "What will it do?"
WAITS = "Sewing it 2,000 times …"
STEPS = 4
"""Of the slider to a thread."""
MOST_THREADS = 2
TIMES = 4
"""How many times as far off a block is drawn, so that it is seen."""
LEGEND: tuple[tuple[RiskLevel, str], ...] = (
    ("low", "comes out sharp"), ("some", "off in one of four or more"),
    ("high", "off more often than not"),
)  # fmt: skip


@guarded
class ForecastPage(QWidget):
    """Worked out again whenever the plan, the log or the slider is another; what was shown stays
    until then. ``pointed`` tells the tape of a size."""

    pointed = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("pageBody")
        self.name = OWN
        self.outlook: Outlook | None = None
        self.advice: tuple[HelpAdvice, ...] | None = None
        self.quilt: QuiltForecast | None = None
        self.do_it: list[QPushButton] = []
        self._asked: object = None
        self._at = 0.0  # inches wider that the outlook is of
        self._trying = False
        self._quilt_asked: object = None
        layout = column(self, 4, 8)
        self.title = label(TITLE, "title", True)
        layout.addWidget(self.title)
        self.whose = ChoiceField("Whose hand", self._take_hand)
        layout.addLayout(field("Sewn by", self.whose))
        self.picture = SewnPicture(session)
        self.picture.pointed.connect(self.pointed)
        self.wider = Slider("Threads wider", -MOST_THREADS * STEPS, MOST_THREADS * STEPS)
        self.wider.valueChanged.connect(self._slid)
        self.wider_words = label("", "", True)
        self.far = CheckBox(f"Drawn {TIMES} times as far off")
        self.far.setChecked(True)
        self.far.toggled.connect(lambda _: self._draw())
        picture = column(spacing=6)
        for widget in (self.picture, self.wider, self.wider_words, self.far, _Legend()):
            picture.addWidget(widget)
        picture.addStretch(1)
        self.lines, self.help = column(spacing=7), column(spacing=7)
        self.help_title = label("What would help", "heading")
        self.help_title.hide()
        words = column(spacing=7)
        words.addLayout(self.lines)
        words.addWidget(self.help_title)
        words.addLayout(self.help)
        words.addStretch(1)
        beside = QHBoxLayout()
        if theme.text_scale() >= LARGE:  # one below the other
            beside.setDirection(QBoxLayout.Direction.TopToBottom)
        beside.setSpacing(theme.px(20))
        beside.addLayout(picture, 1)
        beside.addLayout(words, 1)
        layout.addLayout(beside)
        self.quilt_title = label("Rows and borders", "heading")
        self.rows = RowsPicture(session)
        self.quilt_lines = column(spacing=5)
        layout.addWidget(self.quilt_title)
        layout.addWidget(self.rows)
        self.quilt_title.hide()
        self.rows.hide()
        layout.addLayout(self.quilt_lines)
        layout.addStretch(1)

    @property
    def inches(self) -> float:
        """How much wider than it is the seam is tried."""
        return self.wider.value() / STEPS * THREAD

    def refresh(self) -> None:
        session = self.session
        plan, work = session.plan, session.work_plan
        items = [("My hand", OWN), *((f"{w[0].upper()}{w[1:]}", n) for n, w in WHOSE.items())]
        self.whose.offer(items, self.name)
        if session.is_quilt and work is None:
            session.plan_the_quilt()
        if plan is None or plan.block is not session.block:
            return
        if self.outlook is None:
            _say(self.lines, [WAITS])
        asked = plan, session.project.log, session.project.measure, self.name
        if asked != self._asked:
            self._asked = asked
            self.advice, self._trying = None, False
            _say(self.help, ())
            self.help_title.hide()
            of = work if work is not None else plan
            session.think(
                partial(outlook, plan.asked, of, session.project, self.name),
                partial(self._looked, asked, plan),
            )
        self._ask_quilt(work)

    def _ask_quilt(self, work: object) -> None:
        if not isinstance(work, QuiltPlan) or self.outlook is None:
            there = isinstance(work, QuiltPlan) and self.quilt is not None
            self.quilt_title.setVisible(there)
            self.rows.setVisible(there)
            if not there:
                _say(self.quilt_lines, ())
            return
        hand, whose = self._hand_at(0.0), self.outlook.whose
        asked = work, hand
        if asked == self._quilt_asked:
            return
        self._quilt_asked = asked
        self.session.think(
            partial(quilt_forecast, work, hand), partial(self._looked_at_quilt, work, whose)
        )

    def _looked(self, asked: object, plan: BlockPlan, result: Outlook) -> None:
        if asked != self._asked:
            return
        self._at = 0.0
        self._show(plan, result)
        self._try()
        if result.forecast is not None:
            self.session.think(
                partial(advised, plan.asked, result.hand), partial(self._advised, asked)
            )
        self._ask_quilt(self.session.work_plan)

    def _advised(self, asked: object, advice: tuple[HelpAdvice, ...]) -> None:
        if asked != self._asked or self.outlook is None or self.outlook.forecast is None:
            return
        self.advice = advice
        lines = list(advice_lines(advice, self.outlook.forecast))
        self.help_title.setVisible(bool(lines))
        _say(self.help, ())
        self.do_it = []
        for i, line in enumerate(lines):
            self.help.addWidget(label(vulgar_text(line), "", True))
            project = advice[i].project if i < len(advice) else None
            if project is not None:
                do_it = button("Do it", partial(self._do, project))
                do_it.setAccessibleName(f"Do it: {advice[i].text}")
                self.help.addWidget(do_it, 0, Qt.AlignmentFlag.AlignLeft)
                self.do_it.append(do_it)

    def _do(self, project: Project) -> None:
        """What is advised becomes the project; one edit, undone like any."""
        self.session.edit(project)

    def _looked_at_quilt(self, plan: QuiltPlan, whose: str, result: QuiltForecast) -> None:
        if plan is not self.session.work_plan:
            return
        self.quilt = result
        self.rows.show_rows(plan, result)
        self.quilt_title.show()
        self.rows.show()
        _say(self.quilt_lines, quilt_lines(result, self.session.measure, whose), 1)

    def _show(self, plan: BlockPlan, result: Outlook) -> None:
        self.outlook = result
        measure = self.session.measure
        self.picture.show_block(plan, result)
        if result.forecast is None:
            self.title.setText(TITLE)
            _say(self.lines, [result.fault])
        else:
            self.title.setText(risk_line(result.forecast, result.whose) or TITLE)
            _say(self.lines, forecast_lines(result.forecast, result.shares, measure))
        self._draw()

    def _take_hand(self, name: str) -> None:
        self.name = name
        self.refresh()

    def _slid(self, _: int) -> None:
        """The block is drawn at once; its chances follow, those of the last place of the slider."""
        self._draw()
        self._try()

    def _try(self) -> None:
        plan, now, inches = self.session.plan, self.outlook, self.inches
        if plan is None or now is None or self._trying or inches == self._at:
            return
        self._trying = True
        hand = self._hand_at(inches)
        self.session.think(
            partial(look_ahead, plan.asked, plan, hand, now.whose),
            partial(self._tried, self._asked, plan, inches),
        )

    def _tried(self, asked: object, plan: BlockPlan, inches: float, result: Outlook) -> None:
        self._trying = False
        if asked == self._asked:
            self._at = inches
            self._show(plan, result)
            self._try()

    def _hand_at(self, inches: float) -> SewingHand:
        """The hand with its seam so much wider than it is."""
        now = self.outlook
        assert now is not None
        return now.hand.sewing_wider(inches - self._at)

    def _draw(self) -> None:
        if self.outlook is None:
            return
        hand = self._hand_at(self.inches)
        words = thread_text(hand, self.inches, self.session.measure)
        self.wider_words.setText(vulgar_text(words))
        self.picture.draw_with(hand, TIMES if self.far.isChecked() else 1)


def _say(lines: QVBoxLayout, words: Iterable[str], headings: int = 0) -> None:
    empty(lines)
    for i, line in enumerate(words):
        lines.addWidget(label(vulgar_text(line), "heading" if i < headings else "", True))


@guarded
class SewnPicture(QWidget):
    """The block as it comes out, its points and crossings marked. Point at a unit, or beside all of
    them, for its size on the tape."""

    pointed = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setAccessibleName("The block as it is sewn")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setMouseTracking(True)
        self.plan: BlockPlan | None = None
        self.outlook: Outlook | None = None
        self.look: SewnLook | None = None

    def sizeHint(self) -> QSize:
        return QSize(theme.px(360), theme.px(330))

    def show_block(self, plan: BlockPlan, outlook: Outlook) -> None:
        self.plan, self.outlook = plan, outlook
        self.setVisible(outlook.forecast is not None)

    def draw_with(self, hand: SewingHand, times: float) -> None:
        """The block sewn by a hand, so many times as far off."""
        now = self.outlook
        if now is not None and now.watched is not None:
            self.look = as_sewn(now.watched.model, hand, SEED, times)
        self.update()

    def frame(self) -> ScreenFrame:
        assert self.plan is not None
        wide, high = (float(side) for side in self.plan.asked.block.finished)
        edge = 0.03 * max(wide, high)
        box = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (8, 6, -8, -6)))
        return ScreenFrame.fit(box, (-edge, -edge, wide + edge, high + edge))

    def figure(self) -> Figure:
        """What is drawn now."""
        plan, now = self.plan, self.outlook
        if plan is None or now is None or now.forecast is None or self.look is None:
            return ()
        wide, high = (float(side) for side in plan.asked.block.finished)
        frame = self.frame().placed
        return (
            *sewn_block_figure(self.look, (wide, high), frame),
            *risk_figure(now.forecast, self.look, frame),
        )

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        draw_figure(painter, self.figure(), self.session.project, grey=self.session.grey)
        painter.end()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        self.pointed.emit(self.reading(event.position()))

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(None)

    def reading(self, at: QPointF) -> Reading | None:
        """The size of the unit there, or of the block, from low to high."""
        plan, now = self.plan, self.outlook
        if plan is None or now is None or now.forecast is None:
            return None
        size = size_at(now.forecast, plan.asked, self.frame().back(at))
        if size is None:
            return None
        return Reading(size.name, None, size.planned[0], None, (size.low[0], size.high[0]))


SEED = 7
"""Of the sewing that is drawn: the same whenever one looks."""


@guarded
class RowsPicture(QWidget):
    """The quilt with the seams between its rows, marked by whether they match."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setAccessibleName("The seams between rows")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.plan: QuiltPlan | None = None
        self.scene: Scene | None = None
        self.forecast: QuiltForecast | None = None

    def sizeHint(self) -> QSize:
        return QSize(theme.px(360), theme.px(340))

    def show_rows(self, plan: QuiltPlan, forecast: QuiltForecast) -> None:
        self.plan, self.forecast = plan, forecast
        self.scene = Scene(plan.top, plan.project)
        self.update()

    def paintEvent(self, event: object) -> None:
        plan, forecast, scene = self.plan, self.forecast, self.scene
        if plan is None or forecast is None or scene is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide, high = (float(side) for side in plan.size)
        box = QRectF(self.rect()).adjusted(*(theme.px(k) for k in (8, 6, -8, -6)))
        frame = ScreenFrame.fit(box, (0, 0, wide, high))
        lengths: QTransform = frame.transform
        look = TopLook(seams=True, grey=self.session.grey)
        scene.paint(painter, lengths, QRectF(self.rect()), look)
        draw_figure(painter, row_risk_figure(plan, forecast, frame.placed), self.session.project)
        painter.end()


@guarded
class _Legend(QWidget):
    """What the marks mean."""

    def __init__(self) -> None:
        super().__init__()
        layout = column(self, 0, 2)
        for level, words in LEGEND:
            layout.addLayout(row(_RiskMark(level), label(words, "small"), 1))


@guarded
class _RiskMark(QWidget):
    def __init__(self, level: RiskLevel) -> None:
        super().__init__()
        self.level = level
        self.setFixedSize(theme.px(20), theme.px(20))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        at = self.width() / 2, self.height() / 2
        draw_figure(painter, (risk_mark(at, self.level, theme.text_scale()),), Project())
        painter.end()
