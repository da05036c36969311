"""What the page “Improvised corners” shows and changes: corners of a block, a scrap on trial."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QObject, Signal

from inlet.core.bench import corner_thing, minutes_logged, number_done, with_minutes
from inlet.core.draft import draft
from inlet.core.improvised import (
    CornerSeam,
    CornerTrial,
    LeastScrap,
    corner_choice,
    least_scrap,
    raw_size,
    tried,
)
from inlet.core.numbers import Exact, Fraction, nearest_mark, next_mark
from inlet.core.project import (
    MOST_PLACES,
    Block,
    FabricAt,
    Improvised,
    Pair,
    Project,
    Quilt,
    fresh_id,
    replace,
    usual_corners,
)
from inlet.ui.shell.session import Session

ZERO = Fraction(0)
MOST_CORNERS = 2 * MOST_PLACES**2


class Improvising(QObject):
    """``changed`` tells of anything that is to be drawn anew."""

    changed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._trial: tuple[Pair, CornerSeam, LeastScrap, Exact] | None = None
        self.field = 12, 9
        session.changed.connect(self.changed)

    # --- reading ------------------------------------------------------------------------------

    @property
    def improvised(self) -> Improvised | None:
        return self.session.block.improvised

    @property
    def size(self) -> Pair:
        """The raw square."""
        return raw_size(self.session.block.finished, self.session.measure)

    @property
    def fabrics(self) -> tuple[str | None, str | None]:
        """The square's fabric, and that of a scrap."""
        block, project = self.session.block, self.session.project
        ground = draft(block).patches[0].fabric
        choice = corner_choice(block, project)
        names = choice.rules.fabrics if choice is not None else ()
        others = [fabric.id for fabric in project.fabrics if fabric.id != ground]
        return ground, next(iter((*names, *others)), ground)

    @property
    def trial(self) -> CornerTrial:
        """The scrap on trial; begun anew where the square has another size."""
        measure, size = self.session.measure, self.size
        if self._trial is None or self._trial[0] != size:
            self._trial = self._first_trial(size)
        _, seam, scrap, slide = self._trial
        return tried(seam, size, scrap, measure, slide)

    def _first_trial(self, size: Pair) -> tuple[Pair, CornerSeam, LeastScrap, Exact]:
        """A seam about the middle of the bounds, a scrap of coarse marks that covers it."""
        measure = self.session.measure
        bounds = self.improvised or usual_corners(size, (), measure.system)
        middle = nearest_mark((bounds.nearest + bounds.farthest) / 2, measure.mark)
        along = max(measure.mark, min(middle, size[0]))
        down = max(measure.mark, min(nearest_mark(middle * 3 / 4, measure.mark), size[1]))
        seam = CornerSeam(0, along, down)
        least, coarse = least_scrap(seam, measure), measure.system.coarse
        half = coarse / 2
        scrap = LeastScrap(
            next_mark(least.length + half, coarse), next_mark(least.width + half, coarse)
        )
        return size, seam, scrap, ZERO

    def block_of(self, project: Project) -> bool:
        """Does the quilt have the block that is shown?"""
        quilt, block = project.quilt, self.session.block.id
        return quilt is not None and (
            quilt.block == block
            or any(place.block == block for place in quilt.places)
            or (quilt.alternate is not None and quilt.alternate.block == block)
        )

    # --- the trial ----------------------------------------------------------------------------

    def take_seam(self, along: Exact, down: Exact) -> None:
        """A seam from so far along the top to so far down the side, on the square's edges."""
        measure, size = self.session.measure, self.size
        assert self._trial is not None, "a trial is shown before it is changed"
        along, down = (
            max(measure.mark, min(leg, side)) for leg, side in zip((along, down), size, strict=True)
        )
        self._trial = size, CornerSeam(0, along, down), *self._trial[2:]
        self.changed.emit()

    def take_scrap(self, length: Fraction, width: Fraction, slide: Exact) -> None:
        assert self._trial is not None, "a trial is shown before it is changed"
        self._trial = *self._trial[:2], LeastScrap(length, width), slide
        self.changed.emit()

    # --- the block ----------------------------------------------------------------------------

    def begin(self) -> None:
        """Improvised corners for the square that is shown, or for a new one where the block has
        more patches."""
        session, project = self.session, self.session.project
        block, measure = session.block, session.measure
        if len(draft(block).patches) == 1 and block.made_from is None and block.panel is None:
            ground = draft(block).patches[0].fabric
            session.edit_block(replace(block, improvised=self._usual(block.finished, ground)))
            return
        ground = session.fabric
        side = measure.system.first_size / 2
        name = "Improvised"
        spots = (FabricAt(point=(Fraction(1, 2), Fraction(1, 2)), fabric=ground),) if ground else ()
        new = Block(
            id=fresh_id(name, {b.id for b in project.blocks}), name=name, finished=(side, side),
            fabric_at=spots, improvised=self._usual((side, side), ground),
        )  # fmt: skip
        session.edit(replace(project, blocks=(*project.blocks, new)), new.id)

    def _usual(self, finished: Pair, ground: str | None) -> Improvised:
        session = self.session
        others = tuple(f.id for f in session.project.fabrics if f.id != ground)
        return usual_corners(raw_size(finished, session.measure), others, session.measure.system)

    def edit(self, **changes: Any) -> None:
        """Change what the corners are drawn from."""
        session, improvised = self.session, self.improvised
        if improvised is not None:
            new = replace(improvised, **changes)
            if new != improvised:
                session.edit_block(replace(session.block, improvised=new))

    def remove(self) -> None:
        self.session.edit_block(replace(self.session.block, improvised=None))

    # --- the quilt ----------------------------------------------------------------------------

    @property
    def laid(self) -> Project:
        """The project with its quilt where that has this block; else with a field of it."""
        project, block = self.session.project, self.session.block
        if self.block_of(project):
            return project
        columns, rows = self.field
        quilt = Quilt(setting="straight", columns=columns, rows=rows, block=block.id)
        return replace(project, quilt=quilt)

    def set_quilt(self) -> None:
        """Set the quilt with a field of this block, what lies round it kept."""
        columns, rows = self.field
        quilt = self.session.project.quilt or Quilt()
        self.session.edit_quilt(
            replace(
                quilt, setting="straight", columns=columns, rows=rows, block=self.session.block.id,
                places=(), row_lengths=(), alternate=None,
            )
        )  # fmt: skip

    @property
    def sewn(self) -> int:
        """Corners sewn so far."""
        session = self.session
        thing = corner_thing(session.project, session.block, MOST_CORNERS)
        return number_done(session.project.log, thing)

    @property
    def minutes(self) -> int:
        """How long they took: by the log, and what was typed before there was one."""
        session, improvised = self.session, self.improvised
        thing = corner_thing(session.project, session.block, MOST_CORNERS)
        before = improvised.minutes if improvised is not None else 0
        return before + minutes_logged(session.project.log, thing.name)

    def take_minutes(self, number: int) -> None:
        """They took so long: what is more than the log has is added to it. Raises ``ValueError``
        where it has more."""
        session, more = self.session, number - self.minutes
        if more < 0:
            raise ValueError(f"the log has {self.minutes} minutes of it; Undo takes the last back")
        if more:
            thing = corner_thing(session.project, session.block, MOST_CORNERS)
            session.edit(with_minutes(session.project, more, session.now, thing.name))

    def take_sewn(self, number: int) -> None:
        sewn = self.sewn
        thing = corner_thing(self.session.project, self.session.block, MOST_CORNERS)
        self.session.tick(thing, sewn, number - sewn)
