"""What the project file's format forbids and the table of limits cannot say (docs/file-format.md):
what must be there together, what names something that is not there, products of what it says.

Each function yields sentences that begin with a place in the file; the first one refuses it.
"""

from __future__ import annotations

import base64
import re
from collections.abc import Iterator, Sequence
from typing import Any

from inlet.core.geometry import Point, arc_fault
from inlet.core.layout import fits
from inlet.core.numbers import NumberError, System, write_exact
from inlet.core.planning import parse_stock
from inlet.core.project import (
    LARGEST_BLOCK_INCHES,
    MOST_LAID,
    MOST_LAID_PIECES,
    MOST_OWNED,
    MOST_STEPS,
    Block,
    Choice,
    Cutting,
    Fabric,
    Have,
    Improvised,
    LaidFabric,
    LogEntry,
    MadeFrom,
    Panel,
    Project,
    Quilt,
    QuiltPlace,
    Seam,
)
from inlet.core.setting import MOST_BLOCKS, most_blocks
from inlet.files.problem import shown
from inlet.files.project.limits import (
    ENTRIES,
    LEAST,
    LIMITS,
    MOST_DRAWINGS,
    Items,
    limit_faults,
    number_text,
)


def broken_rules(
    project: Project,
    known_project: Project | None = None,
    known_log: tuple[LogEntry, ...] = (),
) -> Iterator[str]:
    """What the format forbids in a project. Parts that are the very ones of ``known_project``, or
    of ``known_log``, which keep the rules, are not looked at again."""
    same = _same_parts(project, known_project)
    for name in project.__struct_fields__:
        if name not in same and name not in ("blocks", "log", "extra"):
            limits = LIMITS.get((Project, name), ())
            yield from limit_faults(getattr(project, name), name, limits)
    yield from log_rules(project.log, known_project.log if known_project else known_log)
    seam_test = project.seam_test
    if seam_test is not None and not seam_test.middle < seam_test.strip:
        yield "needle: the middle strip must be narrower than it was cut, and above 0"
    yield from _repeated("fabrics", [f.id for f in project.fabrics])
    for i, fabric in enumerate(project.fabrics):
        if "fabrics" not in same:
            yield from _fabric_rules(fabric, f"fabrics[{i}]")
    seen = (
        {id(block) for block in known_project.blocks}
        if known_project is not None and same >= REFERRED
        else ()
    )
    most = Items(MOST_DRAWINGS, "blocks").fault(len(project.blocks))
    if most:
        yield f"blocks: {most}"
    yield from _repeated("blocks", [b.id for b in project.blocks])
    fabrics, blocks = {f.id for f in project.fabrics}, {b.id for b in project.blocks}
    for i, block in enumerate(project.blocks):
        if id(block) not in seen:
            yield from _block_rules(block, f"blocks[{i}]", project, fabrics)
        if block.made_from is not None:
            yield from _made_from_rules(block.made_from, f"blocks[{i}].made_from", project)
    ids = (
        known_project is not None
        and blocks == {b.id for b in known_project.blocks}
        and "fabrics" in same
    )
    if project.cutting is not None and not (ids and "cutting" in same):
        yield from _cutting_rules(project.cutting, fabrics, blocks)
    if project.quilt is not None and not (ids and "quilt" in same):
        yield from _quilt_rules(project.quilt, fabrics, blocks)


REFERRED = {"measure", "fabrics"}
"""The parts of a project that the rules of a block ask about."""


def _same_parts(project: Project, known_project: Project | None) -> set[str]:
    """The names of the parts two projects share."""
    if known_project is None:
        return set()
    names = project.__struct_fields__
    return {name for name in names if getattr(project, name) is getattr(known_project, name)}


def log_rules(log: tuple[LogEntry, ...], known_log: tuple[LogEntry, ...]) -> Iterator[str]:
    """What the format forbids in a log; entries of ``known_log`` are not looked at again."""
    too_many = ENTRIES.fault(len(log))
    if too_many:
        yield f"log: {too_many}"
    known = {id(entry) for entry in known_log}
    for i, entry in enumerate(log):
        if id(entry) not in known:
            yield from limit_faults(entry, f"log[{i}]")


def block_rules(block: Block, project: Project) -> Iterator[str]:
    """What the format forbids in one block of a project; each begins with the place in it."""
    fabrics = {f.id for f in project.fabrics}
    return (rule.removeprefix(".") for rule in _block_rules(block, "", project, fabrics))


def _fabric_rules(fabric: Fabric, place: str) -> Iterator[str]:
    if not re.fullmatch(r"#[0-9a-fA-F]{6}", fabric.colour):
        yield f"{place}.colour: {shown(fabric.colour)} is not a colour like #d9dcd6"
    if fabric.print is not None:
        yield from _image_rules(fabric.print.image, f"{place}.print.image")
    for i, have in enumerate(fabric.have):
        yield from _have_rules(have, f"{place}.have[{i}]")
    owned = sum(have.count for have in fabric.have)
    if owned > MOST_OWNED:
        yield f"{place}.have: {owned} pieces of fabric in all; {MOST_OWNED} are the most"


def _have_rules(have: Have, place: str) -> Iterator[str]:
    needed = {"strips": "width", "squares": "width", "bolt": "length", "scrap": "length",
              "panel": "length"}.get(have.kind)  # fmt: skip
    if needed and getattr(have, needed) is None:
        yield f"{place}.{needed}: missing; {have.kind} needs it"
    if have.width is not None and have.width - 2 * have.selvage < LEAST:
        yield f"{place}.selvage: {number_text(have.selvage)} leaves no fabric between the selvages"


def _cutting_rules(cutting: Cutting, fabrics: set[str], blocks: set[str]) -> Iterator[str]:
    pieces = 0
    for i, begun in enumerate(cutting.begun):
        place = f"cutting.begun[{i}]"
        yield from _known(f"{place}.fabric", begun.fabric, "fabric", fabrics)
        yield from _known(f"{place}.block", begun.block, "block", blocks)
        pieces += pieces_laid(begun.laid)
        if pieces > MOST_LAID_PIECES:
            yield f"{place}.fabric: {pieces} pieces lie there; {MOST_LAID_PIECES} are the most"
        yield from _laid_rules(begun.laid, f"{place}.cloth")


def pieces_laid(laid: LaidFabric) -> int:
    """How many pieces lie on laid fabric, counted without looking at each."""
    return laid.count * sum(
        strip.count * segment.count * row_pieces.count * row_pieces.holds
        for strip in laid.strips
        for segment in strip.segments
        for row in segment.rows
        for row_pieces in row.pieces
    )


def _laid_rules(laid: LaidFabric, place: str) -> Iterator[str]:
    """Fabric laid out must lie on its fabric: what is cut from it is drawn and counted."""
    strips = sum(strip.count for strip in laid.strips)
    if strips > MOST_LAID:
        yield f"{place}.strips: {strips} strips in all; {MOST_LAID} are the most"
    elif not fits(laid):
        yield f"{place}: its pieces do not lie on it"


def _image_rules(image: str, place: str) -> Iterator[str]:
    try:
        base64.b64decode(image, validate=True)
    except ValueError:
        yield f"{place}: not a picture (base64 of a PNG or JPEG file)"


def _block_rules(block: Block, place: str, project: Project, fabrics: set[str]) -> Iterator[str]:
    yield from limit_faults(block, place)
    largest = project.measure.from_inches(LARGEST_BLOCK_INCHES)
    for i, size in enumerate(block.finished):
        if size > largest:
            yield (
                f"{place}.finished[{i}]: {number_text(size)} is larger than a block can be "
                f"({write_exact(largest)})"
            )
    for i, seam in enumerate(block.seams):
        yield from _seam_rules(seam, f"{place}.seams[{i}]")
    for i, choice in enumerate(block.units):
        yield from _choice_rules(choice, f"{place}.units[{i}]", project.measure.system)
    ways = {"made_from": block.made_from, "improvised": block.improvised, "panel": block.panel}
    begun = [name for name, how in ways.items() if how is not None]
    if len(begun) > 1:
        yield f"{place}.{begun[1]}: the block has {begun[0]} already"
    if block.improvised is not None:
        yield from _corner_rules(block.improvised, f"{place}.improvised", fabrics)
    if block.panel is not None:
        yield from _panel_rules(block.panel, f"{place}.panel", fabrics)
    for i, spot in enumerate(block.fabric_at):
        if spot.fabric not in fabrics:
            yield f"{place}.fabric_at[{i}].fabric: no fabric has the id {shown(spot.fabric)}"


def _corner_rules(improvised: Improvised, place: str, fabrics: set[str]) -> Iterator[str]:
    for i, name in enumerate(improvised.fabrics):
        if name not in fabrics:
            yield f"{place}.fabrics[{i}]: no fabric has the id {shown(name)}"
    if improvised.farthest < improvised.nearest:
        yield f"{place}.farthest: it lies nearer to the corner than the nearest"
    if improvised.farthest - improvised.nearest > MOST_STEPS * improvised.step:
        yield f"{place}.step: more than {MOST_STEPS} steps lie between nearest and farthest"
    if improvised.most < improvised.fewest:
        yield f"{place}.most: fewer corners than the fewest"


def _panel_rules(panel: Panel, place: str, fabrics: set[str]) -> Iterator[str]:
    yield from _known(f"{place}.fabric", panel.fabric, "fabric", fabrics)
    if not panel.fabric:
        yield f"{place}.fabric: a fabric is missing"
    yield from _known(f"{place}.added", panel.added, "fabric", fabrics)
    for start, motif, piece, way in (
        (panel.left, panel.motif[0], panel.piece[0], "wide"),
        (panel.top, panel.motif[1], panel.piece[1], "high"),
    ):
        if start + motif > piece:
            yield f"{place}.motif: it reaches past the piece, which is {number_text(piece)} {way}"
    if panel.photo is not None:
        yield from _image_rules(panel.photo.image, f"{place}.photo.image")
        if panel.photo.points[0] == panel.photo.points[1]:
            yield f"{place}.photo.points: both are the same place"


def _made_from_rules(made_from: MadeFrom, place: str, project: Project) -> Iterator[str]:
    blocks = {block.id for block in project.blocks}
    ways = {way.id for way in project.quilt.colourways} if project.quilt is not None else set()
    for i, start in enumerate(made_from.starts):
        yield from _known(f"{place}.starts[{i}].block", start.block, "block", blocks)
        yield from _known(f"{place}.starts[{i}].colourway", start.colourway, "colourway", ways)


def _seam_rules(seam: Seam, place: str) -> Iterator[str]:
    if (seam.line is None) == (seam.arc is None):
        yield f'{place}: a seam is either a "line" or an "arc"'
        return
    arc = seam.arc
    if arc is not None:
        fault = arc_fault(Point(*arc.start), Point(*arc.end), Point(*arc.centre))
        if fault:
            yield f"{place}.arc: {fault}"
    elif seam.ends[0] == seam.ends[1]:
        yield f"{place}.line: both ends are the same point"


def _choice_rules(choice: Choice, place: str, system: System) -> Iterator[str]:
    try:
        parse_stock(choice.stock, system)
    except NumberError as why:
        yield f"{place}.stock: {why}"


def _repeated(place: str, ids: Sequence[str]) -> Iterator[str]:
    seen: set[str] = set()
    for i, name in enumerate(ids):
        if not name:
            yield f"{place}[{i}].id: an id is missing"
        if name in seen:
            yield f"{place}[{i}].id: {shown(name)} is used twice"
        seen.add(name)


def _quilt_rules(quilt: Quilt, fabrics: set[str], blocks: set[str]) -> Iterator[str]:
    motifs = [motif.id for motif in quilt.motifs]
    yield from _repeated("quilt.motifs", motifs)
    for i, motif in enumerate(quilt.motifs):
        here = f"quilt.motifs[{i}]"
        if motif.id in blocks:
            yield f"{here}.id: a block has the id {shown(motif.id)}"
        yield from _known(f"{here}.block", motif.block, "block", blocks)
        yield from _place_rules(motif.places, here, fabrics, blocks, None)
    laid = blocks | set(motifs)
    yield from _known("quilt.block", quilt.block, "block", laid)
    many = most_blocks(quilt)
    if many > MOST_BLOCKS:
        yield f"quilt: its motifs come to {many} blocks; {MOST_BLOCKS} are the most"
    ways = [way.id for way in quilt.colourways]
    yield from _repeated("quilt.colourways", ways)
    for i, way in enumerate(quilt.colourways):
        here = f"quilt.colourways[{i}]"
        yield from _known(f"{here}.block", way.block, "block", blocks)
        for fabric in (*way.fabrics, *way.fabrics.values()):
            yield from _known(f"{here}.cloths", fabric, "fabric", fabrics)
    if quilt.scatter is not None:
        for i, name in enumerate(quilt.scatter.colourways):
            yield from _known(f"quilt.scatter.colourways[{i}]", name, "colourway", set(ways))
    yield from _place_rules(quilt.places, "quilt", fabrics, laid, set(ways))
    yield from _round_rules(quilt, fabrics, laid)
    for name in quilt.made:
        yield from _known("quilt.made", name, "block", laid)


def _place_rules(
    places: Sequence[QuiltPlace], where: str, fabrics: set[str], blocks: set[str],
    ways: set[str] | None,
) -> Iterator[str]:  # fmt: skip
    for i, place in enumerate(places):
        here = f"{where}.places[{i}]"
        yield from _known(f"{here}.block", place.block, "block", blocks)
        yield from _known(f"{here}.fabric", place.fabric, "fabric", fabrics)
        if ways is not None:
            yield from _known(f"{here}.colourway", place.colourway, "colourway", ways)


def _round_rules(quilt: Quilt, fabrics: set[str], blocks: set[str]) -> Iterator[str]:
    """What lies between the blocks, round them and behind names what is there."""
    parts: dict[str, Any] = {f"borders[{i}]": border for i, border in enumerate(quilt.borders)}
    parts |= {f"quilting[{i}]": lines for i, lines in enumerate(quilt.quilting)}
    for name in ("alternate", "sashing", "triangles", "binding", "backing", "batting"):
        parts[name] = getattr(quilt, name)
    for name, part in parts.items():
        for key in part.__struct_fields__ if part is not None else ():
            here = f"quilt.{name}.{key}"
            if key.endswith("fabric"):
                yield from _known(here, getattr(part, key), "fabric", fabrics)
            elif key == "block":
                yield from _known(here, getattr(part, key), "block", blocks)
    yield from _known("quilt.filler", quilt.filler, "fabric", fabrics)


def _known(place: str, wanted: str, what: str, ids: set[str]) -> Iterator[str]:
    if wanted and wanted not in ids:
        yield f"{place}: no {what} has the id {shown(wanted)}"
