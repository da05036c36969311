"""What was measured, and what follows: every later size, worked out again by other means."""

from __future__ import annotations

from itertools import product

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from inlet.core.bench.edits import with_job
from inlet.core.bench.jobs import jobs
from inlet.core.bench.made import (
    made_effects,
    made_of,
    made_things,
    sizes_typed,
    uneven_text,
    unmeasured_text,
    with_answer,
    with_measured,
    without_measured,
)
from inlet.core.bench.things import Thing
from inlet.core.draft import turned
from inlet.core.layout import buying_text
from inlet.core.numbers import CENTIMETRES, NumberError
from inlet.core.numbers import Fraction as F
from inlet.core.plan import plan_block, plan_quilt
from inlet.core.project import (
    Border,
    MadeUnit,
    MeasuredSize,
    Quilt,
    Sashing,
    measured_in,
    replace,
)
from inlet.core.setting import border_strips
from inlet.files.project.project_json import dumps, loads, why_not_kept
from tests.blocks import block_of, in_fabrics, project_of
from tests.sample import many

AT = "2026-11-30T19:05"


def grid_block(columns, rows, halved, cell, fabrics):
    """Cells of bands 1 or 2 wide; those in ``halved`` are half-square triangles."""
    xs = [sum(columns[:i]) for i in range(len(columns) + 1)]
    ys = [sum(rows[:i]) for i in range(len(rows) + 1)]
    lines = [f"{x} 0 {x} {ys[-1]}" for x in xs[1:-1]]
    lines += [f"0 {y} {xs[-1]} {y}" for y in ys[1:-1]]
    lines += [f"{xs[c]} {ys[r]} {xs[c + 1]} {ys[r + 1]}" for c, r in halved]
    size = xs[-1] * cell, ys[-1] * cell
    return block_of(" / ".join(lines), xs[-1], ys[-1], size=size, fabrics=fabrics)


@st.composite
def measured_quilts(draw):
    """A quilt of one grid block, whose half-square triangles measured otherwise than planned."""
    columns = draw(st.lists(st.sampled_from([1, 1, 2]), min_size=2, max_size=4))
    rows = draw(st.lists(st.sampled_from([1, 1, 2]), min_size=2, max_size=4))
    small = [
        (c, r) for c, wide in enumerate(columns) for r, high in enumerate(rows) if wide == high == 1
    ]
    assume(small)
    halved = draw(st.lists(st.sampled_from(small), min_size=1, unique=True))
    cell = draw(st.sampled_from([F(3), F(5, 2), F(2)]))
    block = grid_block(columns, rows, halved, cell, draw(st.sampled_from(["ab", "abc", "abcd"])))
    quilt = Quilt(columns=draw(st.integers(1, 4)), rows=draw(st.integers(1, 4)), block=block.id)
    if draw(st.booleans()):
        quilt = replace(quilt, sashing=Sashing(width=F(3, 2), fabric="a"))
    if draw(st.booleans()):
        quilt = replace(quilt, borders=(Border(width=F(2), fabric="b"),))
    off, only_first = F(draw(st.integers(-3, 3)), 8), draw(st.booleans())
    return replace(project_of(block), quilt=quilt), columns, rows, cell, off, only_first


@given(measured_quilts())
@settings(max_examples=many(30, 400), deadline=None)
def test_after_a_made_size_every_later_size_follows(case):
    """Bands that hold a unit that was measured are as wide as it shows; the others as drawn: the
    block, its rows, the top and the borders added up from that, and every piece cut to it."""
    project, columns, rows, cell, off, only_first = case
    block, seam = project.blocks[0], project.measure.seam
    before = plan_block(project, block, 1)
    units = [m for m in made_things(before) if not m.whole and m.planned == (cell + 2 * seam,) * 2]
    assume(units)
    if only_first and off:  # the other units are trimmed to it
        units = units[:1]
    for made in units:
        size = cell + 2 * seam + off
        typed = (MeasuredSize(size=(size, size), number=1),)
        project = with_measured(project, made.thing, typed, "match", AT)
    plan = plan_block(project, block, 1)
    shown = {1: cell + off, 2: 2 * cell}
    wide, high = (sum(shown[band] for band in bands) for bands in (columns, rows))
    measured = {made.thing.drawn for made in units}
    assert len(measured) == len(project.made)
    assert plan.made_size == (wide + 2 * seam, high + 2 * seam)
    assert plan.fit.worst < 1e-9
    for unit in plan.units:
        if len(unit.unit.part.faces) == 1 and unit.made is None:
            bands = [int(side / cell) for side in unit.unit.size]
            fitting = sorted(shown[band] + 2 * seam for band in bands)
            assert sorted(unit.in_use.pieces[0].cut) == fitting
    for unit in plan.units:  # what was made is made as before
        if unit.made is not None:
            same = next(u for u in before.units if u.unit.label == unit.unit.label)
            assert [p.cut for p in unit.in_use.pieces] == [p.cut for p in same.in_use.pieces]
    _check_quilt(project, wide, high)


def _check_quilt(project, wide, high):
    """The quilt added up from blocks of a size."""
    quilt, seam = project.quilt, project.measure.seam
    plan = plan_quilt(project)
    gap = quilt.sashing.width if quilt.sashing is not None else 0
    across = quilt.columns * wide + (quilt.columns - 1) * gap
    down = quilt.rows * high + (quilt.rows - 1) * gap
    assert plan.top.middle == (across, down)
    edge = 2 * sum(border.width for border in quilt.borders)
    assert plan.size == (across + edge, down + edge)
    strips = {s.name: s.length for s in border_strips(plan.top, quilt, project.measure)}
    if quilt.borders:
        assert set(strips.values()) <= {down + 2 * seam, across + edge + 2 * seam}
    whole = next(step for step in plan.steps if step.name == f"Make {project.blocks[0].title}")
    assert whole.sewn[1].measures == (wide + 2 * seam, high + 2 * seam)


HST = "0 0 1 1 / 1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"


def measured(sizes, answer="match", project=None):
    """A block of one half-square triangle and eight squares, that unit measured."""
    project = project or project_of(block_of(HST, 3, 3, fabrics="abc"))
    plan = plan_block(project, project.blocks[0], 4)
    made = next(m for m in made_things(plan) if not m.whole)
    typed = sizes_typed(sizes, made.thing._replace(size=made.planned), 4, project.measure)
    return with_measured(project, made.thing, typed, answer, AT), made


@given(st.integers(-6, 6), st.sampled_from(["match", "trim", "ease"]), st.integers(0, 3))
@settings(max_examples=many(12, 60), deadline=None)
def test_another_system_another_turn_and_a_file_change_no_size(sixteenths, answer, quarters):
    project, _ = measured(f"{float(F(7, 2) + F(sixteenths, 16))}", answer)
    block = project.blocks[0]
    sizes = plan_block(project, block, 4).made_size
    assert loads(dumps(project)) == project
    assert not why_not_kept(project, replace(project, made=()))
    turned_block = turned(block, (quarters, False))
    again = plan_block(project.with_block(turned_block), turned_block, 4).made_size
    assert again == (sizes if quarters % 2 == 0 else sizes[::-1])
    in_cm = measured_in(project, CENTIMETRES)
    assert in_cm.made[0].in_use == tuple(x * F(254, 100) for x in project.made[0].in_use)


def test_eased_nothing_is_cut_otherwise():
    project, _ = measured("3 3/8", "ease")
    plan = plan_block(project, project.blocks[0], 4)
    as_planned = plan_block(replace(project, made=()), project.blocks[0], 4)
    assert [c.cut for c in plan.cuts] == [c.cut for c in as_planned.cuts]
    assert plan.fit.worst == pytest.approx(1 / 8)
    # one of three places along two sides is 1/8 in short, and opposite sides are eased together
    assert plan.made_size == (F(9) + F(1, 2) - F(1, 16),) * 2


def test_trimmed_to_the_smallest_takes_a_step_and_its_time():
    project, made = measured("2 of 3 3/8, 2 of 3 7/16", "trim")
    assert made_of(project, made.thing).in_use == (F(27, 8), F(27, 8))
    plan = plan_block(project, project.blocks[0], 4)
    step = next(step for step in plan.steps if step.unit is not None)
    assert any(note.startswith("Trim them all to 3 3/8 in") for note in step.notes)
    trims = [t for b in plan.work.batches for t in b.tasks if "trim" in t.verb]
    assert sum(t.times for t in trims) == step.times
    assert step.measures == (F(27, 8), F(27, 8))


def test_the_size_in_use_is_by_the_answer():
    sizes = (
        MeasuredSize(size=(F(7, 2), F(7, 2)), number=2),
        MeasuredSize(size=(F(27, 8), F(55, 16)), number=2), MeasuredSize(size=(F(3), F(4))),
    )  # fmt: skip
    made = MadeUnit(drawn="x", measured=sizes)
    assert made.in_use == (F(67, 20), F(143, 40))
    assert replace(made, answer="match").in_use == (F(27, 8), F(55, 16))
    assert replace(made, answer="trim").in_use == (F(3), F(55, 16))
    assert (made.spread, made.count) == (F(9, 16), 5)


def test_a_change_of_the_drawing_leaves_a_made_size_behind_and_back():
    project, _ = measured("3 3/8")
    block = project.blocks[0]
    for other in (in_fabrics(block, "def"), replace(block, finished=(F(12), F(12)))):
        plan = plan_block(project.with_block(other), other, 4)
        assert all(unit.made is None for unit in plan.units)
        unmeasured = plan_block(project_of(other), other, 4)
        assert plan.made_size == unmeasured.made_size
    assert any(unit.made for unit in plan_block(project, block, 4).units)


def test_a_measured_block_is_the_size_the_quilt_goes_by():
    block = block_of(HST, 3, 3, fabrics="abc")
    quilt = Quilt(columns=3, rows=2, block=block.id, borders=(Border(width=F(2), fabric="a"),))
    project = replace(project_of(block), quilt=quilt)
    whole = next(m for m in made_things(plan_quilt(project)) if m.whole)
    typed = sizes_typed("9 3/8", whole.thing._replace(size=whole.planned), 6, project.measure)
    matched = with_measured(project, whole.thing, typed, "match", AT, block.id)
    assert matched.quilt.made == {block.id: (F(75, 8), F(75, 8))}
    _check_quilt(matched, F(71, 8), F(71, 8))
    made = made_of(matched, whole.thing)
    eased = with_answer(matched, made, "ease", block.id)
    assert eased.quilt.made == {}
    effects = {e.answer: e for e in made_effects(eased, made, whole.block, True)}
    assert not effects["ease"].fits  # 1/8 in over 9 in is more than a sixteenth in a foot
    assert "The quilt, finished: 30 5/8 x 21 3/4 in" in effects["match"].lines
    assert without_measured(matched, made, block.id) == replace(
        project, log=matched.log, quilt=quilt
    )
    assert [e.did for e in matched.log] == ["measured"]


def test_effects_tell_whether_it_fits():
    project, made = measured("3 3/8")
    unit = made_of(project, made.thing)
    effects = {e.answer: e for e in made_effects(project, unit, made.block, False)}
    assert set(effects) == {"match", "ease"}  # they are all of one size
    assert effects["match"].fits
    assert effects["match"].lines[0] == "Every seam meets, to a thread"
    assert effects["match"].lines[1] == "test, unfinished: 9 1/8 in"
    assert not effects["ease"].fits
    assert "1/8 in over 3 in" in effects["ease"].lines[0].replace("2 7/8", "3")


def test_what_is_cut_already_is_cut_down_and_nothing_bought_again():
    """All squares are cut at 3 1/2 before the units measure 3 3/8: they are trimmed, not cut anew;
    larger than planned, they are cut again."""
    project = project_of(block_of(HST, 3, 3, fabrics="abc"))
    block = project.blocks[0]
    plan = plan_block(project, block, 4)
    _ = plan.fabric_plans.best
    for job in jobs(plan, project):
        if job.laid is not None:
            project = with_job(project, job, job.left, AT)
    smaller, _ = measured("3 3/8", project=project)
    plan = plan_block(smaller, block, 4)
    assert all(each.new is None for each in plan.fabric_plans.best)
    wanted = {c.label: c for c in plan.cuts if c.labels != ("A",)}
    down = [d for each in plan.fabric_plans.best for d in each.cut_down]
    assert {d.label: d.number for d in down} == {c.label: c.number for c in wanted.values()}
    assert all(sorted(d.size) == sorted(wanted[d.label].cut) for d in down)
    assert all(min(d.size) == F(27, 8) for d in down)
    todo = [job for job in jobs(plan, smaller) if job.verb == "Cut down"]
    assert sum(job.left for job in todo) == sum(d.number for d in down) == 10
    for job in todo:
        smaller = with_job(smaller, job, job.left, AT)
    assert not any(job.left for job in jobs(plan, smaller) if job.verb == "Cut down")
    assert buying_text(plan.fabric_plans.best[0], smaller.measure).startswith(
        "being cut; cut down "
    )
    for side, used in ((6, True), (5, False)):  # an inch smaller is cut down, more is cut anew
        small = replace(block, finished=(F(side), F(side)))
        plan = plan_block(project.with_block(small), small, 4)
        assert any(each.cut_down for each in plan.fabric_plans.best) is used
    larger, _ = measured("3 5/8", project=project)
    plan = plan_block(larger, block, 4)
    assert not any(each.cut_down for each in plan.fabric_plans.best)
    assert any(each.new is not None for each in plan.fabric_plans.best)


def test_a_measured_block_of_no_quilt_has_every_effect_told_and_its_step_trims():
    project = project_of(block_of(HST, 3, 3, fabrics="abc"))
    block = project.blocks[0]
    whole = next(m for m in made_things(plan_block(project, block, 4)) if m.whole)
    sizes = sizes_typed("2 of 9 3/8, 2 of 9 1/4", whole.thing, 4, project.measure)
    project = with_measured(project, whole.thing, sizes, "trim", AT, whole.whole_of)
    effects = list(made_effects(project, made_of(project, whole.thing), block, True))
    assert [e.lines[0] for e in effects] == [
        "test, unfinished: 9 1/4 in", "test, unfinished: 9 1/4 in",
        "Edges differ by up to 3/16 in over 9 in, where no more than 3/64 in can be eased",
    ]  # fmt: skip
    last = plan_block(project, block, 4).steps[-1]
    assert last.notes[-1].startswith("Trim them all to 9 1/4 in, the smallest")
    quilted = replace(project, quilt=replace(project.quilt, columns=2, rows=2, block=block.id))
    step = next(s for s in plan_quilt(quilted).steps if s.name == "Make test")
    assert step.sewn[1].notes[-1] == last.notes[-1]
    matched = with_answer(project, made_of(project, whole.thing), "match", whole.whole_of)
    assert not any("Trim" in n for n in plan_block(matched, block, 4).steps[-1].notes)


def test_uneven_is_told_more_strongly_than_off():
    project, made = measured("2 of 3 3/8, 2 of 3 1/2")
    measure = project.measure
    unit = made_of(project, made.thing)
    assert uneven_text(unit, made.planned, measure).startswith("They are uneven: ")
    even = replace(unit, measured=(MeasuredSize(size=(F(27, 8),) * 2, number=4),))
    assert uneven_text(even, made.planned, measure) == "They are even, and off by 1/8 in."
    right = replace(unit, measured=(MeasuredSize(size=(F(7, 2),) * 2, number=4),))
    assert "as planned" in uneven_text(right, made.planned, measure)


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("0", "above 0"), ("-1", "above 0"), ("wide", "not a size"),
        ("35", "cannot be what was planned 3 1/2 in: measure"),
        ("8.9", "if that is cm, type cm"), ("3 x 3 x 3", "more than two sides"),
        ("5 of 3 3/8", "5 sizes are more than the 4"), ("0 of 3 3/8", "none"),
        (" , ", "type a size"),
    ],
)  # fmt: skip
def test_a_size_that_cannot_be_is_told(text, why):
    with pytest.raises((ValueError, NumberError), match=why):
        measured(text)


def test_sizes_are_typed_one_by_one_or_for_all():
    project = project_of(block_of(HST, 3, 3, fabrics="abc"))
    thing = Thing("Make A", 6, (F(7, 2), F(7, 2)))

    def typed(text):
        return [(s.number, s.size) for s in sizes_typed(text, thing, 6, project.measure)]

    square = {x: (x, x) for x in (F(27, 8), F(7, 2))}
    assert typed("3 3/8") == [(6, square[F(27, 8)])]
    assert typed("3 3/8, 3 1/2") == [(1, square[F(27, 8)]), (1, square[F(7, 2)])]
    assert typed("5 of 3 3/8; 3 1/2 x 3 3/8") == [
        (5, square[F(27, 8)]), (1, (F(7, 2), F(27, 8))),
    ]  # fmt: skip
    oblong = thing._replace(size=(F(7, 2), F(13, 2)))
    with pytest.raises(ValueError, match="type both sides"):
        sizes_typed("3 3/8", oblong, 6, project.measure)
    with pytest.raises(ValueError, match="no rectangle"):
        sizes_typed("3 3/8", thing._replace(size=None), 6, project.measure)
    assert sizes_typed("4 3/8", thing, 6, project.measure)  # a quarter off, and no more
    with pytest.raises(ValueError, match="cannot be"):
        sizes_typed("4 1/2", thing, 6, project.measure)


def test_as_much_as_can_be_eased_is_eased():
    """Over 12 in a sixteenth can be eased, and no more."""
    block = block_of(HST, 3, 3, (12, 12), fabrics="abc")
    quilt = Quilt(columns=2, rows=2, block=block.id)
    project = replace(project_of(block), quilt=quilt)
    whole = next(m for m in made_things(plan_quilt(project)) if m.whole)
    for off, fits in ((F(1, 16), True), (F(5, 64), False)):
        size = (F(25, 2) - off,) * 2
        sizes = (MeasuredSize(size=size, number=1),)
        measured_so = with_measured(project, whole.thing, sizes, "ease", AT, block.id)
        unit = made_of(measured_so, whole.thing)
        effects = {e.answer: e for e in made_effects(measured_so, unit, whole.block, True)}
        assert effects["ease"].fits is fits


def test_a_size_in_the_other_system_may_be_typed_with_its_unit():
    project, made = measured("8.9 cm")
    assert made_of(project, made.thing).in_use[0] == F(890, 254)


def test_what_is_sewn_is_not_cut_down_and_is_to_be_measured():
    project = project_of(block_of(HST, 3, 3, fabrics="abc"))
    block = project.blocks[0]
    plan = plan_block(project, block, 4)
    _ = plan.fabric_plans.best
    strips = next(m for m in made_things(plan) if m.thing.name == "Make test B")
    for job in jobs(plan, project):
        if job.laid is not None or job.thing.name == strips.thing.name:
            project = with_job(project, job, job.left, AT)
    assert unmeasured_text(made_things(plan), project) == ""
    project, _ = measured("3 3/8", project=project)
    plan = plan_block(project, block, 4)
    down = {job.what: job.left for job in jobs(plan, project) if job.verb == "Cut down"}
    assert {what.partition(" ")[0]: bool(left) for what, left in down.items()} == {
        "B1": False, "B2": False, "C": True,
    }  # fmt: skip
    text = unmeasured_text(made_things(plan), project)
    assert text.startswith("test B is sewn already, and was not measured")


@pytest.mark.parametrize("turns", [False, True])
def test_a_square_that_came_out_oblong_lies_as_its_unit_is_turned(turns):
    """Two half-square triangles across from one another, 3 3/8 wide and 3 1/2 high as the first
    lies: turned a quarter, the second is 3 1/2 wide. By hand: 2 7/8 + 3 above and 3 + 3 below are
    eased to 5 15/16; lying alike both are 5 7/8."""
    second = "1 1 2 2" if not turns else "2 1 1 2"
    for fabrics in product("ab", repeat=6):
        block = block_of(f"1 0 1 2 / 0 1 2 1 / 0 0 1 1 / {second}", 2, 2, (6, 6), "".join(fabrics))
        plan = plan_block(project_of(block), block, 1)
        halved = [u for u in plan.units if u.unit.kind == "half-square-triangle"]
        motions = [place.motion for unit in halved for place in unit.unit.places]
        if len(halved) == 1 and len(motions) == 2 and (motions[1].cos == 0) == turns:
            break
    project = project_of(block)
    made = next(m for m in made_things(plan) if m.thing.times == 2)
    size = (MeasuredSize(size=(F(27, 8), F(7, 2)), number=2),)
    project = with_measured(project, made.thing, size, "ease", AT)
    wide, high = plan_block(project, block, 1).fit.finished
    assert (wide, high) == ((5.9375, 5.9375) if turns else (5.875, 6.0))
