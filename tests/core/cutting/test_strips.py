"""Cloth laid out for cutting."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from inlet.core.cutting.cuts import Cut
from inlet.core.cutting.strips import lay_out
from inlet.core.cutting.words import strips_text
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan import plan_block
from inlet.core.project.measure import METRIC, Measure
from inlet.core.project.project import Project
from inlet.core.project.value import replace
from tests.blocks import block_of, project_of

eighths = st.integers(8, 400).map(lambda n: F(n, 8))
cuts = st.builds(
    lambda fabric, a, b, n: Cut(fabric, "rectangle", (min(a, b), max(a, b)), "none", n, ("A",)),
    st.sampled_from("ab"), eighths, eighths, st.integers(1, 30),
)  # fmt: skip


@given(st.lists(cuts, max_size=8), st.sampled_from([F(0), F(1, 2), F(7, 8)]))
def test_every_piece_is_laid_once_inside_the_cloth_and_none_overlap(wanted, squaring):
    cloths = lay_out(Project(measure=Measure(squaring=squaring)), wanted)
    assert {c.fabric for c in cloths} == {c.fabric for c in wanted}
    for cloth in cloths:
        laid: dict[int, int] = {}
        for strip in cloth.strips:
            end = squaring
            for piece in strip.pieces:
                assert piece.start == end
                assert piece.across <= strip.width
                assert {piece.along, piece.across} == set(piece.cut.cut)
                end = piece.start + piece.along
                laid[id(piece.cut)] = laid.get(id(piece.cut), 0) + 1
            assert end == strip.used
            assert sum(p.along for p in strip.pieces) <= F(42) - squaring
        widths = [strip.width for strip in cloth.strips]
        assert widths == sorted(widths, reverse=True)
        assert cloth.length == sum(widths)
        assert cloth.length <= cloth.buy < cloth.length + F(9, 2)
        assert (cloth.yards() * 8).denominator == 1
        for cut in (c for c in wanted if c.fabric == cloth.fabric):
            fits = min(cut.cut) <= 42 - squaring
            too_wide = any(cut is c for c in cloth.too_wide)
            assert fits != too_wide
            assert laid.get(id(cut), 0) == (0 if too_wide else cut.number)


def test_the_end_of_a_strip_serves_for_narrower_pieces():
    wide = Cut("a", "square", (F(4), F(4)), "none", 2, ("A",))
    narrow = Cut("a", "square", (F(2), F(2)), "none", 5, ("B",))
    (cloth,) = lay_out(Project(), [wide, narrow])
    assert [len(s.pieces) for s in cloth.strips] == [7]
    assert cloth.yards() == F(1, 8)


def test_a_strip_loses_its_squaring():
    """Eleven squares of 3 1/2 in take 38 1/2 in; twelve take all 42, with nothing to square off."""
    square = Cut("a", "square", (F(7, 2), F(7, 2)), "none", 12, ("A",))
    (cloth,) = lay_out(Project(), [square])
    assert [next(p.start for p in s.pieces) for s in cloth.strips] == [F(1, 2), F(1, 2)]
    assert [len(s.pieces) for s in cloth.strips] == [11, 1]
    (whole,) = lay_out(Project(measure=Measure(squaring=F(0))), [square])
    assert [len(s.pieces) for s in whole.strips] == [12]
    cm = square._replace(cut=(F(53, 2), F(53, 2)))
    (metric,) = lay_out(Project(measure=METRIC), [cm])  # 107 cm, 1 of it lost: four fit just so
    assert [len(s.pieces) for s in metric.strips] == [4, 4, 4]
    assert metric.strips[0].used == 107


def test_a_piece_wider_than_the_cloth_is_told():
    plan = plan_block(project_of(big := block_of(size=(50, 50), cloths="a")), big)
    assert [p.code for p in plan.problems] == ["too-wide"]
    assert "50 1/2 in" in plan.problems[0].text


def test_a_long_piece_is_turned_to_fit():
    plan = plan_block(project_of(block := block_of(size=(60, 5), cloths="a")), block)
    (cloth,) = plan.cloth
    assert [(s.width, s.used) for s in cloth.strips] == [(F(121, 2), F(1, 2) + F(11, 2))]


def test_metric_cloth_is_bought_by_ten_centimetres():
    block = block_of("1 0 1 1", 2, 1, (16, 8))
    plan = plan_block(replace(project_of(block), measure=METRIC), block)
    assert [(c.length, c.buy) for c in plan.cloth] == [(F(19, 2), F(10))] * 2


def test_the_strips_to_cut_first_are_told_widest_first():
    """Ten squares of 7 1/4, five to a strip of 42 less 1/2; thirty of 3 1/2, eleven to a strip."""
    large = Cut("a", "square", (F(29, 4), F(29, 4)), "none", 10, ("A",))
    small = large._replace(cut=(F(7, 2), F(7, 2)), number=30, labels=("B",))
    (cloth,) = lay_out(Project(), [small, large])
    # what is left of the wide strips takes one small one each: 28 are left, three strips
    assert strips_text(cloth, Measure()) == "Cut 2 strips 7 1/4 in, then 3 at 3 1/2 in."
    (one,) = lay_out(Project(), [large._replace(number=3)])
    assert strips_text(one, Measure()) == "Cut 1 strip 7 1/4 in."
