"""The places picked on the top: what lies there and how."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from inlet.core.plan import TURNS
from inlet.core.project import MOST_PLACES, Quilt, fresh_id
from inlet.core.setting import (
    Placed,
    Spot,
    as_usual,
    coloured_at,
    filled_at,
    in_row_length,
    mirrored_at,
    motif_of,
    place_at,
    row_lengths,
    turned_at,
)
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.quilt.fields import laid
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.inputs import NumberBox
from inlet.ui.widgets.parts import Link, button, column, label, row, rule


@guarded
class PlacePage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.spots: list[Spot] = []
        layout = column(self, 0, 7)
        self.where = label("", "heading", True)
        self.what = label("", "", True)
        layout.addWidget(self.where)
        layout.addWidget(self.what)
        self.own = QWidget()
        own_layout = column(self.own, 0, 7)
        self.block = ChoiceField("Block in this place", self.fill)
        self.colourway = ChoiceField("Colourway in this place", self.colour)
        own_layout.addLayout(field("block", self.block))
        own_layout.addLayout(field("colourway", self.colourway))
        right = button("Turn right (R)", lambda: self.turn(1))
        left = button("Left (Shift+R)", lambda: self.turn(-1))
        own_layout.addLayout(row(right, left, 1))
        own_layout.addLayout(row(button("Mirror (M)", self.mirror), 1))
        self.in_row = NumberBox()
        self.in_row.setRange(1, MOST_PLACES)
        self.in_row.setAccessibleName("Blocks in this row")
        self.in_row.setMaximumWidth(theme.px(72))
        self.in_row.valueChanged.connect(self._row_length)
        self.row_line = QWidget()
        self.row_line.setLayout(row(label("this row has"), self.in_row, label("blocks"), 1))
        own_layout.addWidget(self.row_line)
        self.motif = Link("Make a motif of these places")
        self.motif.followed.connect(self.make_motif)
        own_layout.addWidget(self.motif)
        self.usual = Link("Reset to the pattern (Delete)")
        self.usual.followed.connect(self.reset)
        own_layout.addWidget(self.usual)
        layout.addWidget(self.own)
        layout.addWidget(rule())
        self.odd = label("", "warning", True)
        layout.addWidget(self.odd)

    @property
    def quilt(self) -> Quilt:
        return self.session.project.quilt or Quilt()

    @property
    def square(self) -> bool:
        """Do its blocks fit again after a quarter turn? Else they are turned by halves."""
        return self.session.quilt_plan.top.square

    def show_spots(self, spots: list[Spot]) -> None:
        self.spots = spots
        self.refresh()

    def refresh(self) -> None:
        quilt, project = self.quilt, self.session.project
        places = [p for spot in self.spots if (p := place_at(quilt, spot, self.square)) is not None]
        self.own.setVisible(bool(places))
        if not places:
            self.where.setText("No place is picked")
            self.what.setText(
                "Click a block, or use the arrow keys. Drag one block onto another to swap "
                "them; the wheel goes nearer."
            )
        else:
            last = places[-1]
            many = f" and {len(places) - 1} more" if len(places) > 1 else ""
            self.where.setText(f"Row {last.row + 1}, block {last.column + 1}{many}")
            self.what.setText(self._lies(last))
            plain = [(f"plain square of {f.title}", f"fabric {f.id}") for f in project.fabrics]
            blocks = [(words, f"block {name}") for words, name in laid(project, quilt)[1:]]
            now = f"block {last.block}" if last.block else f"fabric {last.fabric}"
            self.block.offer([*blocks, *plain], now)
            ways = [(way.name or way.id, way.id) for way in quilt.colourways]
            self.colourway.offer([("as drawn, or as shuffled", ""), *ways], last.colourway)
            self.row_line.setVisible(not quilt.on_point)
            self.in_row.blockSignals(True)
            self.in_row.setValue(row_lengths(quilt)[last.row])
            self.in_row.blockSignals(False)
            self.motif.setVisible(self._as_motif() is not None)
        odd = self.session.quilt_view.odd if self.session.quilt_known else ()
        self.odd.setText("\n".join(each.words for each in odd))

    def _lies(self, place: Placed) -> str:
        words = [TURNS[place.turn] or "as drawn"]
        if place.mirror:
            words.insert(0, "mirrored")
        return f"It lies {', then '.join(words)}."

    def _as_motif(self) -> Quilt | None:
        """The quilt set of what is picked, where that can be a motif."""
        taken = {b.id for b in self.session.project.blocks} | {m.id for m in self.quilt.motifs}
        name = f"Motif {len(self.quilt.motifs) + 1}"
        return motif_of(self.quilt, self.spots, name, fresh_id(name, taken), self.square)

    # --- edits --------------------------------------------------------------------------------

    def turn(self, quarters: int) -> None:
        step = 1 if self.square else 2
        self.session.edit_quilt(turned_at(self.quilt, self.spots, quarters * step, self.square))

    def mirror(self) -> None:
        self.session.edit_quilt(mirrored_at(self.quilt, self.spots, self.square))

    def reset(self) -> None:
        self.session.edit_quilt(as_usual(self.quilt, self.spots))

    def fill(self, value: str) -> None:
        kind, _, name = value.partition(" ")
        block, fabric = (name, "") if kind == "block" else ("", name)
        self.session.edit_quilt(filled_at(self.quilt, self.spots, block, fabric, self.square))

    def colour(self, way: str) -> None:
        self.session.edit_quilt(coloured_at(self.quilt, self.spots, way, self.square))

    def make_motif(self) -> None:
        quilt = self._as_motif()
        if quilt is not None:
            self.session.edit_quilt(quilt)

    def _row_length(self, length: int) -> None:
        try:
            self.session.edit_quilt(in_row_length(self.quilt, self.spots[-1][1], length))
        except ValueError as why:
            self.session.said.emit(f"The quilt stays as it was: {why}.")
            self.refresh()
