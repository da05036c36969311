"""What goes round a quilt and behind it: borders, binding, backing, batting."""

from __future__ import annotations

from functools import partial

from PySide6.QtWidgets import QWidget

from inlet.core.numbers import Exact, Fraction, parse_length, show
from inlet.core.project import Backing, Batting, Binding, Border, Pair, Quilt, replace
from inlet.core.setting import backing_text, binding_width, fitting_near
from inlet.core.words import near_text, unit_of
from inlet.ui import theme
from inlet.ui.guard import guarded
from inlet.ui.quilt.fields import LengthEdit, fabric_choices, laid
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.parts import Link, ValueEdit, column, empty, icon_button, label, row, rule

KINDS = [
    ("butted corners", "butted"), ("mitred corners", "mitred"),
    ("corner squares", "corner-squares"), ("pieced of a block", "pieced"),
]  # fmt: skip
ORDERS = [("sides first", "sides-first"), ("ends first", "ends-first")]
MOST_BORDERS = 8


@guarded
class EdgesPage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        layout = column(self, 0, 7)
        self.borders = column(spacing=7)
        layout.addLayout(self.borders)
        self.add = Link("Add a border")
        self.add.followed.connect(self.add_border)
        layout.addWidget(self.add)
        layout.addWidget(rule())
        layout.addWidget(label("Binding", "heading"))
        self.binding = ChoiceField("Binding fabric", lambda x: self._binding(fabric=x))
        self.binding_cut = LengthEdit(
            session, "Binding, cut width", lambda x: self._binding(width=x), True
        )
        self.cut = ChoiceField("Binding, cut", lambda x: self._binding(cut=x))
        self.units = [label("") for _ in range(3)]
        layout.addLayout(field("of", self.binding))
        layout.addLayout(field("cut", self.binding_cut, self.units[0], self.cut))
        layout.addWidget(rule())
        layout.addWidget(label("Backing and batting", "heading"))
        self.backing = ChoiceField("Backing fabric", lambda x: self._backing(fabric=x))
        self.over = LengthEdit(
            session, "Backing, past the edge", lambda x: self._backing(overage=x), True
        )
        self.seam = ChoiceField("Backing seams", lambda x: self._backing(seam=x))
        self.batting = LengthEdit(session, "Batting, past the edge", self._batting, True)
        layout.addLayout(field("of", self.backing))
        layout.addLayout(
            row(label("reaching"), self.over, self.units[1], label("past the edge"), 1)
        )
        layout.addLayout(field("seams", self.seam))
        layout.addLayout(row(label("batting"), self.batting, self.units[2], label("past it"), 1))
        self.ways = label("", "caption", True)
        layout.addWidget(self.ways)

    @property
    def quilt(self) -> Quilt:
        return self.session.project.quilt or Quilt()

    def refresh(self) -> None:
        quilt, project, measure = self.quilt, self.session.project, self.session.measure
        self._show_borders()
        self.add.setVisible(len(quilt.borders) < MOST_BORDERS)
        binding = quilt.binding
        self.binding.offer(
            fabric_choices(project, "no binding yet"), binding.fabric if binding else ""
        )
        self.binding_cut.show_length(binding_width(binding, measure) if binding else None)
        self.cut.offer(
            [("straight", "straight"), ("on the bias", "bias")], binding.cut if binding else ""
        )
        backing = quilt.backing
        self.backing.offer(
            fabric_choices(project, "no backing yet"), backing.fabric if backing else ""
        )
        self.over.show_length(backing.overage if backing else None)
        self.seam.offer(
            [("whichever needs less", ""), ("down the quilt", "along"), ("across it", "across")],
            backing.seam if backing else "",
        )
        self.batting.show_length(quilt.batting.overage if quilt.batting else None)
        for unit in self.units:
            unit.setText(unit_of(measure))
        plan = self.session.quilt_plan
        self.ways.setText("\n".join(backing_text(way, measure) for way in plan.backings))

    def _show_borders(self) -> None:
        quilt, project = self.quilt, self.session.project
        empty(self.borders)
        top = self.session.quilt_plan.top
        for i, border in enumerate(quilt.borders):
            away = icon_button("x", f"Take border {i + 1} away", partial(self._away, i))
            heading = label(f"Border {i + 1}", "heading")
            self.borders.addLayout(row(heading, 1, away))
            name = f"Border {i + 1}"
            kind = ChoiceField(f"{name}, kind", partial(self._set, i, "kind"))
            kind.offer(KINDS, border.kind)
            width = LengthEdit(
                self.session, f"{name}, width", partial(self._set, i, "width"), False
            )
            width.show_length(border.width)
            fabric = ChoiceField(f"{name}, fabric", partial(self._set, i, "fabric"))
            fabric.offer(fabric_choices(project), border.fabric)
            unit = label(unit_of(self.session.measure))
            if border.kind == "pieced":
                block = ChoiceField(f"{name}, block", partial(self._set, i, "block"))
                block.offer(laid(project, replace(quilt, motifs=())), border.block)
                self.borders.addLayout(field("", kind))
                self.borders.addLayout(field("repeating", block))
                self.borders.addLayout(field("spacer, corners", fabric))
                self._fits(i, border)
            else:
                width.setMaximumWidth(theme.px(64))
                self.borders.addLayout(field("", width, unit, fabric))
                order = ChoiceField(f"{name}, order", partial(self._set, i, "order"))
                order.offer(ORDERS, border.order)
                corner = ChoiceField(f"{name}, corners", partial(self._set, i, "corner_fabric"))
                corner.offer(fabric_choices(project, "corners alike"), border.corner_fabric)
                with_it = {"butted": [order], "corner-squares": [corner]}.get(border.kind, [])
                self.borders.addLayout(field("with", kind))
                for choice in with_it:
                    self.borders.addLayout(field("sewn" if choice is order else "of", choice))
            found = next((r for r in top.borders if r.label.split(",")[0] == name), None)
            if found is not None:
                self._measured(i, border, found.inner)
            self.borders.addWidget(rule())

    def _measured(self, i: int, border: Border, inner: Pair) -> None:
        """What the quilt measured before the border: its strips are cut to that."""
        measure = self.session.measure
        edit = ValueEdit(
            f"Border {i + 1}, the quilt measured", partial(self._take_measured, i), 120
        )
        raw = inner[0] + 2 * measure.seam, inner[1] + 2 * measure.seam
        edit.setPlaceholderText(near_text(raw, measure).removesuffix(f" {unit_of(measure)}"))
        if border.measured is not None:
            system = measure.system
            edit.show_value(" x ".join(show(x, system=system, ruler=True) for x in border.measured))
        edit.refused.connect(self.session.said)
        self.borders.addLayout(row(label("sewn size"), edit, 1))

    def _fits(self, i: int, border: Border) -> None:
        """The sizes of the block at which no spacer is needed."""
        top, measure = self.session.quilt_plan.top, self.session.measure
        near = fitting_near(border, top.borders, top.sizes, f"Border {i + 1}")
        if near:
            words = " or ".join(near_text((x, x), measure) for x in near)
            self.borders.addWidget(
                label(f"Without a spacer the block would be {words} long.", "caption", True)
            )

    # --- edits --------------------------------------------------------------------------------

    def _edit(self, **changes: object) -> None:
        self.session.edit_quilt(replace(self.quilt, **changes))

    def _border(self, i: int, **changes: object) -> None:
        borders = list(self.quilt.borders)
        if i < len(borders):
            borders[i] = replace(borders[i], **changes)
            self._edit(borders=tuple(borders))

    def _set(self, i: int, name: str, value: object) -> None:
        self._border(i, **{name: value})

    def add_border(self) -> None:
        """One more outside, two inches wide, in the first fabric there is."""
        fabrics = self.session.project.fabrics
        fabric = self.session.fabric or (fabrics[0].id if fabrics else "")
        two = Fraction(2 if self.session.measure.system.fractions else 5)
        self._edit(borders=(*self.quilt.borders, Border(width=two, fabric=fabric)))

    def _away(self, i: int) -> None:
        borders = self.quilt.borders
        self._edit(borders=(*borders[:i], *borders[i + 1 :]))

    def _take_measured(self, i: int, text: str) -> None:
        measure = self.session.measure
        if not text.strip():
            self._border(i, measured=None)
            return
        parts = text.lower().replace("×", "x").split("x")
        if len(parts) != 2:
            raise ValueError("type how wide and how high it is, as in 56 x 70")
        wide, high = (parse_length(part, measure.system) for part in parts)
        if min(wide, high) <= 2 * measure.seam:
            raise ValueError("both must be more than the two seam allowances in them")
        self._border(i, measured=(wide, high))

    def _binding(self, **changes: object) -> None:
        self._edit(binding=replace(self.quilt.binding or Binding(), **changes))

    def _backing(self, **changes: object) -> None:
        self._edit(backing=replace(self.quilt.backing or Backing(), **changes))

    def _batting(self, length: Exact | None) -> None:
        self._edit(batting=Batting(overage=length) if length is not None else None)
