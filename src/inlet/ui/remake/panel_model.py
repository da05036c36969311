"""What the page “Centre a motif” shows and changes: the panel of the block, its photograph."""

from __future__ import annotations

from typing import Any

from PySide6.QtCore import QObject, Signal
from PySide6.QtGui import QImage

from inlet.core.numbers import Exact, Fraction, nearest_mark
from inlet.core.panels import (
    PackedTop,
    measured_box,
    one_size,
    packed,
    photo_scale,
    sizes_on_grid,
)
from inlet.core.project import Block, Pair, Panel, PanelPhoto, fresh_id, replace
from inlet.ui.shell.session import Session
from inlet.ui.widgets.pictures import as_text, from_text

LARGEST_PHOTO = 1400
"""Pixels along a side of a photograph that is kept."""
ZERO = Fraction(0)
Place = tuple[float, float]


class PanelModel(QObject):
    """``changed`` tells of anything that is to be drawn anew. Panels of a project that are sized
    together have a ``margin`` round their motifs, on marks of a ``grid``, in a top ``across``."""

    changed = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.margin: Exact | None = None
        self.grid: Fraction | None = None
        self.across: Exact | None = None
        self._photo: tuple[str, QImage] | None = None
        session.changed.connect(self.changed)

    @property
    def panel(self) -> Panel | None:
        return self.session.block.panel

    @property
    def photo(self) -> QImage | None:
        """The photograph of the piece; None where there is none that can be shown."""
        panel = self.panel
        if panel is None or panel.photo is None:
            return None
        if self._photo is None or self._photo[0] != panel.photo.image:
            self._photo = panel.photo.image, from_text(panel.photo.image)
        image = self._photo[1]
        return None if image.isNull() else image

    # --- the panel ----------------------------------------------------------------------------

    def begin(self) -> None:
        """A new panel block, of the motif that was measured before, else of a usual one."""
        session, project = self.session, self.session.project
        measure, fabric = session.measure, session.fabric
        if fabric is None:
            session.said.emit("Add a fabric first: a panel is a piece of one.")
            return
        before = project.cutting.motif if project.cutting is not None else None
        side = measure.from_inches(Fraction(12))
        finished: Pair = (side, side)
        panel = Panel(
            fabric=fabric, piece=(side * 3 / 2, side * 3 / 2), motif=(side / 2, side / 2),
            left=side / 4, top=side / 2,
        )  # fmt: skip
        if before is not None:
            finished = before.finished
            piece = (before.left + before.size[0] + before.right,
                     before.top + before.size[1] + before.bottom)  # fmt: skip
            panel = Panel(fabric=fabric, piece=piece, motif=before.size, left=before.left,
                          top=before.top)  # fmt: skip
        name = "Panel"
        block = Block(
            id=fresh_id(name, {b.id for b in project.blocks}), name=name, finished=finished,
            panel=panel,
        )  # fmt: skip
        session.edit(replace(project, blocks=(*project.blocks, block)), block.id)

    def edit(self, **changes: Any) -> None:
        """Change the panel."""
        panel = self.panel
        if panel is not None:
            new = replace(panel, **changes)
            if new != panel:
                self.session.edit_block(replace(self.session.block, panel=new))

    def let_go(self) -> None:
        """Keep the drawing, and draw on it freely."""
        self.session.edit_block(replace(self.session.block, panel=None))

    def take_motif(self, corner: Place, opposite: Place) -> None:
        """The motif's box as it is dragged, from the piece's top left; kept inside the piece."""
        panel, mark = self.panel, self.session.measure.mark
        assert panel is not None, "only a panel has a motif"
        at, size = measured_box(corner, opposite, 1.0, mark)
        kept_at, kept = [], []
        for begin, long, piece in zip(at, size, panel.piece, strict=True):
            start = max(ZERO, min(begin, piece - mark))
            kept_at.append(start)
            kept.append(max(mark, min(long + min(begin, ZERO), piece - start)))
        self.edit(left=kept_at[0], top=kept_at[1], motif=(kept[0], kept[1]))

    def move_motif(self, left: float, top: float) -> None:
        """The motif where it is dragged to, as large as it was."""
        panel, mark = self.panel, self.session.measure.mark
        assert panel is not None, "only a panel has a motif"
        at = [
            max(ZERO, min(nearest_mark(Fraction(to), mark), piece - motif))
            for to, piece, motif in zip((left, top), panel.piece, panel.motif, strict=True)
        ]
        self.edit(left=at[0], top=at[1])

    # --- its photograph -----------------------------------------------------------------------

    def take_photo(self, image: QImage) -> None:
        """A photograph of the piece: the piece fills the middle of it until it is dragged, and the
        two places lie on its upper edge."""
        panel = self.panel
        if panel is None:
            return
        high = Fraction(image.height(), image.width())
        ratio = _part(float(panel.piece[1] / panel.piece[0]))
        wide = min(Fraction(4, 5), _part(float(high / ratio) * 0.8))
        corner = (1 - wide) / 2, _part(max(0.0, float(high - wide * ratio) / 2))
        points = (corner[0] + wide / 4, corner[1]), (corner[0] + wide * 3 / 4, corner[1])
        photo = PanelPhoto(
            image=as_text(image, "JPEG"), corner=corner, points=points, distance=panel.piece[0] / 2
        )
        self.edit(photo=photo)

    def drop_photo(self) -> None:
        self.edit(photo=None)

    def take_point(self, which: int, place: Place) -> None:
        """One of the two places, dragged over the photograph (parts of its width): the scale
        changes, and with it all that was measured on it."""
        panel = self.panel
        assert panel is not None, "only a panel has a photograph"
        assert panel.photo is not None, "only a photograph has places"
        points = list(panel.photo.points)
        points[which] = _part(place[0]), _part(place[1])
        if points[0] != points[1]:
            self._scale_to(replace(panel.photo, points=(points[0], points[1])))

    def take_distance(self, distance: Exact) -> None:
        """How far the two places lie apart."""
        panel = self.panel
        if panel is not None and panel.photo is not None:
            self._scale_to(replace(panel.photo, distance=distance))

    def _scale_to(self, photo: PanelPhoto) -> None:
        """Another scale: the piece and the motif stay where they lie on the photograph."""
        panel, mark = self.panel, self.session.measure.mark
        assert panel is not None, "only a panel has a scale"
        assert panel.photo is not None, "only a photograph has a scale"
        k = photo_scale(photo) / photo_scale(panel.photo)

        def long(length: Exact, least: Fraction) -> Fraction:
            return max(least, nearest_mark(Fraction(float(length) * k), mark))

        left, top = long(panel.left, ZERO), long(panel.top, ZERO)
        motif = long(panel.motif[0], mark), long(panel.motif[1], mark)
        piece = (
            max(long(panel.piece[0], mark), left + motif[0]),
            max(long(panel.piece[1], mark), top + motif[1]),
        )
        self.edit(photo=photo, piece=piece, motif=motif, left=left, top=top)

    def take_piece(self, corner: Place, opposite: Place) -> None:
        """The edges of the piece as they are dragged on the photograph, in lengths from its top
        left; the motif stays where it is."""
        panel, mark = self.panel, self.session.measure.mark
        assert panel is not None, "only a panel has a piece"
        assert panel.photo is not None, "only on a photograph are its edges dragged"
        scale = photo_scale(panel.photo)
        old = [float(at) * scale for at in panel.photo.corner]
        motif_at = old[0] + float(panel.left), old[1] + float(panel.top)
        low = [min(a, b, m) for a, b, m in zip(corner, opposite, motif_at, strict=True)]
        high = [
            max(a, b, m + float(side))
            for a, b, m, side in zip(corner, opposite, motif_at, panel.motif, strict=True)
        ]
        left, top = (
            max(ZERO, nearest_mark(Fraction(m - a), mark))
            for m, a in zip(motif_at, low, strict=True)
        )
        piece = [
            max(start + side, nearest_mark(Fraction(b - a), mark))
            for start, side, a, b in zip((left, top), panel.motif, low, high, strict=True)
        ]
        place = tuple(m - float(start) for m, start in zip(motif_at, (left, top), strict=True))
        photo = replace(panel.photo, corner=(_part(place[0] / scale), _part(place[1] / scale)))
        self.edit(photo=photo, piece=(piece[0], piece[1]), left=left, top=top)

    # --- many panels --------------------------------------------------------------------------

    @property
    def panels(self) -> list[Block]:
        """The panels of the project."""
        return [block for block in self.session.project.blocks if block.panel is not None]

    @property
    def usual_margin(self) -> Exact:
        measure = self.session.measure
        return self.margin if self.margin is not None else 2 * measure.system.coarse

    @property
    def usual_grid(self) -> Fraction:
        return self.grid if self.grid is not None else self.session.measure.system.coarse

    @property
    def usual_across(self) -> Exact:
        measure = self.session.measure
        return self.across if self.across is not None else measure.from_inches(Fraction(48))

    @property
    def motifs(self) -> list[Pair]:
        return [block.panel.motif for block in self.panels if block.panel is not None]

    @property
    def same_size(self) -> Pair:
        """The smallest size that holds every motif."""
        return one_size(self.motifs, self.usual_margin, self.usual_grid)

    @property
    def packed(self) -> PackedTop:
        """All panels, as large as they are, packed into a top."""
        return packed([block.finished for block in self.panels], self.usual_across)

    def take_same_size(self) -> None:
        self._take_sizes([self.same_size] * len(self.panels))

    def take_own_sizes(self) -> None:
        """A size for each motif with the margin round it."""
        self._take_sizes(sizes_on_grid(self.motifs, self.usual_margin, self.usual_grid))

    def _take_sizes(self, sizes: list[Pair] | tuple[Pair, ...]) -> None:
        project = self.session.project
        for block, size in zip(self.panels, sizes, strict=True):
            project = project.with_block(replace(block, finished=size))
        self.session.edit(project)


def _part(share: float) -> Fraction:
    """A part of a photograph, to a ten-thousandth, which no hand is finer than."""
    return Fraction(round(share * 10_000), 10_000)
