"""The page “See before you choose”: every way to set the block, every exchange of its fabrics."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import NamedTuple

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from inlet.core.draft import Draft, draft
from inlet.core.geometry import Picture
from inlet.core.project import Block, Project
from inlet.core.remake import (
    Exchange,
    Repeat,
    Segment,
    closed_figures,
    exchanged,
    exchanges,
    in_other_fabrics,
    picture_of_repeat,
    repeats,
    set_by,
    value_exchanges,
)
from inlet.core.units import picture_of
from inlet.core.words import fabric_name
from inlet.ui import theme
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import ChoiceField
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.inputs import CheckBox
from inlet.ui.widgets.parts import button, column, label, when_seen
from inlet.ui.widgets.tabs import tabs
from inlet.ui.widgets.thumbnails import FIRST, SmallPicture, Thumbnails

Settings = list[tuple[Repeat, Picture, tuple[Segment, ...]]]
"""Repeats with their pictures, and the outlines of their closed figures."""
OUTLINED = 4 * FIRST
"""Repeats whose figures are outlined: the best of them."""
ACROSS = 2
"""Repeats of two by two shown side by side: four blocks across."""


NOUNS = {
    "settings": ("way to set it", "ways to set it"),
    "fabrics": ("exchange of its fabrics", "exchanges of its fabrics"),
    "values": ("exchange of light, medium and dark", "exchanges of light, medium and dark"),
}


class Seen(NamedTuple):
    """A picture, repeated so often across, and what choosing it does."""

    small: SmallPicture
    across: int
    choose: Callable[[], object]

    @property
    def words(self) -> str:
        return self.small.words


class GalleryPage(QWidget):
    """One click sets the quilt, or makes a colourway; what was chosen can be kept beside the
    others."""

    shown = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("pageBody")
        self.session = session
        self.way = "settings"
        self.offered: list[Seen] = []
        self.kept: list[Seen] = []
        self.last: Seen | None = None
        self._asked: object = None
        self.most = FIRST
        layout = column(self, 0, 8)
        ways = (("settings", "Ways to set it"), ("fabrics", "Exchanges of its fabrics"),
                ("values", "Exchanges of value"))  # fmt: skip
        line, self.way_buttons = tabs(self, ways, self.turn_to)
        self.partner = ChoiceField("Set with another block", lambda _: self.refresh())
        self.every = CheckBox("All fabrics of the project")
        self.every.toggled.connect(lambda _: self.refresh())
        self.more = button("More", self._show_more)
        choices = QWidget()
        flow = FlowLayout(choices, 0, theme.px(8))
        layout.addWidget(line)
        for widget in (self.partner, self.every, self.more):
            flow.addWidget(widget)
        layout.addWidget(choices)
        self.words = label("", "heading", True)
        layout.addWidget(self.words)
        self.kept_words = label("Kept beside", "caption")
        self.kept_pictures = Thumbnails("Kept beside", self._choose_kept)
        layout.addWidget(self.kept_words)
        layout.addWidget(self.kept_pictures)
        self.pictures = Thumbnails("To choose from", self.choose, 176)
        layout.addWidget(self.pictures)
        layout.addStretch(1)
        self._refresh = when_seen(self, self.refresh, session.changed)
        self.turn_to("settings")

    def turn_to(self, way: str) -> None:
        self.way = way
        self.way_buttons[way].setChecked(True)
        self._refresh()

    # --- what there is ------------------------------------------------------------------------

    def refresh(self) -> None:
        session, settings = self.session, self.way == "settings"
        block = session.block
        partners = [
            (f"with {b.title}", b.id)
            for b in session.project.blocks
            if b is not block and b.finished == block.finished
        ]
        self.partner.offer([("by itself", ""), *partners], self.partner.currentData())
        self.partner.setVisible(settings and bool(partners))
        self.every.setVisible(self.way == "fabrics")
        other = self._partner()
        asked = (block, other, self.way, self.every.isChecked(), session.project.fabrics)
        if self._asked == asked:
            self._show()
            return
        self._asked, self.most = asked, FIRST
        self.words.setText("Looking …")
        if settings:
            session.think(
                partial(_settings, draft(block), draft(other) if other else None),
                partial(self._settings_found, asked, block, other),
            )
        else:
            look = partial(exchanges, draft(block), session.project, self.every.isChecked())
            if self.way == "values":
                look = partial(value_exchanges, draft(block), session.project)
            session.think(look, partial(self._exchanges_found, asked, block))

    def _partner(self) -> Block | None:
        wanted = self.partner.currentData()
        return next((b for b in self.session.project.blocks if b.id == wanted), None)

    def _settings_found(
        self,
        asked: object,
        block: Block,
        partner: Block | None,
        settings: Settings,
    ) -> None:
        if self._asked == asked:
            self.offered = [
                Seen(
                    SmallPicture(picture, _repeat_words(repeat), outline),
                    ACROSS,
                    partial(self._set, block, repeat, partner),
                )
                for repeat, picture, outline in settings
            ]
            self._show()

    def _exchanges_found(
        self, asked: object, block: Block, recolours: tuple[Exchange, ...]
    ) -> None:
        if self._asked == asked:
            drawn = draft(block)
            picture = picture_of(drawn, frozenset(range(len(drawn.patches))))
            project = self.session.project
            self.offered = [
                Seen(
                    SmallPicture(
                        exchanged(picture, exchange.fabrics), _exchange_words(exchange, project)
                    ),
                    1,
                    partial(self._recolour, block, exchange),
                )
                for exchange in recolours
            ]
            self._show()

    def _show(self) -> None:
        number = len(self.offered)
        settings = self.way == "settings"
        noun, many = NOUNS[self.way]
        text = f"1 {noun}" if number == 1 else f"{number} {many}"
        does = "sets the quilt" if settings else "makes a colourway"
        if not number and not settings:
            text = "No other fabrics to exchange, or too many to go through"
        self.words.setText(f"{text}. One click {does}." if number else f"{text}.")
        self.more.setVisible(number > self.most)
        session, across = self.session, ACROSS if settings else 1
        shown = [each.small for each in self.offered[: self.most]]
        self.pictures.show_pictures(shown, session.project, across, session.grey)
        kept = [each.small for each in self.kept]
        self.kept_pictures.show_pictures(kept, session.project, 1, session.grey)
        self.kept_words.setVisible(bool(kept))
        self.kept_pictures.setVisible(bool(kept))
        self.shown.emit()

    def _show_more(self) -> None:
        self.most *= 4
        self._show()

    # --- choosing -----------------------------------------------------------------------------

    def choose(self, number: int) -> None:
        self._take(self.offered[number])

    def _choose_kept(self, number: int) -> None:
        self._take(self.kept[number])

    def _take(self, seen: Seen) -> None:
        self.last = seen
        seen.choose()
        self._show()

    def keep(self) -> None:
        if self.last is not None and self.last not in self.kept:
            self.kept.append(self.last)
        self._show()

    def _set(self, block: Block, repeat: Repeat, partner: Block | None) -> None:
        session = self.session
        try:
            quilt = set_by(session.project, block, repeat, partner)
        except ValueError as why:
            session.said.emit(f"{why}.")
            return
        session.edit_quilt(quilt)
        size = f"{quilt.columns} x {quilt.rows}"
        session.said.emit(f"The quilt is set so: {size} blocks. Undo brings back what it was.")

    def _recolour(self, block: Block, exchange: Exchange) -> None:
        session = self.session
        edited = in_other_fabrics(session.project, block, exchange)
        if edited is session.project:
            session.said.emit("The quilt has that colourway.")
        elif session.edit(edited):
            name = edited.quilt.colourways[-1].name if edited.quilt is not None else ""
            session.said.emit(f"New colourway: {name}. The quilt's page Colours places it.")


def _settings(start: Draft, partner: Draft | None) -> Settings:
    wide, high = start.block.finished
    settings: Settings = []
    for number, repeat in enumerate(repeats(start, partner)):
        picture = picture_of_repeat(start, repeat, partner)
        outline: tuple[Segment, ...] = ()
        if number < OUTLINED:
            outline = closed_figures(picture, (2 * wide, 2 * high), (wide, high))
        settings.append((repeat, picture, outline))
    return settings


def _repeat_words(repeat: Repeat) -> str:
    ways = ("as drawn", "turned right", "upside down", "turned left")
    lying = [ways[k % 4] + (", mirrored" if mirror else "") for k, mirror in repeat.turns]
    return f"First row {lying[0]}, {lying[1]}; second row {lying[2]}, {lying[3]}"


def _exchange_words(exchange: Exchange, project: Project) -> str:
    changes = [
        f"{fabric_name(project, new)} for {fabric_name(project, old)}"
        for old, new in exchange.fabrics.items()
        if old != new
    ]
    words = ", ".join(changes) or "As it is"
    if exchange.values:
        values = ", ".join(f"{old} becomes {new}" for old, new in exchange.values)
        words = f"{values[0].upper()}{values[1:]}: {words}"
    return f"{words}: a shape is lost, as fabrics close in value meet" if exchange.lost else words
