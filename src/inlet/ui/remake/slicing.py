"""What is sliced and how it is set again: the block shown, where it is made from others, else a
proposal for it that nobody keeps unless asked to."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from functools import partial

from PySide6.QtCore import QObject, Signal

from inlet.core.draft import draft
from inlet.core.numbers import Exact, Fraction, NumberError
from inlet.core.plan import SlicedSizes, sizes_as_cut
from inlet.core.pressing import PressingPlan
from inlet.core.project import Block, Cuts, MadeFrom, Project, StartBlock, fresh_id, replace
from inlet.core.remake import (
    Laid,
    Nesting,
    Remade,
    SliceError,
    arcs_sliced,
    as_they_were,
    by_chance,
    cut_in,
    flipped,
    frame_of,
    nesting,
    parts_at_marks,
    pieces_of,
    remade,
    remade_before,
    swapped,
    turned_at,
    with_cuts,
)
from inlet.ui.shell.session import Session

WRONG_SIDE = (
    "Turned over, its wrong side would show, and no other piece is its mirror image. Turn it, or "
    "swap it."
)


STILL_WORKING = "The new block is still being worked out; ask again in a moment."
ARCS_AT_ONCE = 100
"""Curved sides of the patches of start blocks: what comes of slices with up to so many is drawn
while a cut is dragged, of others as soon as it is worked out aside."""


class Slicing(QObject):
    """``changed`` tells of anything that is to be drawn anew: the cuts, how pieces lie, the piece
    ``chosen`` by its place."""

    changed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.chosen = 0
        self.trouble = ""
        self._proposal: MadeFrom | None = None
        self._seed = 0
        self._last: tuple[Block, Remade] | None = None  # what came of which start block last
        self._asked: tuple[MadeFrom, Project] | None = None
        self._worked_out: tuple[MadeFrom, Project] | None = None
        self._nesting: tuple[Remade, PressingPlan, Nesting] | None = None
        session.changed.connect(self.changed)
        session.planned.connect(self.changed)
        session.pressed.connect(self.changed)

    # --- reading ------------------------------------------------------------------------------

    @property
    def live(self) -> bool:
        """Is the block shown made from others, so that edits go to it?"""
        return self.session.block.made_from is not None

    @property
    def made_from(self) -> MadeFrom | None:
        """How it is made; None where the block shown cannot be cut in parts."""
        block = self.session.block
        if block.made_from is not None:
            return block.made_from
        proposal = self._proposal
        if proposal is None or proposal.starts[0].block != block.id or not self._can_be(proposal):
            proposal = self._proposal = self._first_proposal(block)
        return proposal

    def _can_be(self, made_from: MadeFrom) -> bool:
        """Can it be made? What is worked out aside first is taken to be for so long."""
        try:
            if self._is_at_once(made_from):
                remade(self.session.project, made_from)
        except SliceError:
            return False
        return True

    def _first_proposal(self, block: Block) -> MadeFrom | None:
        """Thirds each way, or halves where the block is too small for thirds."""
        for parts in (3, 2):
            try:
                return cut_in(
                    draft(block), StartBlock(block=block.id), self._equal(block, parts),
                    self.session.measure,
                )  # fmt: skip
            except SliceError as why:
                self.trouble = str(why)
        return None

    def _equal(self, block: Block, parts: int) -> Cuts:
        mark = self.session.measure.mark
        measured = self.measured_of(block)
        if self.diagonal:
            measured = frame_of(measured, Cuts(diagonal=True))
        across, down = (parts_at_marks(side, parts, mark) for side in measured)
        return Cuts(across, down, self.diagonal)

    @property
    def diagonal(self) -> bool:
        """Is the start block cut along its diagonals? What was proposed for a block before it is
        not proposed for one that cannot be."""
        made_from = self.session.block.made_from or self._proposal
        wide, high = self.start.finished
        return made_from is not None and made_from.cuts.diagonal and wide == high

    @property
    def frame(self) -> tuple[Exact, Exact]:
        """The start block as it lies to be cut, finished: itself, or the square it is on point
        in."""
        return frame_of(self.start.finished, Cuts(diagonal=self.diagonal))

    def cut_along(self, diagonal: bool) -> None:
        """Cut along the edges, or along the diagonals, through the centre."""
        zero: Exact = Fraction(0)
        try:
            self.cut(Cuts((zero,), (zero,), diagonal))
        except NumberError as why:
            self.session.said.emit(f"{why}.")

    @property
    def start(self) -> Block:
        """The (first) block that is cut apart."""
        made_from = self.session.block.made_from
        if made_from is None:
            return self.session.block
        return self.session.project.block(made_from.starts[0].block)

    def measured_of(self, block: Block) -> tuple[Exact, Exact]:
        """What a start block measures raw: as it measured, else as it is drawn."""
        quilt, seam = self.session.project.quilt, self.session.measure.seam
        if quilt is not None and block.id in quilt.made:
            return quilt.made[block.id]
        return block.finished[0] + 2 * seam, block.finished[1] + 2 * seam

    @property
    def how(self) -> Remade | None:
        """What comes of it, or, while that is worked out aside, what came of it last; None, with
        ``trouble`` said, where nothing can."""
        made_from = self.made_from
        if made_from is None:
            return None
        try:
            if not self._is_at_once(made_from):
                self._ask(made_from)
                last = self._last
                return last[1] if last is not None and last[0].id == self.start.id else None
            how = remade(self.session.project, made_from)
        except SliceError as why:
            self.trouble = str(why)
            return None
        self.trouble = ""
        self._last = self.start, how
        return how

    @property
    def waits(self) -> bool:
        """Is what comes of it being worked out?"""
        made_from = self.made_from
        return made_from is not None and not self._is_at_once(made_from)

    @property
    def current(self) -> Remade | None:
        """What comes of it, for an edit; None, which is said, while it is being worked out."""
        if self.waits:
            self.session.said.emit(STILL_WORKING)
            return None
        return self.how

    def _is_at_once(self, made_from: MadeFrom) -> bool:
        """Is it known, or known as soon as it is asked for, as also why it cannot be made?"""
        project = self.session.project
        if self._worked_out is not None and _are(self._worked_out, made_from, project):
            return True
        try:
            known = remade_before(project, made_from) is not None
            return known or arcs_sliced(project, made_from) <= ARCS_AT_ONCE
        except SliceError:
            return True

    def _ask(self, made_from: MadeFrom) -> None:
        project = self.session.project
        if self._asked is None or not _are(self._asked, made_from, project):
            self._asked = made_from, project
            self.session.think_of_slices(
                partial(_work_out, project, made_from), partial(self._arrived, made_from, project)
            )

    def _arrived(self, made_from: MadeFrom, project: Project, _: None) -> None:
        self._worked_out = made_from, project
        self.changed.emit()

    @property
    def nesting(self) -> Nesting | None:
        """How old seams meet at the new ones; None until it is known how the start block is
        pressed."""
        plan, pressing, how = self.session.plan, self.session.start_pressing, self.how
        if plan is None or pressing is None or how is None or plan.block is not self.start:
            return None
        known = self._nesting
        if known is None or known[0] is not how or known[1] is not pressing:
            known = self._nesting = how, pressing, nesting(how, pressing)
        return known[2]

    @property
    def comes_out(self) -> tuple[Exact, Exact]:
        """What the start block measures raw: as it measured, else as it is cut, once that is
        known."""
        plan, start = self.session.plan, self.start
        if plan is not None and plan.block is start:
            return plan.made_size
        return self.measured_of(start)

    @property
    def sizes(self) -> SlicedSizes | None:
        """What the slices measure as their start block comes out; None until it is planned."""
        plan, how = self.session.plan, self.how
        if plan is None or how is None or plan.block is not self.start:
            return None
        return sizes_as_cut(how, (plan,))

    # --- edits --------------------------------------------------------------------------------

    def take(self, made_from: MadeFrom) -> None:
        if self.live:
            self.session.edit_block(replace(self.session.block, made_from=made_from))
        else:
            self._proposal = made_from
            self.changed.emit()

    def lay(self, laid: Sequence[Laid]) -> None:
        """Set the pieces otherwise."""
        made_from = self.made_from
        if made_from is not None:
            self.take(replace(made_from, pieces=pieces_of(laid)))

    def cut(self, cuts: Cuts) -> None:
        """Cut along other lines. Raises ``NumberError`` with a sentence where that cannot be."""
        made_from = self.made_from
        try:
            if made_from is None:
                start = StartBlock(block=self.session.block_id)
                self.take(cut_in(draft(self.start), start, cuts, self.session.measure))
            else:
                self.take(with_cuts(made_from, cuts, draft(self.start), self.session.measure))
        except SliceError as why:
            raise NumberError(str(why).rstrip(".")) from None

    def cut_at_size(self, start: Block, cuts: Cuts) -> None:
        """The start block in another size, and the block shown cut of it along other lines, in one
        edit."""
        made, made_from = self.session.block, self.session.block.made_from
        assert made_from is not None, "only a block that is made from others is cut of them"
        new = with_cuts(made_from, cuts, draft(start), self.session.measure)
        project = self.session.project.with_block(start)
        self.session.edit(project.with_block(replace(made, made_from=new)))

    def cut_in_parts(self, parts: int) -> None:
        try:
            self.cut(self._equal(self.start, parts))
        except NumberError as why:
            self.session.said.emit(f"{why}.")

    def choose(self, place: int) -> None:
        self.chosen = place
        self.changed.emit()

    def turn(self, quarters: int = 1) -> None:
        how = self.current
        if how is not None:
            self.lay(turned_at(how, self._place(how), quarters))

    def swap(self, place: int, other_place: int) -> None:
        how = self.current
        if how is None:
            return
        laid = swapped(how, place, other_place)
        if laid is None:
            self.session.said.emit("Pieces of different sizes cannot be swapped.")
            return
        self.chosen = other_place
        self.lay(laid)

    def flip(self) -> None:
        how = self.current
        if how is None:
            return
        laid = flipped(how, self._place(how))
        if laid is None:
            self.session.said.emit(WRONG_SIDE)
        else:
            self.lay(laid)

    def shuffle(self) -> None:
        """Turns by chance, others each time."""
        how = self.current
        if how is not None:
            self._seed += 1
            self.lay(by_chance(how, self._seed))

    def reset(self) -> None:
        how = self.current
        if how is not None:
            self.lay(as_they_were(how.slices))

    def _place(self, how: Remade) -> int:
        self.chosen = min(self.chosen, len(how.laid) - 1)
        return self.chosen

    def keep(self) -> None:
        """Make what is shown a block of the project."""
        made_from, project, start = self.made_from, self.session.project, self.start
        if made_from is None or self.current is None:
            return
        name = f"{start.title} sliced"
        new = Block(
            id=fresh_id(name, {b.id for b in project.blocks}), name=name, made_from=made_from
        )
        at = project.blocks.index(start) + 1
        blocks = (*project.blocks[:at], new, *project.blocks[at:])
        self.session.edit(replace(project, blocks=blocks), new.id)

    def let_go(self) -> None:
        """Make the block a drawing of its own."""
        self.session.edit_block(replace(self.session.block, made_from=None))


def _are(known: tuple[MadeFrom, Project], made_from: MadeFrom, project: Project) -> bool:
    return known[0] == made_from and known[1] is project


def _work_out(project: Project, made_from: MadeFrom) -> None:
    """What comes of slices is known from now on, drawn, or why nothing can."""
    with suppress(SliceError):  # it is told where it is read
        draft(remade(project, made_from).set_again.block)
