"""A quilt of about a size: several ways to reach it, side by side."""

from __future__ import annotations

from functools import partial
from typing import NamedTuple

from PySide6.QtWidgets import QFrame, QGridLayout, QWidget

from inlet.core.plan import BEDS, Proposal, SizeCost, cost_of, cost_text, proposals, target_typed
from inlet.core.project import Pair, Project
from inlet.core.words import near_text
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.quilt.scene import Scene
from inlet.ui.quilt.top_view import TopView
from inlet.ui.shell.session import Session
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.parts import ValueEdit, button, column, empty, label


class Found(NamedTuple):
    """A proposal with its top to paint and what it takes."""

    proposal: Proposal
    scene: Scene
    cost: SizeCost


@guarded
class TargetPage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.found: list[Found] = []
        self.target: Pair | None = None
        layout = column(self, 0, 8)
        asked = QWidget()
        flow = FlowLayout(asked, 0, theme.px(6))
        self.edit = ValueEdit("Size to reach", self.take, 110)
        self.edit.setPlaceholderText("56 x 70")
        self.edit.refused.connect(session.said)
        flow.addWidget(label("A quilt of about"))
        flow.addWidget(self.edit)
        for name in BEDS:
            flow.addWidget(button(name, partial(self.take, name)))
        layout.addWidget(asked)
        self.told = label("", "caption", True)
        layout.addWidget(self.told)
        self.cards = QGridLayout()
        self.cards.setSpacing(theme.px(12))
        layout.addLayout(self.cards, 1)

    def take(self, text: str) -> None:
        """The size to reach, as typed. Raises ``NumberError``."""
        measure = self.session.measure
        self.target = target_typed(text, measure)
        self.edit.show_value(text)
        self.told.setText("Looking for ways …")
        project, target = self.session.project, self.target
        self.session.think_of_quilt(lambda: _find(project, target), self._show)

    def _show(self, offers: list[Found]) -> None:
        measure = self.session.measure
        self.found = offers
        empty(self.cards)
        if self.target is None:
            return
        size = near_text(self.target, measure)
        self.told.setText(
            f"Ways to about {size}. Taking one keeps fabrics and patterns, not single places."
            if offers else "Choose a block for the quilt first."
        )  # fmt: skip
        for i, each in enumerate(offers):
            card = QFrame()
            card.setObjectName("card")
            layout = column(card, 10, 5)
            layout.addWidget(label(near_text(each.proposal.size, measure), "size", True))
            layout.addWidget(label(each.proposal.words, "", True))
            picture = TopView()
            picture.marks = False
            picture.setMinimumHeight(theme.px(110))
            picture.setAccessibleName(f"Proposal {i + 1}")
            picture.show_scene(each.scene)
            picture.setEnabled(False)
            layout.addWidget(picture, 1)
            layout.addWidget(label(cost_text(each.cost, measure), "caption", True))
            layout.addWidget(button("Take this one", partial(self.choose, i)))
            self.cards.addWidget(card, i // 2, i % 2)

    def choose(self, i: int) -> None:
        """The quilt becomes a proposal."""
        self.session.edit_quilt(self.found[i].proposal.quilt)

    def refresh(self) -> None:
        """What was proposed for the quilt as it was stays to choose from."""


def _find(project: Project, target: Pair) -> list[Found]:
    offers = []
    for proposal in proposals(project, target):
        plan = proposal.plan(project)
        scene = Scene(plan.top, plan.project)
        offers.append(Found(proposal, scene, cost_of(plan)))
    return offers
