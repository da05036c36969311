"""The drawing put into words: what is wrong with a draft and where."""

from __future__ import annotations

from collections.abc import Iterator

from inlet.core.cancellation import check
from inlet.core.draft.patches import Draft
from inlet.core.draft.regrid import has_square_unit
from inlet.core.draft.snapping import nearest_edge
from inlet.core.draft.value import lost_edges, shape_name
from inlet.core.geometry import Circle, Curve, Point, inside_point, outline_width
from inlet.core.numbers import Fraction
from inlet.core.problem import Level, Problem
from inlet.core.project import Measure, Project
from inlet.core.words import fabric_name, length_text, place_text, size_text, unit_of

_FAULTS: dict[str, tuple[Level, str, str]] = {
    "outside": ("error", "seam-outside", "A seam runs outside the block to {place}."),
    "duplicate": (
        "warning",
        "seam-duplicate",
        "A seam lies on another seam or on the block's edge at {place}.",
    ),
    "stops": ("error", "seam-stops", "A seam stops inside a patch at {place}."),
    "island": (
        "error",
        "seam-island",
        "The shape at {place} touches no other seam: the patch around it would need a hole.",
    ),
    "unclear": (
        "error",
        "seam-unclear",
        "The seam at {place} comes so near to another that no patch can be told between them: "
        "move it, or let them meet.",
    ),
}
SLIVER = 1e-5
"""Narrower than this, in inches or centimetres, a patch is no more than a slip of the drawing."""


def drawing_problems(draft: Draft, project: Project) -> Iterator[Problem]:
    """Every fault of the drawing itself: seams, then fabric, then what is small or hard to see."""
    measure = project.measure
    yield from _faults(draft, measure)
    yield from _curves(draft, measure)
    yield from _fabric(draft)
    yield from _small(draft, measure)
    yield from _values(draft, project)


def _faults(draft: Draft, measure: Measure) -> Iterator[Problem]:
    for fault in draft.arrangement.faults:
        level, code, text = _FAULTS[fault.kind]
        place = place_text(fault.point)
        gap = _gap(draft, fault.point) if fault.kind == "stops" else None
        if gap is not None and gap < float(measure.system.nearly):
            yield Problem(
                level,
                "seam-nearly-meets",
                (fault.point,),
                f"A seam nearly meets another at {place}: {gap:.2f} {unit_of(measure)} apart.",
            )
        else:
            yield Problem(level, code, (fault.point,), text.format(place=place))


def _gap(draft: Draft, end: Point) -> float:
    """How far the loose end of a seam is from any other, or from where its own crossed one, at
    finished size."""
    return nearest_edge(draft, range(len(draft.arrangement.edges)), end.floats())[1]


def _curves(draft: Draft, measure: Measure) -> Iterator[Problem]:
    block = draft.block
    if not block.curves:
        return
    curved = [
        (edge, on)
        for edge in draft.arrangement.edges
        if isinstance(on := draft.arrangement.lines[edge.line], Circle)
    ]
    if not curved:
        return
    first = _middle(draft.arrangement.curve(curved[0][0]))
    if not has_square_unit(block):
        yield Problem(
            "error",
            "curve-not-round",
            (first,),
            f"At {size_text(block.finished, measure)} the curve at {_about(first)} is not "
            "round: give the block a size in proportion to its bands.",
        )
        return
    tightest = measure.system.tightest_curve
    seen: set[Circle] = set()
    for edge, on in curved:
        radius = float(on.squared) ** 0.5 * float(block.scale[0])
        if radius < float(tightest) - 1e-9 and on not in seen:
            seen.add(on)
            at = _middle(draft.arrangement.curve(edge))
            yield Problem(
                "warning",
                "curve-tight",
                (at,),
                f"The curve at {_about(at)} is tight: its radius is {radius:.2f} "
                f"{unit_of(measure)}, less than {length_text(tightest, measure)}.",
            )


def _middle(curve: Curve) -> Point:
    """A place on a curve to point at, not to measure from."""
    if curve.centre is None:
        return curve.start
    (cx, cy), (px, py), (qx, qy) = (p.floats() for p in (curve.centre, *curve.ends))
    x, y = (px + qx) / 2 - cx, (py + qy) / 2 - cy
    k = ((px - cx) ** 2 + (py - cy) ** 2) ** 0.5 / (x * x + y * y) ** 0.5
    return Point(
        Fraction(round((cx + x * k) * 64), 64),
        Fraction(round((cy + y * k) * 64), 64),
    )


def _about(at: Point) -> str:
    """The place of a curve, to the nearest quarter of a grid unit."""
    x, y = (Fraction(round(float(c) * 4), 4) for c in at)
    return f"about {place_text(Point(x, y))}"


def _fabric(draft: Draft) -> Iterator[Problem]:
    for spot, home in zip(draft.block.fabric_at, draft.homes, strict=True):
        if home is not None:
            continue
        point = Point(*spot.point)
        yield Problem(
            "warning",
            "fabric-on-seam",
            (point,),
            f"The fabric given at {place_text(point)} lies in no patch (on a seam or outside).",
        )
    for patch in draft.patches:
        if patch.fabric is None:
            at = inside_point(draft.arrangement.outlines[patch.face])
            yield Problem(
                "error",
                "patch-without-fabric",
                (at,),
                f"The patch at {place_text(at)} has no fabric yet.",
            )


def _small(draft: Draft, measure: Measure) -> Iterator[Problem]:
    """Slivers, narrower than a seam allowance, each; patches that are merely small, together."""
    small: list[tuple[float, Point]] = []
    for patch in draft.patches:
        check()
        width = outline_width(patch.shape)
        if width >= float(measure.system.smallest_patch) - 1e-9:
            continue
        at = inside_point(draft.arrangement.outlines[patch.face])
        if width >= float(measure.seam) - 1e-9:
            small.append((width, at))
            continue
        if width < SLIVER:
            yield Problem(
                "error",
                "sliver",
                (at,),
                f"The patch at {place_text(at)} is narrower than a hair: it cannot be sewn.",
            )
            continue
        yield Problem(
            "warning",
            "sliver",
            (at,),
            f"The patch at {place_text(at)} is a sliver: {width:.2f} {unit_of(measure)} "
            f"finished at its narrowest, less than the {length_text(measure.seam, measure)} seam.",
        )
    if small:
        width, at = min(small, key=lambda found: found[0])
        least = length_text(measure.system.smallest_patch, measure)
        more = f", and {len(small) - 1} more like it" if len(small) > 1 else ""
        yield Problem(
            "warning",
            "patch-small",
            tuple(place for _, place in small),
            f"The patch at {place_text(at)}{more}: {width:.2f} {unit_of(measure)} finished at "
            f"its narrowest, under {least}, is hard to sew.",
        )


def _values(draft: Draft, project: Project) -> Iterator[Problem]:
    """One problem for each two fabrics that cannot be told apart, at every seam between them."""
    values: dict[tuple[str, str], list[tuple[Point, str]]] = {}
    for lost in lost_edges(draft, project):
        low, high = sorted((lost.patch.fabric or "", lost.beside.fabric or ""))
        values.setdefault((low, high), []).append((lost.at, shape_name(lost.patch)))
    for (one, other), places in values.items():
        at, shape = places[0]
        more = f" and {len(places) - 1} more such seams do" if len(places) > 1 else " does"
        yield Problem(
            "warning",
            "value-near",
            tuple(place for place, _ in places),
            f"{fabric_name(project, one)} and {fabric_name(project, other)} are close in value. "
            f"The {shape} at {place_text(at)}{more} not show.",
        )
