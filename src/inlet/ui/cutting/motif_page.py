"""A motif of a feature print in the middle of its piece: what is measured, and what to do."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QFont, QPainter, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from inlet.core.numbers import Exact, Fraction, parse_length, show, vulgar_text
from inlet.core.panels import SIDES, centred, centring_lines
from inlet.core.project import Cutting, Measure, PrintMotif, replace
from inlet.core.words import length_text, unit_of
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.parts import Link, ValueEdit, column, label

FIELDS = (
    ("motif, wide", "size", 0), ("motif, high", "size", 1), ("free on the left", "left", None),
    ("free on the right", "right", None), ("free above", "top", None),
    ("free below", "bottom", None), ("piece finished, wide", "finished", 0),
    ("piece finished, high", "finished", 1),
)  # fmt: skip


@guarded
class MotifPage(QWidget):
    """Lengths to type, the picture, the steps."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 0, 8)
        layout.addWidget(
            label(
                "A print or a panel whose motif must sit in the middle of a piece: measure the "
                "motif, and the free fabric from it to each edge.", "", True,
            )
        )  # fmt: skip
        asked = QWidget()
        flow = FlowLayout(asked, 0, theme.px(10))
        self.edits: dict[tuple[str, int | None], ValueEdit] = {}
        for words, name, which in FIELDS:
            edit = ValueEdit(words, partial(self._take, name, which), 56)
            edit.refused.connect(session.said)
            self.edits[name, which] = edit
            field = QWidget()
            own_layout = column(field, 0, 2)
            own_layout.addWidget(label(words, "caption"))
            own_layout.addWidget(edit)
            flow.addWidget(field)
        layout.addWidget(asked)
        self.picture = _Picture()
        layout.addWidget(self.picture, 1)
        self.steps = label("", "", True)
        layout.addWidget(self.steps)
        self.clear = Link("Forget this motif")
        self.clear.followed.connect(self._forget)
        layout.addWidget(self.clear)

    @property
    def motif(self) -> PrintMotif:
        """The motif on the table, else a usual one for the block that is shown."""
        session = self.session
        known_motif = session.project.cutting.motif if session.project.cutting is not None else None
        return known_motif or usual_motif(session.block.finished)

    def refresh(self) -> None:
        motif, measure = self.motif, self.session.measure
        for (name, which), edit in self.edits.items():
            value = getattr(motif, name)
            edit.show_value(show(value if which is None else value[which], system=measure.system))
            edit.setToolTip(unit_of(measure))
        self.picture.show_motif(motif, measure)
        lines = enumerate(centring_lines(motif, measure), 1)
        self.steps.setText(vulgar_text("\n".join(f"{i}. {line}" for i, line in lines)))

    def _take(self, name: str, which: int | None, text: str) -> None:
        measure = self.session.measure
        length = parse_length(text, measure.system)
        least = 0 if which is None else measure.mark
        if not least <= length <= measure.from_inches(MOST_INCHES):
            raise ValueError(f"it must be from {show(Fraction(least))} to {MOST_INCHES} inches")
        value: object = length
        if which is not None:
            pair = list(getattr(self.motif, name))
            pair[which] = length
            value = (pair[0], pair[1])
        self._edit(replace(self.motif, **{name: value}))

    def _forget(self) -> None:
        self._edit(None)

    def _edit(self, motif: PrintMotif | None) -> None:
        project = self.session.project
        rules = project.cutting or Cutting()
        self.session.edit(replace(project, cutting=replace(rules, motif=motif)))
        self.refresh()


MOST_INCHES = 120


def usual_motif(finished: tuple[Exact, Exact]) -> PrintMotif:
    """A motif half as large as the piece, with fabric enough on every side."""
    wide, high = (side / 2 for side in finished)
    return PrintMotif(
        size=(wide, high), left=wide, right=wide, top=high, bottom=high, finished=finished
    )


@guarded
class _Picture(QWidget):
    """The fabric to scale with its motif, the piece to be cut, and the strips that move."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumHeight(theme.px(160))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("Fabric with its motif")
        self.shown: tuple[PrintMotif, Measure] | None = None

    def show_motif(self, motif: PrintMotif, measure: Measure) -> None:
        self.shown = motif, measure
        self.update()

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.shown is not None:
            self._draw(painter, *self.shown)
        painter.end()

    def _draw(self, painter: QPainter, motif: PrintMotif, measure: Measure) -> None:
        ways = centred(motif, measure)
        left, right, top, bottom = (float(getattr(motif, s)) for pair in SIDES for s in pair)
        wide, high = map(float, motif.size)
        fabric = QRectF(-left, -top, left + wide + right, top + high + bottom)
        cut = QRectF(0, 0, *(float(way.cut) for way in ways))
        cut.moveCenter(QRectF(0, 0, wide, high).center())
        for i, way in enumerate(ways):
            if way.verdict == "leave":
                by = float(way.off) * (1 if way.short in ("left", "top") else -1)
                cut.translate(*((by, 0) if i == 0 else (0, by)))
        whole = fabric.united(cut)
        room = QRectF(self.rect()).adjusted(theme.px(8), theme.px(8), -theme.px(8), -theme.px(8))
        scale = min(room.width() / whole.width(), room.height() / whole.height())
        painter.translate(room.center() - whole.center() * scale)

        def at(rect: QRectF) -> QRectF:
            return QRectF(rect.topLeft() * scale, rect.size() * scale)

        painter.setPen(QPen(theme.INK_SOFT, 1))
        painter.setBrush(theme.PAPER)
        painter.drawRect(at(fabric))
        painter.setBrush(QBrush(theme.ACCENT, Qt.BrushStyle.BDiagPattern))
        painter.setPen(Qt.PenStyle.NoPen)
        for part in _outside(whole, fabric, cut):
            painter.drawRect(at(part))
        painter.setPen(QPen(theme.INK, 1.6))
        painter.setBrush(theme.GROUND)
        painter.drawEllipse(at(QRectF(0, 0, wide, high)))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(theme.INK, 1.6, Qt.PenStyle.DashLine))
        painter.drawRect(at(cut))
        for way in ways:
            if way.verdict == "move":
                self._strip(painter, at(fabric), way.plenty, float(way.strip) * scale,
                            length_text(way.strip, measure))  # fmt: skip
        painter.setPen(theme.INK)
        painter.setFont(theme.font(10))
        painter.drawText(
            at(QRectF(0, 0, wide, high)), Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap,
            "motif",
        )  # fmt: skip

    def _strip(self, painter: QPainter, fabric: QRectF, side: str, wide: float, words: str) -> None:
        """The strip that comes off the side with plenty, its width written on it."""
        strip = QRectF(fabric)
        if side in ("left", "right"):
            strip.setWidth(wide)
            strip.moveLeft(fabric.left() if side == "left" else fabric.right() - wide)
        else:
            strip.setHeight(wide)
            strip.moveTop(fabric.top() if side == "top" else fabric.bottom() - wide)
        painter.setPen(QPen(theme.ACCENT, 2.4))
        painter.drawRect(strip)
        text = vulgar_text(words)
        painter.setFont(theme.font(12, QFont.Weight.DemiBold))
        box = painter.boundingRect(QRectF(), 0, text).adjusted(-5, -2, 5, 2)
        box.moveCenter(strip.center())
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.PAPER)
        painter.drawRoundedRect(box, 4, 4)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(theme.ACCENT)
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)


def _outside(whole: QRectF, fabric: QRectF, cut: QRectF) -> list[QRectF]:
    """What of the piece lies beyond the edges of the fabric."""
    beyond = [
        QRectF(QPointF(whole.left(), cut.top()), QPointF(fabric.left(), cut.bottom())),
        QRectF(QPointF(fabric.right(), cut.top()), QPointF(whole.right(), cut.bottom())),
        QRectF(QPointF(cut.left(), whole.top()), QPointF(cut.right(), fabric.top())),
        QRectF(QPointF(cut.left(), fabric.bottom()), QPointF(cut.right(), whole.bottom())),
    ]
    return [part.intersected(cut) for part in beyond if not part.intersected(cut).isEmpty()]
