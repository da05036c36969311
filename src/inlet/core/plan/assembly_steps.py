"""A quilt put together: its rows in their order, what they measure, how they are pressed and
joined, then borders, layers and binding."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from math import hypot
from typing import NamedTuple

from inlet.core.numbers import Exact, Fraction
from inlet.core.piecing import Step
from inlet.core.plan.sewn_block import SewnBlock
from inlet.core.project import Measure, Motif, Project, Quilt
from inlet.core.setting import (
    JOIN,
    MITRE_SPARE,
    NAMES,
    BackingWay,
    Band,
    BandPiece,
    BindingPlan,
    Row,
    Top,
    TopPiece,
    border_strips,
    floats_by,
    row_length,
    strips_of,
    trims_of,
)
from inlet.core.words import fabric_name, length_text, measured_text, near_text, size_text

BACKING = "Backing"
"""What the step that makes the backing is ``of``."""
JOIN_ROWS, BINDING = "Join the rows", "Binding"
"""Titles of steps."""
MOST_LISTED = 8
"""Strips cut from a band that are named one by one."""
TURNS = ("", "a quarter turn right", "upside down", "a quarter turn left")


class RowCard(NamedTuple):
    """One row: its ``label`` to pin, what lies in it from one end to the other, the way its seams
    are ``pressed``, and the ``length`` it must have, raw edge to raw edge (None for a corner)."""

    label: str
    items: tuple[str, ...]
    pressed: str
    length: Exact | None


class QuiltStep(NamedTuple):
    """One thing to do: a few words, then how, and the sizes to check it by. ``of`` is the label of
    the row or the border that it makes, ``times`` how often it is done, one by one or, as a chain,
    all ``at_once``; ``alike`` are the labels of all rows that are made alike in it. ``sewn`` is the
    step of a block's plan that it is. It is ticked off under its
    ``name``, which has no number in it: what is done stays done in a larger quilt."""

    title: str
    text: str
    measures: str = ""
    of: str = ""
    times: int = 1
    sewn: tuple[SewnBlock, Step] | None = None
    called: str = ""
    at_once: bool = False
    alike: tuple[str, ...] = ()

    @property
    def name(self) -> str:
        return self.called or self.title


Versions = Mapping[tuple[str, int, int], int]
"""By block, column and row: which version of its pressing lies there, or how it is turned."""


def row_cards(
    top: Top, project: Project, versions: Versions, turned: Versions
) -> tuple[RowCard, ...]:
    """Every row from the top, or from the upper left corner."""
    quilt = project.quilt or Quilt()
    number = 0
    cards = []
    for row in top.rows:
        is_own = not row.label.startswith("Sashing")
        number += is_own and len(row.cells) > 1
        items = tuple(piece_words(cell, project, versions, turned) for cell in row.cells)
        cards.append(
            RowCard(
                row.label,
                items,
                _pressed(row, number, quilt),
                row_length(row, top, quilt.on_point, project.measure),
            )
        )  # fmt: skip
    return tuple(cards)


def piece_words(
    cell: Sequence[TopPiece], project: Project, versions: Versions, turned: Versions
) -> str:
    """What lies in a place: a block with its turn, as it is ``turned`` to nest, and its version, or
    a piece by its name and fabric."""
    main = next((piece for piece in cell if piece.lying is not None), cell[0])
    if main.lying is None:
        name = NAMES[main.kind].removesuffix("s").lower()
        return f"{name}, {fabric_name(project, main.fabric or None)}"
    placed = main.lying.placed
    quilt = project.quilt or Quilt()
    motif = quilt.motif(placed.block)
    title = (motif.name or motif.id) if motif else project.block(placed.block).title
    way = quilt.colourway(placed.colourway)
    words = [title]
    if way is not None:
        words.append(f"in {way.name or way.id}")
    if placed.mirror:
        words.append("mirrored")
    at = placed.block, placed.column, placed.row
    turn = (placed.turn + turned.get(at, 0)) % 4
    if turn:
        words.append(TURNS[turn])
    version = versions.get(at)
    if version is not None:
        words.append(f"pressed as version {version}")
    if len(cell) > 1:
        words.append("fabric above and below")
    return ", ".join(words)


def _pressed(row: Row, number: int, quilt: Quilt) -> str:
    """Toward the sashing, which lies flat then; else the rows by turns away from the label, which
    is pinned to the row's first end, and toward it, so that their seams nest."""
    if len(row.cells) < 2:
        return ""
    if quilt.sashing is not None and quilt.sashing.width:
        return "toward the sashing"
    return "away from the label" if number % 2 else "toward the label"


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
            yield _band_step(band, project)
    for alike in alike_rows(cards):
        card = alike[0]
        pressed = f" Press the seams {card.pressed}." if card.pressed else ""
        items = listed(card.items)
        words = f"{items[0].upper()}{items[1:]}.{pressed}"
        name = f"Sew {card.label.lower()}"
        title = f"Sew {labels_text(alike).lower()}"
        labels = tuple(row.label for row in alike)
        length = row_length_text(card, quilt, measure)
        yield QuiltStep(title, words, length, card.label, len(alike), called=name, alike=labels)
    yield from _joining(top, quilt, measure)
    yield from _borders(top, project, bands)
    if backing is not None:
        yield _backing_step(backing, project)
    if binding is not None:
        yield _binding_step(binding, project)


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


def alike_rows(cards: Sequence[RowCard]) -> list[list[RowCard]]:
    """Rows that are sewn and pressed alike, together, in the order of their first ones."""
    alike: dict[tuple[object, ...], list[RowCard]] = {}
    for card in cards:
        alike.setdefault((card.items, card.pressed, card.length), []).append(card)
    return list(alike.values())


def labels_text(cards: Sequence[RowCard]) -> str:
    """The labels of rows that are alike: ``Rows 1, 3 and 5``."""
    labels = [card.label for card in cards]
    kind, _, number = labels[0].rpartition(" ")
    if len(labels) == 1 or not number.isdigit():
        return " and ".join(labels)
    numbers = [label.rpartition(" ")[2] for label in labels]
    kinds = "Rows" if kind == "Row" else kind
    return f"{kinds} {', '.join(numbers[:-1])} and {numbers[-1]}"


def row_length_text(card: RowCard, quilt: Quilt, measure: Measure) -> str:
    """What a row must measure raw, and, on point, which part of it."""
    if card.length is None:
        return ""
    part = " without the triangles at its ends" if quilt.on_point else ""
    return f"{_near(card.length, measure)}{part}"


def listed(items: Sequence[str]) -> str:
    """What lies in a row, in its order: what lies between all the others is said once, two by
    turns as such, equal ones side by side counted."""
    even, odd = set(items[::2]), set(items[1::2])
    if len(items) > 3 and len(items) % 2 and len(even) == 1 and not odd & even:
        return f"{_by_turns(items[1::2])}; between them and at the ends {even.pop()}"
    if len(items) > 3 and len(items) % 2 and len(odd) == 1 and not odd & even:
        return f"{_by_turns(items[::2])}; between them {odd.pop()}"
    return _by_turns(items)


def _by_turns(items: Sequence[str]) -> str:
    """The same, where the inner ones come two by turns."""
    inner = items[1:-1]
    for first, own_items, last in (((), items, ()), (items[:1], inner, items[-1:])):
        two = list(dict.fromkeys(own_items))
        if (
            len(own_items) > 3
            and len(two) == 2
            and all(item == two[i % 2] for i, item in enumerate(own_items))
        ):
            middle = f"{two[0]}, and {two[1]}, by turns, {len(own_items)} in all"
            return "; ".join([*first, middle, *last])
    return _counted(items)


def _counted(items: Sequence[str]) -> str:
    """Equal ones side by side are counted."""
    counted: list[tuple[str, int]] = []
    for item in items:
        if counted and counted[-1][0] == item:
            counted[-1] = item, counted[-1][1] + 1
        else:
            counted.append((item, 1))
    return "; ".join(item if number == 1 else f"{number} × {item}" for item, number in counted)


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


def band_title(band: Band) -> str:
    """What the step that joins its strips is called, and is ``of``."""
    return f"Join strips: {band.label}"


def _band_step(band: Band, project: Project) -> QuiltStep:
    """Strips sewn end to end, then cut to the lengths that are needed."""
    measure = project.measure
    seam = length_text(measure.seam, measure)
    how = (
        "lay two ends at right angles, right sides together, sew from corner to corner, trim to "
        f"{seam} and press open"
        if band.slanted else f"straight across, {seam} from the ends, and press each seam open"
    )  # fmt: skip
    pieces = [
        f"{_off_text(piece, measure)}{length_text(piece.length, measure)} "
        f"({_joins_text(piece, measure)})"
        for piece in band.pieces[:MOST_LISTED]
    ]
    more = len(band.pieces) - MOST_LISTED
    if more > 0:
        pieces.append(f"{more} more")
    where = "" if band.kept_off else " Joins cannot all be kept off ends and middles."
    return QuiltStep(
        band_title(band),
        f"Sew {band.strips} strips of {fabric_name(project, band.fabric or None)}, "
        f"{length_text(band.width, measure)} wide, end to end: {how}. Cut from the band, one after "
        f"the other: {'; '.join(pieces)}.{where}",
        _lengths_text(band, measure),
        band_title(band),
    )


def _off_text(piece: BandPiece, measure: Measure) -> str:
    """What is cut off the band before a strip, so that its joins lie well."""
    return f"cut off {_near(piece.off, measure)}, then " if piece.off else ""


def _joins_text(piece: BandPiece, measure: Measure) -> str:
    """Where the joins of a strip lie."""
    if not piece.joins:
        return "no join"
    at = " and ".join(_near(join, measure) for join in piece.joins)
    return f"join at {at}" if len(piece.joins) == 1 else f"joins at {at}"


def _lengths_text(band: Band, measure: Measure) -> str:
    """``2 × 72 1/2 in, 2 × 62 1/2 in``."""
    lengths = Counter(piece.length for piece in band.pieces)
    return ", ".join(
        f"{number} × {length_text(length, measure)}" for length, number in lengths.items()
    )


def _borders(top: Top, project: Project, bands: Sequence[Band]) -> Iterator[QuiltStep]:
    quilt, measure = project.quilt or Quilt(), project.measure
    lengths = {strip.name: strip for strip in border_strips(top, quilt, measure)}
    for each in top.borders:
        number = int(each.label.split(",")[0].split()[-1])
        border = quilt.borders[number - 1]
        for band in bands:
            if band.label == each.label.split(",")[0] and not each.label.endswith("spacer"):
                yield _band_step(band, project)
        parts = []
        for pair in each.pairs:
            side = "sides" if pair[0].label.endswith("side") else "top and bottom"
            strip = lengths.get(f"{each.label}, {side}")
            units = [p for p in pair[0].pieces if p.kind == "block"]
            if units:
                parts.append(f"the {side}, {len(units)} blocks each")
            elif strip is not None:
                parts.append(f"the {side}, cut {length_text(strip.length, measure)}")
        how = "Sew on " + ", then ".join(parts)
        corner = lengths.get(f"{each.label}, corners")
        if corner is not None:
            square = size_text((corner.width, corner.length), measure)
            how += f"; first sew a corner square, cut {square}, to each end of the last two"
        if each.mitred:
            how += (
                f"; each reaches {length_text(measure.from_inches(MITRE_SPARE / 2), measure)} past "
                "the edge at either end. Match the middles, stop each seam a seam allowance before "
                "the corner, fold the top at 45 degrees, sew each corner from the inside out, then "
                "trim what is over"
            )
        fabric = fabric_name(project, border.fabric or None)
        corners = "" if each.mitred else " Match the middles first, then the ends."
        text = f"{how}.{corners} Press toward the border."
        yield QuiltStep(f"{each.label}: {fabric}", text, of=each.label)


def _backing_step(way: BackingWay, project: Project) -> QuiltStep:
    measure = project.measure
    quilt = project.quilt or Quilt()
    fabric = fabric_name(project, (quilt.backing.fabric if quilt.backing else "") or None)
    if way.widths == 1:
        how = f"Cut one piece {_near(way.panel, measure)} long off {fabric}."
    else:
        run = "down" if way.seam == "along" else "across"
        seam = _near(measure.from_inches(JOIN), measure)
        how = (
            f"Cut {way.widths} widths of {fabric}, each {_near(way.panel, measure)} long; cut "
            f"off the selvages, join them with seams of {seam}, running {run} the quilt, and press "
            "them open."
        )
    return QuiltStep("Backing and batting", how, near_text(way.size, measure), BACKING)


def _binding_step(plan: BindingPlan, project: Project) -> QuiltStep:
    measure = project.measure
    width = length_text(plan.width, measure)
    fabric = fabric_name(project, plan.fabric or None)
    if plan.square is not None:
        rounds = "1 round gives" if plan.rounds == 1 else f"{plan.rounds} rounds give"
        how = (
            f"Cut a square of {fabric}, {length_text(plan.square, measure)}, on the diagonal, sew "
            f"it into a tube, the edges one strip's width out of step, and cut one continuous "
            f"strip {width} wide: {rounds} {_near(plan.strip, measure)}."
        )
    else:
        how = (
            f"Cut {plan.strips} strips of {fabric} {width} wide across the fabric, join them with "
            "diagonal seams, press it in half along its length and sew it on, turning each corner."
        )
    return QuiltStep(BINDING, how, f"{_near(plan.length, measure)} long")


def _near(length: Exact, measure: Measure) -> str:
    return near_text((length, length), measure)
