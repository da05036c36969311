"""What goes round a quilt and behind it, as steps: strips joined, borders, backing, binding."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Sequence

from inlet.core.plan.quilt_step import BACKING, BINDING, QuiltStep, near_length
from inlet.core.project import Measure, Project, Quilt
from inlet.core.setting import (
    JOIN,
    MITRE_SPARE,
    BackingWay,
    Band,
    BandPiece,
    BindingPlan,
    Top,
    border_strips,
)
from inlet.core.words import fabric_name, length_text, near_text, size_text

MOST_LISTED = 8
"""Strips cut from a band that are named one by one."""


def band_title(band: Band) -> str:
    """What the step that joins its strips is called, and is ``of``."""
    return f"Join strips: {band.label}"


def band_step(band: Band, project: Project) -> QuiltStep:
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
    return f"cut off {near_length(piece.off, measure)}, then " if piece.off else ""


def _joins_text(piece: BandPiece, measure: Measure) -> str:
    """Where the joins of a strip lie."""
    if not piece.joins:
        return "no join"
    at = " and ".join(near_length(join, measure) for join in piece.joins)
    return f"join at {at}" if len(piece.joins) == 1 else f"joins at {at}"


def _lengths_text(band: Band, measure: Measure) -> str:
    """``2 × 72 1/2 in, 2 × 62 1/2 in``."""
    lengths = Counter(piece.length for piece in band.pieces)
    return ", ".join(
        f"{number} × {length_text(length, measure)}" for length, number in lengths.items()
    )


def border_steps(top: Top, project: Project, bands: Sequence[Band]) -> Iterator[QuiltStep]:
    quilt, measure = project.quilt or Quilt(), project.measure
    lengths = {strip.name: strip for strip in border_strips(top, quilt, measure)}
    for each in top.borders:
        number = int(each.label.split(",")[0].split()[-1])
        border = quilt.borders[number - 1]
        for band in bands:
            if band.label == each.label.split(",")[0] and not each.label.endswith("spacer"):
                yield band_step(band, project)
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


def backing_step(way: BackingWay, project: Project) -> QuiltStep:
    measure = project.measure
    quilt = project.quilt or Quilt()
    fabric = fabric_name(project, (quilt.backing.fabric if quilt.backing else "") or None)
    if way.widths == 1:
        how = f"Cut one piece {near_length(way.panel, measure)} long off {fabric}."
    else:
        run = "down" if way.seam == "along" else "across"
        seam = near_length(measure.from_inches(JOIN), measure)
        how = (
            f"Cut {way.widths} widths of {fabric}, each {near_length(way.panel, measure)} long; "
            f"cut off the selvages, join them with seams of {seam}, running {run} the quilt, and "
            "press them open."
        )
    return QuiltStep("Backing and batting", how, near_text(way.size, measure), BACKING)


def binding_step(plan: BindingPlan, project: Project) -> QuiltStep:
    measure = project.measure
    width = length_text(plan.width, measure)
    fabric = fabric_name(project, plan.fabric or None)
    if plan.square is not None:
        rounds = "1 round gives" if plan.rounds == 1 else f"{plan.rounds} rounds give"
        how = (
            f"Cut a square of {fabric}, {length_text(plan.square, measure)}, on the diagonal, sew "
            f"it into a tube, the edges one strip's width out of step, and cut one continuous "
            f"strip {width} wide: {rounds} {near_length(plan.strip, measure)}."
        )
    else:
        how = (
            f"Cut {plan.strips} strips of {fabric} {width} wide across the fabric, join them with "
            "diagonal seams, press it in half along its length and sew it on, turning each corner."
        )
    return QuiltStep(BINDING, how, f"{near_length(plan.length, measure)} long")
