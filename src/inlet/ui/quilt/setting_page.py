"""How blocks are set: their number, patterns, sashing, setting triangles."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QSpinBox, QWidget

from inlet.core.numbers import Exact, parse_length, show
from inlet.core.plan import both_hands, hands_text, turned_text
from inlet.core.project import (
    MOST_PLACES,
    Alternate,
    Motif,
    Quilt,
    Sashing,
    Triangles,
    fresh_id,
    replace,
)
from inlet.core.setting import in_size
from inlet.core.words import near, unit_of
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.quilt.fields import LengthEdit, fabric_choices, laid
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import CheckBox, NumberBox
from inlet.ui.widgets.parts import Link, ValueEdit, column, empty, label, row, rule

MOST_HANDS = 3
SETTINGS = [("straight", "straight"), ("on point", "on-point")]
TURNINGS = [
    ("all one way", ""), ("in alternate quarter turns", "quarter-turns"),
    ("four round a centre", "round"), ("in mirror pairs", "mirror-pairs"),
    ("every other row half round", "by-row"), ("ring by ring", "by-ring"),
]  # fmt: skip
BY = [
    ("every other place", "checker"), ("every other row", "rows"),
    ("every other column", "columns"), ("every other ring", "rings"),
]  # fmt: skip
FITS = [
    ("to the ruler's mark", "mark"), ("exactly", "exact"), ("larger, blocks float by", "float")
]  # fmt: skip


@guarded
class SettingPage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.body = column(self, 0, 7)
        self._add_blocks()
        self.body.addWidget(rule())
        self._add_sashing()
        self.body.addWidget(rule())
        self._add_triangles()
        self.filler = ChoiceField("Filler fabric", lambda value: self._edit(filler=value))
        self.filling = QWidget()
        self.filling.setLayout(field("filled up with", self.filler))
        self.body.addWidget(self.filling)

    def _add_blocks(self) -> None:
        """How many there are, which, and how they lie."""
        session, layout, edit = self.session, self.body, self._edit
        self.setting = ChoiceField("Setting", lambda value: edit(setting=value))
        self.columns, self.rows = (
            self._number(name, which) for name, which in (("Blocks across", 0), ("Blocks down", 1))
        )
        self.block = ChoiceField("Block", lambda value: edit(block=value))
        self.turning = ChoiceField("Blocks lie", lambda value: edit(turning=value))
        self.other = ChoiceField("Every other place", self._take_other)
        self.by = ChoiceField("Which places", self._take_by)
        layout.addLayout(field("set", self.setting))
        numbers = QWidget()
        flow = FlowLayout(numbers, 0, theme.px(6))
        for box in (self.columns, self.rows):
            box.setMaximumWidth(theme.px(72))
        for each in (self.columns, label("across"), self.rows, label("down")):
            flow.addWidget(each)
        layout.addWidget(numbers)
        layout.addLayout(field("block", self.block))
        self.made = ValueEdit("The block measured when made", self._take_made, 84)
        self.made.refused.connect(session.said)
        self.made_line = QWidget()
        self.made_line.setLayout(row(label("sewn size"), self.made, 1))
        layout.addWidget(self.made_line)
        layout.addLayout(field("lying", self.turning))
        layout.addLayout(field("and", self.other))
        self.by_row = QWidget()
        by = field("in", self.by)
        self.by_row.setLayout(by)
        layout.addWidget(self.by_row)
        self.motif = Link("Make a motif of four of these blocks")
        self.motif.followed.connect(self.make_motif)
        layout.addWidget(self.motif)
        self.nests = CheckBox("")
        self.nests.setAccessibleName("Turn blocks that look the same, so that their seams nest")
        self.nests.clicked.connect(lambda on: self._edit(as_placed=not on))
        layout.addWidget(self.nests)
        self.nests_words = label("", "caption", True)
        layout.addWidget(self.nests_words)
        self.hands = column(spacing=4)
        layout.addLayout(self.hands)
        session.quilted.connect(self._show_hands)
        session.quilted.connect(self._show_nests)

    def _add_sashing(self) -> None:
        session, layout = self.session, self.body
        layout.addWidget(label("Sashing", "heading"))
        self.sash = LengthEdit(session, "Sashing, width", lambda x: self._sashing(width=x), True)
        self.down = LengthEdit(
            session, "Sashing between rows", lambda x: self._sashing(down=x), True
        )
        self.sash_fabric = ChoiceField("Sashing fabric", lambda x: self._sashing(fabric=x))
        self.corner_fabric = ChoiceField("Corner squares", lambda x: self._sashing(corner_fabric=x))
        self.outside = CheckBox("outside, too")
        self.outside.toggled.connect(lambda on: self._sashing(outside=on))
        self.sash_units = [label(""), label("")]
        for length in (self.sash, self.down):
            length.setMaximumWidth(theme.px(56))
        layout.addLayout(row(label("between blocks"), self.sash, self.sash_units[0], 1))
        layout.addLayout(row(label("between rows"), self.down, self.sash_units[1], 1))
        layout.addLayout(field("of", self.sash_fabric))
        layout.addLayout(field("corners", self.corner_fabric))
        layout.addWidget(self.outside)

    def _add_triangles(self) -> None:
        session = self.session
        self.triangles = QWidget()
        layout = column(self.triangles, 0, 7)
        layout.addWidget(label("Setting triangles", "heading"))
        self.triangle_fabric = ChoiceField(
            "Setting triangles, fabric", lambda x: self._of_triangles(fabric=x)
        )
        self.fit = ChoiceField("Setting triangles, cut", lambda x: self._of_triangles(fit=x))
        self.float_by = LengthEdit(
            session, "Blocks float by", lambda x: self._of_triangles(float_by=x), True
        )
        layout.addLayout(field("of", self.triangle_fabric))
        layout.addLayout(field("cut", self.fit, self.float_by))
        self.body.addWidget(self.triangles)

    @property
    def quilt(self) -> Quilt:
        return self.session.project.quilt or Quilt()

    def _number(self, name: str, which: int) -> QSpinBox:
        box = NumberBox()
        box.setRange(0, MOST_PLACES)
        box.setAccessibleName(name)
        box.valueChanged.connect(lambda number: self._take_size(which, number))
        return box

    def refresh(self) -> None:
        quilt, project = self.quilt, self.session.project
        sashing, triangles = quilt.sashing or Sashing(), quilt.triangles or Triangles()
        other_alternate = quilt.alternate
        self.setting.offer(SETTINGS, quilt.setting or "straight")
        for box, number in ((self.columns, quilt.columns), (self.rows, quilt.rows)):
            _quietly(box, partial(box.setValue, number or 0))
        self.block.offer(laid(project, quilt), quilt.block)
        self._show_made()
        self._show_nests()
        self.turning.offer(TURNINGS, quilt.turning if quilt.turning != "one-way" else "")
        plain = [(f"plain squares of {f.title}", f"fabric {f.id}") for f in project.fabrics]
        blocks = [(words, f"block {name}") for words, name in laid(project, quilt)[1:]]
        now = ""
        if other_alternate is not None:
            now = (
                f"block {other_alternate.block}"
                if other_alternate.block
                else f"fabric {other_alternate.fabric}"
            )
        self.other.offer([("the same block everywhere", ""), *blocks, *plain], now)
        self.by_row.setVisible(other_alternate is not None)
        self.by.offer(BY, other_alternate.by if other_alternate is not None else "checker")
        has = quilt.motif(quilt.block) is not None
        self.motif.setVisible(bool(quilt.block) and not has)
        self.sash.show_length(sashing.width)
        self.down.show_length(sashing.down)
        self.down.setEnabled(not quilt.on_point)
        self.sash_fabric.offer(fabric_choices(project), sashing.fabric)
        self.corner_fabric.offer(
            fabric_choices(project, "none: strips run through"), sashing.corner_fabric
        )
        _quietly(self.outside, lambda: self.outside.setChecked(sashing.outside or quilt.on_point))
        self.outside.setEnabled(not quilt.on_point)
        self.outside.setToolTip(
            "On point the sashing goes round every block." if quilt.on_point else ""
        )
        for unit in self.sash_units:
            unit.setText(unit_of(self.session.measure))
        self.triangles.setVisible(quilt.on_point)
        self.triangle_fabric.offer(fabric_choices(project), triangles.fabric)
        self.fit.offer(FITS, triangles.fit)
        self.float_by.setVisible(triangles.fit == "float")
        self.float_by.show_length(triangles.float_by)
        self.filling.setVisible(not quilt.on_point)
        self.filler.offer(fabric_choices(project), quilt.filler)

        self._show_hands()

    def _show_hands(self) -> None:
        """Settings that use both hands of a unit, once its blocks are planned."""
        empty(self.hands)
        plan = self.session.quilt_plan
        for hands in both_hands(plan)[:MOST_HANDS] if plan.planned else ():
            link = Link(hands_text(hands))
            link.followed.connect(partial(self.session.edit_quilt, hands.quilt))
            self.hands.addWidget(link)

    def _show_nests(self) -> None:
        """Which blocks are turned so that they nest, once that is known; the maker may say no."""
        plan = self.session.quilt_plan
        words = turned_text(plan) if plan.planned else ""
        may = bool(words) or self.quilt.as_placed
        self.nests.setText("Turn to nest")
        self.nests.setChecked(not self.quilt.as_placed)
        self.nests.setVisible(may)
        self.nests_words.setText(words or "Every block lies as it is placed.")
        self.nests_words.setVisible(may)

    def _show_made(self) -> None:
        """What the block measured, unfinished; as drawn where nothing is typed."""
        quilt, measure = self.quilt, self.session.measure
        size = self.session.quilt_plan.top.sizes.get(quilt.block)
        self.made_line.setVisible(size is not None)
        sewn_size = quilt.made.get(quilt.block)
        system = measure.system
        if size is not None:
            wide, high = size.as_cut
            raw = near((wide + 2 * measure.seam, high + 2 * measure.seam), measure)
            self.made.setPlaceholderText(
                " x ".join(show(x, system=system, ruler=True) for x in raw)
            )
        text = "" if sewn_size is None else " x ".join(show(x, system=system) for x in sewn_size)
        self.made.show_value(text)

    # --- edits --------------------------------------------------------------------------------

    def _edit(self, **changes: object) -> None:
        quilt = replace(self.quilt, **changes)
        if not quilt.setting:
            quilt = replace(quilt, setting="straight")
        self.session.edit_quilt(quilt)

    def _take_size(self, which: int, number: int) -> None:
        quilt = self.quilt
        now = [quilt.columns or 0, quilt.rows or 0]
        if now[which] == number:
            return
        now[which] = number
        try:
            new_quilt = in_size(quilt, *now)
        except ValueError as why:
            self.session.said.emit(f"The quilt stays as it was: {why}.")
            self.refresh()
            return
        self.session.edit_quilt(replace(new_quilt, setting=new_quilt.setting or "straight"))

    def _take_made(self, text: str) -> None:
        """One side, or both; empty: as drawn."""
        quilt, measure = self.quilt, self.session.measure
        others = {name: size for name, size in quilt.made.items() if name != quilt.block}
        if text.strip():
            parts = text.lower().replace("×", "x").split("x")
            sides = [parse_length(part, measure.system) for part in parts[:2]]
            if len(parts) > 2 or not all(side > 2 * measure.seam for side in sides):
                raise ValueError("type what it measures raw edge to raw edge, as in 9 1/2")
            others[quilt.block] = (sides[0], sides[-1])
        self._edit(made=others)

    def _take_other(self, value: str) -> None:
        kind, _, name = value.partition(" ")
        by = self.quilt.alternate.by if self.quilt.alternate is not None else "checker"
        alternate = {
            "block": Alternate(block=name, by=by), "cloth": Alternate(fabric=name, by=by)
        }.get(kind)  # fmt: skip
        self._edit(alternate=alternate)

    def _take_by(self, by: str) -> None:
        if self.quilt.alternate is not None:
            self._edit(alternate=replace(self.quilt.alternate, by=by))

    def _sashing(self, **changes: object) -> None:
        sashing = replace(self.quilt.sashing or Sashing(), **changes)
        self._edit(sashing=sashing)

    def _of_triangles(self, **changes: object) -> None:
        triangles = replace(self.quilt.triangles or Triangles(), **changes)
        if changes.get("fit") == "float" and triangles.float_by is None:
            half: Exact = self.session.measure.from_inches(1) / 2
            triangles = replace(triangles, float_by=half)
        self._edit(triangles=triangles)

    def make_motif(self) -> None:
        """Four of the block round a centre, to be set as one; the quilt has half as many places."""
        quilt, project = self.quilt, self.session.project
        taken = {b.id for b in project.blocks} | {m.id for m in quilt.motifs}
        name = f"Four {project.block(quilt.block).title}"
        motif = Motif(id=fresh_id(name, taken), name=name, block=quilt.block, turning="round")
        columns, rows = ((n or 0) // 2 or 1 for n in (quilt.columns, quilt.rows))
        self._edit(
            motifs=(*quilt.motifs, motif), block=motif.id, turning="", columns=columns, rows=rows,
            places=(), alternate=None,
        )  # fmt: skip


def _quietly(widget: QWidget, do: Callable[[], object]) -> None:
    widget.blockSignals(True)
    do()
    widget.blockSignals(False)
