"""The tickets of the remake stage: where to cut, the piece chosen, what is kept."""

from __future__ import annotations

from functools import partial

from PySide6.QtWidgets import QGridLayout, QStackedWidget, QVBoxLayout, QWidget

from inlet.core.numbers import Exact, Fraction, parse_length, show, vulgar_text
from inlet.core.plan import called
from inlet.core.project import Cuts, Quilt, StartBlock, replace
from inlet.core.remake import TURNED, Wanted, cuts_text, cuts_typed, through_seams
from inlet.core.setting import in_colourway
from inlet.core.words import length_text, measured_text, size_text
from inlet.ui import theme
from inlet.ui.remake.corners_ticket import CornersTicket
from inlet.ui.remake.gallery_ticket import GalleryTicket
from inlet.ui.remake.panels_ticket import PanelsTicket
from inlet.ui.remake.slicing import Slicing
from inlet.ui.remake.stage import CORNERS, GALLERY, PANELS, RemakeStage
from inlet.ui.widgets.choices import ChoiceField, field
from inlet.ui.widgets.flow import flowing
from inlet.ui.widgets.parts import ValueEdit, button, column, label, rule, when_seen
from inlet.ui.widgets.tabs import opens, tabs

WAYS = (("left", "right"), ("above", "below"))


class SliceTicket(QWidget):
    """Lengths are typed as distances from the centre, or from a seam that runs through."""

    def __init__(self, slicing: Slicing) -> None:
        super().__init__()
        self.slicing = slicing
        self.setObjectName("ticketBody")
        layout = column(self, 16, 9)
        self.title = label("", "title", True)
        self.about = label("", "small", True)
        layout.addWidget(self.title)
        layout.addWidget(self.about)
        layout.addWidget(rule())
        self._add_cuts(layout)
        layout.addWidget(rule())
        self.piece_area = self._piece_area()
        layout.addWidget(self.piece_area)
        self.keep = button("Keep as a block", slicing.keep, kind="primary")
        self.let_go = button("Draw on it freely", slicing.let_go)
        layout.addWidget(flowing(self.keep, self.let_go))
        self.kept = label("", "small", True)
        layout.addWidget(self.kept)
        layout.addStretch(1)
        when_seen(self, self.refresh, slicing.changed)()

    def _add_cuts(self, layout: QVBoxLayout) -> None:
        """Where to cut: in equal parts, or typed; and what the sewn start block measures."""
        slicing = self.slicing
        layout.addWidget(label("Cut", "heading"))
        parts = [
            button(words, partial(slicing.cut_in_parts, number))
            for number, words in ((2, "Halves"), (3, "Thirds"), (4, "Quarters"))
        ]
        layout.addWidget(flowing(*parts))
        ways = ((False, "Along the edges"), (True, "Along the diagonals"))
        line, self.way_buttons = tabs(self, ways, slicing.cut_along)
        layout.addWidget(line)
        grid = QGridLayout()
        grid.setSpacing(theme.px(5))
        self.lines: list[ChoiceField] = []
        self.cuts: list[ValueEdit] = []
        for axis, words in enumerate(("Upright cuts", "Level cuts")):
            line = ChoiceField(f"{words}: measured from", lambda _at: self.refresh())
            edit = ValueEdit(words, partial(self._take_cuts, axis))
            edit.refused.connect(slicing.session.said)
            edit.setToolTip(
                f"Distances: 1 7/8 for both sides, {WAYS[axis][0]} 2 for one side, centre; empty "
                "for no cut"
            )
            grid.addWidget(label(words, "small"), 2 * axis, 0)
            grid.addWidget(edit, 2 * axis, 1)
            grid.addWidget(label("from", "small"), 2 * axis + 1, 0)
            grid.addWidget(line, 2 * axis + 1, 1)
            self.lines.append(line)
            self.cuts.append(edit)
        layout.addLayout(grid)
        self.measured = ValueEdit("The sewn start block measures", self._take_measured)
        self.measured.refused.connect(slicing.session.said)
        self.measured.setToolTip("Raw edge to raw edge, as 11 1/4 or 11 1/4 x 11 1/8")
        layout.addWidget(label("The sewn start block measures", "small", True))
        layout.addWidget(self.measured)

    def _piece_area(self) -> QWidget:
        """The piece chosen: its sizes, how it lies, which start block it is of."""
        slicing, area = self.slicing, QWidget()
        layout = column(area, 0, 9)
        self.piece = label("", "heading")
        self.piece_size = label("", "size", True)
        layout.addWidget(self.piece)
        layout.addWidget(self.piece_size)
        layout.addWidget(
            flowing(button("Turn left", lambda: slicing.turn(3)),
                    button("Turn right", slicing.turn), button("Flip", slicing.flip))
        )  # fmt: skip
        self.of = ChoiceField("The piece comes from", self._take_start)
        self.more = ChoiceField("Slice another block too", self._add_start)
        layout.addLayout(field("from", self.of))
        layout.addLayout(field("also slice", self.more))
        layout.addWidget(rule())
        return area

    # --- showing ------------------------------------------------------------------------------

    def refresh(self) -> None:
        slicing, session = self.slicing, self.slicing.session
        start, measure = slicing.start, session.measure
        self.title.setText(session.block.title)
        if slicing.live:
            starts = " and ".join(
                dict.fromkeys(session.project.block(s.block).title for s in self._starts())
            )
            self.about.setText(f"Made from slices of {starts}; follows it.")
        else:
            self.about.setText("A proposal: nothing is changed until you keep it.")
        system = measure.system
        made_from, how = slicing.made_from, slicing.how
        self.way_buttons[slicing.diagonal].setChecked(True)
        seams = through_seams(how.starts[0]) if how is not None else ((), ())
        for axis in (0, 1):
            self.lines[axis].offer(_lines(seams[axis], slicing.frame[axis], axis, measure),
                                   self.lines[axis].currentData())  # fmt: skip
            cuts = made_from.cuts if made_from is not None else Cuts()
            at = self._from(axis)
            here = tuple(cut - at for cut in (cuts.upright, cuts.level)[axis])
            self.cuts[axis].show_value(cuts_text(here, WAYS[axis], system))
        wide, high = slicing.measured_of(start)
        texts = [show(side, system=system, ruler=True) for side in (wide, high)]
        self.measured.show_value(texts[0] if wide == high else " x ".join(texts))
        self._show_piece()
        self.keep.setVisible(not slicing.live)
        self.let_go.setVisible(slicing.live)
        self.kept.setText(
            "It is then a block like any other: in the quilt, cut and pieced from its start block."
            if not slicing.live
            else "Draw on it freely makes it a drawing of its own: it no longer follows."
        )

    def _show_piece(self) -> None:
        slicing, measure = self.slicing, self.slicing.session.measure
        how = slicing.how
        self.piece_area.setVisible(how is not None)
        self.keep.setEnabled(how is not None and not slicing.waits)
        if how is None:
            return
        place = min(slicing.chosen, len(how.laid) - 1)
        laid = how.laid[place]
        piece = how.slices[laid.piece]
        self.piece.setText(f"Piece {piece.label} {TURNED[laid.quarters % 4]}".rstrip())
        left, top, right, bottom = piece.cut
        sizes = slicing.sizes
        as_cut = sizes.cut(laid.piece) if sizes is not None else (right - left, bottom - top)
        cut = measured_text(as_cut, measure)
        shows = size_text(piece.size, measure)
        sized = f"cut {cut}\nshows {shows}"
        if piece.shape:
            sized = f"{len(piece.shape)} corners, trimmed with the block"
        self.piece_size.setText(vulgar_text(sized))
        starts = self._starts()
        names = [(_start_name(self.slicing, s), i) for i, s in enumerate(starts)]
        self.of.offer(names, laid.copy)
        self.of.setEnabled(len(starts) > 1)
        self.more.offer([("choose …", None), *self._others()], None)

    def _starts(self) -> tuple[StartBlock, ...]:
        made_from = self.slicing.made_from
        return made_from.starts if made_from is not None else ()

    def _others(self) -> list[tuple[str, StartBlock]]:
        """Blocks of the same size and colourways that could be sliced, too."""
        project, start = self.slicing.session.project, self.slicing.start
        taken = [(s.block, s.colourway) for s in self._starts()]
        others = []
        for block in project.blocks:
            if block.finished != start.finished or block.made_from is not None:
                continue
            ways = [way for way in (project.quilt or Quilt()).colourways
                    if way.block in ("", block.id)]  # fmt: skip
            for name in ("", *(way.id for way in ways)):
                if (block.id, name) not in taken:
                    other = StartBlock(block=block.id, colourway=name)
                    others.append((_start_name(self.slicing, other), other))
        return others

    # --- taking -------------------------------------------------------------------------------

    def _from(self, axis: int) -> Exact:
        at = self.lines[axis].currentData()
        return at if at is not None else Fraction(0)

    def _take_cuts(self, axis: int, text: str) -> None:
        system = self.slicing.session.measure.system
        cuts = cuts_typed(text, WAYS[axis], system, self._from(axis))
        made_from = self.slicing.made_from
        before = made_from.cuts if made_from is not None else Cuts()
        both = (cuts, before.level) if axis == 0 else (before.upright, cuts)
        new = Cuts(*both, self.slicing.diagonal)
        self.slicing.cut(new)

    def _take_measured(self, text: str) -> None:
        """What the start block measured goes where all that is measured goes, and its cuts are put
        where they lie in a block of that size."""
        session, start = self.slicing.session, self.slicing.start
        sides = [parse_length(part, session.measure.system) for part in text.lower().split("x")]
        if len(sides) > 2 or min(sides) <= 2 * session.measure.seam:
            raise ValueError("say one size, or width x height")
        wide, high = sides[0], sides[-1]
        quilt = session.project.quilt or Quilt()
        made = {**quilt.made, start.id: (wide, high)}
        session.edit(replace(session.project, quilt=replace(quilt, made=made)))

    def _take_start(self, copy: int) -> None:
        how = self.slicing.current
        if how is not None:
            place = min(self.slicing.chosen, len(how.laid) - 1)
            piece = how.laid[place]._replace(copy=copy)
            self.slicing.lay((*how.laid[:place], piece, *how.laid[place + 1 :]))

    def _add_start(self, start: StartBlock | None) -> None:
        made_from = self.slicing.made_from
        if made_from is not None and start is not None:
            self.slicing.take(replace(made_from, starts=(*made_from.starts, start)))


class RemakeTicket(QStackedWidget):
    """A ticket for each page of the stage."""

    def __init__(self, stage: RemakeStage) -> None:
        super().__init__()
        self.setObjectName("ticketBody")
        self.slices = SliceTicket(stage.slicing)
        self.gallery = GalleryTicket(stage.gallery)
        self.corners = CornersTicket(stage.corners)
        self.panels = PanelsTicket(stage.panels)
        tickets = {GALLERY: self.gallery, CORNERS: self.corners, PANELS: self.panels}
        for ticket in (self.slices, *tickets.values()):
            self.addWidget(ticket)
        opens(stage.page_buttons, {0: self.slices, **tickets})
        stage.turned.connect(lambda page: self.setCurrentWidget(tickets.get(page, self.slices)))


def _lines(
    seams: tuple[Exact, ...], finished: Exact, axis: int, measure: object
) -> list[tuple[str, Exact]]:
    """What a cut may be measured from: the centre, and seams that run through."""
    lines: list[tuple[str, Exact]] = [
        ("the centre seam" if Fraction(0) in seams else "the centre", Fraction(0))
    ]
    way = ("left", "top")[axis]
    for at in seams:
        if at != 0:
            far = length_text(at + finished / 2, measure)  # type: ignore[arg-type]
            lines.append((f"the seam {far} from the {way}", at))
    return lines


def _start_name(slicing: Slicing, start: StartBlock) -> str:
    project = slicing.session.project
    way = project.quilt.colourway(start.colourway) if project.quilt is not None else None
    block = in_colourway(project.block(start.block), way)
    return called(project, Wanted(block, start.colourway, 0))
