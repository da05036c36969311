"""What centring a panel takes, in a sentence; the top its blocks are packed into, row by row."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from inlet.core.numbers import nearest_mark
from inlet.core.panels.centring import Way
from inlet.core.panels.many import PackedTop
from inlet.core.panels.panel_cut import panel_ways
from inlet.core.project import Block, Measure
from inlet.core.words import length_text, size_text


def panel_text(block: Block, measure: Measure) -> str:
    """``Move 2 1/4 in from the right to the left.``; ``Centred as it is.``"""
    ways = panel_ways(block, measure)
    if any(way.verdict == "large" for way in ways):
        return "The motif is larger than the block."
    for way in ways:
        if way.verdict == "touches":
            return f"The motif lies too near the edge on the {way.short}."
    said = [text for way in ways if (text := _said(way, measure))]
    return " ".join(said) or "The motif comes to the middle without a join."


def _said(way: Way, measure: Measure) -> str:
    strip = length_text(way.strip, measure)
    if way.verdict == "move":
        return f"Move {strip} from the {way.plenty} to the {way.short}."
    if way.verdict == "add":
        return f"Add {strip} on the {way.short}."
    if way.verdict == "both":
        other = length_text(way.other, measure)
        return f"Add {strip} on the {way.short} and {other} on the {way.plenty}."
    if way.verdict == "leave":
        off = length_text(nearest_mark(way.off, measure.system.fine_mark), measure)
        return f"Leave it {off} off, toward the {way.short}: that is not worth a join."
    return ""


def packed_lines(top: PackedTop, titles: Sequence[str], measure: Measure) -> Iterator[str]:
    """A line for each row: its blocks, and what fills it up, cut sizes with their allowances."""
    twice = 2 * measure.seam
    yield (
        f"Top {size_text((top.wide, top.high), measure)}, {top.filled:.0%} of it blocks. Fabric "
        "that fills it up is given as it is cut."
    )
    for number, row in enumerate(top.rows, 1):
        parts = []
        for block in row.blocks:
            part = f"{titles[block.which]} {size_text(block.size, measure)}"
            if block.below > 0:
                below = size_text((block.size[0] + twice, block.below + twice), measure)
                part += f" with {below} below it"
            parts.append(part)
        if row.right > 0:
            parts.append(f"{size_text((row.right + twice, row.high + twice), measure)} at the end")
        yield f"Row {number}: {'; '.join(parts)}"
