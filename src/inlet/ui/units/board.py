"""The methods for one unit side by side: what each costs, to scale, and which to take."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QBrush, QPainter, QPen
from PySide6.QtWidgets import (
    QButtonGroup,
    QGridLayout,
    QPushButton,
    QRadioButton,
    QSizePolicy,
    QWidget,
)

from inlet.core.plan import MOST_COPIES
from inlet.core.planning import (
    COLUMNS,
    Comparison,
    MethodCost,
    UnitPlan,
    kind_words,
    method_words,
    runs_words,
    times_words,
    with_choice,
)
from inlet.core.project import Rates, replace
from inlet.core.setting import in_quilt
from inlet.core.words import unit_of
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.units.rates import RatesDialog
from inlet.ui.widgets.drawing import MovePicture
from inlet.ui.widgets.inputs import NumberBox, PushButton
from inlet.ui.widgets.parts import Link, column, empty, label, row, when_seen

# Heading, what it sorts by, what is said of it.
_FIGURES: tuple[tuple[str, str, Callable[[MethodCost], str]], ...] = (
    ("over", "over", lambda c: str(c.over) if c.over else "–"),
    ("pieces", "pieces", lambda c: str(c.pieces)),
    ("cuts", "cuts", lambda c: str(c.cuts)),
    ("seams", "seams", lambda c: str(c.seams)),
    ("trims", "trims", lambda c: str(c.trims) if c.trims else "–"),
    ("bias", "bias", lambda c: str(c.bias) if c.bias else "–"),
)
_TIPS = {
    "minutes": "minutes for all of them, at your rates",
    "fabric": "fabric cut; hatched, what is wasted of it",
    "over": "units that are not needed, mirror images too",
    "pieces": "pieces to sew with",
    "cuts": "shapes cut from fabric, and cuts made later",
    "seams": "seams to sew",
    "trims": "units to trim",
    "bias": "outer edges of each unit on the bias",
}


class MethodBoard(QWidget):
    """Each method a line: minutes and fabric as bars on one scale, the rest as figures."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("pageBody")
        self.setAccessibleName("Methods compared")
        self.body = column(self, 14, 8)
        self.by = ""  # what the lines are sorted by; the usual order if empty
        self.only_this = False
        self.methods: dict[str, QRadioButton] = {}
        self.headings: dict[str, QPushButton] = {}
        when_seen(self, self.refresh, session.planned, session.selected)

    def refresh(self) -> None:
        unit = self.session.unit
        empty(self.body)
        self.methods, self.headings = {}, {}
        if unit is None or self.session.plan is None:
            return
        comparison = self.session.plan.compared[unit.unit.label]
        self._head(unit, comparison)
        self._lines(unit, comparison)
        self._foot(unit)
        self.body.addStretch(1)

    def _head(self, unit: UnitPlan, comparison: Comparison) -> None:
        title = label(f"Ways to make {unit.unit.label}", "heading")
        copies = NumberBox()
        copies.setRange(1, MOST_COPIES)
        copies.setValue(self.session.copies)
        copies.setKeyboardTracking(False)
        copies.setAccessibleName("Blocks to compare for")
        copies.valueChanged.connect(self.session.set_copies)
        self.copies = copies
        words = "block" if self.session.copies == 1 else "blocks"
        hands = " and ".join(f"{number} {name}" for name, number in unit.hands.items())
        copies.setMaximumWidth(theme.px(84))
        line = row(title, 1, label("for"), copies, label(f"{words}: {hands}"))
        self.body.addLayout(line)
        quilt = in_quilt(self.session.project, self.session.block_id)
        if quilt and quilt != self.session.copies:
            link = Link(f"For the whole quilt: {quilt} blocks")
            link.followed.connect(lambda: self.session.set_copies(quilt))
            self.body.addWidget(link)
        text = f"{method_words(comparison.best.plan.name)} ★: {comparison.why}"
        self.body.addWidget(label(text[0].upper() + text[1:], "small", True))

    def _lines(self, unit: UnitPlan, comparison: Comparison) -> None:
        grid = QGridLayout()
        grid.setHorizontalSpacing(theme.px(7))
        grid.setVerticalSpacing(theme.px(3))
        grid.setColumnStretch(2, 3)
        grid.setColumnStretch(3, 3)
        for at, name in enumerate(("minutes", "fabric", *(by for by, _, _ in _FIGURES)), 2):
            self._heading(grid, at, name)
        costs, best, _ = comparison
        order = sorted(costs, key=COLUMNS[self.by]) if self.by else list(costs)
        most_minutes = max(c.minutes for c in costs)
        most_fabric = max(c.fabric for c in costs)
        group = QButtonGroup(self)
        for line, cost in enumerate(order, 1):
            method = cost.plan
            sewing = next((m for m in method.method.moves if m.do == "sew"), None)
            if sewing is not None:
                picture = MovePicture(sewing, self.session.project, 34, self.session.grey)
                picture.setFixedSize(theme.px(38), theme.px(38))
                grid.addWidget(picture, line, 0)
            radio = QRadioButton(method_words(method.name))
            radio.setToolTip(times_words(method))
            if cost is best:
                radio.setText(f"{radio.text()} ★")
                radio.setAccessibleDescription("recommended")
            radio.setChecked(method.name == unit.in_use.name)
            radio.clicked.connect(lambda _=False, m=method.name: self._choose(unit, m))
            group.addButton(radio)
            self.methods[method.name] = radio
            named = column(spacing=0)
            named.addWidget(radio)
            runs = label(runs_words(method), "caption")
            runs.setIndent(theme.px(28))
            named.addWidget(runs)
            grid.addLayout(named, line, 1)
            minutes = f"{cost.minutes:.0f} min" if cost.minutes >= 1 else "under 1 min"
            grid.addWidget(Bar(cost.minutes / most_minutes, 0, minutes), line, 2)
            area = f"{cost.fabric:.0f} {unit_of(self.session.measure)}²"
            wasted = cost.wasted / cost.fabric if cost.fabric else 0
            grid.addWidget(
                Bar(cost.fabric / most_fabric if most_fabric else 0, wasted, area), line, 3
            )
            for at, (name, key, say) in enumerate(_FIGURES, 4):
                least = COLUMNS[key](cost) == min(map(COLUMNS[key], costs))
                kind = "heading" if least and len(costs) > 1 else ""
                figure = label(say(cost), kind)
                figure.setToolTip(_TIPS[name])
                figure.setAlignment(Qt.AlignmentFlag.AlignCenter)
                grid.addWidget(figure, line, at)
        self.body.addLayout(grid)

    def _heading(self, grid: QGridLayout, at: int, name: str) -> None:
        """A column's name, pressed to sort by it, again for the usual order."""
        heading = PushButton(f"{name} ▾" if self.by == name else name)
        heading.setObjectName("column")
        heading.setToolTip(f"Sort by {_TIPS[name]}")
        heading.setAccessibleName(f"Sort by {name}")
        heading.clicked.connect(lambda: self._sort(name))
        self.headings[name] = heading
        grid.addWidget(heading, 0, at)

    def _sort(self, name: str) -> None:
        self.by = "" if self.by == name else name
        self.refresh()
        if name in self.headings:  # none while the plan is on its way
            self.headings[name].setFocus()

    def _foot(self, unit: UnitPlan) -> None:
        kind = kind_words(unit.unit.kind)
        who = f"{unit.unit.label} only" if self.only_this else f"every {kind}"
        self.scope = PushButton(f"Choosing for {who}")
        self.scope.setObjectName("link")
        self.scope.setToolTip("Press to choose for this unit alone, or for all of its kind")
        self.scope.clicked.connect(self._turn_scope)
        rates = Link("My minutes…", "link", "How long you take for a cut, a seam, a press")
        rates.followed.connect(self._rates)
        self.body.addLayout(row(self.scope, 1, rates))

    def _turn_scope(self) -> None:
        self.only_this = not self.only_this
        self.refresh()
        if self.headings:
            self.scope.setFocus()

    def _choose(self, unit: UnitPlan, name: str) -> None:
        """For all units of this kind in the block, unless only this one is chosen for."""
        plan = self.session.plan
        if plan is None:
            return
        units = [u.unit for u in plan.units]
        if self.only_this:
            method = "" if name == plan.block.methods.get(unit.unit.kind) else name
            self.session.edit_block(
                with_choice(plan.draft, units, unit.unit, unit.choice, method=method)
            )
            return
        block = plan.block
        if unit.choice is not None and unit.choice.method:
            block = with_choice(plan.draft, units, unit.unit, unit.choice, method="")
        methods = {**block.methods, unit.unit.kind: name}
        self.session.edit_block(replace(block, methods=methods))

    def _rates(self) -> None:
        dialog = RatesDialog(self.session.project.rates or Rates(), self.session.measure, self)
        if dialog.exec():
            self.session.edit(replace(self.session.project, rates=dialog.rates()))


@guarded
class Bar(QWidget):
    """A length to scale with its figure; the share wasted hatched at its end."""

    def __init__(self, share: float, wasted: float, text: str) -> None:
        super().__init__()
        self.share, self.wasted, self.text = share, wasted, text
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName(text)
        if wasted:
            self.setToolTip(f"{wasted:.0%} of it wasted")

    def sizeHint(self) -> QSize:
        return QSize(theme.px(84), theme.px(38))

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(theme.font(9.5))
        painter.setPen(theme.INK)
        high = self.height()
        above = QRectF(0, 0, self.width(), high * 0.62)
        painter.drawText(above, Qt.AlignmentFlag.AlignBottom, self.text)
        thick = theme.px(7)
        long = max(2.0, self.share * (self.width() - 2))
        bar = QRectF(1, high * 0.66, long, thick)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(theme.INK)
        painter.drawRect(bar)
        waste = QRectF(bar.right() - long * self.wasted, bar.top(), long * self.wasted, thick)
        if self.wasted:
            painter.setBrush(theme.PAPER)
            painter.drawRect(waste)
            painter.setBrush(QBrush(theme.ACCENT, Qt.BrushStyle.BDiagPattern))
            painter.setPen(QPen(theme.INK, 0.8))
            painter.drawRect(waste)
        painter.end()
