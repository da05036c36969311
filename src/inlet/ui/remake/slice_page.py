"""The page “Slice and set again”: the start block, what comes of it, and arrangements to take."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QBoxLayout, QHBoxLayout, QVBoxLayout, QWidget

from inlet.core.numbers import vulgar_text
from inlet.core.remake import Remade, SliceOffer, nesting_text, offers
from inlet.core.words import length_text, near_text, size_text
from inlet.ui import theme
from inlet.ui.remake.result_picture import ResultPicture
from inlet.ui.remake.slicing import Slicing
from inlet.ui.remake.start_picture import StartPicture
from inlet.ui.widgets.flow import FlowLayout
from inlet.ui.widgets.parts import button, column, label, when_seen
from inlet.ui.widgets.tabs import tabs
from inlet.ui.widgets.thumbnails import FIRST, SmallPicture, Thumbnails

LARGE_TEXT = 1.4
"""From this size of text on the pictures stand below one another."""
WAITS = "Working out the new block …"
VIEWS = ((1, "One block"), (2, "2 × 2"), (3, "3 × 3"))


class SlicePage(QWidget):
    """Offers are worked out aside."""

    pointed = Signal(object)

    def __init__(self, slicing: Slicing) -> None:
        super().__init__()
        self.setObjectName("pageBody")
        self.slicing = slicing
        self._offered: tuple[Remade, tuple[SliceOffer, ...]] | None = None
        self._asked: Remade | None = None
        layout = column(self, 0, 8)
        self.start, self.result = StartPicture(slicing), ResultPicture(slicing)
        self.start_words, self.result_words = label("", "size", True), label("", "size", True)
        self.fault = label("", "warning", True)
        left, right = column(spacing=4), column(spacing=4)
        left.addWidget(self.start_words)
        left.addWidget(self.start, 1)
        right.addWidget(self.result_words)
        right.addWidget(self.result, 1)
        large = theme.text_scale() >= LARGE_TEXT
        pictures: QBoxLayout = QVBoxLayout() if large else QHBoxLayout()
        pictures.setSpacing(theme.px(16))
        pictures.addLayout(left, 1)
        pictures.addLayout(right, 1)
        layout.addWidget(self.fault)
        layout.addLayout(pictures, 3)
        self.missed = label("", "", True)
        layout.addWidget(self.missed)
        self.nests = label("", "", True)
        layout.addWidget(self.nests)
        line, self.view_buttons = tabs(self, VIEWS, self.show_repeats)
        self.view_buttons[1].setChecked(True)
        self.offer_words = label("Arrangements", "heading")
        self.more = button("More", self._show_more)
        chance = button("Turn by chance", slicing.shuffle)
        before = button("As it was before", slicing.reset)
        self.offer_area = QWidget()
        flow = FlowLayout(self.offer_area, 0, theme.px(8))
        for widget in (self.offer_words, self.more, chance, before, line):
            flow.addWidget(widget)
        layout.addWidget(self.offer_area)
        self.thumbnails = Thumbnails("Arrangements", self.take_offer)
        layout.addWidget(self.thumbnails)
        self.most = FIRST
        self.start.pointed.connect(self.pointed)
        self.result.pointed.connect(self.pointed)
        self._refresh = when_seen(self, self.refresh, slicing.changed)

    def show_repeats(self, across: int) -> None:
        self.result.show_repeats(across)
        self.view_buttons[across].setChecked(True)
        self._show_offers()

    def refresh(self) -> None:
        slicing, measure = self.slicing, self.slicing.session.measure
        how, start = slicing.how, slicing.start
        self.fault.setText(vulgar_text(slicing.trouble))
        self.fault.setVisible(bool(slicing.trouble))
        sewn = near_text(slicing.comes_out, measure)
        self.start_words.setText(vulgar_text(f"{start.title}, sewn: {sewn}"))
        self.offer_area.setVisible(how is not None)
        self.thumbnails.setVisible(how is not None)
        if how is None:
            self.result_words.setText(WAITS if slicing.waits else "")
            self.missed.hide()
            self.nests.hide()
            return
        finished = how.set_again.block.finished
        words, sizes = f"New block: {size_text(finished, measure)} finished", slicing.sizes
        if sizes is not None and sizes.finished != finished:
            words += f", as cut {near_text(sizes.finished, measure)}"
        self.result_words.setText(WAITS if slicing.waits else vulgar_text(words))
        missed = how.set_again.missed
        nests = slicing.nesting
        self.nests.setText(vulgar_text(nesting_text(nests, how) if nests is not None else ""))
        self.nests.setVisible(bool(self.nests.text()))
        if missed:
            most = length_text(max(miss.off for miss in missed), measure)
            seams = "1 seam" if len(missed) == 1 else f"{len(missed)} seams"
            words = f"Rings: {seams} that met before the cut now miss by up to {most}, as each new"
            self.missed.setText(vulgar_text(f"{words} seam takes two allowances."))
        self.missed.setVisible(bool(missed))
        self._ask_offers(how)

    # --- offers -------------------------------------------------------------------------------

    def _ask_offers(self, how: Remade) -> None:
        """Arrangements depend on the cuts and the start block, not on how pieces lie now."""
        if self._asked is not None and _same_slices(self._asked, how):
            return
        self._asked = how
        self.offer_words.setText("Arrangements …")
        self.thumbnails.setEnabled(False)  # what is shown is of the cuts before
        look = partial(offers, how.starts[0], how.slices, how.on_point)
        self.slicing.session.think(look, partial(self._arrived, how))

    def _arrived(self, how: Remade, found: tuple[SliceOffer, ...]) -> None:
        if self._asked is how:
            self._offered = how, found
            self.thumbnails.setEnabled(True)
            self.most = FIRST
            self._show_offers()

    def _show_more(self) -> None:
        self.most *= 4
        self._show_offers()

    def _show_offers(self) -> None:
        if self._offered is None:
            return
        _, arrangements = self._offered
        number = len(arrangements)
        self.offer_words.setText("1 arrangement" if number == 1 else f"{number} arrangements")
        self.more.setVisible(number > self.most)
        session = self.slicing.session
        pictures = [
            SmallPicture(offer.picture, _offer_words(offer)) for offer in arrangements[: self.most]
        ]
        self.thumbnails.show_pictures(pictures, session.project, self.result.across, session.grey)

    def take_offer(self, number: int) -> None:
        """Lay the pieces as in an arrangement, each of the start block it is of now."""
        how = self.slicing.current
        if how is None or self._offered is None or number >= len(self._offered[1]):
            return
        if not _same_slices(self._offered[0], how):
            return  # cut otherwise since: other arrangements are on their way
        laid = self._offered[1][number].laid
        self.slicing.lay([
            piece._replace(copy=now.copy) for piece, now in zip(laid, how.laid, strict=True)
        ])  # fmt: skip


def _same_slices(one: Remade, other: Remade) -> bool:
    return one.slices == other.slices and one.starts[0].block is other.starts[0].block


def _offer_words(offer: SliceOffer) -> str:
    if offer.symmetry == 1:
        return "Looks different in every turn"
    return f"Looks the same in {offer.symmetry} of 8 turns and mirror images"
