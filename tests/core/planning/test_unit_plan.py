"""What a method comes to for the units needed: hands, trims, strips, stock, and the comparison."""

from __future__ import annotations

import re
from itertools import groupby

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.symmetry import turned
from inlet.core.draft.tray import tray_units
from inlet.core.geometry.motion import EIGHTH_TURN
from inlet.core.geometry.polygon import area
from inlet.core.methods.catalogue import methods_for
from inlet.core.methods.method import bias_edges, effort_of
from inlet.core.methods.proof import makes_unit
from inlet.core.methods.trim import trim_of
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2, floor_exact
from inlet.core.numbers.systems import CENTIMETRES, INCHES
from inlet.core.plan.block import plan_block
from inlet.core.planning.compare import cost_of, costs, reason, recommended
from inlet.core.planning.stock import Stock, largest_from, parse_stock
from inlet.core.planning.unit_plan import Need, UnitPlan, plan_method
from inlet.core.project.block import Choice
from inlet.core.project.measure import METRIC, Measure, Rates
from inlet.core.project.project import measured_in
from inlet.core.project.value import replace
from inlet.core.table.sheets import box
from inlet.core.units.units import fabric_in
from tests.blocks import allowances, block_of, in_fabrics, lengths, project_of
from tests.core.methods.test_catalogue import TRAY, method_of, unit_of
from tests.sample import many

QUARTER = F(1, 4)
THREE = "0 0 2 2 / 2 0 1 1"


def row_of_three_triangles(hands: str):
    """Three-triangle units side by side, mirrored where ``hands`` says r."""
    drawn = []
    for i, hand in enumerate(hands):
        x = 2 * i
        middle = f"{x + 2} 0 {x + 1} 1" if hand == "l" else f"{x} 0 {x + 1} 1"
        long = f"{x} 0 {x + 2} 2" if hand == "l" else f"{x + 2} 0 {x} 2"
        drawn += [long, middle] + ([f"{x} 0 {x} 2"] if i else [])
    block = block_of(" / ".join(drawn), 2 * len(hands), 2, (4 * len(hands), 4))
    spots = []
    for i, hand in enumerate(hands):
        x = 2 * i
        for across, down, fabric in ((1, F(1, 2), "a"), (F(3, 2), 1, "b"), (F(1, 2), 1, "c")):
            place = across if hand == "l" else 2 - across
            spots.append(((x + F(1) * place, F(1) * down), fabric))
    return replace(
        in_fabrics(block, "c"),
        fabric_at=tuple(replace(block.fabric_at[0], point=p, fabric=c) for p, c in spots),
    )


def test_hands_are_counted_and_what_is_over_of_each():
    """Three left and one right three-triangle unit, two of each in two blocks."""
    block = replace(row_of_three_triangles("lllr"), methods={"three-triangle": "crossed-pairs"})
    plan = plan_block(project_of(block), block, 2)
    left, right = plan.units
    assert (left.unit.kind, right.unit.mirror_of) == ("three-triangle", left.unit.label)
    assert left.hands == {"A": 6, "A rev": 2}
    crossed, other = left.in_use, right.in_use
    assert crossed.name == other.name == "crossed-pairs"
    assert (crossed.runs, crossed.surplus, crossed.mirrored_over) == (6, 0, 4)
    assert (other.surplus, other.made_with, other.pieces) == (4, "A", ())
    assert [p.number for p in crossed.pieces] == [3, 3, 6]
    assert "4 of the mirror image will be over" in plan.steps[0].text
    assert "come out of the runs of A" in plan.steps[1].text
    # one by one each hand is cut on its own
    alone = plan_block(
        project_of(block), replace(block, methods={"three-triangle": "single-triangles"})
    )
    assert [u.in_use.surplus for u in alone.units] == [0, 0]
    assert all(u.in_use.made_with is None and u.in_use.pieces for u in alone.units)
    assert alone.resewn
    assert plan.resewn


def test_hands_made_in_different_ways_are_counted_apart():
    block = row_of_three_triangles("lr")
    choice = Choice(point=(F(7, 2), F(1)), method="single-triangles")
    crossed = {"three-triangle": "crossed-pairs"}
    plan = plan_block(project_of(block), replace(block, units=(choice,), methods=crossed))
    assert [u.in_use.name for u in plan.units] == ["crossed-pairs", "single-triangles"]
    assert [u.in_use.made_with for u in plan.units] == [None, None]
    assert plan.units[0].in_use.mirrored_over == 1


@given(
    st.sampled_from([("half-square-triangle", 3), ("quarter-square-triangle", 1),
                     ("three-triangle", 1), ("flying-geese", 1)]),
    lengths, allowances, st.sampled_from([F(1, 8), F(1, 16), F(1, 4)]), st.booleans(),
)  # fmt: skip
@settings(max_examples=many(30, 60), deadline=None)
def test_trims_lie_inside_the_unit_sewn_large(kind, size_, seam, mark, metric):
    name, number = kind
    finished = [2 * size_, size_] if name == "flying-geese" else [size_]
    unit = unit_of(name, finished, "abc" if metric else "cab")
    base = replace(METRIC, seam=seam) if metric else Measure(seam=seam, ruler=mark)
    measure = replace(base, style="trim", oversize=(mark, mark))
    for its_method in list(methods_for(unit, seam))[:number]:
        method = plan_method(its_method, unit, Need(5), measure)
        found = method.trim
        assert found is not None, its_method.name
        left, top, right, bottom = found.box
        assert sorted((right - left, bottom - top)) == sorted(f + 2 * seam for f in unit.size)
        outer = box(found.sheet)
        assert outer[0] <= left < right <= outer[2]
        assert outer[1] <= top < bottom <= outer[3]
        assert found.ruler
        (large, *_) = its_method.work(tuple(p.cut for p in method.pieces)).products
        assert found.sheet in (large, EIGHTH_TURN.picture(large))
        assert method.moves[-1].do == "trim"
        # cut smaller than exact, it cannot be trimmed
        small = its_method.work(tuple((a - F(1, 50), b - F(1, 50)) for a, b in
                               (p.exact for p in its_method.pieces))).products  # fmt: skip
        assert trim_of(small[0], its_method.products[0]) is None


def test_a_style_and_an_oversize_for_one_unit():
    block = block_of("1 0 1 1 / 0 0 1 1 / 2 0 2 1 / 1 1 2 0", 3, 1, (9, 3), "ab")
    choice = Choice(point=(F(1, 2), F(1, 4)), style="trim", label="Nose")
    project = project_of(block, oversize=(F(1, 4), F(1, 4)))
    plan = plan_block(project, replace(block, units=(choice,)))
    by_label = {u.unit.label: u for u in plan.units}
    assert by_label["Nose"].style == "trim"
    assert {p.cut[0] for p in by_label["Nose"].in_use.pieces} == {F(17, 4)}  # 3.854 → 4 → 4 1/4
    assert by_label["Nose"].in_use.trim_to == (F(7, 2), F(7, 2))
    assert {c.label for c in plan.cuts if "Nose" in c.labels} == {"Nose1", "Nose2"}
    assert plan.resewn


@given(lengths, st.sampled_from([F(1, 8), F(1, 16), F(1, 4)]))
@settings(max_examples=15, deadline=None)
def test_how_far_a_cut_is_off_its_exact_size(side, ruler):
    """By hand: squares are 1/2 in larger than they finish, triangles cut once 1/2 + √2/4."""
    block = block_of("0 0 1 1 / 1 0 1 2 / 2 0 2 1", 3, 1, (3 * side, side), "abc")
    single = {"half-square-triangle": "single-triangles"}
    project = project_of(replace(block, methods=single), ruler=ruler)
    more = {"half-square-triangle": F(1, 2) + ROOT2 / 4, "square": F(1, 2)}
    for unit in plan_block(project, project.blocks[0]).units:
        if unit.unit.kind in more:
            for piece in unit.in_use.pieces:
                assert piece.over == piece.cut[1] - side - more[unit.unit.kind]


def test_labels_are_never_given_twice():
    block = block_of("1 0 1 1 / 0 0 1 1", 2, 1, (6, 3), "ab")
    clash = Choice(point=(F(3, 2), F(1, 2)), label="A")
    plan = plan_block(project_of(block), replace(block, units=(clash,)))
    assert len({u.unit.label for u in plan.units}) == len(plan.units) == 2


# --- strips -----------------------------------------------------------------------------------


@given(st.integers(1, 60), lengths, allowances, st.integers(15, 45))
@settings(max_examples=60)
def test_strips_give_the_segments_wanted(count, size_, seam, usable):
    """By counting: whole segments of each set, none too many sets, none longer than the fabric."""
    unit = unit_of("four-patch", [size_], "abba")
    measure = Measure(seam=seam)
    its_method = method_of(unit, seam, "strip-set")
    method = plan_method(its_method, unit, Need(count), measure, usable=lambda _: F(usable))
    (sewn,) = method.sets
    segment = size_ / 2 + 2 * seam
    if segment + F(1, 2) > usable:
        return
    assert sewn.strips.number * count <= sewn.number * sewn.segments
    assert (sewn.number - 1) * floor_exact((usable - F(1, 2)) / segment) < 2 * count
    assert sewn.segments * segment + F(1, 2) <= sewn.length <= usable + measure.mark
    assert sum(p.number for p in method.pieces) == 2 * sewn.number


def test_sets_are_shared_by_units_that_want_the_same():
    """A four-patch, and bars of the same two fabrics and widths: one kind of set."""
    drawn = "2 0 2 2 / 1 0 1 2 / 0 1 2 1 / 3 0 3 2"
    block = block_of(drawn, 4, 2, (8, 4))
    spots = (
        ((0, 0), "a"),
        ((1, 0), "b"),
        ((0, 1), "b"),
        ((1, 1), "a"),
        ((2, 0), "a"),
        ((3, 0), "b"),
    )
    block = replace(
        block,
        fabric_at=tuple(
            replace(block.fabric_at[0], point=(x + F(1, 2), y + F(1, 2)), fabric=c)
            for (x, y), c in spots
        ),
        methods={"four-patch": "strip-set", "strips": "strip-set"},
    )
    plan = plan_block(project_of(block), block, 10)
    (shared,) = plan.sets
    assert [(s.number, s.height, s.labels) for s in shared.segments] == [
        (10, F(4), ("B",)),
        (20, F(2), ("A",)),
    ]
    room = F(42) - F(1, 2)
    assert all(length <= 42 for length in shared.lengths)
    total = 10 * F(9, 2) + 20 * F(5, 2)
    assert sum(shared.lengths) >= total
    assert len(shared.lengths) == -(-total // room) == 3
    assert {c.kind: c.sets for c in shared.choices}["half-width"] >= 5
    strips = [c for c in plan.cuts if c.shape == "strip"]
    assert sum(c.number for c in strips) == 2 * 3
    assert plan.resewn


# --- fabric already cut --------------------------------------------------------------------------


def test_ten_inch_squares_four_at_a_time():
    unit = unit_of("half-square-triangle", [F(3)])
    (stock,) = parse_stock("10 squares", INCHES)
    its_method = method_of(unit, QUARTER, "four-at-a-time")
    largest = largest_from(stock, unit, its_method, QUARTER, F(42))
    # (10 - 2s)/√2 raw
    assert abs(float(largest[0]) - ((10 - 0.5) / 2**0.5 - 0.5)) < 1e-12
    big = unit_of("half-square-triangle", [F(6)])
    method = plan_method(
        method_of(big, QUARTER, "four-at-a-time"), big, Need(9), Measure(), stock=stock
    )
    assert [p.cut for p in method.pieces] == [(F(10), F(10))] * 2
    assert [p.stock for p in method.pieces] == [3, 3]
    assert method.trim_to == (F(13, 2), F(13, 2))
    assert method.trim is not None
    short = plan_method(
        method_of(big, QUARTER, "eight-at-a-time"), big, Need(9), Measure(), stock=stock
    )
    assert short.short


@given(
    st.sampled_from(["half-square-triangle", "flying-geese", "square", "square-in-square"]),
    st.integers(3, 20),
)
@settings(max_examples=30, deadline=None)
def test_the_largest_unit_stock_yields_just_fits(kind, width):
    finished = [F(4), F(2)] if kind == "flying-geese" else [F(4)]
    unit = unit_of(kind, finished)
    stock = Stock("square", F(width))
    for method in methods_for(unit, QUARTER):
        largest = largest_from(stock, unit, method, QUARTER, F(42))
        if largest is None or method.sets:
            continue
        k = largest[0] / unit.size[0]
        whole = next(w for w in methods_for(unit.scaled(k), QUARTER) if w.name == method.name)
        # exactly as large as the stock; a piece with a root of its own may be a hair over
        assert abs(float(max(max(p.exact) for p in whole.pieces)) - width) < 1e-9


def test_stock_is_cut_down_and_not_bought():
    block = block_of("0 0 1 1", size=(3, 3))
    choice = Choice(point=(F(1, 4), F(3, 4)), stock="10 squares")
    plan = plan_block(project_of(block), replace(block, units=(choice,)), 8)
    pieces = plan.units[0].in_use.pieces
    # four 3 7/8 squares come off a 10 in one
    assert [(p.number, p.stock, p.cut[0]) for p in pieces] == [(4, 1, F(31, 8))] * 2
    assert plan.fabric_plans.best == ()
    assert all(c.owned for c in plan.cuts)


def test_fabric_already_cut_keeps_its_size_in_centimetres():
    block = block_of("0 0 1 1", size=(3, 3))
    for text in ("10 squares", "10 in squares", "25.4 cm squares"):
        choice = Choice(point=(F(1, 4), F(3, 4)), stock=text)
        project = measured_in(project_of(replace(block, units=(choice,))), CENTIMETRES)
        (unit,) = plan_block(project, project.blocks[0]).units
        assert unit.stock.width == F(127, 5)


# --- the comparison -----------------------------------------------------------------------------

every_unit = st.sampled_from([s.kind for s in tray_units()])


@given(every_unit, st.integers(1, 30), st.sampled_from(["exact", "trim"]))
@settings(max_examples=60, deadline=None)
def test_costs_add_up(kind, count, style):
    unit = unit_of(kind, [F(6) * n for n in TRAY[kind].size], "ab")
    measure = Measure(style=style)
    plan = UnitPlan(unit, Need(count), measure)
    found = costs(plan, Rates())
    assert [c.plan.name for c in found] == [m.name for m in plan.methods]
    for cost in found:
        method = cost.plan.method
        assert cost.over == cost.plan.runs * (method.makes + method.mirrored) - count
        assert 0 <= cost.wasted <= cost.fabric
        assert cost.minutes > 0
        assert cost.cuts >= cost.shapes > 0
        if len(unit.picture) > 1:
            assert cost.seams > 0
        # minutes are the maker's rates, nothing else
        idle = Rates(cut=0, mark=0, seam=0, length=0, press=0, trim=0)
        assert cost_of(cost.plan, plan.need, plan, idle).minutes == 0
    best = recommended(found, measure)
    # nothing that needs no tool and leaves no loose triangle is better in everything
    for other in found:
        loose = any(p.piece.crosscut in ("once", "twice") for p in other.plan.pieces)
        if not other.plan.method.tool and not loose:
            better = other.minutes < best.minutes and other.wasted < best.wasted
            assert not better or other.bias * other.plan.made > best.bias * best.plan.made
    sentence = reason(best, found)
    assert sentence[0].isupper()
    assert sentence.endswith(".")


@pytest.mark.parametrize("kind", sorted({s.kind for s in tray_units()}))
def test_what_is_said_of_the_effort_is_what_the_moves_show(kind):
    """Seams and cuts are counted from the drawings where a shorter way is taken."""
    unit = unit_of(kind, [F(6) * n for n in TRAY[kind].size], "ab")
    for method in methods_for(unit, QUARTER):
        counted = effort_of(method.moves)
        said = method.effort
        assert (said.presses, said.seams) == (counted.presses, counted.seams)
        if method.products:  # patches are drawn without the ends of their seams
            assert (said.apart, said.marks) == (counted.apart, counted.marks)
            assert said.length == pytest.approx(counted.length)
            assert method.bias == bias_edges(method.products[0])


@pytest.mark.parametrize("kind", ["flying-geese", "half-square-triangle"])
def test_nobody_is_advised_unasked_to_folds_or_a_special_ruler(kind):
    """Whatever the number and the rates: folded geese and triangles from strips come last."""
    for number in (1, 3, 24, 500):
        for rates in (Rates(), Rates(cut=3600), Rates(seam=3600), Rates(press=3600, mark=3600)):
            unit = unit_of(kind, [F(4), F(2)] if kind == "flying-geese" else [F(3)], "aba")
            plan = UnitPlan(unit, Need(number), Measure())
            best = recommended(costs(plan, rates), Measure()).plan
            assert best.name not in ("folded", "strip-triangles")


@pytest.mark.parametrize("number", [1, 4, 40])
def test_a_snowballs_corner_is_a_corner_square(number):
    """Not a template of five sides, whatever its minutes."""
    plan = UnitPlan(unit_of("corner-triangle", [F(3)], "ab"), Need(number), Measure())
    best = recommended(costs(plan, Rates()), Measure())
    assert best.plan.name == "corner-squares"


def test_inner_corners_are_offered_cut_once_with_the_bias_that_leaves():
    """A square in a square in a square, 8 in: the inner one is 4√2, its corners f/2 + 2s + s√2 cut
    once, 3.682, and no bias outside; cut twice four edges are."""
    drawn = "1/2 0 1 1/2 / 1 1/2 1/2 1 / 1/2 1 0 1/2 / 0 1/2 1/2 0"
    inside = "3/4 1/4 3/4 3/4 / 3/4 3/4 1/4 3/4 / 1/4 3/4 1/4 1/4 / 1/4 1/4 3/4 1/4"
    block = block_of(f"{drawn} / {inside}", size=(8, 8), fabrics="abababababa")
    for wanted in ("", "single-triangles", "corners-cut-once"):
        methods = {"square-in-square": wanted} if wanted else {}
        plan = plan_block(project_of(block), replace(block, methods=methods), 3)
        assert plan.resewn
        inner = next(u for u in plan.units if u.unit.nested_in(plan.units[0].unit))
        found = {c.plan.name: c for c in plan.compared[inner.unit.label].costs}
        assert (found["single-triangles"].bias, found["corners-cut-once"].bias) == (4, 0)
        cut = [p for p in found["corners-cut-once"].plan.pieces if p.piece.crosscut == "once"]
        exact = 2 * ROOT2 + F(1, 2) + ROOT2 / 4
        assert {p.piece.exact[0] for p in cut} == {exact}
        assert inner.in_use.name == (wanted or "corners-cut-once")
        assert inner.chosen_for_you == (not wanted)
        assert plan.fit.worst <= 1 / 32 + 1e-9


def test_the_plan_follows_its_own_advice_unless_the_maker_chose():
    """For each number what is advised is used; what is chosen, for a kind, one unit or its mirror
    image, is used instead, and what cannot be is not."""
    block = block_of("0 0 1 1", size=(3, 3))
    seen = set()
    for copies in (1, 2, 8, 9, 30):
        plan = plan_block(project_of(block), block, copies)
        (unit,) = plan.units
        assert unit.in_use.name == plan.compared["A"].best.plan.name
        assert unit.chosen_for_you
        seen.add(unit.in_use.name)
    assert len(seen) >= 3
    chosen = replace(block, methods={"half-square-triangle": "four-at-a-time"})
    (unit,) = plan_block(project_of(block), chosen).units
    assert (unit.in_use.name, unit.chosen_for_you) == ("four-at-a-time", False)
    odd = replace(block, methods={"half-square-triangle": "no-waste"})
    (unit,) = plan_block(project_of(block), odd, 8).units
    assert (unit.in_use.name, unit.chosen_for_you) == ("eight-at-a-time", True)
    for at, method in (
        (F(1, 2), "single-triangles"),
        (F(7, 2), "crossed-pairs"),
    ):  # A, or A rev alone
        pair = replace(
            row_of_three_triangles("lr"), units=(Choice(point=(F(at), F(1)), method=method),)
        )
        names = [u.in_use.name for u in plan_block(project_of(pair), pair).units]
        assert names == [method, method]


def test_all_corner_squares_are_marked_at_once():
    """Before the first is sewn: one walk to the mat instead of one for each corner."""
    unit = unit_of("square-in-square", [F(4)], "ab")
    method = method_of(unit, F(1, 4), "corner-squares")
    does = [move.do for move in method.moves]
    assert does[:2] == ["cut", "mark"]
    assert does.count("mark") == 1
    assert method.effort.marks == 4


@pytest.mark.parametrize(
    ("kind", "name", "sewn"),
    [("square-in-square", "single-triangles", [2, 2]),
     ("square-in-square", "corner-squares", [2, 2]),
     ("flying-geese", "corner-squares", [1, 1]), ("nine-patch", "plain", [2, 2, 2, 2]),
     ("corner-triangle", "corner-squares", None), ("strips", "plain", [2])],
)  # fmt: skip
def test_what_does_not_wait_for_the_iron_is_sewn_before_it(kind, name, sewn):
    """Opposite sides and corners, and the seams of a row, in one walk; rows one after the other."""
    wide = [F(6)] if kind != "flying-geese" else [F(6), F(3)]
    method = method_of(unit_of(kind, wide, "abcabcab"), QUARTER, name)
    seams = [[line.kind for line in m.lines].count("seam") for m in method.moves if m.do == "sew"]
    assert sum(seams) == method.effort.seams
    assert seams == (sewn or [sum(seams)])
    walks = [place for place, _ in groupby(m.do == "open" for m in method.moves)]
    rows = 2 if kind in ("nine-patch", "square-in-square", "flying-geese") else 1
    assert walks.count(True) == rows


def test_a_unit_sewn_patch_by_patch_is_trimmed_with_a_picture():
    unit = unit_of("half-square-triangle", [F(3)], "ab")
    measure = Measure(style="trim")
    method = method_of(unit, F(1, 4), "single-triangles")
    moves = plan_method(method, unit, Need(2), measure).moves
    assert [m.do for m in moves].count("trim") == 1
    assert moves[-1].do == "trim"
    left, top, right, bottom = box(moves[-1].lower)
    cuts = [line for line in moves[-1].lines if line.kind == "cut"]
    assert len(cuts) == 4
    assert all(left < p.x < right and top < p.y < bottom for c in cuts for p in (c.start, c.end))


def test_four_at_a_time_leaves_bias_outside():
    unit = unit_of("half-square-triangle", [F(3)])
    bias = {method.name: method.bias for method in methods_for(unit, QUARTER)}
    assert bias == {**dict.fromkeys(bias, 0), "four-at-a-time": 4}
    sheet = method_of(unit, QUARTER, "four-at-a-time").products[0]
    assert bias_edges(sheet) == 4
    assert bias_edges(EIGHTH_TURN.picture(sheet)) == 0
    # an hourglass whose triangles are cut once has its outer edges on the bias; they are cut twice
    glass = unit_of("quarter-square-triangle", [F(4)])
    assert method_of(glass, QUARTER, "single-triangles").bias == 0


def test_fabric_in_a_unit_and_its_waste():
    unit = unit_of("square", [F(3)])
    assert fabric_in(unit, QUARTER) == pytest.approx(3.5**2)
    halves = unit_of("half-square-triangle", [F(3)])
    assert fabric_in(halves, QUARTER) == pytest.approx(3.5**2 + 0.5 * 3 * 2**0.5)


def test_corner_squares_leave_bonus_triangles():
    """The offcuts of a corner, sewn together, are a half-square triangle of k - 2s√2."""
    unit = unit_of("corner-triangle", [F(9)], "ab")
    its_method = method_of(unit, QUARTER, "corner-squares")
    (bonus,) = its_method.left_over
    assert float(bonus.size[0]) == pytest.approx(3 - 0.5 * 2**0.5)
    method = plan_method(its_method, unit, Need(5), Measure())
    assert [b.number for b in method.left_over] == [5]


def test_turned_units_have_the_same_methods_and_sizes():
    for turn in ((1, False), (2, True), (3, False)):
        for tray_unit in tray_units():
            if tray_unit.curved:
                continue
            finished = [F(6) * tray_unit.size[0] / tray_unit.size[1], F(6)]
            plain = unit_of(tray_unit.kind, finished, "ab")
            other = unit_of(tray_unit.kind, finished, "ab", turn)
            pieces = [[sorted((p.shape, p.crosscut, p.exact) for p in w.pieces)
                       for w in methods_for(u, QUARTER)] for u in (plain, other)]  # fmt: skip
            assert pieces[0] == pieces[1], tray_unit.words
            assert area(plain.outline) == area(other.outline)


def test_a_nested_unit_is_made_first_and_counted():
    drawn = (
        "1/2 0 1 1/2 / 1 1/2 1/2 1 / 1/2 1 0 1/2 / 0 1/2 1/2 0 / 3/4 1/4 1/4 3/4 / 1/4 1/4 3/4 3/4"
    )
    block = turned(block_of(drawn, size=(8, 8), fabrics="abc"), (1, False))
    plan = plan_block(project_of(block), block, 3)
    outer, inner = plan.units
    assert (outer.unit.kind, inner.unit.kind) == ("square-in-square", "four-patch")
    assert outer.inside == (inner,)
    assert (outer.count, inner.count) == (3, 3)
    assert [s.makes for s in plan.steps[:2]] == [inner.unit.label, outer.unit.label]
    assert all(makes_unit(u.in_use.method, u.unit, QUARTER) for u in plan.units)
    assert plan.resewn
    # only its own patches are cut for the outer one
    assert sum(p.piece.quantity for p in outer.in_use.pieces) == 4


@given(
    lengths, allowances, st.integers(1, 5), st.booleans(), st.booleans(), st.booleans(),
    st.tuples(st.integers(0, 3), st.booleans()),
)  # fmt: skip
@settings(max_examples=40, deadline=None)
def test_striped_halves_come_from_two_strip_sets(size_, seam, at, across, down, plain, turn):
    """Each half in bands along one leg or the other, or whole: squares of the two sets, sewn either
    side of the diagonal, give the unit in one stack, and the other stack is told of."""
    upper = f"{at} 0 {at} {at}" if across else f"{at} {at} 6 {at}"
    lower = f"{at} {at} {at} 6" if down else f"0 {at} {at} {at}"
    drawn = " / ".join(["0 0 6 6", upper, *([] if plain else [lower])])
    block = turned(block_of(drawn, 6, 6, (6 * size_, 6 * size_), "abcd"), turn)
    plan = plan_block(project_of(block, seam=seam), block)
    (unit,) = plan.units
    assert unit.unit.kind == "half-square-triangle"
    method = method_of(unit.unit, seam, "strip-set")
    assert makes_unit(method, unit.unit, seam)
    assert all(
        sum((w for w, _ in one.bands), F(0)) + 2 * seam == one.height + 2 * seam
        for one in method.sets
    )
    assert method.left_over[0].mirrored


@pytest.mark.parametrize(
    ("kind", "fabrics", "handed"),
    [
        ("half-square-triangle", "ab", False),
        ("half-rectangle-triangle", "ab", True),
        ("half-rectangle-triangle", "a", True),  # leaning either way it is another unit
        ("three-triangle", "abc", True),
        ("three-triangle", "abb", False),  # the two small ones alike
        ("three-triangle", "aab", True),  # a small one like the large
        ("flying-geese", "abc", True),
        ("flying-geese", "aba", False),  # both skies alike
        ("flying-geese", "aab", True),  # a sky like the goose
        ("quarter-square-triangle", "abcd", True),
        ("four-patch", "abba", False),
        ("ring", "a", True),
        ("eight-point-star", "a", False),
    ],
)
def test_units_that_differ_from_their_mirror_image(kind, fabrics, handed):
    size = [F(6) * n for n in TRAY[kind].size]
    unit = unit_of(kind, size, fabrics)
    assert unit.handed == handed


def test_a_units_minutes_counted_by_hand():
    """Two at a time: cut two squares and later one line (3 min), draw a line (2 min), two seams (6
    min), open both (10 min)."""
    rates = Rates(cut=60, mark=120, seam=180, length=0, press=300, trim=0)
    block = block_of("1 0 1 2 / 0 1 2 1 / 0 0 1 1 / 1 1 2 2", 2, 2, (8, 8), "ab")
    plan = plan_block(replace(project_of(block), rates=rates), block)
    triangle = next(u for u in plan.units if u.unit.kind == "half-square-triangle")
    minutes = {c.plan.name: c.minutes for c in costs(triangle, rates)}
    assert minutes["two-at-a-time"] == pytest.approx(3 + 2 + 6 + 10)


def test_saves_so_many_minutes_is_the_difference():
    """The figure in the sentence against two figures of the comparison, for many counts."""
    block = block_of("1 0 1 2 / 0 1 2 1 / 0 0 1 1 / 1 1 2 2", 2, 2, (8, 8), "ab")
    told = 0
    for copies in (1, 2, 3, 5, 9, 20, 60):
        plan = plan_block(project_of(block), block, copies)
        found = plan.compared["A"].costs
        for cost in found:  # whichever were recommended
            text = reason(cost, found)
            quickest = min(c.minutes for c in found if c is not cost)
            saves, takes = (re.search(rf"{word} (\d+) min", text) for word in ("saves", "takes"))
            if saves:
                told += 1
                assert int(saves[1]) == round(cost.minutes - quickest) > 0
            elif takes:
                told += 1
                assert int(takes[1]) == round(quickest - cost.minutes) > 0
    assert told > 20
