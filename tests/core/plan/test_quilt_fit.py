"""The quilt as it is made: sizes added up from what is cut, edges that differ, what can be done."""

from __future__ import annotations

from math import ceil

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.quilt import plan_quilt
from inlet.core.plan.quilt_answers import quilt_answers
from inlet.core.plan.quilt_fit import apart_problems
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.quilt import (
    Alternate,
    Border,
    Motif,
    Quilt,
    QuiltPlace,
    Sashing,
    Triangles,
)  # fmt: skip
from inlet.core.project.value import replace
from inlet.core.setting.trimming import points_at_edge
from inlet.files.text.quilt_json import quilt_dict
from tests.blocks import block_of, project_of
from tests.core.setting.test_top import polygon
from tests.sample import many

NINE = "0 1 3 1 / 0 2 3 2 / 1 0 1 3 / 2 0 2 3"
SIXTEEN = "0 1 4 1 / 0 2 4 2 / 0 3 4 3 / 1 0 1 4 / 2 0 2 4 / 3 0 3 4"
CORNERS = "0 1 1 0 / 2 0 3 1 / 0 2 1 3 / 2 3 3 2"


def block(name, drawn, grid, size):
    return replace(block_of(drawn, grid, grid, (size, size), "ab"), id=name, name=name.title())


def blocks(size):
    """Of one drawn size, coming out at three."""
    return (
        block("nine", NINE, 3, size), block("crossed", f"{SIXTEEN} / 0 0 4 4", 4, size),
        block("churn", f"{NINE} / {CORNERS}", 3, size),
    )  # fmt: skip


def of(quilt, *parts, **more):
    return replace(project_of(*parts), quilt=quilt, **more)


def at(column, row, block):
    return QuiltPlace(column=column, row=row, block=block)


@st.composite
def uneven_quilts(draw):
    """Straight and on point, with sashing, motifs, plain squares, a border, sizes as measured."""
    inch = draw(st.booleans())
    measure = INCH if inch else METRIC
    marks = [F(1, 8), F(1, 16), F(1, 4)] if inch else [F(1, 10), F(1, 2), F(1, 4)]
    measure = replace(measure, ruler=draw(st.sampled_from(marks)))
    size = draw(st.sampled_from([F(43, 4), F(9), F(25, 3)])) * (1 if inch else 2)
    names = st.sampled_from(["nine", "crossed", "churn", "m"])
    motif = Motif(id="m", columns=1, rows=1, block=draw(names.filter(lambda n: n != "m")))
    on_point = draw(st.booleans())
    columns, rows = draw(st.integers(1, 4)), draw(st.integers(1, 3))
    spots = st.builds(at, st.integers(0, columns - 1), st.integers(0, rows - 1), names)
    twice = 2 * measure.seam
    quilt = Quilt(
        setting="on-point" if on_point else "straight", columns=columns, rows=rows, block="nine",
        places=tuple({(p.column, p.row): p for p in draw(st.lists(spots, max_size=4))}.values()),
        motifs=(motif,), turning=draw(st.sampled_from(["", "quarter-turns"])),
        alternate=draw(st.none() | st.just(Alternate(fabric="c"))),
        sashing=draw(st.none() | st.builds(
            Sashing, width=st.sampled_from([F(1), F(7, 5)]), fabric=st.just("d"),
            corner_fabric=st.sampled_from(["", "e"]), outside=st.booleans())),
        triangles=Triangles(fabric="c"), filler="f",
        uneven=draw(st.sampled_from(["", "trim", "ease"])),
        borders=tuple(draw(st.lists(st.just(Border(width=F(7, 3), fabric="e")), max_size=1))),
        made=draw(st.sampled_from([{}, {"nine": (size + twice - F(1, 16), size + twice)}])),
    )  # fmt: skip
    return of(quilt, *blocks(size), measure=measure)


def comes_to(plan, name):
    """A block's size in the quilt, from its own plan or what the maker said."""
    motif = plan.quilt.motif(name)
    inner = motif.block if motif is not None else name
    s = float(plan.measure.seam)
    trimmed = plan.top.sizes[name].trimmed
    if trimmed is not None:
        return tuple(map(float, trimmed))
    if inner in plan.quilt.made:
        return tuple(float(side) - 2 * s for side in plan.quilt.made[inner])
    return next(b.plan.fit.finished for b in plan.blocks if b.block.id == inner)


def cut_for(plan, name, drawn):
    """What a straight piece of the cut list shows that is to be ``drawn`` (low, high)."""
    s = 2 * float(plan.measure.seam)
    cuts = [cut.cut for cut in plan.setting.cuts if cut.label.startswith(name)]
    cuts += [
        (band.width, piece.length)
        for band in plan.setting.bands for piece in band.pieces if piece.name == name
    ]  # fmt: skip
    sizes = [tuple(float(side) - s for side in cut) for cut in cuts]
    best = min(sizes, key=lambda size: sum(abs(a - b) for a, b in zip(size, drawn, strict=True)))
    near = max(0.06 * s / 0.5, float(plan.measure.finest) / 2 + 1e-9)
    assert max(abs(a - b) for a, b in zip(best, drawn, strict=True)) <= near, name
    return best


KINDS = {"plain": "Plain squares", "sash": "Sashing", "corner-square": "Corner squares"}


def shown(plan, piece):
    """(across the row, along the row) of a piece, in floats, from what is cut for it; None of
    triangles and what is cut off with them."""
    corners = [p.floats() for p in piece.outline]
    if plan.quilt.on_point:
        corners = [((x + y) / 2**0.5, (y - x) / 2**0.5) for x, y in corners]
    sides = [max(c[i] for c in corners) - min(c[i] for c in corners) for i in (0, 1)]
    if piece.lying is not None:
        wide, high = comes_to(plan, piece.lying.placed.block)
        size = (high, wide) if piece.lying.placed.turn % 2 else (wide, high)
    elif piece.kind in KINDS and polygon(piece).area == pytest.approx(sides[0] * sides[1]):
        low, high = cut_for(plan, KINDS[piece.kind], sorted(sides))
        size = (low, high) if sides[0] <= sides[1] else (high, low)
    else:
        return None
    return size if plan.quilt.on_point else size[::-1]


@given(uneven_quilts())
@settings(max_examples=many(40, 400), deadline=None)
def test_sizes_told_are_added_up_from_what_is_cut(project):
    """Every row from its pieces, the middle from all rows: to 1/128 in, or a fifth of a mm."""
    plan = plan_quilt(project)
    near = 1 / 128 if project.measure.system.fractions else 0.02
    lengths, highs = [], []
    for row, card in zip(plan.top.rows, plan.rows, strict=True):
        sizes = [shown(plan, piece) for piece in row.pieces]
        inner = [i for i, piece in enumerate(row.pieces) if piece.kind in ("block", "plain")]
        if plan.quilt.on_point:
            sizes = sizes[inner[0] : inner[-1] + 1] if inner else []
        if not inner or None in sizes:
            continue
        total = sum(size[1] for size in sizes)
        if card.length is not None:
            assert float(card.length - 2 * project.measure.seam) == pytest.approx(total, abs=near)
        lengths.append(total)
        highs.append(sum(shown(plan, row.pieces[i])[0] for i in inner) / len(inner))
    if plan.quilt.on_point or len(lengths) != plan.quilt.rows:
        return
    wide, high = (float(side) for side in plan.top.middle)
    assert wide == pytest.approx(sum(lengths) / len(lengths), abs=near)
    strips = sum(row.label.startswith("Sashing") for row in plan.top.rows)
    width = plan.quilt.sashing.width if strips else 0
    assert high == pytest.approx(
        sum(highs) + strips * strip_as_cut(width, project.measure), abs=near
    )


def strip_as_cut(width, measure):
    """At the nearest mark where that is a thread off at most, else at the next."""
    mark, thread, s = float(measure.ruler), float(measure.system.thread), 2 * float(measure.seam)
    marks = (float(width) + s) / mark
    off = abs(marks - round(marks)) * mark
    return (round(marks) if off <= thread + 1e-9 else ceil(marks)) * mark - s


@given(uneven_quilts())
@settings(max_examples=many(40, 400), deadline=None)
def test_edges_that_differ_are_told_and_no_others(project):
    """Straight, nothing between the blocks: every pair of neighbours, one by one."""
    quilt = replace(project.quilt, setting="straight", sashing=None, borders=())
    plan = plan_quilt(replace(project, quilt=quilt))
    thread = float(project.measure.system.thread)
    wanted = []
    rows = [[(shown(plan, p), p.outline) for p in row.pieces] for row in plan.top.rows]
    for i, row in enumerate(rows):
        for j, (size, outline) in enumerate(row):
            beside = row[j + 1] if j + 1 < len(row) else None
            below = rows[i + 1][j] if i + 1 < len(rows) else None
            for way, neighbour in enumerate((beside, below)):
                if neighbour and abs(size[way] - neighbour[0][way]) > thread + 3e-4:
                    xs, ys = zip(*(p.floats() for p in outline), strict=True)
                    wanted.append((max(xs), min(ys)) if way == 0 else (min(xs), max(ys)))
    assert all(seam.differs > thread for seam in plan.apart)
    told = [seam.begin for seam in plan.apart if seam.differs > thread + 3e-4]
    assert len(told) == len(wanted)
    for place, other in zip(sorted(told), sorted(wanted), strict=True):
        assert place == pytest.approx(other, abs=1e-3)


def three_in_a_row(**more):
    """Three 10 3/4 in blocks: cut finer, they come to 10 11/16, 10.771 and 10.730 in."""
    spots = at(1, 0, "crossed"), at(2, 0, "churn")
    return of(Quilt(columns=3, rows=1, block="nine", places=spots, **more), *blocks(F(43, 4)))


def test_three_blocks_of_one_size_in_a_row():
    plan = plan_quilt(three_in_a_row())
    assert float(plan.rows[0].length) == pytest.approx(10.6875 + 10.7714 + 10.7304 + 0.5, abs=1e-3)
    assert [problem.text for problem in apart_problems(plan)] == [
        "Crossed is 5/64 in longer than Nine where they meet (1 place). That is too much to ease "
        "over 10 3/4 in.",
        "Crossed is 3/64 in longer than Churn where they meet (1 place). Ease it in over 10 3/4 "
        "in.",
    ]
    ways = {answer.remedy: answer for answer in quilt_answers(plan)}
    assert list(ways) == ["trim", "units", "bands", "size", "sashing", "ease"]
    assert ways["ease"].in_use
    assert "Churn has points at the edge" in ways["trim"].cannot
    for name in ("units", "bands", "size"):
        taken = plan_quilt(ways[name].project)
        assert (taken.apart, ways[name].differs, taken.size) == ((), 0, ways[name].size)
    assert {b.finished for b in ways["size"].project.blocks} == {(F(21, 2), F(21, 2))}


def test_blocks_without_points_are_trimmed_to_one_size():
    """10.740 comes down to 10 11/16: 11 3/16 raw. The maker may have it eased all the same."""
    nine, crossed, _ = blocks(F(43, 4))
    quilt = Quilt(
        columns=2, rows=2, block="nine", places=(at(1, 0, "crossed"), at(0, 1, "crossed"))
    )
    plan = plan_quilt(of(quilt, nine, crossed))
    assert plan.top.sizes["crossed"].trimmed == (F(171, 16), F(171, 16))
    assert (plan.apart, plan.size) == ((), (F(171, 8), F(171, 8)))
    (step,) = [step for step in plan.steps if step.title.startswith("Trim")]
    assert (step.title, step.measures, step.times) == ("Trim 2 × Crossed", "11 3/16 in", 2)
    assert any(
        "to one size" in task.what
        for s in plan.work.sittings
        for b in s.batches
        for task in b.tasks
    )
    eased = plan_quilt(of(replace(quilt, uneven="ease"), nine, crossed))
    assert eased.size[0] == pytest.approx(10.6875 + comes_to(eased, "crossed")[0], abs=1e-3)
    assert not any(step.title.startswith("Trim") for step in eased.steps)


def test_points_at_the_edge():
    diagonal, geese = block_of("0 1 1 0"), block_of("0 1 1 0 / 1 0 2 1", 2, 1, (4, 2))
    assert not points_at_edge(diagonal)  # it ends in the corners
    assert not points_at_edge(block_of(NINE, 3, 3))
    assert points_at_edge(geese)
    assert points_at_edge(block_of("0 1 1 0", size=(4, 8)))


def test_a_size_as_made_reaches_all_that_is_sewn_to_it():
    """12 in blocks that measured 12 7/16: the sashing is cut that long, rows, border and the
    block's own step follow."""
    nine = blocks(F(12))[0]
    quilt = Quilt(
        columns=3, rows=2, block="nine", made={"nine": (F(199, 16), F(199, 16))},
        sashing=Sashing(width=F(1), fabric="a", corner_fabric="b"),
        borders=(Border(width=F(2), fabric="c"),),
    )  # fmt: skip
    plan = plan_quilt(of(quilt, nine))
    cuts = {cut.cut for cut in plan.setting.cuts}
    assert (F(3, 2), F(199, 16)) in cuts
    assert plan.top.middle == (3 * F(191, 16) + 2, 2 * F(191, 16) + 1)
    assert plan.rows[0].length == 3 * F(191, 16) + 2 + F(1, 2)
    (step,) = [s for s in plan.steps if s.sewn and "Nine" in s.title and s.sewn[1].part.joins]
    assert step.measures == "12 7/16 in"


@pytest.mark.parametrize(
    ("size", "measure", "raw"), [(F(147, 16), INCH, F(155, 16)), (F(939, 50), METRIC, F(203, 10))]
)
def test_sashing_is_cut_on_the_marks_its_blocks_are_cut_on(size, measure, raw):
    """9 3/16 in of three bands are cut finer and come to 9 11/16 raw; 18.78 cm to 20.3."""
    nine = blocks(size)[0]
    sashing = Sashing(width=F(1), fabric="a")
    measure = replace(measure, ruler=measure.ruler if measure is INCH else F(1, 2))
    plan = plan_quilt(of(Quilt(columns=2, rows=1, block="nine", sashing=sashing), nine,
                         measure=measure))  # fmt: skip
    (sash,) = [cut for cut in plan.setting.cuts if cut.label == "Sashing"]
    assert abs(sash.cut[1] - raw) <= measure.system.thread
    assert abs(sash.cut[1] - (plan.top.sizes["nine"].in_use[1] + 2 * measure.seam)) <= F(1, 32)
    assert plan.apart == ()


def test_units_of_a_pieced_border_come_to_its_side():
    """Four at a time, geese of 4 x 2 in come to 4 3/64: 15 of them 11/16 too long for 60 in. They
    are trimmed; where the maker leaves all as it is, a spacer makes it fit."""
    geese = block_of("0 1 1 0 / 1 0 2 1", 2, 1, (4, 2), "ab")
    geese = replace(geese, id="geese", methods={"flying-geese": "no-waste"})
    plain = replace(block_of(size=(12, 12), fabrics="a"), id="plain")
    border = Border(kind="pieced", block="geese", fabric="b")
    project = of(Quilt(columns=4, rows=5, block="plain", borders=(border,)), plain, geese)
    plan = plan_quilt(project)
    assert (plan.size, plan.apart) == ((52, 64), ())
    assert plan.top.sizes["geese"].as_cut == (4, 2)
    left = plan_quilt(replace(project, measure=replace(INCH, awkward="leave")))
    assert left.top.sizes["geese"].as_cut[0] == pytest.approx(4.0429, abs=1e-4)
    assert [r.label for r in left.top.borders] == ["Border 1, spacer", "Border 1"]
    in_border = next(b for b in plan.blocks if b.block.id == "geese")
    assert in_border.plan.fit.remedy == "trim"


def test_what_the_quilt_comes_to_in_its_data():
    data = quilt_dict(plan_quilt(three_in_a_row()))
    assert data["sizes"]["nine"] == {
        "drawn": ["43/4", "43/4"], "as_cut": ["171/16", "171/16"], "sewn": None, "trimmed": None
    }  # fmt: skip
    assert [float(seam["differs"]) for seam in data["apart"]] == pytest.approx([0.0839, 0.041])
    assert [a["remedy"] for a in data["answers"] if a["in_use"]] == ["ease"]


def test_rows_drawn_as_long_are_not_filled_up_for_what_they_miss():
    """Four 6 in triangle squares come to 24.086 in, two of 12 in to 24.043: eased, as rows of one
    length are; a row that is drawn shorter is filled up, a lower block too."""
    small, large = (
        replace(block_of("0 1 1 0", size=(F(side),) * 2), id=f"h{side}") for side in (6, 12)
    )
    spots = at(0, 1, "h12"), at(1, 1, "h12")
    quilt = Quilt(columns=4, rows=2, block="h6", row_lengths=(4, 2), places=spots, filler="c")
    plan = plan_quilt(of(quilt, small, large))
    assert {piece.kind for row in plan.top.rows for piece in row.pieces} == {"block"}
    rows = [float(card.length) - 0.5 for card in plan.rows]
    assert rows == pytest.approx([4 * 6.0214, 2 * 12.0214], abs=1e-3)
    assert float(plan.size[0]) == pytest.approx(sum(rows) / 2, abs=1e-3)
    shorter = replace(quilt, row_lengths=(4, 1), places=spots[:1])
    kinds = [p.kind for p in plan_quilt(of(shorter, small, large)).top.rows[1].pieces]
    assert kinds == ["filler", "block", "filler"]
    beside = replace(quilt, columns=2, rows=1, row_lengths=(), places=(at(1, 0, "h12"),))
    cells = plan_quilt(of(beside, small, large)).top.rows[0].cells
    assert [len(cell) for cell in cells] == [3, 1]


@given(uneven_quilts())
@settings(max_examples=many(30, 300), deadline=None)
def test_a_top_as_it_is_made_is_tiled(project):
    """By polygons: its pieces fill it, and none lies over another."""
    plan = plan_quilt(project)
    shapes = [polygon(piece) for piece in plan.top.pieces]
    whole = shapely.union_all(shapes)
    wide, high = (float(side) for side in plan.size)
    assert whole.area == pytest.approx(wide * high, rel=1e-7)
    assert sum(shape.area for shape in shapes) == pytest.approx(wide * high, rel=1e-7)


def test_blocks_are_trimmed_only_where_that_eases_the_edges():
    """Two blocks 3/64 in apart, beside a pieced border: trimming leaves less to ease for its
    length, although what is left is more in all."""
    nine, crossed, _ = blocks(F(43, 4))
    geese = replace(block_of("0 1 1 0 / 1 0 2 1", 2, 1, (F(31, 12), F(31, 24)), "ab"), id="g")
    quilt = Quilt(
        columns=3, rows=4, block="nine", alternate=Alternate(block="crossed"),
        borders=(Border(kind="pieced", block="g", fabric="d"),),
    )  # fmt: skip

    def beyond(wish):
        plan = plan_quilt(of(replace(quilt, uneven=wish), nine, crossed, geese))
        left = [seam.differs - seam.length / 192 for seam in plan.apart]
        return max(left, default=-1.0), any(s.trimmed for s in plan.top.sizes.values())

    (usual, trimmed), (eased, _), (cut_down, _) = beyond(""), beyond("ease"), beyond("trim")
    assert usual == min(eased, cut_down)
    assert trimmed == (cut_down < eased)
