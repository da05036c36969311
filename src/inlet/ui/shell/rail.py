"""The rail: the stages in working order, each with a live figure."""

from __future__ import annotations

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtWidgets import QButtonGroup, QSizePolicy, QToolButton, QWidget

from inlet.core.bench import share_done
from inlet.core.history import History
from inlet.core.layout import total_text
from inlet.core.numbers import vulgar_text
from inlet.core.pressing import PressingPlan
from inlet.core.setting import block_counts
from inlet.ui import theme
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import ToolButton
from inlet.ui.widgets.parts import column

STAGES = ("draft", "remake", "units", "cutting", "piecing", "pressing", "quilt", "bench")
WIDE = 92
"""Pixels a button is wide where its figure is below it, growing with the text."""


class Rail(QWidget):
    chosen = Signal(str)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("rail")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        layout = column(self, 6, 2)
        self.buttons: dict[str, QToolButton] = {}
        self.folded = False
        group = QButtonGroup(self)
        for stage in STAGES:
            button = ToolButton()
            button.setObjectName("stage")
            button.setCheckable(True)
            button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
            button.setIconSize(QSize(theme.px(26), theme.px(26)))
            button.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
            button.setMinimumWidth(theme.px(WIDE))
            button.clicked.connect(lambda _=False, s=stage: self.chosen.emit(s))
            button.toggled.connect(lambda _on, s=stage: self._tint(s))
            group.addButton(button)
            layout.addWidget(button)
            self.buttons[stage] = button
        layout.addStretch(1)
        self._done: tuple[History | None, str] = None, ""  # what was done, in which document
        session.changed.connect(self.refresh)
        session.planned.connect(self.refresh)
        session.laid_out.connect(self.refresh)
        session.pressed.connect(self.refresh)
        session.quilted.connect(self.refresh)
        session.topped.connect(self.refresh)
        session.worked.connect(self._worked)
        self.refresh()
        self.mark("draft")

    def breadth(self, folded: bool) -> int:
        """How wide it is, in pixels."""
        return theme.px(52 if folded else 106) + 2

    def fold(self, folded: bool) -> None:
        """Only the pictures of the stages, their figures in the tips; or with them."""
        if folded == self.folded:
            return
        self.folded = folded
        style = Qt.ToolButtonStyle
        side = theme.px(21 if folded else 26)
        for button in self.buttons.values():
            button.setIconSize(QSize(side, side))
            button.setToolButtonStyle(
                style.ToolButtonIconOnly if folded else style.ToolButtonTextUnderIcon
            )
            button.setMinimumWidth(0 if folded else theme.px(WIDE))

    def mark(self, stage: str) -> None:
        self.buttons[stage].setChecked(True)

    def _tint(self, stage: str) -> None:
        button = self.buttons[stage]
        ink = theme.PAPER if button.isChecked() else theme.INK
        button.setIcon(theme.icon(f"stage-{stage}", ink, 26))

    def _bench(self) -> str:
        """How much is done. A quilt is planned for it only once something was done. An edit does
        not wait for it: what was done before stands there meanwhile."""
        session = self.session
        cutting = session.project.cutting
        if not session.project.log and not (cutting and cutting.begun):
            return "not begun"
        if session.is_quilt and not session.ask_quilt():
            history, figure = self._done
            return figure if history is session.history else "…"
        self._done = session.history, self._share()
        return self._done[1]

    def _share(self) -> str:
        session = self.session
        known = session.jobs
        if known is None:
            session.ask_jobs(at_once=False)
            known = session.jobs
        return "…" if known is None else _per_cent(share_done(known))

    def _worked(self) -> None:
        """How far the work is has come to be known."""
        self._show("bench", self._bench())

    def refresh(self) -> None:
        patches = len(self.session.draft.patches)
        figures = {"draft": _count(patches, "patch", "patches")}
        remade = sum(
            bool(block.made_from or block.improvised or block.panel)
            for block in self.session.project.blocks
        )
        figures["remake"] = _count(remade, "block", "blocks") if remade else "none yet"
        quilt = self.session.project.quilt
        blocks = sum(block_counts(quilt).values()) if quilt is not None else 0
        figures["quilt"] = _count(blocks, "block", "blocks") if blocks else "not set yet"
        figures["bench"] = self._bench()
        plan = self.session.plan
        if plan is not None:
            figures["units"] = _count(sum(u.count for u in plan.units), "unit", "units")
            figures["cutting"] = vulgar_text(total_text(plan.fabric_plans.now, plan.measure))
            figures["piecing"] = _count(len(plan.steps), "step", "steps")
        if self.session.pressing_known:
            figures["pressing"] = _nesting(self.session.pressing)
        for stage in self.buttons:
            self._show(stage, figures.get(stage, "…"))
            self._tint(stage)

    def _show(self, stage: str, figure: str) -> None:
        button = self.buttons[stage]
        button.setText(f"{stage.capitalize()}\n{figure}")
        button.setAccessibleName(f"{stage.capitalize()}, {figure}")
        button.setToolTip(f"{stage.capitalize()}: {figure} (Ctrl+{STAGES.index(stage) + 1})")


def _per_cent(share: float) -> str:
    """How much is done; all of it only where nothing is left."""
    return f"{int(100 * share)} % done"


def _nesting(pressing: PressingPlan | None) -> str:
    """How many junctions nest, of all where seams cross."""
    if pressing is None:
        return "no seams"
    good, crossed = pressing.nesting
    return f"{good}/{crossed} nest" if crossed else "no crossings"


def _count(number: int, one: str, many: str) -> str:
    return f"{number} {one if number == 1 else many}"
