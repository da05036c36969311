"""The whole top: rows, borders, and what cannot be laid out as it was asked for."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.geometry import Point
from inlet.core.numbers import Exact, Fraction
from inlet.core.planning import cut_to_meet
from inlet.core.problem import Problem
from inlet.core.project import Measure, Motif, Pair, Project, Quilt
from inlet.core.setting.block_sizes import (
    OTHER_SIZE,
    AsCut,
    PlaceSizes,
    SewnSize,
    Sizes,
    as_lying,
    block_sizes,
)
from inlet.core.setting.borders import MOST_UNITS, grown, rounds, units_of
from inlet.core.setting.colourways import in_colourway
from inlet.core.setting.on_point import on_point_rows
from inlet.core.setting.pieces import Lying, Round, Row, TopPiece
from inlet.core.setting.places import (
    MOST_LAID_OUT,
    Placed,
    blocks_of,
    is_too_large,
    members,
    placed,
    row_lengths,
)
from inlet.core.setting.scatter import scattered
from inlet.core.setting.straight import straight_rows
from inlet.core.words import length_text, size_text

ZERO = Fraction(0)
MOST_TOLD = 3
"""Places of one kind that are told one by one."""


class Top(NamedTuple):
    """A quilt top: its finished ``size``; ``middle``, the size and the place of what lies inside
    the borders; all from its upper left corner. ``square``: its blocks fit their places again after
    a quarter turn."""

    size: Pair
    middle: Pair
    at: Point
    rows: tuple[Row, ...]
    borders: tuple[Round, ...]
    sizes: Sizes
    problems: tuple[Problem, ...]
    square: bool = True

    @property
    def pieces(self) -> list[TopPiece]:
        of_rows = [piece for row in self.rows for piece in row.pieces]
        return of_rows + [piece for each in self.borders for piece in each.pieces]


def quilt_top(
    project: Project, as_cut: AsCut | None = None, trimmed: Mapping[str, Pair] | None = None
) -> Top:
    """The top of the project's quilt, as far as it can be laid out, its blocks as large as they
    come out: ``as_cut``, as they measured, or ``trimmed``; what is in the way is told, and nothing
    is ever guessed."""
    quilt, measure = project.quilt or Quilt(), project.measure
    sizes = block_sizes(project, as_cut, trimmed)
    square = is_square(quilt, sizes)
    places = placed(quilt, square)
    problems = list(_problems(quilt, project, sizes, places))
    if any(problem.level == "error" for problem in problems):
        nowhere = Point(ZERO, ZERO)
        return Top((ZERO, ZERO), (ZERO, ZERO), nowhere, (), (), sizes, tuple(problems), square)
    by_chance = scattered(places, project)
    if by_chance.alike:
        problems.append(_warning(
            "scatter-alike",
            f"{by_chance.alike} blocks touch a block of the same colourway. Pin fewer, or add "
            "colourways.",
        ))  # fmt: skip
    places = tuple(
        p if p.colourway else p._replace(colourway=by_chance.ways.get((p.column, p.row), ""))
        for p in places
    )
    in_places = place_sizes(quilt, places, sizes, measure)
    if quilt.on_point:
        middle, rows = on_point_rows(quilt, places, in_places.lying(places[0])[0], measure)
    else:
        middle, rows = straight_rows(quilt, places, in_places, measure)
    size, at = middle, Point(ZERO, ZERO)
    new_rounds: list[Round] = []
    for i, border in enumerate(quilt.borders, 1):
        check()
        units = units_of(border, size, sizes, measure)
        if units > MOST_UNITS:
            problems.append(_warning(
                "border-units",
                f"Border {i} would have {units} units and is left out; {MOST_UNITS} are the most.",
            ))  # fmt: skip
            continue
        own_rounds = rounds(border, size, sizes, measure, i)
        if not own_rounds:
            continue
        outer = grown(size, own_rounds)
        by = Point((outer[0] - size[0]) / 2, (outer[1] - size[1]) / 2)
        new_rounds = [each.moved(by) for each in (*new_rounds, *own_rounds)]
        at, size = at.plus(by), outer
    if at != Point(ZERO, ZERO):
        rows = tuple(row.moved(at) for row in rows)
    return Top(size, middle, at, rows, tuple(new_rounds), sizes, tuple(problems), square)


def same_top(project: Project, other_project: Project) -> bool:
    """Is the top of two projects surely the same: their quilt, the sizes and names of their blocks,
    and, where chance minds how light fabrics are, the fabrics?"""
    if project.quilt is not other_project.quilt or project.measure != other_project.measure:
        return False
    by_chance = project.quilt is not None and project.quilt.scatter is not None
    if by_chance and (
        project.fabrics is not other_project.fabrics or project.blocks is not other_project.blocks
    ):
        return False
    return [(b.id, b.title, b.finished) for b in project.blocks] == [
        (b.id, b.title, b.finished) for b in other_project.blocks
    ]


def plain_size(quilt: Quilt, sizes: Sizes, places: Sequence[Placed]) -> SewnSize:
    """The size of a place without a block: that of the usual block, else of the first one there
    is."""
    for name in (quilt.block, *(place.block for place in places)):
        if name in sizes:
            return sizes[name]
    return SewnSize((ZERO, ZERO), (ZERO, ZERO))


def place_sizes(
    quilt: Quilt, places: Sequence[Placed], sizes: Sizes, measure: Measure
) -> PlaceSizes:
    """How large the places of a quilt are."""
    twice = 2 * measure.seam

    def square_cut(length: Exact) -> Exact:
        cut: Exact = cut_to_meet(length + twice, measure)
        return cut - twice

    plain = plain_size(quilt, sizes, places)
    apart = measure.from_inches(OTHER_SIZE)
    return PlaceSizes(sizes, places, plain, square_cut, apart, quilt.on_point)


def is_square(quilt: Quilt, sizes: Sizes) -> bool:
    """Do blocks, as they are drawn, fit their places again after a quarter turn?"""
    names = {quilt.block, *(p.block for p in quilt.places)}
    if quilt.alternate is not None:
        names.add(quilt.alternate.block)
    return all(sizes[n].drawn[0] == sizes[n].drawn[1] for n in names if n in sizes)


def _error(code: str, text: str) -> Problem:
    return Problem("error", code, (), text)


def _warning(code: str, text: str) -> Problem:
    return Problem("warning", code, (), text)


def _problems(
    quilt: Quilt, project: Project, sizes: Sizes, places: Sequence[Placed]
) -> Iterator[Problem]:
    lengths = row_lengths(quilt)
    if not sum(lengths):
        yield _error(
            "no-places", "The quilt has no places yet: say how many blocks across and down."
        )
        return
    if is_too_large(quilt):
        yield _error(
            "too-many-places",
            f"The quilt has {sum(lengths)} places; up to {MOST_LAID_OUT} are laid out.",
        )
        return
    if not any(place.block in sizes for place in places):
        yield _error("no-block", "The quilt has no block yet: choose one for its places.")
        return
    yield from _place_problems(quilt, places, sizes, project)
    yield from _size_problems(quilt, places, sizes, project)
    yield from _fabric_problems(quilt, places, project)


def _place_problems(
    quilt: Quilt, places: Sequence[Placed], sizes: Sizes, project: Project
) -> Iterator[Problem]:
    known = {(place.column, place.row) for place in places}
    outside = [place for place in quilt.places if (place.column, place.row) not in known]
    for place in outside[:MOST_TOLD]:
        yield _warning(
            "place-outside",
            f"Column {place.column + 1}, row {place.row + 1} is outside the quilt. "
            "Its settings are kept but not used.",
        )
    if len(outside) > MOST_TOLD:
        more = len(outside) - MOST_TOLD
        yield _warning("place-outside", f"{more} more places are outside the quilt.")
    empty = sum(not place.block and not place.fabric for place in places)
    if empty:
        many = "1 place has" if empty == 1 else f"{empty} places have"
        yield _error("empty-place", f"{many} neither a block nor a fabric.")
    for motif in quilt.motifs:
        missing = [m for m in members(motif) if m.block not in sizes and not m.fabric]
        if missing:
            yield _error("empty-place", f"The motif {motif.name or motif.id} has places without "
                         "a block.")  # fmt: skip
        spots = {as_lying(sizes[m.block].drawn, m) for m in members(motif) if m.block in sizes}
        if len(spots) > 1:
            listed = " and ".join(size_text(size, project.measure) for size in sorted(spots))
            yield _error(
                "motif-sizes",
                f"The motif {motif.name or motif.id} has blocks of {listed}: they must be alike.",
            )


def _size_problems(
    quilt: Quilt, places: Sequence[Placed], sizes: Sizes, project: Project
) -> Iterator[Problem]:
    measure = project.measure
    apart = measure.from_inches(OTHER_SIZE)
    used = {p.block: sizes[p.block].place(apart) for p in places if p.block in sizes}
    names = {block.id: block.title for block in project.blocks}
    names |= {motif.id: motif.name or motif.id for motif in quilt.motifs}
    if quilt.on_point:
        for name, (wide, high) in used.items():
            if wide != high:
                yield _error(
                    "not-square",
                    f"{names[name]} is {size_text((wide, high), measure)}: only square blocks go "
                    "on point.",
                )
        if len(set(used.values())) > 1:
            listed = ", ".join(f"{names[n]} {size_text(size, measure)}" for n, size in used.items())
            yield _error("block-sizes", f"On point all blocks have one size; here: {listed}.")
        if quilt.sashing is not None and quilt.sashing.down not in (None, quilt.sashing.width):
            yield _warning(
                "sashing-widths",
                "On point the sashing has one width; the one between rows is not used.",
            )
    else:
        yield from _row_problems(quilt, places, sizes, measure)
        heights = {as_lying(used[p.block], p)[1] for p in places if p.block in sizes}
        short = len(set(row_lengths(quilt))) > 1
        if (len(heights) > 1 or short) and not quilt.filler:
            yield _warning(
                "filler-cloth",
                "Blocks of several heights, or short rows, are filled up: choose a filler fabric.",
            )
    sashing = quilt.sashing
    smallest = min((min(size) for size in used.values()), default=ZERO)
    for width in (sashing.width, sashing.down) if sashing is not None else ():
        if width is not None and width > smallest:
            yield _warning(
                "sashing-wide",
                f"The sashing, {length_text(width, measure)}, is wider than a block, "
                f"{length_text(smallest, measure)}: the blocks will look like its corners.",
            )


def _row_problems(
    quilt: Quilt, places: Sequence[Placed], sizes: Sizes, measure: Measure
) -> Iterator[Problem]:
    """Corner squares need the blocks of all rows to lie below one another."""
    if quilt.sashing is None or not quilt.sashing.width or not quilt.sashing.corner_fabric:
        return
    in_places = place_sizes(quilt, places, sizes, measure)
    rows: dict[int, list[Exact]] = {}
    for place in places:
        rows.setdefault(place.row, []).append(in_places.lying(place)[0])
    if len({tuple(row) for row in rows.values()}) > 1:
        yield _warning(
            "corner-squares",
            "The rows differ, so the sashing between them runs through without corner squares.",
        )


def _fabric_problems(quilt: Quilt, places: Sequence[Placed], project: Project) -> Iterator[Problem]:
    wanted = []
    if quilt.sashing is not None and quilt.sashing.width:
        wanted.append(("The sashing", quilt.sashing.fabric))
    if quilt.on_point:
        triangles = quilt.triangles.fabric if quilt.triangles is not None else ""
        wanted.append(("The setting triangles", triangles or quilt.filler))
    for i, border in enumerate(quilt.borders, 1):
        if border.kind == "pieced" and not border.block:
            yield _warning("border-block", f"Border {i} is pieced: choose the block it repeats.")
        elif border.kind != "pieced" and not border.width:
            yield _warning("border-width", f"Border {i} has no width, and is left out.")
        if border.width or border.block:
            wanted.append((f"Border {i}", border.fabric))
    for name, fabric in wanted:
        if not fabric:
            verb = "have" if name.endswith("triangles") else "has"
            yield _warning("no-cloth", f"{name} {verb} no fabric yet.")


def single_pieces(top: Top, quilt: Quilt) -> Iterator[TopPiece]:
    """Every piece of the top, its motifs taken apart into their blocks and plain squares."""
    for piece in top.pieces:
        check()
        lying = piece.lying
        motif = quilt.motif(lying.placed.block) if lying is not None else None
        if lying is None or motif is None:
            yield piece
            continue
        for member in blocks_of(quilt, lying.placed):
            lies = member_lying(lying, member, motif)
            if member.block:
                yield TopPiece("block", lies.corners, "", lies)
            else:
                yield TopPiece("plain", lies.corners, member.fabric)


def fabrics_in(top: Top, project: Project) -> set[str]:
    """The fabrics that are cut for a top and its binding."""
    quilt = project.quilt or Quilt()
    fabrics = {quilt.binding.fabric} if quilt.binding is not None else set()
    lying: dict[tuple[str, str], Placed] = {}
    for piece in top.pieces:
        if piece.lying is None:
            fabrics.add(piece.fabric)
        else:
            place = piece.lying.placed
            lying[place.block, place.colourway] = place
    blocks: set[tuple[str, str]] = set()
    for place in lying.values():  # a motif is taken apart once, not in each of its places
        for member in blocks_of(quilt, place):
            if member.block:
                blocks.add((member.block, member.colourway))
            else:
                fabrics.add(member.fabric)
    for block, colourway in blocks:
        shown = in_colourway(project.block(block), quilt.colourway(colourway))
        fabrics.update(spot.fabric for spot in shown.fabric_at)
    return fabrics


def member_lying(lying: Lying, member: Placed, motif: Motif) -> Lying:
    """How a block of a motif lies on the top: inside the motif first, then with it. A turn after a
    mirror is the mirror after the turn the other way."""
    wide, high = lying.size[0] / motif.columns, lying.size[1] / motif.rows
    middle = Point((member.column + Fraction(1, 2)) * wide, (member.row + Fraction(1, 2)) * high)
    own_turn = -member.turn if lying.placed.mirror else member.turn
    quarters = (own_turn + lying.eighths // 2) % 4
    mirror = member.mirror != lying.placed.mirror
    eighths = 2 * quarters + lying.eighths % 2
    size = as_lying((wide, high), member)
    return Lying(member._replace(mirror=mirror, turn=quarters), size, lying(middle), eighths)
