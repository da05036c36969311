"""The card of the unit picked: what it is, how to make it, what to cut."""

from __future__ import annotations

from PySide6.QtWidgets import QButtonGroup, QGridLayout, QRadioButton, QWidget

from inlet.core.numbers import show
from inlet.core.project import replace
from inlet.core.units.chosen import CutPiece, Method, UnitPlan
from inlet.core.units.words import kind_words, method_words, move_text
from inlet.core.words import cloth_name, length_text, size_text, unit_of
from inlet.ui import theme
from inlet.ui.drawing import MovePicture
from inlet.ui.parts import column, empty, label, row, rule
from inlet.ui.session import Session


class UnitsTicket(QWidget):
    """The chosen unit in words and sizes, with its methods to choose from."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("ticketBody")
        self.body = column(self, 16, 8)
        self.methods: dict[str, QRadioButton] = {}
        session.planned.connect(self.refresh)
        session.selected.connect(self.refresh)

    def refresh(self) -> None:
        plan = self.session.plan
        if plan is None:
            return
        empty(self.body)
        self.methods = {}
        unit = next((u for u in plan.units if u.unit.label == self.session.label), None)
        if unit is None:
            self.body.addWidget(label("Nothing is drawn yet.", "small"))
            self.body.addStretch(1)
            return
        self._head(unit)
        self._cuts(unit)
        if len(unit.methods) > 1:
            self._choices(unit)
        self._moves(unit)
        self.body.addStretch(1)

    def _head(self, unit: UnitPlan) -> None:
        measure = self.session.measure
        kind = kind_words(unit.unit.kind)
        self.body.addWidget(label(f"{unit.unit.label}   {kind}", "title", True))
        many = f"{unit.count} needed"
        if unit.unit.mirror_of:
            many += f", mirror image of {unit.unit.mirror_of}: its pieces are mirrored too"
        self.body.addWidget(label(many, "small", True))
        self.body.addWidget(
            label(
                f"finished {size_text(unit.unit.size, measure)}, "
                f"unfinished {size_text(unit.unfinished, measure)}",
                "small", True,
            )
        )  # fmt: skip
        self.body.addWidget(rule())

    def _cuts(self, unit: UnitPlan) -> None:
        """The sizes to cut, the largest thing on the card."""
        project, measure = self.session.project, self.session.measure
        system = measure.system
        self.body.addWidget(label("Cut", "heading"))
        sizes: dict[tuple[object, ...], list[CutPiece]] = {}
        for piece in unit.method.pieces:
            key = (piece.cut, piece.piece.exact, piece.piece.shape, piece.piece.crosscut)
            sizes.setdefault(key, []).append(piece)
        for pieces in sizes.values():
            first = pieces[0]
            low, high = first.cut
            text = show(low, system=system, vulgar=True)
            if low != high:
                text += f" × {show(high, system=system, vulgar=True)}"
            size = label(f"{text} {unit_of(measure)}", "size", True)
            size.setAccessibleName(f"Cut size {text}")
            self.body.addWidget(size)
            for piece in pieces:
                words = f"{piece.number} × {first.piece.shape} of "
                words += cloth_name(project, piece.piece.fabric)
                if piece.piece.crosscut in ("once", "twice"):
                    words += f", cut {piece.piece.crosscut} on the diagonal"
                self.body.addWidget(label(words, "", True))
            if first.over != 0:
                exact = show(first.piece.exact[1], system=system, ruler=True)
                over = f"{float(first.over):.3f} {unit_of(measure)}"
                words = f"exactly {exact}; the cut is {over} over"
                self.body.addWidget(label(words, "caption", True))
        if unit.method.trim_to:
            self.body.addWidget(
                label(f"then trim to {size_text(unit.method.trim_to, measure)}", "heading", True)
            )

    def _choices(self, unit: UnitPlan) -> None:
        self.body.addWidget(rule())
        self.body.addWidget(label("Methods", "heading"))
        group = QButtonGroup(self)
        for method in unit.methods:
            radio = QRadioButton(method_words(method.name))
            radio.setChecked(method.name == unit.method.name)
            radio.clicked.connect(lambda _=False, m=method: self._choose(unit, m))
            group.addButton(radio)
            self.methods[method.name] = radio
            self.body.addWidget(radio)
            self.body.addWidget(label(self._compare(method), "caption", True))

    def _compare(self, method: Method) -> str:
        first = method.pieces[0]
        runs = "1 run" if method.runs == 1 else f"{method.runs} runs"
        over = f", {method.surplus} over" if method.surplus else ""
        size = show(first.cut[1], system=self.session.measure.system, vulgar=True)
        makes = f"{method.way.makes} a run, {runs}{over}" if method.way.makes > 1 else "one by one"
        return f"{makes}; first cut {size} {unit_of(self.session.measure)}"

    def _choose(self, unit: UnitPlan, method: Method) -> None:
        """The choice holds for all units of this kind in the block."""
        block = self.session.block
        methods = {**block.methods, unit.unit.kind: method.name}
        self.session.edit_block(replace(block, methods=methods))

    def _moves(self, unit: UnitPlan) -> None:
        moves = unit.method.moves
        if not moves:
            return
        self.body.addWidget(rule())
        seam = length_text(self.session.measure.seam, self.session.measure)
        self.body.addWidget(label(f"Moves, seam {seam}", "heading"))
        grid = QGridLayout()
        grid.setSpacing(theme.px(8))
        grid.setColumnMinimumWidth(0, theme.px(112))
        grid.setColumnStretch(1, 1)
        for i, move in enumerate(moves[:12]):
            picture = MovePicture(move, self.session.project, 104, self.session.grey)
            picture.setMaximumHeight(theme.px(120))
            text = move_text(move.text, unit.method, self.session.project)
            grid.addWidget(picture, i, 0)
            grid.addWidget(label(f"{i + 1}.  {text}", "", True), i, 1)
        self.body.addLayout(grid)
        if len(moves) > 12:
            self.body.addLayout(row(label(f"and {len(moves) - 12} more like these", "small"), 1))
