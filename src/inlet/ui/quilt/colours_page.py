"""Colourways of the quilt's blocks, and how they are scattered."""

from __future__ import annotations

from functools import partial

from PySide6.QtWidgets import QCheckBox, QWidget

from inlet.core.project import Colourway, Project, Quilt, Scatter, fresh_id, replace
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.inputs import CheckBox, NumberBox
from inlet.ui.widgets.parts import (
    Link,
    ValueEdit,
    button,
    column,
    empty,
    icon_button,
    label,
    row,
    rule,
)

MOST_COLOURWAYS = 24
MOST_SEED = 9999
RULES = (
    ("apart", "none alike side by side"), ("balance", "light and dark evenly over the top"),
    ("fabrics_apart", "no fabric twice in a row"),
)  # fmt: skip


@guarded
class ColoursPage(QWidget):
    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.way = ""  # the colourway that is edited
        layout = column(self, 0, 7)
        layout.addWidget(
            label("A colourway is a block in other fabrics. Give one to a place, or shuffle them.",
                  "caption", True)
        )  # fmt: skip
        self.list = column(spacing=7)
        layout.addLayout(self.list)
        self.add = Link("Add a colourway")
        self.add.followed.connect(self.add_colourway)
        layout.addWidget(self.add)
        self.scattering = QWidget()
        own_layout = column(self.scattering, 0, 7)
        own_layout.addWidget(rule())
        own_layout.addWidget(label("Shuffle", "heading"))
        self.rules: dict[str, QCheckBox] = {}
        for name, words in RULES:
            box = CheckBox(words)
            box.toggled.connect(partial(self._rule, name))
            self.rules[name] = box
            own_layout.addWidget(box)
        self.seed = NumberBox()
        self.seed.setRange(1, MOST_SEED)
        self.seed.setAccessibleName("Seed of the shuffle")
        self.seed.valueChanged.connect(lambda seed: self._scatter(seed=seed))
        self.again = button("Shuffle again", self.scatter_again)
        own_layout.addLayout(row(self.again, label("number"), self.seed, 1))
        self.stop = Link("Stop shuffling")
        self.stop.followed.connect(lambda: self._edit(scatter=None))
        own_layout.addWidget(self.stop)
        layout.addWidget(self.scattering)

    @property
    def quilt(self) -> Quilt:
        return self.session.project.quilt or Quilt()

    def refresh(self) -> None:
        quilt, project = self.quilt, self.session.project
        empty(self.list)
        used = fabrics_used(project)
        for i, way in enumerate(quilt.colourways):
            name = ValueEdit(f"Colourway {i + 1}, name", partial(self._name, way.id), 110)
            name.show_value(way.name or way.id)
            name.refused.connect(self.session.said)
            away = icon_button("x", f"Take {way.name or way.id} away", partial(self._away, way.id))
            self.list.addLayout(row(name, 1, away))
            for fabric in used:
                titles = {f.id: f.title for f in project.fabrics}
                choice = ChoiceField(
                    f"{way.name or way.id}: {titles[fabric]} becomes",
                    partial(self._fabric, way.id, fabric),
                )
                choice.offer(
                    [("as drawn", ""), *((f.title, f.id) for f in project.fabrics)],
                    way.fabrics.get(fabric, ""),
                )
                self.list.addLayout(field(f"{titles[fabric]} becomes", choice))
            in_it = CheckBox("shuffled")
            in_it.setAccessibleName(f"{way.name or way.id}, shuffled")
            scatter = quilt.scatter
            in_it.setChecked(scatter is not None and way.id in scatter.colourways)
            in_it.toggled.connect(partial(self._takes_part, way.id))
            self.list.addWidget(in_it)
            self.list.addWidget(rule())
        self.add.setVisible(len(quilt.colourways) < MOST_COLOURWAYS)
        scatter = quilt.scatter
        self.scattering.setVisible(scatter is not None)
        if scatter is not None:
            for rule_, box in self.rules.items():
                box.blockSignals(True)
                box.setChecked(bool(getattr(scatter, rule_)))
                box.blockSignals(False)
            self.seed.blockSignals(True)
            self.seed.setValue(scatter.seed)
            self.seed.blockSignals(False)

    # --- edits --------------------------------------------------------------------------------

    def _edit(self, **changes: object) -> None:
        self.session.edit_quilt(replace(self.quilt, **changes))

    def add_colourway(self) -> None:
        quilt = self.quilt
        number = len(quilt.colourways) + 1
        name = f"Colourway {number}"
        colourway = Colourway(id=fresh_id(name, {way.id for way in quilt.colourways}), name=name)
        self._edit(colourways=(*quilt.colourways, colourway))

    def _with(self, way: Colourway) -> None:
        ways = tuple(way if w.id == way.id else w for w in self.quilt.colourways)
        self._edit(colourways=ways)

    def _name(self, which: str, text: str) -> None:
        way = self.quilt.colourway(which)
        if way is not None:
            if not text.strip():
                raise ValueError("a colourway has a name")
            self._with(replace(way, name=text.strip()))

    def _fabric(self, which: str, old: str, new: str) -> None:
        way = self.quilt.colourway(which)
        if way is not None:
            fabrics = {k: v for k, v in way.fabrics.items() if k != old}
            self._with(replace(way, fabrics={**fabrics, old: new} if new else fabrics))

    def _away(self, which: str) -> None:
        """The colourway goes; places that had it are as drawn."""
        quilt = self.quilt
        scatter = quilt.scatter
        if scatter is not None:
            left = tuple(name for name in scatter.colourways if name != which)
            scatter = replace(scatter, colourways=left) if left else None
        self._edit(
            colourways=tuple(w for w in quilt.colourways if w.id != which),
            places=tuple(
                replace(p, colourway="") if p.colourway == which else p for p in quilt.places
            ),
            scatter=scatter,
        )

    def _takes_part(self, which: str, on: bool) -> None:
        scatter = self.quilt.scatter or Scatter()
        members = {*scatter.colourways, which} if on else {*scatter.colourways} - {which}
        names = tuple(way.id for way in self.quilt.colourways if way.id in members)
        self._edit(scatter=replace(scatter, colourways=names) if names else None)

    def _rule(self, name: str, on: bool) -> None:
        self._scatter(**{name: on})

    def _scatter(self, **changes: object) -> None:
        if self.quilt.scatter is not None:
            self._edit(scatter=replace(self.quilt.scatter, **changes))

    def scatter_again(self) -> None:
        """The next seed; what is pinned stays."""
        if self.quilt.scatter is not None:
            self._scatter(seed=self.quilt.scatter.seed % MOST_SEED + 1)


def fabrics_used(project: Project) -> list[str]:
    """The fabrics of the blocks in the quilt, each once."""
    quilt = project.quilt or Quilt()
    names = {quilt.block, *(m.block for m in quilt.motifs), *(p.block for p in quilt.places)}
    if quilt.alternate is not None:
        names.add(quilt.alternate.block)
    fabrics: dict[str, None] = {}
    for block in project.blocks:
        if block.id in names:
            fabrics |= dict.fromkeys(spot.fabric for spot in block.fabric_at)
    return [name for name in fabrics if project.fabric(name) is not None]
