"""What was seen is chosen: a repeat sets the quilt, an exchange of fabrics makes a colourway."""

from __future__ import annotations

from inlet.core.project import (
    Alternate,
    Block,
    Colourway,
    Project,
    Quilt,
    QuiltPlace,
    fresh_id,
    quarter,
    replace,
)
from inlet.core.remake.exchanges import Exchange
from inlet.core.remake.repeats import Repeat

FIRST = 4
"""Blocks across and down of a quilt that had none."""
MOST_PLACED = 5000
"""Places that are turned one by one."""


def set_by(project: Project, block: Block, repeat: Repeat, partner: Block | None = None) -> Quilt:
    """The project's quilt set by a repeat, as large as it was: straight, every block turned as its
    place of the repeat says. Places that held another block, a fabric or a turn are set anew;
    colourways of places stay. Raises ``ValueError`` where it has too many places."""
    quilt = project.quilt or Quilt()
    columns, rows = quilt.columns or FIRST, quilt.rows or FIRST
    if columns * rows > MOST_PLACED:
        raise ValueError(f"A quilt of {columns} x {rows} blocks is too large to be turned so")
    ways = {(p.column, p.row): p.colourway for p in quilt.places}
    places = []
    for row in range(rows):
        for column in range(columns):
            quarters, mirror = repeat.turns[2 * (row % 2) + column % 2]
            way = ways.get((column, row), "")
            if quarters or mirror or way:
                places.append(
                    QuiltPlace(
                        column=column, row=row, turn=quarter(quarters) if quarters else None,
                        mirror=mirror or None, colourway=way,
                    )
                )  # fmt: skip
    return replace(
        quilt,
        setting="straight",
        columns=columns,
        rows=rows,
        row_lengths=(),
        block=block.id,
        alternate=Alternate(block=partner.id) if partner is not None else None,
        turning="one-way",
        places=tuple(places),
    )


def in_other_fabrics(project: Project, block: Block, exchange: Exchange) -> Project:
    """The project with an exchange of a block's fabrics as a colourway of its quilt; as it is where
    it has that already."""
    quilt = project.quilt or Quilt()
    fabrics = {old: new for old, new in exchange.fabrics.items() if old != new}
    if any(way.block == block.id and way.fabrics == fabrics for way in quilt.colourways):
        return project
    taken = {way.id for way in quilt.colourways}
    names = [project.fabric(new) for new in exchange.fabrics.values()]
    name = f"{block.title} in {', '.join(f.title for f in names if f is not None)}"
    way = Colourway(id=fresh_id(name, taken), name=name, block=block.id, fabrics=fabrics)
    return replace(project, quilt=replace(quilt, colourways=(*quilt.colourways, way)))
