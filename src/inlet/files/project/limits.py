"""How large what a project says may be: one table, a row for each field.

The rules of the file, the window's edits and the hostile tests are all made from it. What lies
past its limits is a slip of the keyboard, or a file that would take the machine down: least sizes
keep one length from holding a million others, most items keep one list from filling the memory.
What only the product of several fields shows is counted in ``rules``.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import ceil, floor
from typing import Any, NamedTuple

import msgspec

from inlet.core.layout import LEAST_HANDLED, LEAST_SIDE, MOST_HANDLED, MOST_SIDE
from inlet.core.memo import Latest, memo
from inlet.core.numbers import LONGEST_NUMBER, Exact, Fraction, as_parts, write_exact
from inlet.core.plan import MOST_COPIES
from inlet.core.pressing import MOST_POINTS
from inlet.core.project import (
    LONGEST_LABEL,
    MOST_BANDS,
    MOST_BLADE,
    MOST_CORNER_FABRICS,
    MOST_CUTS,
    MOST_ECHOES,
    MOST_EVERY,
    MOST_HAVE,
    MOST_IN_MOTIF,
    MOST_LAID,
    MOST_MINUTES,
    MOST_OWNED,
    MOST_PLACES,
    MOST_RULERS,
    MOST_SEAMS,
    MOST_SHRINK,
    MOST_STARTS,
    MOST_VERSIONS,
    Arc,
    Backing,
    Batting,
    Begun,
    Bench,
    Binding,
    Block,
    BlockPressing,
    Border,
    Choice,
    Colourway,
    Cuts,
    Cutting,
    Fabric,
    FabricAt,
    Have,
    Improvised,
    LaidFabric,
    LaidPieces,
    LaidRow,
    LaidSegment,
    LaidStrip,
    LogEntry,
    MadeFrom,
    MadeUnit,
    Measure,
    MeasuredSize,
    Motif,
    Panel,
    PanelPhoto,
    Pin,
    Pressing,
    Print,
    PrintMotif,
    Project,
    Quilt,
    QuiltingLines,
    QuiltPlace,
    Rates,
    Sashing,
    Scatter,
    Seam,
    SeamTest,
    SetPiece,
    Timer,
    Triangles,
)
from inlet.files.problem import shown

LEAST = Fraction(1, 1000)
"""Inches or cm: nothing that is measured, cut or repeated is smaller."""
LARGEST_BAND = 10_000
"""Bands are proportions; one this many times another, or more, is a slip of the keyboard."""
FARTHEST = 10**6
"""Grid units from the block's corner to any point."""
WIDEST_FABRIC = 10_000
LONGEST_NAME = 1_000
"""Letters of a name, an id or a word."""
LONGEST_IMAGE = 4 * 2**20
"""Letters of a print's picture."""
MOST_DRAWINGS = 500
MOST_FABRICS = 500
MOST_BORDERS = 30
MOST_MOTIFS = 100
MOST_COLOURWAYS = 200
MOST_QUILTING = 50
MOST_BEGUN = 500
MOST_LOGGED = 100_000
MOST_MEASURED = 500
"""Sizes measured of one unit, and units of one size."""
MOST_A_WEEK = 21
"""Sittings."""
MOST_TIMED = 7 * 24 * 60
"""Minutes of one entry: a week."""
MOST_DONE = 2 * MOST_PLACES**2
"""Steps counted, and how often each is done."""


class Range(NamedTuple):
    """A number from ``least`` to ``most``, above ``least`` where that is not ``reached``."""

    least: Exact | int
    most: Exact | int
    reached: bool = True
    words: str = ""

    def fault(self, number: Exact | int) -> str:
        """What is wrong with a number, in words; empty where nothing is."""
        low = number >= self.least if self.reached else number > self.least
        if low and number <= self.most:
            return ""
        if self.words:
            return f"{number_text(number)} {self.words}"
        low_words = "from {}" if self.reached else "above {}, up"
        least, most = number_text(self.least), number_text(self.most)
        return f"{number_text(number)} must be {low_words.format(least)} to {most}"


class Items(NamedTuple):
    """A list, or a group of keys, of so many items."""

    most: int
    what: str
    least: int = 0

    def fault(self, number: int) -> str:
        if self.least <= number <= self.most:
            return ""
        if self.least:
            return f"between {self.least} and {self.most} {self.what} are needed"
        return f"more than {self.most} {self.what}"


class Letters(NamedTuple):
    """Text of so many letters at most."""

    most: int

    def fault(self, text: str) -> str:
        return f"{shown(text)} is longer than {self.most} letters" if len(text) > self.most else ""


class MarkLimit(NamedTuple):
    """A length that is a fraction, as marks of a ruler are, from ``least`` to ``most``."""

    least: Fraction
    most: int

    def fault(self, number: Exact | int) -> str:
        if isinstance(number, Fraction | int) and self.least <= number <= self.most:
            return ""
        return f"{number_text(number)} must be a fraction from {self.least} to {self.most}"


Limit = Range | Items | Letters | MarkLimit
"""Each has ``fault``: what is wrong with a value, in words that follow its place."""

ENTRIES = Items(MOST_LOGGED, "entries")
LENGTH = Range(LEAST, WIDEST_FABRIC)
FREE = Range(0, WIDEST_FABRIC)
"""A length that may be nothing."""
TOOL = Range(LEAST_SIDE, MOST_SIDE)
"""A side of a ruler or a mat."""
HANDLED = Range(LEAST_HANDLED, MOST_HANDLED)
WIDTH = Range(0, WIDEST_FABRIC, reached=False)
POINT = Range(-FARTHEST, FARTHEST, words="is too far from the block")
NAME = Letters(LONGEST_NAME)
PLACES = Items(2 * MOST_PLACES, "places")

LIMITS: dict[tuple[type[msgspec.Struct], str], tuple[Limit, ...]] = {
    (Project, "fabrics"): (Items(MOST_FABRICS, "fabrics"),),
    (Project, "blocks"): (Items(MOST_DRAWINGS, "blocks"),),
    (Measure, "seam"): (MarkLimit(LEAST, 10),),
    (Measure, "ruler"): (MarkLimit(LEAST, 10),),
    (Measure, "oversize"): (MarkLimit(LEAST, 10),),
    (Measure, "squaring"): (Range(0, 10),),
    **{(Rates, name): (Range(0, 3600),) for name in ("cut", "mark", "seam", "length", "press",
                                                      "trim")},
    (Rates, "sitting"): (Range(1, 3600),),
    (Rates, "bobbin"): (Range(1, 3600),),
    (SeamTest, "strip"): (LENGTH,),
    (SeamTest, "middle"): (LENGTH,),
    (SeamTest, "stitched"): (LENGTH,),
    (Pressing, "weights"): (Items(200, "weights"), Range(0, MOST_POINTS)),
    (Fabric, "notes"): (Letters(100 * LONGEST_NAME),),
    (Fabric, "width"): (LENGTH,),
    (Fabric, "shrink"): (Range(0, MOST_SHRINK),),
    (Fabric, "price"): (FREE,),
    (Fabric, "have"): (Items(MOST_HAVE, "pieces of fabric"),),
    (Print, "image"): (Letters(LONGEST_IMAGE),),
    (Print, "width"): (LENGTH,),
    (Have, "width"): (LENGTH,),
    (Have, "length"): (LENGTH,),
    (Have, "count"): (Range(1, MOST_HAVE),),
    (Have, "selvage"): (FREE,),
    (Cutting, "square_every"): (Range(0, MOST_EVERY),),
    (Cutting, "rulers"): (Items(MOST_RULERS, "rulers"), TOOL),
    (Cutting, "mat"): (TOOL,),
    (Cutting, "blade"): (Range(1, MOST_BLADE),),
    (Cutting, "handled"): (HANDLED,),
    (Cutting, "margin"): (Range(0, 100),),
    (Cutting, "begun"): (Items(MOST_BEGUN, "fabrics being cut"),),
    **{(PrintMotif, name): (LENGTH,) for name in ("size", "finished")},
    **{(PrintMotif, side): (FREE,) for side in ("left", "right", "top", "bottom")},
    (Begun, "copies"): (Range(1, MOST_COPIES),),
    (Begun, "done"): (Range(0, 10 * MOST_LAID),),
    (Begun, "rulers"): (Items(MOST_RULERS, "rulers"), TOOL),
    (Begun, "mat"): (TOOL,),
    (Begun, "blade"): (Range(1, MOST_BLADE),),
    (LaidFabric, "width"): (LENGTH,),
    (LaidFabric, "length"): (Range(0, 10**6, reached=False),),
    (LaidFabric, "count"): (Range(1, MOST_OWNED),),
    (LaidFabric, "squaring"): (Range(0, 10),),
    (LaidFabric, "every"): (Range(0, MOST_EVERY),),
    (LaidFabric, "strips"): (Items(MOST_LAID, "strips"),),
    (LaidStrip, "width"): (LENGTH,),
    (LaidStrip, "count"): (Range(1, MOST_LAID),),
    (LaidStrip, "segments"): (Items(MOST_LAID, "segments"),),
    (LaidSegment, "width"): (LENGTH,),
    (LaidSegment, "count"): (Range(1, MOST_LAID),),
    (LaidSegment, "rows"): (Items(MOST_LAID, "rows", 1),),
    (LaidRow, "width"): (LENGTH,),
    (LaidRow, "pieces"): (Items(MOST_LAID, "pieces", 1),),
    (LaidPieces, "size"): (LENGTH,),
    (LaidPieces, "count"): (Range(1, MOST_LAID),),
    (LaidPieces, "holds"): (Range(1, MOST_LAID),),
    (Block, "finished"): (LENGTH,),
    (Block, "columns"): (Items(MOST_BANDS, "bands", 1), Range(Fraction(1, LARGEST_BAND),
                                                              LARGEST_BAND)),
    (Block, "rows"): (Items(MOST_BANDS, "bands", 1), Range(Fraction(1, LARGEST_BAND),
                                                           LARGEST_BAND)),
    (Block, "seams"): (Items(MOST_SEAMS, "seams"),),
    (Block, "fabric_at"): (Items(5 * MOST_SEAMS, "patches with a fabric"),),
    (Block, "marks"): (Items(MOST_SEAMS, "points marked"), POINT),
    (Block, "methods"): (Items(100, "methods"),),
    (Block, "units"): (Items(MOST_SEAMS, "units"),),
    (Project, "made"): (Items(MOST_SEAMS, "units measured"),),
    (MadeUnit, "measured"): (Items(MOST_MEASURED, "sizes measured", 1),),
    (MeasuredSize, "size"): (LENGTH,),
    (MeasuredSize, "number"): (Range(1, MOST_MEASURED),),
    (Seam, "line"): (POINT,),
    **{(Arc, name): (POINT,) for name in ("centre", "start", "end")},
    (FabricAt, "point"): (POINT,),
    (Choice, "point"): (POINT,),
    (Choice, "label"): (Letters(LONGEST_LABEL),),
    (BlockPressing, "versions"): (Range(1, MOST_VERSIONS),),
    (BlockPressing, "pins"): (Items(MOST_SEAMS, "pins"),),
    (Pin, "point"): (POINT,),
    (Pin, "toward"): (POINT,),
    (MadeFrom, "starts"): (Items(MOST_STARTS, "start blocks", 1),),
    (MadeFrom, "pieces"): (Items((MOST_CUTS + 1) ** 2, "pieces"),),
    **{(Cuts, way): (Items(MOST_CUTS, "cuts"), Range(-WIDEST_FABRIC, WIDEST_FABRIC))
       for way in ("upright", "level")},
    (Improvised, "fabrics"): (Items(MOST_CORNER_FABRICS, "fabrics of corners"),),
    **{(Improvised, name): (WIDTH,) for name in ("nearest", "farthest", "step")},
    (Improvised, "steepest"): (Range(1, 1000),),
    **{(Improvised, name): (Range(0, 4),) for name in ("fewest", "most")},
    (Improvised, "seed"): (Range(-(2**31), 2**31),),
    (Improvised, "minutes"): (Range(0, MOST_MINUTES),),
    **{(Panel, name): (WIDTH,) for name in ("piece", "motif")},
    **{(Panel, name): (FREE,) for name in ("left", "top", "wander", "margin")},
    (PanelPhoto, "image"): (Letters(LONGEST_IMAGE),),
    **{(PanelPhoto, name): (POINT,) for name in ("corner", "points")},
    (PanelPhoto, "distance"): (WIDTH,),
    (SetPiece, "piece"): (Range(1, (MOST_CUTS + 1) ** 2),),
    (SetPiece, "start"): (Range(1, MOST_STARTS),),
    (Quilt, "columns"): (Range(0, MOST_PLACES),),
    (Quilt, "rows"): (Range(0, MOST_PLACES),),
    (Quilt, "row_lengths"): (Items(MOST_PLACES, "rows"), Range(0, MOST_PLACES)),
    (Quilt, "places"): (Items(20 * MOST_PLACES, "places"),),
    (Quilt, "motifs"): (Items(MOST_MOTIFS, "motifs"),),
    (Quilt, "colourways"): (Items(MOST_COLOURWAYS, "colourways"),),
    (Quilt, "borders"): (Items(MOST_BORDERS, "borders"),),
    (Quilt, "quilting"): (Items(MOST_QUILTING, "kinds of quilting lines"),),
    (Bench, "sittings_a_week"): (Range(1, MOST_A_WEEK),),
    (Timer, "counted"): (Range(0, MOST_TIMED),),
    (Project, "log"): (ENTRIES,),
    (LogEntry, "number"): (Range(1, MOST_DONE),),
    (LogEntry, "size"): (LENGTH,),
    (LogEntry, "minutes"): (Range(1, MOST_TIMED),),
    (LogEntry, "text"): (Letters(10 * LONGEST_NAME),),
    (Quilt, "made"): (Items(MOST_DRAWINGS + MOST_MOTIFS, "blocks"), LENGTH),
    (QuiltPlace, "column"): (Range(0, 2 * MOST_PLACES - 1),),
    (QuiltPlace, "row"): (Range(0, 2 * MOST_PLACES - 1),),
    (Motif, "columns"): (Range(1, MOST_IN_MOTIF),),
    (Motif, "rows"): (Range(1, MOST_IN_MOTIF),),
    (Motif, "places"): (Items(MOST_IN_MOTIF**2, "places"),),
    (Colourway, "fabrics"): (Items(MOST_FABRICS, "fabrics"),),
    (Scatter, "colourways"): (Items(MOST_COLOURWAYS, "colourways"),),
    (Scatter, "seed"): (Range(-(2**31), 2**31),),
    (Sashing, "width"): (LENGTH,),
    (Sashing, "down"): (LENGTH,),
    (Triangles, "float_by"): (FREE,),
    (Border, "width"): (LENGTH,),
    (Border, "measured"): (Range(LEAST, 10 * WIDEST_FABRIC),),
    (Binding, "width"): (LENGTH,),
    (Backing, "overage"): (FREE,),
    (Batting, "overage"): (FREE,),
    (QuiltingLines, "distance"): (LENGTH,),
    (QuiltingLines, "repeats"): (Range(1, MOST_ECHOES),),
}  # fmt: skip
"""The limits of each field that has any besides the length of its text."""


_WITHIN: Latest[Seam | FabricAt, bool] = Latest(20_000)
"""Parts of drawings that lie within the limits: an edit changes few of them."""


def limit_faults(value: Any, place: str, limits: tuple[Limit, ...] = ()) -> Iterator[str]:
    """What of a value, and of all that is in it, lies past the table's limits: sentences that begin
    with the place, as the file names it."""
    if isinstance(value, Seam | FabricAt):
        if _WITHIN.get(value) is None:
            faults = list(_faults_inside(value, place))
            yield from faults
            if not faults:
                _WITHIN.keep(value, True)
    elif isinstance(value, msgspec.Struct):
        yield from _faults_inside(value, place)
    elif isinstance(value, str):
        texts = [limit for limit in limits if isinstance(limit, Letters)]
        yield from _faults(texts or [NAME], value, place)
    elif isinstance(value, tuple | dict):
        counts = [limit for limit in limits if isinstance(limit, Items)]
        yield from _faults(counts, len(value), place)
        of_items = tuple(limit for limit in limits if not isinstance(limit, Items))
        if isinstance(value, dict):
            for key, item in value.items():
                yield from _faults([NAME], key, place)
                yield from limit_faults(item, f"{place}.{key}", of_items)
        else:
            for i, item in enumerate(value):
                yield from limit_faults(item, f"{place}[{i}]", of_items)
    elif value is not None and not isinstance(value, bool):
        if not is_short(value):
            yield f"{place}: {number_text(value)} has more than {LONGEST_NUMBER} letters"
        numbers = [limit for limit in limits if not isinstance(limit, Items | Letters)]
        yield from _faults(numbers, value, place)


def _faults_inside(value: msgspec.Struct, place: str) -> Iterator[str]:
    """The faults of each field, by the limits the table has for it."""
    start = f"{place}." if place else ""
    for name, key, limits, letters, least, most in _limited_fields(type(value)):
        item = getattr(value, name)
        if item is None or item == "":
            continue
        if item.__class__ is str and len(item) <= letters:
            continue  # most fields of most values end here
        if item.__class__ is int and least <= item <= most:
            continue
        yield from limit_faults(item, f"{start}{key}", limits)


class _LimitedField(NamedTuple):
    """A field that holds what the file says: its name, key and limits; text of so many letters, and
    whole numbers from ``least`` to ``most``, surely keep them."""

    name: str
    key: str
    limits: tuple[Limit, ...]
    letters: int
    least: int
    most: int


@memo(None)
def _limited_fields(kind: type[msgspec.Struct]) -> tuple[_LimitedField, ...]:
    """The fields of a kind of value that hold what the file says."""
    names = zip(kind.__struct_fields__, kind.__struct_encode_fields__, strict=True)
    return tuple(_limited(n, key, LIMITS.get((kind, n), ())) for n, key in names if n != "extra")


def _limited(name: str, key: str, limits: tuple[Limit, ...]) -> _LimitedField:
    letters = [limit.most for limit in limits if isinstance(limit, Letters)] or [LONGEST_NAME]
    ranges = [limit for limit in limits if isinstance(limit, Range)]
    least = max((ceil(float(r.least)) + (not r.reached) for r in ranges), default=1 - SHORT)
    most = min((floor(float(r.most)) for r in ranges), default=SHORT - 1)
    if any(not isinstance(limit, Letters | Range) for limit in limits):
        most = least - 1
    return _LimitedField(name, key, limits, min(letters), least, min(most, SHORT - 1))


def _faults(limits: Sequence[Any], value: Any, place: str) -> Iterator[str]:
    for limit in limits:
        fault = limit.fault(value)
        if fault:
            yield f"{place}: {fault}"


SHORT = 10**8
"""A number of integers below this is written in fewer letters than a file may hold."""


def is_short(number: Exact | int) -> bool:
    """Is a number written in no more letters than are read again?"""
    parts = as_parts(number) or (SHORT,)
    return max(map(abs, parts)) < SHORT or len(write_exact(number)) <= LONGEST_NUMBER


def number_text(x: Exact | int) -> str:
    """A number as files write it, cut short."""
    text = write_exact(x)
    return text if len(text) <= LONGEST_NUMBER else text[: LONGEST_NUMBER - 1] + "…"
