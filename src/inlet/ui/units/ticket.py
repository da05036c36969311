"""The card of the unit picked: what it is, what to cut, its style, the fabric it is made from."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial
from itertools import islice

from PySide6.QtWidgets import QWidget

from inlet.core.layout import set_lines, set_name
from inlet.core.numbers import parse_length, show
from inlet.core.planning import (
    CutPiece,
    UnitPlan,
    apart_text,
    kind_words,
    largest_from,
    length_or_size,
    method_words,
    offer_text,
    parse_stock,
    spare_text,
    times_words,
    with_choice,
    without_method,
)
from inlet.core.project import LONGEST_LABEL, Project, replace
from inlet.core.words import CAUTIONS, fabric_name, size_text, unit_of
from inlet.ui.shell.session import Session
from inlet.ui.widgets.inputs import ChoiceBox
from inlet.ui.widgets.parts import Link, ValueEdit, column, empty, label, row, rule, when_seen

STYLES = (("", "as the project"), ("exact", "exact"), ("trim", "trim"))


class UnitsTicket(QWidget):
    """The chosen unit in words and sizes."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("ticketBody")
        self.body = column(self, 16, 8)
        when_seen(self, self.refresh, session.planned, session.selected)

    def refresh(self) -> None:
        if self.session.plan is None:
            return
        empty(self.body)
        unit, plan = self.session.unit, self.session.plan
        if unit is None or plan is None:
            self.body.addWidget(label("Nothing is drawn yet.", "small"))
            self.body.addStretch(1)
            return
        self._head(unit)
        self._cuts(unit, plan.stacks[unit.unit.label])
        self._sets(unit)
        self._left_over(unit)
        self._style(unit)
        self._stock(unit)
        self.body.addWidget(rule())
        self.body.addWidget(label(CAUTIONS, "caption", True))
        self.body.addStretch(1)

    def _head(self, unit: UnitPlan) -> None:
        measure = self.session.measure
        self.label = ValueEdit("Label", lambda text: self._relabel(unit, text), 30)
        self.label.show_value(unit.unit.label)
        self.label.refused.connect(self.session.said)
        kind = label(kind_words(unit.unit.kind), "title", True)
        self.body.addLayout(row(self.label, kind))
        hands = [f"{number} {name}" for name, number in unit.hands.items()]
        many = f"{unit.count} needed"
        if len(hands) == 1 and unit.unit.handed:
            many += ", all directional: the mirror image is another unit"
        if len(hands) > 1:
            many = f"Handed: {' and '.join(hands)} needed; keep the stacks apart"
        self.body.addWidget(label(many, "small", True))
        if unit.inside:
            inner = ", ".join(f"{u.unit.label} ({kind_words(u.unit.kind)})" for u in unit.inside)
            self.body.addWidget(label(f"Built with {inner}, made first", "small", True))
        self.body.addWidget(
            label(
                f"finished {size_text(unit.unit.size, measure)}, "
                f"unfinished {size_text(unit.unfinished, measure)}",
                "small", True,
            )
        )  # fmt: skip
        self.body.addWidget(rule())

    def _cuts(self, unit: UnitPlan, stacks: Sequence[str]) -> None:
        """The sizes to cut, the largest thing on the card."""
        project, measure = self.session.project, self.session.measure
        system, method = measure.system, unit.in_use
        self.body.addWidget(label(f"Cut, {method_words(method.name)}", "heading", True))
        self._who_chose(unit)
        if method.made_with:
            source_text = f"Nothing: these come out of the runs of {method.made_with}"
            self.body.addWidget(label(source_text, "", True))
        sizes: dict[tuple[object, ...], list[tuple[CutPiece, str]]] = {}
        for piece, stack in zip(method.pieces, stacks, strict=True):
            kind = piece.piece
            key = (piece.cut, kind.exact, kind.shape, kind.crosscut, kind.lean)
            sizes.setdefault(key, []).append((piece, stack))
        for pieces in sizes.values():
            first = pieces[0][0]
            low, high = first.cut
            text = show(low, system=system, vulgar=True)
            if low != high and not first.in_set(method.sets):  # the cut list has their lengths
                text += f" × {show(high, system=system, vulgar=True)}"
            size = label(f"{text} {unit_of(measure)}", "size", True)
            size.setAccessibleName(f"Cut size {text}")
            self.body.addWidget(size)
            for piece, stack in pieces:
                self.body.addWidget(label(_piece(piece, stack, project), "", True))
            if first.over != 0:
                side = 0 if first.piece.shape == "strip" else 1
                exact = show(first.piece.exact[side], system=system, ruler=True)
                off = f"{abs(float(first.over)):.3f} {unit_of(measure)}"
                way = "over" if first.over > 0 else "under"
                words = f"exactly {exact}; the cut is {off} {way}"
                self.body.addWidget(label(words, "caption", True))
        if method.trim_to:
            trim = f"then trim to {size_text(method.trim_to, measure)}"
            self.body.addWidget(label(trim, "heading", True))
        self.body.addWidget(label(times_words(method), "small", True))
        if method.method.bias:
            words = "Outer edges are bias: press, do not rub, and handle little."
            self.body.addWidget(label(words, "warning", True))

    def _who_chose(self, unit: UnitPlan) -> None:
        """Whose choice the method is: a click keeps the plan's, or hands the maker's back to it."""
        self.chosen = None
        if next(islice(unit.known_methods(), 1, None), None) is None:
            return
        if unit.chosen_for_you:
            tip = "Press to keep this method, whatever changes"
            self.chosen = Link("Chosen for you", "link", tip)
            name = unit.in_use.name
            self.chosen.followed.connect(lambda: self._change(unit, method=name))
        else:
            tip = "Press to let the plan choose"
            self.chosen = Link("Chosen by you", "link", tip)
            self.chosen.followed.connect(lambda: self._hand_back(unit))
        self.body.addWidget(self.chosen)

    def _hand_back(self, unit: UnitPlan) -> None:
        plan = self.session.plan
        if plan is not None:
            names = {unit.unit.label, *([unit.twin.label] if unit.twin else [])}
            both = [(u.unit, u.choice) for u in plan.units if u.unit.label in names]
            self.session.edit_block(without_method(plan.draft, both))

    def _sets(self, unit: UnitPlan) -> None:
        """The strip sets this unit shares, and what other strips would come to."""
        plan, project = self.session.plan, self.session.project
        for planned_set in plan.sets if plan else ():
            if unit.unit.label not in planned_set.labels:
                continue
            self.body.addWidget(rule())
            self.body.addWidget(
                label(f"Strip set: {set_name(planned_set, project)}", "heading", True)
            )
            for line in set_lines(planned_set, project):
                self.body.addWidget(label(line, "small", True))

    def _left_over(self, unit: UnitPlan) -> None:
        plan = self.session.plan
        for offer in plan.offers if plan else ():
            if offer.of == unit.unit.label:
                self.body.addWidget(label(offer_text(offer, self.session.measure), "", True))

    def _style(self, unit: UnitPlan) -> None:
        """Exact or trim for this unit, and how much larger the trim style cuts."""
        self.body.addWidget(rule())
        measure = self.session.measure
        self.style_box = ChoiceBox()
        self.style_box.setAccessibleName("Cutting style of this unit")
        for key, words in STYLES:
            self.style_box.addItem(words, key)
        now = unit.choice.style if unit.choice else ""
        self.style_box.setCurrentIndex([key for key, _ in STYLES].index(now))
        self.style_box.activated.connect(
            lambda i: self._change(unit, style=self.style_box.itemData(i))
        )
        self.body.addLayout(row(label("Cutting style", "heading"), self.style_box, 1))
        if unit.style != "trim":
            return
        self.oversize = []
        for at, name in enumerate(("cut up to the next", "and larger by")):
            edit = ValueEdit(name, partial(self._larger, at), 56)
            edit.show_value(show(measure.larger[at], system=measure.system))
            edit.refused.connect(self.session.said)
            self.oversize.append(edit)
            self.body.addLayout(row(label(name), edit, label(unit_of(measure)), 1))

    def _larger(self, at: int, text: str) -> None:
        """The trim style's rule: both above 0, and no more than an inch."""
        measure = self.session.measure
        length = parse_length(text, measure.system)
        if not 0 < length <= measure.from_inches(1):
            raise ValueError("it must be above 0, and an inch at most")
        rule_ = list(measure.larger)
        rule_[at] = length
        self.session.edit_measure(replace(measure, oversize=(rule_[0], rule_[1])))

    def _stock(self, unit: UnitPlan) -> None:
        """Fabric cut already, and the largest unit each method makes of it."""
        measure = self.session.measure
        self.stock = ValueEdit("From fabric I own", lambda text: self._own(unit, text), 96)
        self.stock.setPlaceholderText("5 squares")
        self.stock.setToolTip("As in: 10 squares, 2 1/2 strips, 7 x 9 scraps")
        self.stock.show_value(unit.choice.stock if unit.choice else "")
        self.stock.refused.connect(self.session.said)
        self.body.addWidget(label("From fabric I own", "heading"))
        self.body.addLayout(row(self.stock, 1))
        if unit.stock is None:
            return
        for method in unit.methods:
            its_method = method.method
            width = unit.usable(None)
            largest = largest_from(unit.stock, unit.unit, its_method, measure.seam, width)
            words = f"{method_words(method.name)}: "
            words += "not from these" if largest is None else (
                f"up to {length_or_size(largest, measure)} finished"
            )  # fmt: skip
            self.body.addWidget(label(words, "warning" if method.short else "caption", True))

    def _own(self, unit: UnitPlan, text: str) -> None:
        stocks = parse_stock(text, self.session.measure.system)
        if len(stocks) > 1:
            raise ValueError("one kind of fabric for one unit")
        self._change(unit, stock=text.strip())

    def _relabel(self, unit: UnitPlan, text: str) -> None:
        words = text.strip()
        if len(words) > LONGEST_LABEL:
            raise ValueError(f"up to {LONGEST_LABEL} letters fit on a stack")
        self._change(unit, label=words)
        self.session.label = words or None

    def _change(self, unit: UnitPlan, **changes: str) -> None:
        plan = self.session.plan
        if plan is None:
            return
        units = [u.unit for u in plan.units]
        self.session.edit_block(with_choice(plan.draft, units, unit.unit, unit.choice, **changes))


def _piece(piece: CutPiece, stack: str, project: Project) -> str:
    """How many of which fabric, how they come apart, which stack they go to."""
    kind = piece.piece
    words = f"{piece.number} × {kind.shape} of {fabric_name(project, kind.fabric)}"
    if piece.spare:
        words = spare_text(piece, project) + (f", {words}" if piece.number else "")
    if apart := apart_text(piece):
        words += f", cut {apart}"
    if piece.stock is not None:
        words += f", from {piece.stock} of yours"
    return f"{words} — stack {stack}" if stack else words
