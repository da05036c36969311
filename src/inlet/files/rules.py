"""What the project file's format forbids and its types cannot say (docs/file-format.md).

Each function yields sentences that begin with a place in the file; the first one refuses it.
"""

from __future__ import annotations

import base64
import re
from collections.abc import Iterator, Sequence

from inlet.core.cutting.strokes import fits
from inlet.core.geometry.curve import arc_fault
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact, write_exact
from inlet.core.numbers.systems import SYSTEMS, System
from inlet.core.numbers.text import NumberError
from inlet.core.planning.stock import parse_stock
from inlet.core.pressing.weights import MOST_POINTS, WEIGHT_NAMES
from inlet.core.project.block import (
    LARGEST_BLOCK_INCHES,
    LONGEST_LABEL,
    MOST_BANDS,
    MOST_SEAMS,
    Block,
    Choice,
    Seam,
)
from inlet.core.project.cutting import (
    DIRECTIONS,
    FOLDS,
    GOALS,
    HANDS,
    HAVE_KINDS,
    MOST_EVERY,
    MOST_HAVE,
    MOST_LAID,
    MOST_SHRINK,
    MOST_STACKED,
    Cutting,
    Have,
    LaidCloth,
    PrintMotif,
)
from inlet.core.project.fabric import Fabric, Print
from inlet.core.project.measure import AWKWARD, Measure, Rates
from inlet.core.project.pressing import (
    MOST_VERSIONS,
    PINNED_TO,
    SCHOOLS,
    SETTINGS,
    BlockPressing,
    Pressing,
)
from inlet.core.project.project import Project
from inlet.core.project.quilt import (
    ALTERNATIONS,
    BORDER_KINDS,
    BORDER_ORDERS,
    FITS,
    LAYOUTS,
    MOST_ECHOES,
    MOST_PLACES,
    QUILTING_KINDS,
    TURNINGS,
    Quilt,
    QuiltPlace,
)
from inlet.core.project.value import Pair
from inlet.files.problem import shown

LARGEST_BAND = 10_000
"""Bands are proportions; one this many times another, or more, is a slip of the keyboard."""
FARTHEST = 10**6
"""Grid units from the block's corner to any point."""
WIDEST_CLOTH = 10_000


def broken_rules(project: Project) -> Iterator[str]:
    """What the format forbids in a project."""
    yield from _measure_rules(project.measure)
    if project.rates is not None:
        yield from _rate_rules(project.rates)
    needle = project.needle
    if needle is not None and not 0 < needle.middle < needle.strip:
        yield "needle: the middle strip must be narrower than it was cut, and above 0"
    if project.pressing is not None:
        yield from _weight_rules(project.pressing)
    yield from _repeated("fabrics", [f.id for f in project.fabrics])
    for i, fabric in enumerate(project.fabrics):
        yield from _fabric_rules(fabric, f"fabrics[{i}]")
    if project.cutting is not None:
        yield from _cutting_rules(project.cutting, project)
    yield from _repeated("blocks", [b.id for b in project.blocks])
    fabrics = {f.id for f in project.fabrics}
    for i, block in enumerate(project.blocks):
        yield from _block_rules(block, f"blocks[{i}]", project, fabrics)
    if project.quilt is not None:
        yield from _quilt_rules(project.quilt, fabrics, {b.id for b in project.blocks})


def block_rules(block: Block, project: Project) -> Iterator[str]:
    """What the format forbids in one block of a project; each begins with the place in it."""
    fabrics = {f.id for f in project.fabrics}
    return (rule.removeprefix(".") for rule in _block_rules(block, "", project, fabrics))


def _number(x: Exact) -> str:
    """A number as files write it, cut short."""
    text = write_exact(x)
    return text if len(text) <= 40 else text[:39] + "…"


def _within(value: Exact, low: int, high: int, place: str) -> Iterator[str]:
    """Above ``low`` (or at it, where that is not 0), up to ``high``."""
    if not (low <= value if low else value > 0) or value > high:
        least = f"from {low}" if low else "above 0,"
        yield f"{place}: {_number(value)} must be {least} up to {high}"


def _measure_rules(measure: Measure) -> Iterator[str]:
    if measure.system_name not in SYSTEMS:
        yield f'measure.system: {shown(measure.system_name)} is not "inch" or "cm"'
    if measure.school not in ("exact", "trim"):
        yield f'measure.school: {shown(measure.school)} is not "exact" or "trim"'
    if measure.awkward not in AWKWARD:
        yield f"measure.awkward: {shown(measure.awkward)} is none of {', '.join(AWKWARD)}"
    for name in ("seam", "ruler"):
        yield from _mark_rules(getattr(measure, name), f"measure.{name}")
    for i, length in enumerate(measure.oversize or ()):
        yield from _mark_rules(length, f"measure.oversize[{i}]")
    if measure.squaring is not None and not 0 <= measure.squaring <= 10:
        yield f"measure.squaring: {_number(measure.squaring)} must be from 0 to 10"


def _mark_rules(value: Exact, place: str) -> Iterator[str]:
    if not isinstance(value, Fraction) or not 0 < value <= 10:
        yield f"{place}: {_number(value)} must be a fraction above 0, up to 10"


def _rate_rules(rates: Rates) -> Iterator[str]:
    for name in Rates.__struct_fields__:
        seconds = getattr(rates, name)
        if name != "extra" and not 0 <= seconds <= 3600:
            yield f"rates.{name}: {shown(seconds)} must be seconds from 0 to 3600"
    for name in ("sitting", "bobbin"):
        if getattr(rates, name) < 1:
            yield f"rates.{name}: must be 1 or more"


def _fabric_rules(fabric: Fabric, place: str) -> Iterator[str]:
    if not re.fullmatch(r"#[0-9a-fA-F]{6}", fabric.colour):
        yield f"{place}.colour: {shown(fabric.colour)} is not a colour like #d9dcd6"
    if fabric.value and fabric.value not in ("light", "medium", "dark"):
        yield f"{place}.value: {shown(fabric.value)} is not light, medium or dark"
    if fabric.print is not None:
        yield from _print_rules(fabric.print, f"{place}.print")
    if fabric.width is not None:
        yield from _within(fabric.width, 0, WIDEST_CLOTH, f"{place}.width")

    if fabric.direction not in DIRECTIONS:
        words = ", ".join(filter(None, DIRECTIONS))
        yield f"{place}.direction: {shown(fabric.direction)} is none of {words}"
    for i, lost in enumerate(fabric.shrink or ()):
        if not 0 <= lost < MOST_SHRINK:
            yield f"{place}.shrink[{i}]: {_number(lost)} must be per cent from 0 to {MOST_SHRINK}"
    if fabric.price is not None and not 0 <= fabric.price <= WIDEST_CLOTH:
        yield f"{place}.price: {_number(fabric.price)} must be from 0 to {WIDEST_CLOTH}"
    if len(fabric.have) > MOST_HAVE:
        yield f"{place}.have: more than {MOST_HAVE} pieces of cloth"
    for i, have in enumerate(fabric.have):
        yield from _have_rules(have, f"{place}.have[{i}]")


def _have_rules(have: Have, place: str) -> Iterator[str]:
    if have.kind not in HAVE_KINDS:
        yield f"{place}.kind: {shown(have.kind)} is none of {', '.join(HAVE_KINDS)}"
        return
    if not 1 <= have.count <= MOST_HAVE:
        yield f"{place}.count: {shown(have.count)} must be from 1 to {MOST_HAVE}"
    for name in ("width", "length"):
        value = getattr(have, name)
        if value is not None:
            yield from _within(value, 0, WIDEST_CLOTH, f"{place}.{name}")
    needed = {"strips": "width", "squares": "width", "bolt": "length", "scrap": "length",
              "panel": "length"}.get(have.kind)  # fmt: skip
    if needed and getattr(have, needed) is None:
        yield f"{place}.{needed}: missing; {have.kind} needs it"
    if have.selvage < 0 or (have.width is not None and 2 * have.selvage >= have.width):
        yield f"{place}.selvage: {_number(have.selvage)} leaves no cloth between the selvages"


def _cutting_rules(cutting: Cutting, project: Project) -> Iterator[str]:
    known = {
        "goal": GOALS, "handed": HANDS, "folds": FOLDS,
        "square_every": range(MOST_EVERY + 1), "stack": range(1, MOST_STACKED + 1),
    }  # fmt: skip
    for name, values in known.items():
        value = getattr(cutting, name)
        if value not in values:
            yield f"cutting.{name}: {shown(value)} is none of {', '.join(map(str, values))}"
    if not 0 <= cutting.margin <= 100:
        yield f"cutting.margin: {_number(cutting.margin)} must be per cent from 0 to 100"
    if cutting.motif is not None:
        yield from _motif_rules(cutting.motif)
    fabrics, blocks = {f.id for f in project.fabrics}, {b.id for b in project.blocks}
    for i, begun in enumerate(cutting.begun):
        place = f"cutting.begun[{i}]"
        yield from _known(f"{place}.fabric", begun.fabric, "fabric", fabrics)
        yield from _known(f"{place}.block", begun.block, "block", blocks)
        yield from _laid_rules(begun.cloth, f"{place}.cloth")
        if begun.copies < 1 or begun.done < 0:
            yield f"{place}: copies must be 1 or more, and done 0 or more"


def _motif_rules(motif: PrintMotif) -> Iterator[str]:
    for name in ("size", "finished"):
        for i, length in enumerate(getattr(motif, name)):
            yield from _within(length, 0, WIDEST_CLOTH, f"cutting.motif.{name}[{i}]")
    for side in ("left", "right", "top", "bottom"):
        if not 0 <= getattr(motif, side) <= WIDEST_CLOTH:
            yield f"cutting.motif.{side}: must be from 0 to {WIDEST_CLOTH}"


def _laid_rules(cloth: LaidCloth, place: str) -> Iterator[str]:
    """Cloth laid out must lie on its cloth: what is cut from it is drawn and counted."""
    if cloth.layers not in (1, 2, 4):
        yield f"{place}.layers: {shown(cloth.layers)} is not 1, 2 or 4"
        return
    lengths = [cloth.width, cloth.length]
    for strip in cloth.strips:
        lengths.append(strip.width)
        for segment in strip.segments:
            lengths.append(segment.width)
            for row in segment.rows:
                lengths += [row.width, *(side for p in row.pieces for side in p.size)]
                if not row.pieces or any(p.count < 1 or p.holds < 1 for p in row.pieces):
                    yield f"{place}: a row without pieces"
            if segment.count < 1 or not segment.rows:
                yield f"{place}: a segment without rows"
        if not 1 <= strip.count <= MOST_LAID:
            yield f"{place}: a strip must be there from 1 to {MOST_LAID} times"
    if cloth.squaring < 0 or cloth.every < 0 or any(not 0 < x <= 10**6 for x in lengths):
        yield f"{place}: lengths must be above 0"
    elif not fits(cloth):
        yield f"{place}: its pieces do not lie on it"


def _print_rules(print_: Print, place: str) -> Iterator[str]:
    yield from _within(print_.width, 0, WIDEST_CLOTH, f"{place}.width")
    try:
        base64.b64decode(print_.image, validate=True)
    except ValueError:
        yield f"{place}.image: not a picture (base64 of a PNG or JPEG file)"


def _block_rules(block: Block, place: str, project: Project, fabrics: set[str]) -> Iterator[str]:
    largest = project.measure.from_inches(LARGEST_BLOCK_INCHES)
    for i, size in enumerate(block.finished):
        if size <= 0:
            yield f"{place}.finished[{i}]: {_number(size)} must be above 0"
        if size > largest:
            yield (
                f"{place}.finished[{i}]: {_number(size)} is larger than a block can be "
                f"({write_exact(largest)})"
            )
    for name, bands in (("columns", block.columns), ("rows", block.rows)):
        yield from _band_rules(bands, f"{place}.{name}")
    if len(block.seams) > MOST_SEAMS:
        yield f"{place}.seams: more than {MOST_SEAMS} seams"
    for i, seam in enumerate(block.seams):
        yield from _seam_rules(seam, f"{place}.seams[{i}]")
    for i, mark in enumerate(block.marks):
        yield from _point_rules(mark, f"{place}.marks[{i}]")
    for i, choice in enumerate(block.units):
        yield from _choice_rules(choice, f"{place}.units[{i}]", project.measure.system)
    if block.pressing is not None:
        yield from _pressing_rules(block.pressing, f"{place}.pressing")
    for i, spot in enumerate(block.fabric_at):
        yield from _point_rules(spot.point, f"{place}.fabric_at[{i}].point")
        if spot.fabric not in fabrics:
            yield f"{place}.fabric_at[{i}].fabric: no fabric has the id {shown(spot.fabric)}"


def _band_rules(bands: tuple[Exact, ...], place: str) -> Iterator[str]:
    if not 0 < len(bands) <= MOST_BANDS:
        yield f"{place}: between 1 and {MOST_BANDS} bands are needed"
    for i, band in enumerate(bands):
        if band <= 0:
            yield f"{place}[{i}]: {_number(band)} must be above 0"
        elif not Fraction(1, LARGEST_BAND) <= band <= LARGEST_BAND:
            yield (f"{place}[{i}]: {_number(band)} must be from 1/{LARGEST_BAND} to {LARGEST_BAND}")


def _point_rules(point: Pair, place: str) -> Iterator[str]:
    for i, x in enumerate(point):
        if abs(x) > FARTHEST:
            yield f"{place}[{i}]: {_number(x)} is too far from the block"


def _seam_rules(seam: Seam, place: str) -> Iterator[str]:
    if (seam.line is None) == (seam.arc is None):
        yield f'{place}: a seam is either a "line" or an "arc"'
        return
    named = seam.arc
    points = (named.start, named.end, named.centre) if named is not None else seam.line or ()
    for point in points:
        yield from _point_rules(point, place)
    if named is not None:
        start, end, centre = (Point(*p) for p in points)
        fault = arc_fault(start, end, centre)
        if fault:
            yield f"{place}.arc: {fault}"
    elif seam.ends[0] == seam.ends[1]:
        yield f"{place}.line: both ends are the same point"


def _choice_rules(choice: Choice, place: str, system: System) -> Iterator[str]:
    yield from _point_rules(choice.point, f"{place}.point")
    if choice.school not in ("", "exact", "trim"):
        yield f'{place}.school: {shown(choice.school)} is not "exact" or "trim"'
    if len(choice.label) > LONGEST_LABEL:
        yield (f"{place}.label: {shown(choice.label)} is longer than {LONGEST_LABEL} letters")
    try:
        parse_stock(choice.stock, system)
    except NumberError as why:
        yield f"{place}.stock: {why}"


def _pressing_rules(pressing: BlockPressing, place: str) -> Iterator[str]:
    if pressing.school and pressing.school not in SCHOOLS:
        yield f"{place}.school: {shown(pressing.school)} is none of {', '.join(SCHOOLS)}"
    if pressing.setting and pressing.setting not in SETTINGS:
        yield f"{place}.setting: {shown(pressing.setting)} is none of {', '.join(SETTINGS)}"
    if not 1 <= pressing.versions <= MOST_VERSIONS:
        yield f"{place}.versions: {shown(pressing.versions)} must be from 1 to {MOST_VERSIONS}"
    if len(pressing.pins) > MOST_SEAMS:
        yield f"{place}.pins: more than {MOST_SEAMS} pins"
    for i, pin in enumerate(pressing.pins):
        here = f"{place}.pins[{i}]"
        yield from _point_rules(pin.point, f"{here}.point")
        if not isinstance(pin.toward, str):
            yield from _point_rules(pin.toward, f"{here}.toward")
        elif pin.toward not in PINNED_TO:
            words = ", ".join(PINNED_TO)
            yield f"{here}.toward: {shown(pin.toward)} is no point and none of {words}"


def _weight_rules(pressing: Pressing) -> Iterator[str]:
    if pressing.school not in SCHOOLS:
        yield f"pressing.school: {shown(pressing.school)} is none of {', '.join(SCHOOLS)}"
    for name, points in pressing.weights.items():
        if name in WEIGHT_NAMES and not 0 <= points <= MOST_POINTS:
            yield f"pressing.weights.{name}: {_number(points)} must be from 0 to {MOST_POINTS}"


def _repeated(place: str, ids: list[str]) -> Iterator[str]:
    seen: set[str] = set()
    for i, name in enumerate(ids):
        if not name:
            yield f"{place}[{i}].id: an id is missing"
        if name in seen:
            yield f"{place}[{i}].id: {shown(name)} is used twice"
        seen.add(name)


def _quilt_rules(quilt: Quilt, fabrics: set[str], blocks: set[str]) -> Iterator[str]:
    words = {"setting": LAYOUTS, "turning": TURNINGS}
    for name, known in words.items():
        yield from _one_of(f"quilt.{name}", getattr(quilt, name), known)
    for name, number in (("columns", quilt.columns), ("rows", quilt.rows)):
        if number is not None and not 0 <= number <= MOST_PLACES:
            yield f"quilt.{name}: {shown(number)} must be from 0 to {MOST_PLACES}"
    for i, number in enumerate(quilt.row_lengths):
        if not 0 <= number <= MOST_PLACES:
            yield f"quilt.row_lengths[{i}]: {shown(number)} must be from 0 to {MOST_PLACES}"
    motifs = [motif.id for motif in quilt.motifs]
    yield from _repeated("quilt.motifs", motifs)
    for i, motif in enumerate(quilt.motifs):
        here = f"quilt.motifs[{i}]"
        if motif.id in blocks:
            yield f"{here}.id: a block has the id {shown(motif.id)}"
        for name in ("columns", "rows"):
            if not 1 <= getattr(motif, name) <= MOST_IN_MOTIF:
                yield f"{here}.{name}: must be from 1 to {MOST_IN_MOTIF}"
        yield from _one_of(f"{here}.turning", motif.turning, TURNINGS)
        yield from _known(f"{here}.block", motif.block, "block", blocks)
        yield from _place_rules(motif.places, here, fabrics, blocks, None)
    laid = blocks | set(motifs)
    yield from _known("quilt.block", quilt.block, "block", laid)
    ways = [way.id for way in quilt.colourways]
    yield from _repeated("quilt.colourways", ways)
    for i, way in enumerate(quilt.colourways):
        here = f"quilt.colourways[{i}]"
        yield from _known(f"{here}.block", way.block, "block", blocks)
        for cloth in (*way.cloths, *way.cloths.values()):
            yield from _known(f"{here}.cloths", cloth, "fabric", fabrics)
    if quilt.scatter is not None:
        for i, name in enumerate(quilt.scatter.colourways):
            yield from _known(f"quilt.scatter.colourways[{i}]", name, "colourway", set(ways))
    yield from _place_rules(quilt.places, "quilt", fabrics, laid, set(ways))
    yield from _round_rules(quilt, fabrics, laid)
    for name, number in quilt.done.items():
        if not 0 <= number <= 2 * MOST_PLACES**2:
            yield f"quilt.done.{name}: {shown(number)} must be 0 or more"
    for name, size in quilt.made.items():
        yield from _known("quilt.made", name, "block", laid)
        for length in size:
            yield from _within(length, 0, WIDEST_CLOTH, f"quilt.made.{name}")


MOST_IN_MOTIF = 50


def _place_rules(
    places: Sequence[QuiltPlace], where: str, fabrics: set[str], blocks: set[str],
    ways: set[str] | None,
) -> Iterator[str]:  # fmt: skip
    for i, place in enumerate(places):
        here = f"{where}.places[{i}]"
        for name, number in (("column", place.column), ("row", place.row)):
            if not 0 <= number < 2 * MOST_PLACES:
                yield f"{here}.{name}: {shown(number)} must be from 0 to {2 * MOST_PLACES - 1}"
        yield from _known(f"{here}.block", place.block, "block", blocks)
        yield from _known(f"{here}.fabric", place.fabric, "fabric", fabrics)
        if ways is not None:
            yield from _known(f"{here}.colourway", place.colourway, "colourway", ways)
        if place.turn not in (None, 0, 90, 180, 270):
            yield f"{here}.turn: {shown(place.turn)} is not 0, 90, 180 or 270"


def _round_rules(quilt: Quilt, fabrics: set[str], blocks: set[str]) -> Iterator[str]:
    """What lies between the blocks, round them and behind."""
    words = {"kind": BORDER_KINDS, "order": BORDER_ORDERS, "fit": FITS, "by": ALTERNATIONS,
             "cut": ("straight", "bias"), "seam": ("", "along", "across")}  # fmt: skip
    parts = {f"borders[{i}]": border for i, border in enumerate(quilt.borders)}
    for name in ("alternate", "sashing", "triangles", "binding", "backing", "batting"):
        parts[name] = getattr(quilt, name)
    for name, part in parts.items():
        for key in part.__struct_fields__ if part is not None else ():
            value, here = getattr(part, key), f"quilt.{name}.{key}"
            if key.endswith("fabric"):
                yield from _known(here, value, "fabric", fabrics)
            elif key == "block":
                yield from _known(here, value, "block", blocks)
            elif key in words:
                yield from _one_of(here, value, words[key])
            elif key in ("width", "down") and value is not None:
                yield from _within(value, 0, WIDEST_CLOTH, here)
            elif key == "measured":
                for length in value or ():
                    yield from _within(length, 0, 10 * WIDEST_CLOTH, here)
            elif key in ("overage", "float_by") and value is not None:
                named = here.removesuffix("_by")
                if not 0 <= value <= WIDEST_CLOTH:
                    yield f"{named}: {_number(value)} must be from 0 to {WIDEST_CLOTH}"
    for i, lines in enumerate(quilt.quilting):
        here = f"quilt.quilting[{i}]"
        yield from _one_of(f"{here}.kind", lines.kind, QUILTING_KINDS)
        yield from _known(f"{here}.fabric", lines.fabric, "fabric", fabrics)
        if lines.distance is not None:
            yield from _within(lines.distance, 0, WIDEST_CLOTH, f"{here}.distance")
        if not 1 <= lines.repeats <= MOST_ECHOES:
            yield f"{here}.repeats: {shown(lines.repeats)} must be from 1 to {MOST_ECHOES}"
    yield from _known("quilt.filler", quilt.filler, "fabric", fabrics)


def _one_of(place: str, value: str, known: Sequence[str]) -> Iterator[str]:
    if value not in known:
        words = " or ".join(f'"{word}"' for word in known if word)
        yield f"{place}: {shown(value)} is not {words}"


def _known(place: str, wanted: str, what: str, ids: set[str]) -> Iterator[str]:
    if wanted and wanted not in ids:
        yield f"{place}: no {what} has the id {shown(wanted)}"
