"""What to buy, whether what is there does, and blocks at other sizes."""

from __future__ import annotations

import re

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from inlet.core.buying.enough import enough, enough_lines
from inlet.core.buying.shopping import (
    shopping,
    shopping_for,
    shopping_lines,
    shopping_notes,
    shopping_whole,
)
from inlet.core.buying.size_chart import at_size, chart_lines, chart_notes, size_chart, sizes_typed
from inlet.core.layout.laid_places import places_of
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import NumberError
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.cutting import Cutting, Have
from inlet.core.project.measure import METRIC
from inlet.core.project.project import Project
from inlet.core.project.quilt import Backing, Border, Quilt
from inlet.core.project.value import replace
from inlet.core.words import size_text
from tests.blocks import block_of, project_of
from tests.core.pressing.drawn import NAMED
from tests.sample import sampled

PIN = block_of("0 1 2 1 / 1 0 1 2 / 0 0 2 2 / 0 2 2 0", 2, 2, (6, 6), "ab")


@given(
    st.sampled_from([PIN, block_of("1 0 1 3 / 0 1 3 1 / 1 2 3 2", 3, 3, (9, 9), "abc")]),
    st.lists(st.integers(20, 100).map(lambda n: F(n, 8)), min_size=1, max_size=3, unique=True),
    st.integers(1, 9),
)
@example(PIN, [F(12)], 9)
@settings(max_examples=12, deadline=None)
def test_a_size_chart_agrees_with_plans_made_one_size_at_a_time(block, widths, copies):
    project = project_of(block)
    chart = size_chart(project, block, widths, copies)
    for i, width in enumerate(widths):
        plan = plan_block(project, at_size(block, width), copies)
        wanted = [
            (unit.unit.label, f"{p.number} × {size_text(p.cut, project.measure)}")
            for unit in plan.units
            for p in unit.in_use.pieces
        ]
        shown = [(row.unit, row.cells[i].partition(" + ")[0]) for row in chart.rows if row.cells[i]]
        assert sorted(shown) == sorted(wanted)
        assert chart.on_marks[i] == plan.ruler_friendly.on_marks
        for fabric_plan in plan.fabric_plans.at_once:
            row = next(r for r in chart.fabrics if r.fabric == fabric_plan.fabric)
            assert _yards(row.for_all[i]) * 36 == fabric_plan.buy
        for fabric_plan in plan_block(project, at_size(block, width), 1).fabric_plans.at_once:
            row = next(r for r in chart.fabrics if r.fabric == fabric_plan.fabric)
            assert _yards(row.for_one[i]) * 36 == fabric_plan.buy


def _yards(text: str) -> F:
    """The yards a cell tells, "1 1/4 yd", whole and part."""
    return sum((F(part) for part in text.removesuffix(" yd").split()), F(0))


def test_sizes_are_typed_as_a_list_or_as_between_two():
    plan = plan_block(project_of(PIN), PIN)
    assert sizes_typed("4, 6, 8 1/2 in", plan) == (4, 6, F(17, 2))
    assert sizes_typed("10 cm, 20 cm", plan)[0] == F(1000, 254)
    between = sizes_typed("5 to 7", plan)
    assert between
    assert all(plan_block(plan.project, at_size(PIN, w)).ruler_friendly.on_marks for w in between)
    assert 6 in between
    for wrong, why in (("", "write sizes like"), ("tall", "tall"), ("0, 4", "not a size"),
                       ("1 to 90", "more than 24"), ("6.01 to 6.02", "no size between"),
                       (",".join(map(str, range(2, 30))), "no more than 24")):  # fmt: skip
        with pytest.raises(NumberError, match=re.escape(why)):
            sizes_typed(wrong, plan)


def test_a_method_that_changes_with_the_size_is_named():
    """Where the best way to make a unit is another at another size, the chart says so."""
    block = NAMED.get("nine-patch", PIN)
    project = project_of(replace(block, pressing=None))
    chart = size_chart(project, project.blocks[0], [F(2), F(6), F(40)], 30)
    used = {
        (row.unit, i): row.what for row in chart.rows for i, cell in enumerate(row.cells) if cell
    }
    units = {unit for unit, _ in used}
    for unit in units:
        plans = [plan_block(project, at_size(project.blocks[0], w), 30) for w in (2, 6, 40)]
        names = {u.in_use.name for p in plans for u in p.units if u.unit.label == unit}
        told = any(note.startswith(f"{unit} changes") for note in chart.changes)
        assert told == (len(names) > 1)
    lines = chart_lines(chart, plan_block(project, project.blocks[0]))
    assert len({len(line) for line in lines}) == 1
    assert chart_notes(chart)


def priced(project: Project, **have) -> Project:
    fabrics = tuple(replace(f, price=F(12), have=have.get(f.id, ())) for f in project.fabrics)
    return replace(project, fabrics=fabrics)


def test_a_shopping_list_is_rounded_priced_and_says_what_a_step_means():
    project = priced(project_of(PIN))
    plan = plan_block(project, PIN, 9)
    found = shopping(plan, notes=True)
    for line in found.lines:
        assert line.price == line.fabric_plan.buy / 36 * 12
        assert 0 <= line.fabric_plan.buy - line.fabric_plan.length < F(9, 2)
        for note in line.notes:
            if more := re.fullmatch(r"1/8 yd more holds (\d+) blocks? more\.", note):
                for extra, fits in ((int(more[1]), True), (int(more[1]) + 1, False)):
                    other = plan_block(project, PIN, 9 + extra)
                    (need,) = [
                        c.buy
                        for c in other.fabric_plan.at_once
                        if c.fabric == line.fabric_plan.fabric
                    ]
                    assert (need <= line.fabric_plan.buy + F(9, 2)) == fits or extra > 6
    assert found.price == sum(line.price for line in found.lines)
    table = shopping_lines(found, project)
    assert table[-1][0] == "Together"
    assert any("less" in note for note in shopping_notes(found, project))


def test_margin_and_shrinkage_are_bought_too():
    block = block_of(size=(6, 6), fabrics="a")
    project = project_of(block)
    project = replace(project, cutting=Cutting(margin=F(10), wash=True))
    project = project.with_fabric("a", replace(project.fabrics[0], shrink=(F(4), F(5))))
    (fabric_plan,) = plan_block(project, block, 40).fabric_plans.best
    assert fabric_plan.new.width == 42 * F(95, 100)
    needed = fabric_plan.length * F(11, 10) / F(96, 100)
    assert needed <= fabric_plan.buy < needed + F(9, 2)


def test_the_whole_project_is_bought_together():
    other = replace(block_of("1 0 1 1", 2, 1, (8, 4), "ab"), id="two", name="Two")
    project = project_of(PIN, other)
    assert shopping_whole(project, 0).what == "one of each block"
    quilt = replace(project, quilt=Quilt(columns=2, rows=3, block="two"))
    assert shopping_whole(quilt, 0).what == "the quilt"
    found = shopping_for(project, {PIN.id: 2, "two": 5}, "both", 0)
    laid = {
        line.fabric_plan.fabric: sum(
            p.at.layers for c in line.fabric_plan.laid for p in places_of(c)
        )
        for line in found.lines
    }
    apart = [plan_block(project, PIN, 2), plan_block(project, other, 5)]
    for fabric, number in laid.items():
        assert number == sum(c.number for plan in apart for c in plan.cuts if c.fabric == fabric)


def test_blocks_of_one_name_are_told_apart_on_what_there_is():
    """Two blocks called the same ask for eight squares each; a fat quarter holds twelve."""
    one = replace(block_of(size=(4, 4), fabrics="a"), name="Same")
    project = project_of(one, replace(one, id="two"))
    project = priced(project, a=(Have(kind="fat-quarter"),))
    (line,) = shopping_for(project, {one.id: 8, "two": 8}, "both", 0.2).lines
    laid = sum(p.at.layers for c in line.fabric_plan.laid for p in places_of(c))
    assert laid == 16
    assert line.fabric_plan.new is not None


def test_what_there_is_does_or_what_would_make_it_do_is_told():
    plenty = (Have(kind="bolt", width=F(42), length=F(36)),)
    project = priced(project_of(PIN), a=plenty, b=plenty)
    assert enough(plan_block(project, PIN, 4)).does
    assert not enough(plan_block(project_of(PIN), PIN)).entered
    scrap = (Have(kind="scrap", width=F(12), length=F(12)),)
    short = priced(project_of(PIN), a=scrap, b=plenty)
    plan = plan_block(short, PIN, 4)
    found = enough(plan)
    assert [c.fabric for c in found.short] == ["a"]
    words = enough_lines(found, short)
    assert words[0].startswith("Not enough A for")
    fewer = next(c for c in found.changes if "instead of 4" in c.text)
    number = int(re.match(r"Make (\d+)", fewer.text)[1])
    assert not enough(plan_block(short, PIN, number)).short
    assert enough(plan_block(short, PIN, number + 1)).short
    assert any(c.text == "Use B in place of A" for c in found.changes)
    for change in found.changes:
        if size := re.match(r"Finish it (.+)", change.text):
            width = sizes_typed(size[1], plan)[0]
            assert not enough(plan_block(short, at_size(PIN, width), 4)).short


def test_fabric_to_small_for_its_squaring_holds_nothing():
    have = (Have(kind="scrap", width=F(1, 4), length=F(1, 4)), Have(kind="fat-quarter"))
    block = block_of(size=(30, 30), fabrics="a")
    project = replace(priced(project_of(block), a=have), measure=METRIC)
    (fabric_plan,) = plan_block(project, block, 2).fabric_plans.best
    assert [c.kind for c in fabric_plan.laid] == ["fat-quarter", "new"]


@pytest.mark.parametrize("inches", sampled([14, 23, 34, 60], 2, 1))
def test_what_there_is_does_for_a_quilt_or_what_would_make_it_do(inches):
    """Each change that is told does when it is made, and one row more than told does not."""
    pin = replace(PIN, id="pin")
    quilt = Quilt(
        columns=4, rows=5, block="pin",
        borders=(Border(width=F(1), fabric="b"), Border(width=F(4), fabric="a")),
    )  # fmt: skip
    plenty = (Have(kind="bolt", width=F(42), length=F(200)),)
    bolt = (Have(kind="bolt", width=F(42), length=F(inches)),)
    project = replace(priced(project_of(pin), a=bolt, b=plenty), quilt=quilt)
    found = enough(plan_quilt(project))
    assert found.does == (inches == 60)
    texts = [change.text for change in found.changes]
    assert ("Leave out border 2" in texts) == (inches in (23, 34))
    assert "Leave out border 1" not in texts
    for text in texts:
        if size := re.match(r"Make it (\d+) x (\d+): \d (row|column)", text):
            columns, rows, down = int(size[1]), int(size[2]), size[3] == "row"
            for more in (0, 1):
                other = replace(quilt, columns=columns + more * (not down), rows=rows + more * down)
                assert enough(plan_quilt(replace(project, quilt=other))).does == (not more)


@pytest.mark.parametrize("copies", [1, 5, 30])
def test_a_step_less_holds_the_pieces_or_is_said_not_to(copies):
    """What the list says of a step less is so by the least that holds its lengths."""
    block = block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3, (F(9), F(9)), "abcab")
    project = project_of(block)
    plan = plan_block(project, block, copies)
    lines = shopping(plan).lines
    for line in lines:
        need = line.fabric_plan
        step = F(9, 2)
        assert need.least <= need.buy
        assert need.buy - need.least < max(step, need.buy * F(5, 100) + step)
        if need.buy <= step:
            assert line.notes == ()
            continue
        holds = need.buy - step >= need.least
        assert ("does not hold" in line.notes[0]) != holds
        # What is cut up, and half an inch beyond the last strip of each length.
        assert need.least == need.length + F(1, 2) * len(need.lengths)


def test_a_backing_of_wide_fabric_is_told_beside_one_that_is_joined():
    """60 x 70 in and 4 in all round: of 42 in two widths; of 108 in one, 68 in long and a twentieth
    more: 2 yd."""
    quilt = Quilt(columns=6, rows=7, block="test", backing=Backing(fabric="a"))
    block = block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3, (F(10), F(10)), "b")
    project = replace(project_of(block), quilt=quilt)
    (other, _) = shopping_whole(project, 0).others
    assert "of fabric 108 in wide: 2 yd, no seam" in other.left
    narrow = replace(project, quilt=replace(quilt, columns=3, rows=3))
    assert "wide" not in shopping_whole(narrow, 0).others[0].left  # 38 in: one width as it is
