"""Templates for cutting machines: SVG and DXF with cut and sew lines and marks on layers of their
own, in real units, arcs as arcs."""

from __future__ import annotations

import os
from collections.abc import Iterator, Sequence
from io import StringIO
from math import atan2, degrees
from pathlib import Path

from ezdxf import units as dxf_units
from ezdxf.filemanagement import new

from inlet.core.project import Measure
from inlet.core.templates import Place, Side, Template, bounds_of
from inlet.files.drawings.markup import INKS, add, drawing, markup
from inlet.files.whole import export_whole

LAYERS = {"CUT": 1, "SEW": 5, "MARK": 3}
"""Layers with their DXF colours."""
APART = 0.5
"""Inches between two templates."""


def _side_by_side(
    templates: Sequence[Template], measure: Measure
) -> Iterator[tuple[Template, Place]]:
    """Each template with how far it is moved, so that none lies on another."""
    x = 0.0
    gap = APART * float(measure.system.per_inch)
    for template in templates:
        left, top, right, _ = bounds_of(template.cut)
        yield template, (x - left, -top)
        x += right - left + gap


def write_svg(
    templates: Sequence[Template], measure: Measure, path: str | os.PathLike[str]
) -> None:
    """Templates as SVG, a user unit an inch or a centimetre; a group a layer."""
    placed = list(_side_by_side(templates, measure))
    wide = max((bounds_of(t.cut)[2] + by[0] for t, by in placed), default=1.0)
    high = max((bounds_of(t.cut)[3] + by[1] for t, by in placed), default=1.0)
    look = {"fill": "none", "stroke-width": f"{wide / 2000:.4g}"}
    root = drawing((wide, high), measure, **look)
    for layer, colour in (("cut", INKS["accent"]), ("sew", INKS["ink"]), ("mark", INKS["soft"])):
        group = add(root, "g", {"id": layer, "stroke": colour})
        for template, by in placed:
            if layer == "mark":
                for a, b in (*template.marks, template.grain):
                    add(group, "path", {"d": f"M{_at(a, by)}L{_at(b, by)}"})
                continue
            sides = template.cut if layer == "cut" else template.sew
            add(group, "path", {"id": f"{template.label}-{layer}", "d": _path(sides, by)})
    export_whole(Path(path), markup(root).encode("utf-8"))


def _at(p: Place, by: Place) -> str:
    return f"{p[0] + by[0]:.9f} {p[1] + by[1]:.9f}"


def _path(sides: Sequence[Side], by: Place) -> str:
    parts = [f"M{_at(sides[0].start, by)}"]
    for side in sides:
        if side.centre is None:
            parts.append(f"L{_at(side.end, by)}")
        else:
            r = side.radius
            parts.append(f"A{r:.9f} {r:.9f} 0 0 {int(side.clockwise)} {_at(side.end, by)}")
    return "".join([*parts, "Z"])


def write_dxf(
    templates: Sequence[Template], measure: Measure, path: str | os.PathLike[str]
) -> None:
    """Templates as DXF in inches or centimetres, y upward as machines have it."""
    inches = measure.system.unit == "in"
    drawing = new("R2010", units=dxf_units.IN if inches else dxf_units.CM)
    for layer, colour in LAYERS.items():
        drawing.layers.add(layer, color=colour)
    space = drawing.modelspace()
    for template, (dx, dy) in _side_by_side(templates, measure):

        def to(p: Place, dx: float = dx, dy: float = dy) -> Place:
            return p[0] + dx, -(p[1] + dy)

        for layer, sides in (("CUT", template.cut), ("SEW", template.sew)):
            for side in sides:
                if side.centre is None:
                    space.add_line(to(side.start), to(side.end), dxfattribs={"layer": layer})
                    continue
                centre = to(side.centre)
                ends = [to(side.end), to(side.start)] if side.clockwise else [
                    to(side.start), to(side.end)
                ]  # fmt: skip
                first, last = (
                    degrees(atan2(p[1] - centre[1], p[0] - centre[0])) for p in ends
                )  # counter-clockwise from the first to the last
                space.add_arc(centre, side.radius, first, last, dxfattribs={"layer": layer})
        for a, b in (*template.marks, template.grain):
            space.add_line(to(a), to(b), dxfattribs={"layer": "MARK"})
        height = 0.15 * float(measure.system.per_inch)
        space.add_text(template.label, height=height, dxfattribs={"layer": "MARK"}).set_placement(
            to(template.grain[0])
        )
    text = StringIO()
    drawing.write(text)
    export_whole(Path(path), text.getvalue().encode("utf-8"))
