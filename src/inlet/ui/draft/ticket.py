"""The draft's ticket: bands, cloths, and what is wrong in words."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QSize
from PySide6.QtGui import QColor, QIcon, QPainter, QPen, QPixmap
from PySide6.QtWidgets import QButtonGroup, QColorDialog, QGridLayout, QToolButton, QWidget

from inlet.core.draft.bands import parse_bands, show_bands
from inlet.core.draft.edit import set_bands
from inlet.core.project import Fabric, fresh_id, replace
from inlet.ui import theme
from inlet.ui.parts import ValueEdit, button, column, empty, label, row, rule
from inlet.ui.session import Session

NEW_COLOURS = ("#8c6f9c", "#d8b24a", "#7f9fb5", "#a8483c", "#4f6b45", "#d9a69a", "#33302c")


class DraftTicket(QWidget):
    """What the block is drawn on and with."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("ticketBody")
        layout = column(self, 16, 9)
        self.title = label("", "title", wrap=True)
        layout.addWidget(self.title)
        self.counts = label("", "small", wrap=True)
        layout.addWidget(self.counts)
        layout.addWidget(rule())
        layout.addWidget(label("Bands", "heading"))
        self.columns = ValueEdit("Columns", self._set_columns)
        self.rows = ValueEdit("Rows", self._set_rows)
        grid = QGridLayout()
        grid.addWidget(label("Columns", "small"), 0, 0)
        grid.addWidget(self.columns, 0, 1)
        grid.addWidget(label("Rows", "small"), 1, 0)
        grid.addWidget(self.rows, 1, 1)
        layout.addLayout(grid)
        layout.addWidget(label("A number of equal bands, or 2:1:2", "caption"))
        layout.addWidget(rule())
        layout.addWidget(label("Cloths", "heading"))
        self.cloths = column(spacing=4)
        layout.addLayout(self.cloths)
        self.swatches = QButtonGroup(self)
        layout.addLayout(row(button("Add a cloth", self.add_cloth, "plus"), 1))
        layout.addWidget(rule())
        self.problem_title = label("", "heading")
        layout.addWidget(self.problem_title)
        self.problems = column(spacing=7)
        layout.addLayout(self.problems)
        layout.addStretch(1)
        for edit in (self.columns, self.rows):
            edit.refused.connect(session.said)
        self._shown_fabrics: object = None
        session.changed.connect(self.refresh)
        session.planned.connect(self._show_problems)
        session.picked_cloth.connect(self._show_cloths)
        self.refresh()

    def _set_columns(self, text: str) -> None:
        block = self.session.block
        self.session.edit_block(set_bands(block, parse_bands(text), block.rows))

    def _set_rows(self, text: str) -> None:
        block = self.session.block
        self.session.edit_block(set_bands(block, block.columns, parse_bands(text)))

    def refresh(self) -> None:
        block = self.session.block
        self.title.setText(block.title)
        patches = len(self.session.draft.patches)
        self.counts.setText(f"{patches} {'patch' if patches == 1 else 'patches'}")
        self.columns.show_value(show_bands(block.columns))
        self.rows.show_value(show_bands(block.rows))
        self._show_cloths()
        self._show_problems()

    # --- cloths -------------------------------------------------------------------------------

    def _show_cloths(self) -> None:
        session = self.session
        wanted = (session.project.fabrics, session.cloth, session.grey)
        if wanted == self._shown_fabrics:
            return
        self._shown_fabrics = wanted
        empty(self.cloths)
        for number, fabric in enumerate(session.project.fabrics, 1):
            swatch = QToolButton()
            swatch.setCheckable(True)
            swatch.setChecked(fabric.id == session.cloth)
            swatch.setIcon(_swatch(fabric, session.grey, fabric.id == session.cloth))
            swatch.setIconSize(QSize(theme.px(38), theme.px(22)))
            swatch.setObjectName("flat")
            swatch.setToolTip(f"Lay {fabric.title}" + (f" (key {number})" if number < 10 else ""))
            swatch.setAccessibleName(f"Cloth {fabric.title}")
            swatch.clicked.connect(lambda _=False, f=fabric.id: session.pick_cloth(f))
            name = ValueEdit(f"Name of {fabric.title}", self._namer(fabric))
            name.show_value(fabric.title)
            name.refused.connect(session.said)
            colour = QToolButton()
            colour.setIcon(theme.icon("pencil"))
            colour.setToolTip(f"Colour of {fabric.title}")
            colour.setAccessibleName(f"Colour of {fabric.title}")
            colour.clicked.connect(lambda _=False, f=fabric: self._recolour(f))
            self.cloths.addLayout(row(swatch, name, colour, spacing=5))

    def _namer(self, fabric: Fabric):
        def take(text: str) -> None:
            if not text.strip():
                raise ValueError("a cloth needs a name")
            self._replace(fabric, replace(fabric, name=text.strip()))

        return take

    def _recolour(self, fabric: Fabric) -> None:
        chosen = QColorDialog.getColor(QColor(fabric.colour), self, f"Colour of {fabric.title}")
        if chosen.isValid():
            self._replace(fabric, replace(fabric, colour=chosen.name()))

    def _replace(self, old: Fabric, new: Fabric) -> None:
        project = self.session.project
        fabrics = tuple(new if f.id == old.id else f for f in project.fabrics)
        self.session.edit(replace(project, fabrics=fabrics))

    def add_cloth(self) -> None:
        project = self.session.project
        number = len(project.fabrics) + 1
        name = f"Cloth {number}"
        taken = {f.id for f in project.fabrics}
        colour = NEW_COLOURS[number % len(NEW_COLOURS)]
        fabric = Fabric(id=fresh_id(name, taken), name=name, colour=colour)
        self.session.cloth = fabric.id
        self.session.edit(replace(project, fabrics=(*project.fabrics, fabric)))

    # --- problems -----------------------------------------------------------------------------

    def _show_problems(self) -> None:
        plan = self.session.plan
        if plan is None:
            return
        empty(self.problems)
        bare = [p for p in plan.problems if p.code == "patch-without-fabric"]
        others = [(i, p) for i, p in enumerate(plan.problems, 1) if p not in bare]
        if not plan.problems:
            self.problem_title.setText("Ready to sew")
            self.problems.addWidget(
                label("Sewn up from its cut pieces, it gives this drawing exactly.", "small", True)
            )
            return
        self.problem_title.setText("To look at")
        if bare:
            count = len(bare)
            words = "One patch has" if count == 1 else f"{count} patches have"
            self.problems.addWidget(label(f"{words} no cloth yet.", "", True))
        for number, problem in others[:12]:
            kind = "warning" if problem.level == "error" else ""
            mark = f"! {number}  " if problem.at else ""
            self.problems.addWidget(label(f"{mark}{problem.text}", kind, True))
        if len(others) > 12:
            self.problems.addWidget(label(f"and {len(others) - 12} more", "small"))


def _swatch(fabric: Fabric, grey: bool, chosen: bool) -> QIcon:
    width, height = theme.px(38) * 2, theme.px(22) * 2
    pixmap = QPixmap(width, height)
    pixmap.fill(theme.cloth_colour(fabric.colour, grey))
    painter = QPainter(pixmap)
    painter.setPen(QPen(theme.INK, 7 if chosen else 2))
    painter.drawRect(1, 1, width - 2, height - 2)
    if chosen:  # a tick, so that the choice is not told by the frame alone
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(theme.ink_on(theme.cloth_colour(fabric.colour, grey)), 6))
        x, y = width / 2, height / 2
        painter.drawPolyline([QPointF(x - 14, y), QPointF(x - 3, y + 10), QPointF(x + 16, y - 11)])
    painter.end()
    pixmap.setDevicePixelRatio(2)
    return QIcon(pixmap)
