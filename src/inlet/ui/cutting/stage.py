"""The cutting stage: fabric by fabric, cut by cut; what to buy; the block at other sizes."""

from __future__ import annotations

from typing import NamedTuple

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QHideEvent, QKeyEvent, QShowEvent
from PySide6.QtWidgets import (
    QBoxLayout,
    QStackedWidget,
    QWidget,
)

from inlet.core.bench import LaidFor
from inlet.core.figures import OnMat
from inlet.core.layout import (
    CutCard,
    FabricPlan,
    begin,
    begun_at,
    buying_text,
    card,
    cuts_of,
    differ_in_cuts_only,
    fabric_text,
    finished_card,
    given_up,
    kept,
    next_set_up,
    piece_names,
    preparing,
    tools_for,
)
from inlet.core.numbers import vulgar_text
from inlet.core.plan import BlockPlan, QuiltPlan
from inlet.core.project import Cutting, LaidFabric
from inlet.core.setting import block_counts
from inlet.core.words import fabric_name
from inlet.ui import theme
from inlet.ui.cutting.cut_card import CutCardPanel
from inlet.ui.cutting.fabric_chooser import FabricChoice, FabricChooser
from inlet.ui.cutting.mat import Mat
from inlet.ui.cutting.shopping_page import ShoppingPage
from inlet.ui.cutting.sizes_page import SizesPage
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import ChoiceBox
from inlet.ui.widgets.painting import colour_of
from inlet.ui.widgets.parts import column, scrolled
from inlet.ui.widgets.tabs import opens, tabs

CARD, LEAST_CARD, LEAST_FABRIC = 270, 180, 300
"""Pixels of the card beside the fabric, at most and at least, and of the fabric beside it; with
less room the card stands below."""
ANY_SIZE = 2**24 - 1
LOW = 420
"""A stage lower than this, in units of the text's size, has its fabrics in one list."""
SHORT = {
    "new": "new", "bolt": "bolt", "fat-quarter": "fat quarter", "strips": "strip",
    "squares": "square", "scrap": "scrap", "panel": "panel",
}  # fmt: skip
PAGES = ("At the mat", "Shopping list", "Size chart")


class FabricOnMat(NamedTuple):
    """A piece of fabric of the plan, of one fabric."""

    plan: FabricPlan
    laid: LaidFabric


@guarded
class CuttingStage(QWidget):
    """Which fabric, the fabric itself, and the card of the next cut."""

    pointed = Signal(object)
    chose = Signal(object)  # the fabric that lies on the mat
    cuts = Signal(object)  # the plan that is cut: of the block, or of the quilt
    shown = Signal()  # another cut is on the card

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.at = 0
        self._is_for = ("", 0)
        self.on_mat: list[FabricOnMat] = []
        self._has_quilt = False
        self._plan: BlockPlan | QuiltPlan | None = None
        self.cut_card: CutCard | None = None
        whole = column(self, 16, 8)
        line, self.page_buttons = tabs(self, enumerate(PAGES), self.turn_to)
        self.page_buttons[0].setChecked(True)
        line_layout = line.layout()
        assert line_layout is not None
        whole.addWidget(line)
        at_mat = QWidget()
        layout = column(at_mat, 0, 8)
        self.shopping, self.sizes = ShoppingPage(session), SizesPage(session)
        self.pages = QStackedWidget()
        page_areas = (at_mat, scrolled(self.shopping, "page"), self.sizes)
        for page in page_areas:
            self.pages.addWidget(page)
        opens(self.page_buttons, dict(enumerate(page_areas)))
        whole.addWidget(self.pages, 1)
        self.scope = ChoiceBox()
        self.scope.setAccessibleName("What is cut")
        self.scope.addItem("for this block", False)
        self.scope.addItem("for the whole quilt", True)
        self.scope.activated.connect(lambda _: self._planned())
        line_layout.addWidget(self.scope)
        self.chooser = FabricChooser()
        self.chooser.chosen.connect(self.choose)
        layout.addWidget(self.chooser)
        self.mat = Mat()
        self.mat.pointed.connect(self.pointed)
        self.mat.picked.connect(self._pick)
        self.card = CutCardPanel(self)
        self.both = QBoxLayout(QBoxLayout.Direction.LeftToRight)
        self.both.setSpacing(theme.px(12))
        self.both.addWidget(self.mat, 2)
        self.side = scrolled(self.card, "page")
        self.both.addWidget(self.side, 1)
        layout.addLayout(self.both, 1)
        session.planned.connect(self._planned)
        session.laid_out.connect(self._planned)
        session.quilted.connect(self._planned)
        session.topped.connect(self._planned)
        session.changed.connect(self._changed)
        session.selected.connect(self._changed)

    def turn_to(self, page: int) -> None:
        """At the mat, what to buy, or the block at other sizes."""
        self.pages.setCurrentIndex(page)
        self.page_buttons[page].setChecked(True)
        self.scope.setVisible(self._has_quilt and page == 0)
        self._planned()

    # --- what is shown ------------------------------------------------------------------------

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.session.lay_out()
        self._planned()

    def _planned(self) -> None:
        """Another plan: its fabrics; the one that was looked at stays where it is still there. Only
        where it is looked at: a card and a list of many cuts take a moment."""
        if not self.isVisible():
            return
        has_quilt = bool(self.session.project.quilt and block_counts(self.session.project.quilt))
        if has_quilt != self._has_quilt:  # what is cut is the quilt, once there is one
            self.scope.setCurrentIndex(int(has_quilt))
        self._has_quilt = has_quilt
        self.scope.setVisible(has_quilt and self.pages.currentIndex() == 0)
        plan = self._asked()
        if plan is None:
            if self._plan is None or self._cut_for != self._is_for:
                self._plan, self.on_mat = None, []
                self._show_chips()
                self.refresh()
            return  # what lies on the mat is cut on while the next plan is worked out
        self.session.lay_out()
        self._show_page()
        before = self.lying
        first = self._plan is None or self._cut_for != self._is_for
        self._plan, self._is_for = plan, self._cut_for
        self.cuts.emit(plan)
        self.on_mat = [
            FabricOnMat(layout, laid) for layout in plan.fabric_plans.now for laid in layout.laid
        ]
        self.at = self._place_of(before) if not first else self._first_open()
        self._show_chips()
        self.refresh()

    @property
    def hears(self) -> QWidget:
        """What takes the keys that its card or picture tells of."""
        return self

    def reading(self) -> None:
        """The mat tells sizes of what is under the pointer only."""

    @property
    def whole(self) -> bool:
        """Is the fabric of the whole quilt on the mat?"""
        return bool(self.scope.currentData())

    @property
    def _cut_for(self) -> tuple[str, int]:
        """The block that is cut for, and how many; none for the quilt."""
        if self.whole:
            return "", 1
        plan = self.session.plan
        if plan is None:
            return self.session.block.id, self.session.copies
        return plan.block.id, plan.copies

    def _asked(self) -> BlockPlan | QuiltPlan | None:
        """The plan whose fabric is cut; None until it is known."""
        if not self.whole:
            return self.session.plan
        plan = self.session.quilt_plan
        if plan.planned:
            return plan
        if self.isVisible():
            self.session.plan_the_quilt()
        return None

    def _show_page(self) -> None:
        """The page in front is worked out once the fabric is laid out."""
        plan = self.session.plan
        if plan is not None and plan.fabric_plans.settled:
            page = (None, self.shopping, self.sizes)[self.pages.currentIndex()]
            if page is not None:
                page.refresh()

    def _place_of(self, before: FabricOnMat | None) -> int:
        for i, lying in enumerate(self.on_mat):
            same_fabric = before is not None and lying.plan.fabric == before.plan.fabric
            if before is not None and same_fabric and lying.laid == before.laid:
                return i
        same = (
            i for i, lying in enumerate(self.on_mat)
            if before is not None and lying.plan.fabric == before.plan.fabric
        )  # fmt: skip
        return next(same, 0)

    def _first_open(self) -> int:
        """The fabric that is being cut, else the first."""
        for i, lying in enumerate(self.on_mat):
            at = self._begun(lying)
            if at is not None and not self._is_done(lying):
                return i
        return 0

    @property
    def lying(self) -> FabricOnMat | None:
        return self.on_mat[self.at] if self.at < len(self.on_mat) else None

    def _begun(self, lying: FabricOnMat) -> int | None:
        session = self.session
        return begun_at(session.project, *self._cut_for, lying.plan.fabric, lying.laid)

    def _done(self, lying: FabricOnMat) -> int | None:
        """How many cuts are made; None before the fabric is prepared."""
        at = self._begun(lying)
        cutting = self.session.project.cutting
        return None if at is None or cutting is None else cutting.begun[at].done

    def _is_done(self, lying: FabricOnMat) -> bool:
        done = self._done(lying)
        return done is not None and done == len(cuts_of(lying.laid, self.session.project))

    def _show_chips(self) -> None:
        self.chooser.show_choices([self._choice(at) for at in range(len(self.on_mat))], self.at)

    def _choice(self, at: int) -> FabricChoice:
        """A piece of fabric as it is offered."""
        lying = self.on_mat[at]
        lengths = [each for each in lying.plan.laid if each.kind == "new"]
        number = next((n for n, each in enumerate(lengths, 1) if each is lying.laid), 0)
        names = piece_names(lying.plan, self.session.project)
        which = next(i for i, laid in enumerate(lying.plan.laid) if laid is lying.laid)
        size = vulgar_text(fabric_text(lying.laid, self.session.measure))
        length = number if len(lengths) > 1 else 0
        return FabricChoice(self._short(lying), names[which], size, length, self._is_done(lying))

    def _short(self, lying: FabricOnMat) -> str:
        """``Fog: new``, ``Fog: 3 lengths``, ``Fog: 4 strips``."""
        laid, kind = lying.laid, SHORT[lying.laid.kind]
        lengths = sum(each.kind == "new" for each in lying.plan.laid)
        if laid.kind == "new" and lengths > 1:
            kind = f"{lengths} lengths"
        elif laid.count > 1:
            kind = f"{laid.count} {kind}s"
        return f"{fabric_name(self.session.project, lying.plan.fabric)}: {kind}"

    def choose(self, at: int) -> None:
        """Another piece of fabric."""
        if self.on_mat:
            self.at = at % len(self.on_mat)
            self._show_chips()
            self.refresh()

    def _changed(self) -> None:
        if self.on_mat and self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        lying, plan = self.lying, self._plan
        if lying is None or plan is None:
            self.mat.show_laid(None, self.session.project)
            self.card.show_none(waits=plan is None)
            self.cut_card = None
            self.shown.emit()
            return
        self.chose.emit(lying.plan.fabric)
        project, session = self.session.project, self.session
        strokes = cuts_of(lying.laid, project)
        cuts = {cut.label: cut for cut in plan.cuts if cut.fabric == lying.plan.fabric}
        rules = project.cutting or Cutting()
        done = self._done(lying)
        chosen = next((c.label for c in cuts.values() if session.label in c.labels), "")
        self.mat.chosen = chosen
        left = rules.handed == "left"
        shown = OnMat(
            lying.laid, lying.plan.fabric, strokes, done, cuts, plan.measure, left,
            tools_for(lying.laid, project), next_set_up(lying.laid, done or 0, project),
        )  # fmt: skip
        self.mat.show_laid(shown, project, session.grey)
        colour = colour_of(project, lying.plan.fabric, session.grey)
        if done is None:
            cut_card = preparing(lying.laid, project)
        elif done < len(strokes):
            cut_card = card(lying.laid, done, plan.cuts, plan.units, project)
        else:
            cut_card = finished_card(lying.laid, project)
        fabric = fabric_text(lying.laid, plan.measure)
        if differ_in_cuts_only(plan.project, project):
            fabric += f": {buying_text(lying.plan, plan.measure)}."
        else:  # what is known is of the plan before
            fabric += ": working out what to buy …"
        self.card.show_card(cut_card, done, len(strokes), vulgar_text(fabric))
        self.card.ruler.show_mark(cut_card.size, plan.measure, colour, left)
        self.cut_card = cut_card
        self.shown.emit()

    # --- what is done -------------------------------------------------------------------------

    def go_on(self) -> None:
        """The fabric is prepared, or a cut is made."""
        lying, session = self.lying, self.session
        if lying is None:
            return
        at = self._begun(lying)
        if at is None:
            session.edit(begin(session.project, *self._cut_for, lying.plan.fabric, lying.laid))
        else:
            session.cut(LaidFor(*self._cut_for, lying.plan.fabric, lying.laid), 1)
        self.refresh()

    def go_back(self) -> None:
        """The last cut is not made."""
        lying = self.lying
        if lying is not None and self._begun(lying) is not None:
            self.session.cut(LaidFor(*self._cut_for, lying.plan.fabric, lying.laid), -1)
            self.refresh()

    def lay_anew(self) -> None:
        """What was cut of the fabric is not counted any more."""
        lying = self.lying
        at = self._begun(lying) if lying is not None else None
        if at is not None:
            self.session.edit(given_up(self.session.project, at))

    def keep_left(self) -> None:
        """What is left is put with the scraps."""
        lying = self.lying
        if lying is not None:
            self.session.edit(kept(self.session.project, lying.plan.fabric, lying.laid))
            self.session.said.emit("The leftover is with the scraps of this fabric now.")

    def _pick(self, stack: str) -> None:
        """A piece picks the unit it is for, the next one of them if it is picked already."""
        plan = self._plan
        cut = next((c for c in plan.cuts if c.label == stack), None) if plan else None
        if cut is not None:
            at = cut.labels.index(self.session.label) + 1 if self.session.label in cut.labels else 0
            self.session.pick_unit(cut.labels[at % len(cut.labels)])

    def keyPressEvent(self, event: QKeyEvent) -> None:
        key = event.key()
        if key == Qt.Key.Key_Space:
            self.go_on()
        elif key in (Qt.Key.Key_Backspace, Qt.Key.Key_Left):
            self.go_back()
        elif key == Qt.Key.Key_Right:
            self.go_on()
        elif key == Qt.Key.Key_PageDown:
            self.choose(self.at + 1)
        elif key == Qt.Key.Key_PageUp:
            self.choose(self.at - 1)
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: object) -> None:
        """The card beside the fabric where there is room, else below it."""
        self.chooser.be_low(self.height() < theme.px(LOW))
        beside = self.width() > theme.px(CARD) + LEAST_FABRIC
        ways = QBoxLayout.Direction
        self.both.setDirection(ways.LeftToRight if beside else ways.TopToBottom)
        self.side.setMinimumWidth(theme.px(LEAST_CARD) if beside else 0)
        self.side.setMaximumWidth(theme.px(CARD) if beside else ANY_SIZE)

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        self.pointed.emit(None)
