"""The cut list on the ticket: what to cut from each fabric, widest first, in figures to read at the
mat, then the strip sets."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from typing import NamedTuple

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QGridLayout, QWidget

from inlet.core.cutlist import Cut, project_sets
from inlet.core.layout import (
    buying_text,
    grain_texts,
    set_lines,
    set_name,
    strip_room,
    strips_text,
)
from inlet.core.numbers import show, vulgar_text
from inlet.core.plan import BlockPlan, QuiltPlan
from inlet.core.table import over_triangles
from inlet.core.templates import angled_lines, stack_shape
from inlet.core.words import fabric_name
from inlet.ui import theme
from inlet.ui.widgets.parts import Link, column, label, rule
from inlet.ui.widgets.sections import Section, Sections


class StackLine(NamedTuple):
    """A stack of pieces alike: how many, their size as cut, and what they are."""

    number: str
    size: str
    words: str


class OfFabric(NamedTuple):
    """What is cut of one fabric: what is bought of it, its strips, its stacks."""

    title: str
    buying: str
    strips: str
    lines: tuple[StackLine, ...]


class OfSets(NamedTuple):
    """Strip sets by name, each with its lines; and the link to those of the whole project, where
    there is one."""

    sets: tuple[tuple[str, tuple[str, ...]], ...]
    link: str


class CutList(Sections):
    """``asked_whole``: the strip sets of the whole project, or of the block alone again."""

    asked_whole = Signal()

    def __init__(self) -> None:
        super().__init__(5)

    def show_plan(self, plan: BlockPlan | QuiltPlan, whole: bool) -> None:
        """What a plan cuts, with its strip sets, or those of all its project."""
        sections = [
            Section(fabric, len(fabric.lines) + 2, partial(_fabric_part, fabric))
            for fabric in _fabrics(plan)
        ]
        sets = _sets(plan, whole)
        lines = sum(len(said) for _, said in sets.sets) + 2
        sections.append(Section(sets, lines, partial(self._sets_part, sets)))
        self.show_sections(sections)

    def _sets_part(self, sets: OfSets) -> QWidget:
        body = QWidget()
        layout = column(body, 0, 5)
        layout.addWidget(rule())
        layout.addWidget(label("Strip sets", "heading"))
        for name, lines in sets.sets:
            layout.addWidget(label(name, "", True))
            for line in lines:
                layout.addWidget(label(line, "caption", True))
        if not sets.sets:
            layout.addWidget(label("None in the methods in use.", "caption", True))
        if sets.link:
            link = Link(sets.link)
            link.followed.connect(self.asked_whole)
            layout.addWidget(link)
        return body


def _fabrics(plan: BlockPlan | QuiltPlan) -> Iterator[OfFabric]:
    """Fabric by fabric, then what is cut of fabric owned."""
    grain = grain_texts(plan.fabric_plans.now, plan.cuts, plan.measure)
    for fabric_plan in plan.fabric_plans.now:
        cuts = [c for c in plan.cuts if c.fabric == fabric_plan.fabric and not c.owned]
        yield OfFabric(
            fabric_name(plan.project, fabric_plan.fabric), buying_text(fabric_plan, plan.measure),
            strips_text(fabric_plan, plan.measure), _lines(cuts, plan, grain),
        )  # fmt: skip
    owned = [c for c in plan.cuts if c.owned]
    if owned:
        yield OfFabric("From fabric you own", "", "", _lines(owned, plan, {}))


def _lines(
    cuts: Sequence[Cut], plan: BlockPlan | QuiltPlan, grain: Mapping[str, str]
) -> tuple[StackLine, ...]:
    system = plan.measure.system
    lines = []
    for cut in cuts:
        low, high = cut.cut
        size = show(low, system=system, vulgar=True)
        if low != high:
            size += f" × {show(high, system=system, vulgar=True)}"
        shape = vulgar_text(stack_shape(cut, plan.measure))
        words = f"stack {cut.label}: {shape}, for {', '.join(cut.labels)}"
        if diagonal := cut.diagonal:
            words += f"; cut {diagonal}"
        if cut.label in grain:
            words += f"; {grain[cut.label]}"
        if cut.over:
            words += f"; {over_triangles(cut.over)}"
        room = strip_room(plan.project, cut.fabric)
        if notes := list(angled_lines(cut, plan.measure, room)):
            words += f". {vulgar_text('; '.join(notes))}"
        lines.append(StackLine(f"{cut.number} ×", size, words))
    return tuple(lines)


def _sets(plan: BlockPlan | QuiltPlan, whole: bool) -> OfSets:
    """The strip sets of the methods in use, or of all that the project could cut so."""
    of_block = isinstance(plan, BlockPlan)
    sets = plan.sets
    if whole and isinstance(plan, BlockPlan):
        sets = project_sets(plan.project, plan.copies)
    link = "Of this block's methods" if whole else "Of the whole project"
    named = ((set_name(each, plan.project), tuple(set_lines(each, plan.project))) for each in sets)
    return OfSets(tuple(named), link if of_block else "")


def _fabric_part(fabric: OfFabric) -> QWidget:
    body = QWidget()
    layout = column(body, 0, 5)
    layout.addWidget(rule())
    layout.addWidget(label(fabric.title, "heading", True))
    if fabric.buying:
        layout.addWidget(label(fabric.buying, "caption", True))
    if fabric.strips:
        layout.addWidget(label(fabric.strips, "", True))
    grid = QGridLayout()
    grid.setHorizontalSpacing(theme.px(10))
    grid.setColumnStretch(2, 1)
    for i, line in enumerate(fabric.lines):
        grid.addWidget(label(line.number), 2 * i, 0)
        grid.addWidget(label(line.size, "size"), 2 * i, 1)
        grid.addWidget(label(line.words, "caption", True), 2 * i + 1, 1, 1, 2)
    layout.addLayout(grid)
    return body
