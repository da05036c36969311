"""A block that is set of slices, prepared: cut apart, laid out, sewn in rows, rows to the block."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence

from inlet.core.draft import draft, drawing_problems
from inlet.core.geometry import Line, Point, Polygon, chord
from inlet.core.numbers import HALF_ROOT2, Exact, Fraction
from inlet.core.piecing import (
    Step,
    assembly_steps,
    count_seams,
    not_proved,
    raw_sheet,
    resewn_of,
)
from inlet.core.plan.prepared import PreparedBlock, SlicedBlock
from inlet.core.plan.sliced_sizes import SlicedSizes
from inlet.core.problem import Problem, errors_first, has_error
from inlet.core.project import Block, Cuts, Measure, Project
from inlet.core.remake import (
    TURNED,
    CutApart,
    Remade,
    Wanted,
    cut_words,
    from_on_point,
    places_of,
    remade,
    sewn_tree,
    slice_parts,
    slice_picture,
    through_seams,
)
from inlet.core.table import DrawnLine, Move, Sheet, Size
from inlet.core.words import length_text, measured_text, near_text, size_text

ZERO: Exact = Fraction(0)


def prepare_sliced(
    project: Project, block: Block, copies: int, starts: Sequence[PreparedBlock]
) -> PreparedBlock:
    """``copies`` of a block that is made from others; ``starts`` are those, prepared, in its
    fabrics. Never raises for what is drawn."""
    assert block.made_from is not None, "a block that is drawn is not sliced"
    how = remade(project, block.made_from)
    drawn = draft(block)
    root = sewn_tree(drawn, how)
    problems = list(drawing_problems(drawn, project))
    for start in starts:
        problems += [p._replace(text=f"{start.block.title}: {p.text}", at=()) for p in start.errors]
    problems += missed_problems(how, project.measure)
    quilt = project.quilt
    whole = quilt.made.get(block.id) if quilt is not None else None
    sizes = sizes_as_cut(how, starts, whole)
    problems += uneven_problems(sizes)
    proved = not has_error(problems) and _proved(how)
    if not proved and not has_error(problems):
        problems.append(not_proved())
    first, last = starts[0], root.joins[-1] if root.joins else None
    return PreparedBlock(
        project=project, block=block, copies=copies, repeated=False, draft=drawn, root=root,
        units=(), ruler_friendly=first.ruler_friendly, fitting=None, fit=None, resewn=proved,
        assembly=last if proved else None, seams=count_seams(drawn, root, last),
        problems=errors_first(problems),
        sliced=SlicedBlock(how, tuple(start.block for start in starts), sizes),
    )  # fmt: skip


def sizes_as_cut(
    how: Remade, starts: Sequence[PreparedBlock], whole: Size | None = None
) -> SlicedSizes:
    """What slices of start blocks measure, as these come out; ``whole`` is what the block they are
    set in measured, where the maker said so."""
    return SlicedSizes(starts[0].measure, how, _off(starts), whole)


def _off(starts: Sequence[PreparedBlock]) -> Size:
    """By how much start blocks come out larger than drawn, on average: as measured, else as cut."""
    twice = 2 * starts[0].measure.seam
    wide, high = [], []
    for start in starts:
        made = start.made_size
        drawn = start.block.finished
        wide.append(made[0] - twice - drawn[0])
        high.append(made[1] - twice - drawn[1])
    return sum(wide, Fraction(0)) / len(wide), sum(high, Fraction(0)) / len(high)


def _proved(how: Remade) -> bool:
    """Do the slices, each drawn from its start block and turned, sewn by the tree, give the block
    that is shown? In the fabrics of its start blocks."""
    drawn = draft(how.set_again.block)
    root = sewn_tree(drawn, how)
    made = {}
    corners = places_of(how.slices)
    for part, piece, corner in zip(slice_parts(drawn, how), how.laid, corners, strict=True):
        shown = slice_picture(how.starts[piece.copy], how.slices[piece.piece], piece.quarters)
        if how.on_point is not None:
            at = Point(*corner)
            there = tuple((tuple(p.plus(at) for p in o), fabric) for o, fabric in shown)
            made[part.faces] = part.outline, how.on_point.picture(there)
            continue
        wide = max(p.x for outline, _ in shown for p in outline)
        high = max(p.y for outline, _ in shown for p in outline)
        zero = Fraction(0)
        box = Point(zero, zero), Point(wide, zero), Point(wide, high), Point(zero, high)
        made[part.faces] = box, shown
    return resewn_of(drawn, root, made)


def missed_problems(how: Remade, measure: Measure) -> list[Problem]:
    """Seams that met before the block was cut and no longer do: one sentence, with all places."""
    missed = how.set_again.missed
    if not missed:
        return []
    most = length_text(max(each.off for each in missed), measure)
    where = tuple(how.in_block(each.at) for each in missed)
    many = f"{len(missed)} seams that met" if len(missed) > 1 else "A seam that met another"
    return [
        Problem(
            "warning", "slices-miss", where,
            f"{many} before the block was cut now {'miss' if len(missed) > 1 else 'misses'} by up "
            f"to {most}: each new seam takes two allowances.",
        )
    ]  # fmt: skip


def uneven_problems(sizes: SlicedSizes) -> list[Problem]:
    """Rows that come out of different lengths, as slices of the edge lie in the middle and the
    start block is not as large as drawn."""
    measure = sizes.measure
    if sizes.worst <= 2 * measure.system.thread:
        return []
    differ = near_text((sizes.worst, sizes.worst), measure)
    return [
        Problem(
            "warning", "slices-uneven", (),
            f"The start block is not as large as drawn, and slices of its edge lie in the middle: "
            f"rows differ by up to {differ}. Trim the slices to one size before you sew them.",
        )
    ]  # fmt: skip


# --- steps ----------------------------------------------------------------------------------------


def sliced_steps(
    plan: PreparedBlock, cut_apart: Iterable[CutApart], starts: Sequence[str], name: str = ""
) -> list[Step]:
    """The steps, without their numbers, that cut apart start blocks and set the slices; ``starts``
    are what the start blocks are called, ``name`` is the block's, where several are sewn."""
    sliced = plan.sliced
    assert sliced is not None, "only a block made from others is sliced"
    names = {}
    for part, piece in zip(slice_parts(plan.draft, sliced.how), sliced.how.laid, strict=True):
        label = sliced.how.slices[piece.piece].label
        names[part.faces] = _piece_name(label, starts[piece.copy], piece.quarters)
    cut = [_cut_step(plan, sliced, each) for each in cut_apart]
    return [*cut, *assembly_steps(plan.draft, plan.root, names, plan.copies, sliced.sizes, name)]


def _piece_name(label: str, start: str, quarters: int) -> str:
    """What a slice of a start block is called as it lies."""
    return f"piece {label} of {start} {TURNED[quarters % 4]}".rstrip()


def _cut_step(plan: PreparedBlock, sliced: SlicedBlock, cut_apart: CutApart) -> Step:
    """Cut start blocks apart."""
    measure, how, cuts = plan.measure, sliced.how, cut_apart.cuts
    title = called(plan.project, cut_apart.start)
    lines = cut_lines(cut_apart.start.block.finished, cuts, measure)
    sheet = raw_of(cut_apart.start.block, measure)
    numbers = tuple(DrawnLine("leg", at, at, i) for i, at in enumerate(_middles(how), 1))
    seams = through_seams(how.starts[0])
    words = cut_words(cuts.upright, seams.upright, True, measure)
    words += cut_words(cuts.level, seams.level, False, measure)
    lay = (
        "Lay it on point, its upper left corner on top, and measure from the diagonals"
        if cuts.diagonal
        else "Measure from its seams, not from its edges"
    )
    trim = (
        f" Sewn again, trim the block to {size_text(sliced.sizes.raw, measure)}: its edges step "
        "where it was cut."
        if cuts.diagonal
        else ""
    )
    notes = [*_piece_notes(sliced, measure)]
    over = [f"{n} × piece {i}" for i, n in cut_apart.left_over.items()]
    if over:
        notes.append(f"Left over: {', '.join(over)}.")
    return Step(
        0,
        f"pieces of {title}",
        cut_apart.start.number,
        f"Cut {title} apart. {lay}: {'; '.join(words)}. Label the pieces 1 to {len(how.slices)}, "
        f"row by row.{trim}",
        None,
        (),
        plan.root,
        None,
        notes=tuple(notes),
        needs=(title,),
        cuts=len(lines),
        gives=tuple(
            _piece_name(each.label, title, quarters) for each in how.slices for quarters in range(4)
        ),
        moves=(Move("cut-apart", "Cut along the lines", sheet, (), (*lines, *numbers)),),
    )


def called(project: Project, wanted: Wanted) -> str:
    """What a block is called in its fabrics: by its id where another has its name."""
    block = wanted.block
    alike = sum(each.title == block.title for each in project.blocks)
    name = block.title if alike == 1 else block.id
    way = project.quilt.colourway(wanted.colourway) if project.quilt is not None else None
    if way is not None and block.fabric_at != project.block(block.id).fabric_at:
        return f"{name} in {way.name or way.id}"
    return name


def _middles(how: Remade) -> Iterator[Point]:
    """The middle of each slice in its start block."""
    for each in how.slices:
        left, top, right, bottom = each.kept
        if not each.shape:
            yield Point((left + right) / 2, (top + bottom) / 2)
            continue
        x, y = (sum((p[i] for p in each.shape), ZERO) / len(each.shape) for i in (0, 1))
        yield from_on_point(Point(left + x, top + y), how.starts[0].block.finished[0])


def raw_of(block: Block, measure: Measure) -> Sheet:
    """A sewn block with its raw edges."""
    drawn = draft(block)
    return raw_sheet(drawn, frozenset(range(len(drawn.patches))), measure.seam)


def cut_lines(finished: Size, cuts: Cuts, measure: Measure) -> tuple[DrawnLine, ...]:
    """The cuts through a block as lines from raw edge to raw edge."""
    (wide, high), seam = finished, measure.seam
    if cuts.diagonal:
        return tuple(_diagonal_lines(wide, cuts, seam))
    upright = (wide / 2 + x for x in sorted(set(cuts.upright)))
    level = (high / 2 + y for y in sorted(set(cuts.level)))
    return (
        *(DrawnLine("cut", Point(x, -seam), Point(x, high + seam)) for x in upright),
        *(DrawnLine("cut", Point(-seam, y), Point(wide + seam, y)) for y in level),
    )


def _diagonal_lines(wide: Exact, cuts: Cuts, seam: Exact) -> Iterator[DrawnLine]:
    """Cuts along the diagonals of a square: those as far as ``cut`` from the diagonal that falls to
    the right lie where x - y is √2 times as much from the middle, the others where x + y is."""
    low, high = -seam, wide + seam
    corners: Polygon = (Point(low, low), Point(high, low), Point(high, high), Point(low, high))
    half, one = wide / 2, Fraction(1)
    for cut_at, sign in (*((c, -1) for c in cuts.upright), *((c, 1) for c in cuts.level)):
        at = half + sign * half + cut_at * 2 * HALF_ROOT2
        ends = chord(corners, Line(one, one * sign, at))
        if ends is not None:
            yield DrawnLine("cut", *ends)


def _piece_notes(sliced: SlicedBlock, measure: Measure) -> Iterator[str]:
    """What the pieces measure, those alike together; of a block on point they are no
    rectangles."""
    if sliced.how.cuts.diagonal:
        return
    sizes: dict[str, list[str]] = {}
    for number, piece in enumerate(sliced.how.slices):
        words = measured_text(sliced.sizes.cut(number), measure)
        sizes.setdefault(words, []).append(piece.label)
    for size_words, labels in sizes.items():
        noun = "Piece" if len(labels) == 1 else "Pieces"
        yield f"{noun} {', '.join(labels)}: {size_words}."
