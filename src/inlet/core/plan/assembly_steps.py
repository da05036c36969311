"""A quilt put together: its blocks trimmed and laid out, its rows sewn and joined, then what goes
round it and behind it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import hypot

from inlet.core.numbers import Fraction
from inlet.core.plan.edge_steps import backing_step, band_step, binding_step, border_steps
from inlet.core.plan.quilt_step import JOIN_ROWS, QuiltStep
from inlet.core.plan.rows import RowCard, alike_rows, labels_text, listed, row_length_text
from inlet.core.project import Measure, Motif, Project, Quilt
from inlet.core.setting import (
    BackingWay,
    Band,
    BindingPlan,
    Top,
    floats_by,
    strips_of,
    trims_of,
)
from inlet.core.words import length_text, measured_text, near_text

LONG_ROW = 20
"""Pieces of a row from which on it is long under the machine."""
HELD_BACK = (
    "Join the blocks near its far end first, the next three or four held back; then sew on those, "
    "and so on: the row's weight never passes under the machine's arm."
)


def quilt_steps(
    top: Top,
    project: Project,
    bands: Sequence[Band],
    rows: Sequence[RowCard],
    turned: str,
    backing: BackingWay | None,
    binding: BindingPlan | None,
) -> tuple[QuiltStep, ...]:
    """What is done once the blocks are made; ``turned`` says which are turned so that they nest."""
    return tuple(_steps(top, project, bands, rows, turned, backing, binding))


def _steps(
    top: Top,
    project: Project,
    bands: Sequence[Band],
    rows: Sequence[RowCard],
    turned: str,
    backing: BackingWay | None,
    binding: BindingPlan | None,
) -> Iterator[QuiltStep]:
    quilt, measure = project.quilt or Quilt(), project.measure
    cards = [card for card in rows if len(card.items) > 1]
    yield from _trims(top, project)
    for motif in quilt.motifs:
        if any(motif.id == p.lying.placed.block for p in top.pieces if p.lying is not None):
            size = top.sizes[motif.id].in_use
            yield QuiltStep(
                motif_title(motif),
                f"Sew its {motif.rows} rows of {motif.columns} blocks, then the rows to one "
                "another. From now on it is handled as one block.",
                near_text((size[0] + 2 * measure.seam, size[1] + 2 * measure.seam), measure),
            )
    way = "diagonal rows" if quilt.on_point else "rows"
    yield QuiltStep(
        "Lay it out",
        f"Lay all {way} on the floor and look at it from afar. Pin each row's label to its "
        f"{'upper right' if quilt.on_point else 'left'} end, at the outer edge of the first piece: "
        "every seam of the row then lies on one side of it. Nothing is sewn before every block "
        f"lies the right way.{f' {turned}' if turned else ''}",
    )
    for band in bands:
        if not band.label.startswith("Border"):
            yield band_step(band, project)
    for alike in alike_rows(cards):
        card = alike[0]
        pressed = f" Press the seams {card.pressed}." if card.pressed else ""
        items = listed(card.items)
        words = f"{items[0].upper()}{items[1:]}.{pressed}"
        if len(card.items) >= LONG_ROW:
            words += f" {HELD_BACK}"
        name = f"Sew {card.label.lower()}"
        title = f"Sew {labels_text(alike).lower()}"
        labels = tuple(row.label for row in alike)
        length = row_length_text(card, quilt, measure)
        yield QuiltStep(title, words, length, card.label, len(alike), called=name, alike=labels)
    yield from _joining(top, quilt, measure)
    yield from border_steps(top, project, bands)
    if backing is not None:
        yield backing_step(backing, project)
    if binding is not None:
        yield binding_step(binding, project)


def _trims(top: Top, project: Project) -> Iterator[QuiltStep]:
    """Blocks and motifs that come to several sizes, trimmed to one."""
    measure, quilt = project.measure, project.quilt or Quilt()
    twice = 2 * measure.seam
    for name, number in trims_of(top).items():
        size = top.sizes[name]
        assert size.trimmed is not None
        motif = quilt.motif(name)
        title = (motif.name or motif.id) if motif else project.block(name).title
        before = size.sewn or size.as_cut
        now = measured_text((before[0] + twice, before[1] + twice), measure)
        yield QuiltStep(
            f"Trim {number} × {title}",
            f"It comes out {now}, larger than what it is sewn to. Lay the ruler's middle on the "
            "middle of the block, and take the same off all sides.",
            near_text((size.trimmed[0] + twice, size.trimmed[1] + twice), measure),
            times=number,
            called=f"Trim {title}",
        )


def motif_title(motif: Motif) -> str:
    return f"Sew the motif {motif.name or motif.id}"


def _joining(top: Top, quilt: Quilt, measure: Measure) -> Iterator[QuiltStep]:
    if len(top.rows) > 1:
        corners = ""
        if quilt.on_point:
            edge = _edge(quilt, measure)
            corners = (
                " The two corner triangles that are in no row come last. Trim the edges straight, "
                f"{edge}."
            )
        yield QuiltStep(
            JOIN_ROWS,
            "Sew the rows to one another in pairs, the pairs to pairs, and so on, so that no long "
            f"piece is handled more often than it must be.{corners}",
            near_text(
                (top.middle[0] + 2 * measure.seam, top.middle[1] + 2 * measure.seam), measure
            ),
        )
    wide, high = (float(side + 2 * measure.seam) for side in top.middle)
    across = Fraction(hypot(wide, high)).limit_denominator(1000)
    mark = measure.system.checked_to
    yield QuiltStep(
        "Check that it is square",
        "Measure both diagonals: they must be equal. Measure it across and down through the "
        "middle, and type both: the borders are cut to that, not to the edge.",
        f"{length_text(round(across / mark) * mark, measure)} corner to corner",
    )


def _edge(quilt: Quilt, measure: Measure) -> str:
    """Where the raw edge of a top on point lies: the allowance beyond what is seen of it."""
    strips, beyond = strips_of(quilt.sashing, measure), measure.seam + floats_by(quilt)
    where = "the blocks' tips"
    if strips.beside:
        where = "where two strips of sashing cross"
        if strips.corner_fabric:
            where = "the middle of the corner squares"
    return f"{length_text(beyond, measure)} beyond {where}"
