"""A motif set in the middle of its piece although the fabric ends too near it on one side.

Across and up alike: the piece is cut c = finished + 2s, and on both sides of the motif, m wide,
needs n = (c - m)/2 of fabric. Where a side has f < n, the missing n - f comes from the side with
plenty and is sewn on here. The join takes s of both raw edges, so the strip is cut
t = (n - f) + 2s, and wider by what is lost to wandering; the side it comes from keeps n at least.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from inlet.core.numbers import Exact, Fraction, nearest_mark, next_mark
from inlet.core.project import Measure, PrintMotif
from inlet.core.words import length_text, size_text

Verdict = Literal["centred", "leave", "move", "add", "both", "touches", "large"]
SIDES = (("left", "right"), ("top", "bottom"))
SMALL = Fraction(1, 32)
"""A motif off the middle by less of the piece's size is not seen to be."""


class Way(NamedTuple):
    """One way across the piece, which is cut ``cut``: what is to be done, the sides that are
    ``short`` and have ``plenty``, how far off the middle the motif is if nothing is sewn on, how
    wide the ``strip`` to move is cut, ``spare`` being in it for wandering, and what the fabric
    ``lacks`` to give it; where both sides are short, ``other`` is the strip of the second.
    ``reach`` is how far the fabric reaches on the short side."""

    verdict: Verdict
    cut: Exact
    short: str = ""
    plenty: str = ""
    off: Exact = Fraction(0)
    strip: Fraction = Fraction(0)
    spare: Exact = Fraction(0)
    lacks: Exact = Fraction(0)
    other: Fraction = Fraction(0)
    reach: Exact = Fraction(0)


def centred(motif: PrintMotif, measure: Measure, wander: Exact | None = None) -> tuple[Way, Way]:
    """What centring takes, across and then up the piece; ``wander`` is what a join may wander, as
    much as squaring off takes where not said."""
    lost = measure.squared_off if wander is None else wander
    across, up = (_way(motif, i, measure, lost) for i in (0, 1))
    return across, up


def _way(motif: PrintMotif, which: int, measure: Measure, wander: Exact) -> Way:
    seam, size = measure.seam, motif.size[which]
    cut = motif.finished[which] + 2 * seam
    need = (cut - size) / 2
    free = {side: getattr(motif, side) for side in SIDES[which]}
    short, plenty = sorted(free, key=lambda side: free[side])
    off = need - free[short]
    if size > motif.finished[which]:
        return Way("large", cut)
    if off <= 0:
        return Way("centred", cut)
    if off <= max(seam, cut * SMALL) and free[plenty] >= need + off:
        return Way("leave", cut, short, plenty, off)
    if free[short] < seam:
        return Way("touches", cut, short, plenty, off, reach=free[short])
    if free[plenty] < need:
        strips = [
            next_mark(need - f + 2 * seam + wander, measure.mark) for f in sorted(free.values())
        ]
        return Way("both", cut, short, plenty, off, strips[0], wander, other=strips[1])
    for spare in (wander, Fraction(0)):
        strip = next_mark(off + 2 * seam + spare, measure.mark)
        if need + spare + strip <= free[plenty]:
            return Way("move", cut, short, plenty, off, strip, spare)
    strip = next_mark(off + 2 * seam + wander, measure.mark)
    return Way("add", cut, short, plenty, off, strip, wander, need + strip - free[plenty])


def centring_lines(motif: PrintMotif, measure: Measure) -> Iterator[str]:
    """What to do, step by step, in words."""
    ways = centred(motif, measure)
    cut = ways[0].cut, ways[1].cut
    if any(way.verdict == "large" for way in ways):
        yield (
            f"The motif is larger than the piece: {size_text(motif.size, measure)} of "
            f"{size_text(motif.finished, measure)} finished. Make the piece larger."
        )
        return
    for way in ways:
        if way.verdict == "touches":
            yield (
                f"The fabric ends too near the motif on the {way.short}: a join there would cut "
                "into it. Choose a smaller part of the print, or sew the motif on another ground."
            )
            return
    sewn = [way for way in ways if way.verdict in ("move", "add", "both")]
    if sewn:
        wider = next_mark(max(cut) + 2 * measure.squared_off, measure.mark)
        yield (
            "Stabilise the fabric behind the motif, wider than the piece: iron a square "
            f"{length_text(wider, measure)} to its back."
        )
    for way in sewn:
        yield from _sewn_lines(way, measure)
    for way in ways:
        if way.verdict == "leave":
            off = length_text(nearest_mark(way.off, measure.system.fine_mark), measure)
            yield (
                f"Leave the motif {off} off the middle, toward the {way.short}: so little is not "
                "seen, and a join beside it would be."
            )
    yield (
        "Mark the middle of the motif and measure from there. Trim to "
        f"{size_text(cut, measure)}: this is the last cut."
    )


def _sewn_lines(way: Way, measure: Measure) -> Iterator[str]:
    strip = length_text(way.strip, measure)
    edges = f"the {way.short} edge"
    if way.verdict == "move":
        yield f"Cut a strip {strip} wide off the {way.plenty}, all along the edge."
        if not way.spare:
            yield "There is no fabric to spare for wandering: pin, and sew slowly."
    elif way.verdict == "add":
        lacks = length_text(next_mark(way.lacks, measure.mark), measure)
        yield (
            f"The {way.plenty} is {lacks} too narrow to give a strip: cut one {strip} wide from "
            "other fabric of the same ground."
        )
    else:
        other = length_text(way.other, measure)
        yield (
            f"The fabric is short on both sides: cut strips {strip} wide for the {way.short} and "
            f"{other} wide for the {way.plenty} from other fabric of the same ground."
        )
        edges = f"the {way.short} and the {way.plenty} edge"
    yield (
        f"Sew it to {edges}, right sides together; the print runs the same way. Press the seam "
        "away from the motif."
        if way.verdict != "both" else
        f"Sew them to {edges}, right sides together. Press the seams away from the motif."
    )  # fmt: skip
