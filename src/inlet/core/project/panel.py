"""A feature panel: a piece of fabric with a motif that is to sit in the middle of a block."""

from __future__ import annotations

from collections.abc import Mapping

from inlet.core.numbers import Exact
from inlet.core.project.value import Brief, Pair, replace


class PanelPhoto(Brief, frozen=True, kw_only=True):
    """A photograph of the piece, ``image`` as base64 of a PNG or JPEG file. Places on it are parts
    of its width, from its top left: ``corner`` is the piece's; ``points`` are two places on it that
    lie ``distance`` apart, which gives its scale."""

    image: str
    corner: Pair
    points: tuple[Pair, Pair]
    distance: Exact


class Panel(Brief, frozen=True, kw_only=True):
    """A ``piece`` of a fabric, width and height; its ``motif``, width and height, with so much free
    fabric on its ``left`` and above it (``top``). Where the piece cannot give a strip, one is cut
    of the fabric ``added``, else of the piece's. ``wander`` is what a join may wander, ``margin``
    how far the stabiliser reaches beyond the finished block's raw edge; both as usual where not
    said."""

    fabric: str
    piece: Pair
    motif: Pair
    left: Exact
    top: Exact
    added: str = ""
    wander: Exact | None = None
    margin: Exact | None = None
    photo: PanelPhoto | None = None


def panel_in(panel: Panel, fabrics: Mapping[str, str]) -> Panel:
    """The same panel with each fabric that is a key of ``fabrics`` exchanged for its value."""
    return replace(
        panel,
        fabric=fabrics.get(panel.fabric, panel.fabric),
        added=fabrics.get(panel.added, panel.added),
    )


def panel_measured(panel: Panel, factor: Exact) -> Panel:
    """The same with its lengths in another unit."""

    def pair(size: Pair) -> Pair:
        return size[0] * factor, size[1] * factor

    photo = panel.photo
    if photo is not None:
        photo = replace(photo, distance=photo.distance * factor)
    return replace(
        panel,
        piece=pair(panel.piece),
        motif=pair(panel.motif),
        left=panel.left * factor,
        top=panel.top * factor,
        wander=None if panel.wander is None else panel.wander * factor,
        margin=None if panel.margin is None else panel.margin * factor,
        photo=photo,
    )
