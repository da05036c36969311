"""Improvised corners in a plan: the squares, the scraps that are cut for them, the step that sews
them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from math import ceil, isqrt

from inlet.core.cutlist import Cut
from inlet.core.geometry import Point, flip
from inlet.core.improvised import (
    CornerSeam,
    ImprovisedSquare,
    ScrapPool,
    corner_choice,
    ends_of,
    field_of,
    least_scrap,
    line_of,
    raw_size,
    scrap_over,
    scrap_pool,
    scrap_strips,
    weight_text,
)
from inlet.core.numbers import Fraction, floor_exact
from inlet.core.piecing import Step
from inlet.core.plan.prepared import PreparedBlock
from inlet.core.plan.sliced import called
from inlet.core.project import Block, Project
from inlet.core.remake import Wanted
from inlet.core.table import DrawnLine, Move, rectangle_sheet
from inlet.core.words import length_text

SCRAP = "Scrap"
TWICE_BEHIND = 2
"""Layers that an offcut left behind adds where two squares meet at a corner."""


def corner_name(name: str = "") -> str:
    """What a corner is called in the steps; ``name`` is its block's, where several are sewn."""
    return f"corner of {name}" if name else "corner"


def corner_step_name(project: Project, block: Block) -> str:
    """The name of the quilt's step that sews the corners of a block, as its progress is kept."""
    return f"Sew {corner_name(called(project, Wanted(block, '', 0)))}"


def squares_for(project: Project, block: Block, number: int) -> tuple[ImprovisedSquare, ...]:
    """``number`` squares of a block, as they lie in a field about as wide as it is high; none of a
    block without improvised corners."""
    choice = corner_choice(block, project)
    if choice is None or not choice.possible:
        return ()
    columns = max(1, isqrt(number))
    return choice.squares(tuple(field_of(columns, ceil(number / columns)))[:number])


def scrap_cuts(
    project: Project, block: Block, squares: Sequence[ImprovisedSquare], first: int = 1
) -> Iterator[Cut]:
    """The strips for the corners of squares in the cut list, numbered from ``first`` on; none where
    scraps come out of a basket."""
    if block.improvised is None or block.improvised.scraps == "basket":
        return
    pool = scrap_pool(squares, project.measure)
    mark = project.measure.mark

    def usable(fabric: str) -> Fraction:
        return floor_exact(project.usable_width(fabric) / mark) * mark

    for i, (fabric, width, length, number) in enumerate(scrap_strips(pool, usable), first):
        label = f"{SCRAP} {i}"
        yield Cut(fabric, "strip", (width, length), "none", number, (label,), label=label)


def corner_steps(
    plan: PreparedBlock, squares: Sequence[ImprovisedSquare], name: str = ""
) -> list[Step]:
    """The step, without its number, that sews the corners of ``squares``; none where there are
    none. ``name`` is the block's, where several are sewn."""
    block, measure = plan.block, plan.measure
    pool = scrap_pool(squares, measure)
    if block.improvised is None or not pool.corners:
        return []
    first = next(square for square in squares if square.seams)
    square = plan.units[0].unit.label if plan.units else "the square"
    behind = (
        f"Trim what lies behind to {length_text(measure.seam, measure)} beyond the seam."
        if block.improvised.offcuts == "trimmed"
        else "Leave what lies behind as it is."
    )
    return [
        Step(
            0,
            corner_name(name),
            pool.corners,
            f"Lay a scrap over a corner of {square}, right sides together, its edge "
            f"{length_text(measure.seam, measure)} beyond where the seam is to lie; sew; flip it "
            f"over the corner and press. {behind} Trim the scrap level with the square: turn the "
            "square over and cut along its edges.",
            plan.made.of(plan.root, plan.unfinished),
            (),
            plan.root,
            None,
            notes=tuple(_notes(plan, pool)),
            needs=(square, "scraps"),
            seams=1,
            length=pool.length / pool.corners,
            moves=tuple(_moves(first, plan)),
        )
    ]


def _notes(plan: PreparedBlock, pool: ScrapPool) -> Iterator[str]:
    """What to watch for: the way corners vary, what a scrap must cover, weight."""
    block, measure = plan.block, plan.measure
    assert block.improvised is not None, "only improvised corners have notes"
    yield (
        "Every corner at another angle: none like those of the squares beside it. Fold the scrap "
        "over before you sew: it must reach past both edges of the corner."
    )
    yield "A strip does corner after corner: sew its end, cut it off, go on with the rest."
    weight = weight_text(pool.behind, measure)
    if block.improvised.offcuts == "left":
        yield (
            f"The offcuts left behind weigh {weight} in all, and seams have {TWICE_BEHIND} layers "
            "more where two corners meet."
        )
    else:
        yield f"The offcuts come to {weight}: large ones make scraps again."


def _moves(square: ImprovisedSquare, plan: PreparedBlock) -> Iterator[Move]:
    """How the first corner is sewn, on the raw square."""
    measure = plan.measure
    seam, fabric = square.seams[0], square.fabrics[0]
    wide, high = raw_size(plan.block.finished, measure)
    ground = rectangle_sheet(wide, high, plan.draft.patches[0].fabric)
    scrap = scrap_over(seam, (wide, high), least_scrap(seam, measure), measure.seam)
    line = line_of(seam, (wide, high))
    _, start, end = ends_of(seam, (wide, high))
    sewn = DrawnLine("seam", start, end)
    yield Move("sew", "Lay the scrap over the corner and sew {seam} from its edge.",
               ground, ((scrap, fabric),), (sewn,))  # fmt: skip
    flipped = (flip(scrap, line), fabric)
    yield Move("open", "Flip the scrap over the corner and press.", (*ground, flipped))
    corners = (Point(wide * 0, high * 0), Point(wide, high * 0), Point(wide, high),
               Point(wide * 0, high))  # fmt: skip
    edges = tuple(
        DrawnLine("cut", corners[i], corners[(i + 1) % 4]) for i in _edges_at(seam)
    )  # fmt: skip
    yield Move("trim", "Trim the scrap level with the square.", (*ground, flipped), (), edges)


def _edges_at(seam: CornerSeam) -> tuple[int, int]:
    """The edges of a square that meet at a seam's corner, counted clockwise from the top one."""
    return (seam.corner - 1) % 4, seam.corner
