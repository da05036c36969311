"""Methods: exact sizes, and that their moves, run on the cut pieces, give the unit."""

from __future__ import annotations

import json
from decimal import Decimal
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.patches import draft
from inlet.core.draft.symmetry import turned
from inlet.core.draft.tray import tray_units
from inlet.core.methods.catalogue import method_named, methods_for
from inlet.core.methods.method import every_piece
from inlet.core.methods.proof import makes_unit
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.marks import next_mark
from inlet.core.numbers.root2 import ROOT2, write_exact
from inlet.core.numbers.text import parse_exact
from inlet.core.planning.cut_rule import usual_rule
from inlet.core.planning.unit_plan import Need, plan_method
from inlet.core.project.measure import Measure
from inlet.core.project.value import replace
from inlet.core.table.pieces import piece_for, rectangle
from inlet.core.table.sheets import size, trimmed
from inlet.core.units.breakdown import break_down
from inlet.core.units.units import find_units
from tests.blocks import allowances, in_fabrics, lengths, point, tray_block, turns
from tests.sample import many

CASES = json.loads((Path(__file__).parents[2] / "data" / "cases.json").read_text())["cases"]
TRAY = {s.kind: s for s in reversed(tray_units())}
OURS = [case for case in CASES if case["unit"] in TRAY]
PARTS = {"square": 0, "large square": 0, "small square": 1, "centre": 0, "corner square": 1}


def unit_of(kind: str, finished: list[F], fabrics: str = "ab", turn=(0, False)):
    """One unit of the tray on its own, as wide as the first of ``finished`` and as high as the
    last."""
    tray_unit = TRAY[kind]
    block = tray_block(tray_unit)
    size = (
        finished[0] * F(1),
        (finished[-1] if tray_unit.size[0] != tray_unit.size[1] else finished[0]),
    )
    block = turned(in_fabrics(replace(block, finished=size), fabrics), turn)
    now = draft(block)
    unit = find_units(now, break_down(now))[0]
    assert unit.kind == kind
    return unit


def method_of(unit, seam: F, name: str):
    method = method_named(name, unit, seam)
    assert method is not None, name
    return method


def test_there_are_worked_cases_for_every_method_they_cover():
    assert {(c["unit"], c["method"]) for c in OURS} == {
        ("half-square-triangle", "two-at-a-time"),
        ("half-square-triangle", "four-at-a-time"),
        ("half-square-triangle", "eight-at-a-time"),
        ("quarter-square-triangle", "crossed-pairs"),
        ("flying-geese", "no-waste"),
        ("square", "plain"),
        ("square-in-square", "single-triangles"),
        ("half-rectangle-triangle", "single-triangles"),
    }


@pytest.mark.parametrize("case", OURS, ids=lambda c: f"{c['unit']}-{c['method']}-{c['finished']}")
def test_worked_cases(case):
    seam = F(case["seam"])
    unit = unit_of(case["unit"], [F(f) for f in case["finished"]], "aba")
    method = method_of(unit, seam, case["method"])
    if case["unit"] == "square-in-square":
        piece = next(
            p for p in method.pieces if (p.crosscut == "once") == (case["part"] != "centre")
        )
        exact = piece.exact[0]
    elif case["unit"] == "half-rectangle-triangle":
        assert method.pieces[0].crosscut == "once"
        exact = method.pieces[0].exact[["short", "long"].index(case["part"].split()[1])]
    else:
        exact = method.pieces[PARTS[case["part"]]].exact[0]
    if case["exact_form"] != "-":  # a half rectangle's slope has a root of its own
        assert exact == parse_exact(case["exact_form"])
        assert write_exact(exact) == case["exact_form"]
    assert abs(Decimal(str(float(exact))) - Decimal(case["exact"])) < Decimal("1e-8")
    marks = {"cut_eighth": F(1, 8), "cut_sixteenth": F(1, 16), "cut_mm": F(1, 10),
             "cut_half_cm": F(1, 2)}  # fmt: skip
    for key, mark in marks.items():
        if key in case:
            assert next_mark(exact, mark) == F(case[key])


@pytest.mark.parametrize("case", [c for c in CASES if c["unit"] == "setting"], ids=str)
def test_worked_cases_of_setting_triangles(case):
    """On point, a block's side triangle has its diagonal f√2 on the outside, on the grain, a corner
    triangle has it twice as legs f/√2: cut as any patch of their shape."""
    diagonal, seam = F(case["finished"][0]) * ROOT2, F(case["seam"])
    half = diagonal / 2
    if case["part"] == "side square":
        patch = (point(0, half), point(half, F(0)), point(diagonal, half))
    else:
        patch = (point(0, 0), point(half, F(0)), point(F(0), half))
    piece = piece_for(patch, "a", seam)
    assert piece.crosscut == ("twice" if case["part"] == "side square" else "once")
    assert write_exact(piece.exact[0]) == case["exact_form"]
    for key, mark in (("cut_eighth", F(1, 8)), ("cut_sixteenth", F(1, 16))):
        assert next_mark(piece.exact[0], mark) == F(case[key])


kinds = st.sampled_from(sorted({s.kind for s in tray_units() if not s.curved}))
fabrics = st.text("abcd", min_size=1, max_size=4)


@given(kinds, lengths, allowances, fabrics, turns)
@settings(max_examples=many(60, 120), deadline=None)
def test_every_way_gives_the_unit_exactly(kind, size_, seam, colours, turn):
    if kind == "checkerboard":
        colours = "ab"  # three fabrics make it squares
    width, height = TRAY[kind].size
    unit = unit_of(kind, [size_ * width / height, size_], colours, turn)
    for method in methods_for(unit, seam):
        assert makes_unit(method, unit, seam), method.name
        assert method.moves, method.name
        if method.name == "four-at-a-time":
            assert method.bias == 4
            continue
        for sheet in method.products:  # it comes off the table at its unfinished size
            assert sorted(size(sheet)) == sorted(f + 2 * seam for f in unit.size)
            shown = trimmed(sheet, seam)
            assert sorted(size(shown)) == sorted(unit.size)


@given(lengths, allowances, st.sampled_from([F(1, 1000), F(-1, 1000), F(1, 8)]))
@settings(max_examples=many(15, 30), deadline=None)
def test_a_wrong_size_is_caught(size_, seam, wrong):
    """The proof can fail: the same moves for another unit, and pieces of another size."""
    for kind in ("half-square-triangle", "quarter-square-triangle", "flying-geese"):
        finished = [2 * size_, size_] if kind == "flying-geese" else [size_]
        if size_ + wrong <= 0:
            continue
        other = [f + (2 * wrong if i == 0 and len(finished) == 2 else wrong)
                 for i, f in enumerate(finished)]  # fmt: skip
        unit, larger = unit_of(kind, finished, "aba"), unit_of(kind, other, "aba")
        for method in methods_for(larger, seam):
            if method.products:
                assert not makes_unit(method, unit, seam), method.name


def test_fabrics_swapped_are_caught():
    unit, other = (unit_of("half-square-triangle", [F(3)], c) for c in ("ab", "ac"))
    assert not makes_unit(method_of(other, F(1, 4), "two-at-a-time"), unit, F(1, 4))


@pytest.mark.parametrize(
    ("kind", "names"),
    [
        ("square", "plain"),
        ("half-square-triangle", "two-at-a-time four-at-a-time eight-at-a-time single-triangles "
         "strip-triangles corner-squares"),
        ("quarter-square-triangle", "crossed-pairs single-triangles"),
        ("three-triangle", "crossed-pairs single-triangles"),
        ("flying-geese", "no-waste single-triangles corner-squares folded"),
        ("square-in-square", "single-triangles corner-squares"),
        ("half-rectangle-triangle", "single-triangles"),
        ("corner-triangle", "corner-squares template"),
        ("nine-patch", "plain strip-set"),
        ("strips", "plain strip-set"),
        ("rounds", "plain sew-and-trim"),
        ("ring", "partial-seam"),
        ("quarter-circle", "template"),
        ("set-in", "template"),
        ("eight-point-star", "template"),
    ],
)  # fmt: skip
def test_ways_offered(kind, names):
    unit = unit_of(kind, [F(6), F(3)], "abca")
    methods = list(methods_for(unit, F(1, 4)))
    assert [w.name for w in methods] == names.split()
    for method in methods:  # asked for by its name, it is the same
        same = method_named(method.name, unit, F(1, 4))
        assert same is not None
        assert (same.name, same.pieces, same.sets) == (method.name, method.pieces, method.sets)
    assert method_named("no-such-method", unit, F(1, 4)) is None


def test_nine_hourglasses_two_a_run_make_ten():
    unit = unit_of("quarter-square-triangle", [F(4)], "abba")
    method = plan_method(method_of(unit, F(1, 4), "crossed-pairs"), unit, Need(9), Measure())
    assert (method.runs, method.surplus) == (5, 1)
    assert [(p.number, p.cut[0]) for p in method.pieces] == [(5, F(21, 4))] * 2


def test_triangles_come_in_whole_squares():
    unit = unit_of("quarter-square-triangle", [F(4)], "abba")
    method = plan_method(method_of(unit, F(1, 4), "single-triangles"), unit, Need(3), Measure())
    # six triangles of a fabric, four a square
    assert [(p.number, p.piece.crosscut) for p in method.pieces] == [(2, "twice"), (2, "twice")]


def test_the_trim_style_cuts_larger_and_trims():
    unit = unit_of("half-square-triangle", [F(3)])
    trim = Measure(style="trim")
    method = plan_method(method_of(unit, F(1, 4), "two-at-a-time"), unit, Need(4), trim)
    # 3.854 up to 3 7/8, plus 1/8
    assert [p.cut for p in method.pieces] == [(F(4), F(4))] * 2
    assert method.trim_to == (F(7, 2), F(7, 2))
    assert method.pieces[0].over == F(1, 2) - ROOT2 / 4
    plain = unit_of("square", [F(3)])
    assert plan_method(next(methods_for(plain, F(1, 4))), plain, Need(1), trim).trim_to is None


@given(lengths, lengths, allowances, st.sampled_from([F(1, 4), F(1, 8), F(1, 16), F(1, 32)]))
def test_what_is_sewn_as_cut_lies_a_thread_off_at_most_all_else_is_never_short(
    one, other, seam, ruler
):
    for style in ("exact", "trim"):
        rule = usual_rule(Measure(seam=seam, ruler=ruler, style=style))
        plain = rectangle("a", (one + 2 * seam, other + 2 * seam))
        for exact, cut in zip(plain.exact, rule.cut(plain), strict=True):
            assert -F(1, 32) <= cut - exact < max(ruler, F(1, 32))
            near = min((cut, cut - ruler, cut + ruler), key=lambda mark: abs(mark - exact))
            assert cut == near or abs(near - exact) > F(1, 32)
        slanted = [plain._replace(crosscut=how) for how in ("once", "twice", "sewn")]
        for piece in (*slanted, plain._replace(slanted=True)):
            for exact, cut in zip(piece.exact, rule.cut(piece), strict=True):
                assert exact <= cut < exact + ruler
        assert min(rule.cut(slanted[2], trims=True)) >= slanted[2].exact[0] + F(1, 8)


def test_a_set_in_square_is_cut_where_a_maker_cuts_it():
    """4.015 in falls a hair past 4: nobody cuts 4 1/8. On a diagonal it must be 4 1/8."""
    square = rectangle("a", (F(803, 200), F(803, 200)))
    rule = usual_rule(Measure())
    assert rule.cut(square) == (F(4), F(4))
    assert rule.cut(square._replace(crosscut="once")) == (F(33, 8), F(33, 8))


def test_moves_show_what_they_say():
    unit = unit_of("half-square-triangle", [F(3)])
    for method in methods_for(unit, F(1, 4)):
        assert method.moves[0].do == "cut"
        for move in method.moves:
            assert move.lower or move.upper
            assert (move.do == "sew") <= any(line.kind == "seam" for line in move.lines)


@pytest.mark.parametrize("kind", sorted(TRAY))
def test_every_piece_of_a_strip_set_is_as_long_as_its_segments(kind):
    """A band w wide of a set for segments h high: w and h, each with an allowance at both sides."""
    unit, seam = unit_of(kind, [F(7), F(7, 2)]), F(1, 4)
    for method in methods_for(unit, seam):
        strips = every_piece(method, seam)[len(method.pieces) :]
        bands = [(width, sewn.height) for sewn in method.sets for width, _ in sewn.bands]
        assert [tuple(sorted(piece.exact)) for piece in strips] == [
            tuple(sorted((width + F(1, 2), high + F(1, 2)))) for width, high in bands
        ]
