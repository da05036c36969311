"""The rows of a quilt: what lies in them, what they measure, which are alike."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from inlet.core.numbers import Exact
from inlet.core.plan.quilt_step import near_length
from inlet.core.project import Measure, Project, Quilt
from inlet.core.setting import NAMES, Row, Top, TopPiece, row_length
from inlet.core.words import fabric_name

TURNS = ("", "a quarter turn right", "upside down", "a quarter turn left")


class RowCard(NamedTuple):
    """One row: its ``label`` to pin, what lies in it from one end to the other, the way its seams
    are ``pressed``, and the ``length`` it must have, raw edge to raw edge (None for a corner)."""

    label: str
    items: tuple[str, ...]
    pressed: str
    length: Exact | None


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
    return f"{near_length(card.length, measure)}{part}"


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
