"""The document's own small rules, and sizes in words."""

from __future__ import annotations

import pytest

from inlet.core.draft.sizes import with_seams, without_seams
from inlet.core.layout.words import buying_text, total_text
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.root2 import ROOT2
from inlet.core.plan.block import plan_block
from inlet.core.planning.words import kind_words, method_words, move_text, piece_text
from inlet.core.project.block import Block, straight, total
from inlet.core.project.cutting import Cutting
from inlet.core.project.fabric import Fabric
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.project import Project
from inlet.core.project.quilt import Quilt, QuiltPlace
from inlet.core.project.value import fresh_id, replace
from inlet.core.setting.places import block_counts
from inlet.core.words import fabric_name, length_text, measured_text, place_text, size_text
from tests.blocks import block_of, point, project_of


def test_ids_are_made_from_names_and_never_twice():
    assert fresh_id("Heron Bend", set()) == "heron-bend"
    assert fresh_id("Heron  bend!", {"heron-bend"}) == "heron-bend-2"
    assert fresh_id("Heron Bend", {"heron-bend", "heron-bend-2"}) == "heron-bend-3"
    assert fresh_id("!!", set()) == "block"


def test_a_seam_drawn_backward_is_the_same_seam():
    p, q = (F(1), F(2)), (F(3), F(0))
    assert straight(p, q) == straight(q, p)


def test_a_project_finds_its_own():
    one = Block(id="one", columns=(F(2), F(1)), rows=(F(1),), finished=(F(9), F(6)))
    project = Project(blocks=(one, replace(one, id="two")))
    assert project.block("two").id == "two"
    with pytest.raises(KeyError):
        project.block("three")
    assert project.fabric("none") is None
    assert project.fabric_width("none") == 42
    assert replace(project, measure=METRIC).fabric_width("none") == 107
    assert one.grid == (F(3), F(1))
    assert one.scale == (F(3), F(6))
    assert total(one.columns) == 3
    renamed = project.with_block(replace(one, name="Skiff"))
    assert [b.title for b in renamed.blocks] == ["Skiff", "two"]


@pytest.mark.parametrize("wash", [True, False])
def test_washing_takes_of_a_fabric_across(wash):
    fabrics = Fabric(id="a", width=F(40), shrink=(F(3), F(5))), Fabric(id="b", shrink=(F(1), F(2)))
    project = Project(fabrics=(*fabrics, Fabric(id="c")), cutting=Cutting(wash=wash))
    widths = [project.usable_width(name) for name in ("a", "b", "c", "none")]
    assert widths == ([38, F(98, 100) * 42, 42, 42] if wash else [40, 42, 42, 42])
    assert replace(project, cutting=None).usable_width("a") == 40


def test_sizes_in_words():
    assert length_text(F(7, 2), INCH) == "3 1/2 in"
    assert length_text(F(10, 3), INCH) == "≈3.333 in"
    assert length_text(ROOT2, INCH) == "≈1.414 in"
    assert length_text(F(89, 10), METRIC) == "8.9 cm"
    assert size_text((F(2), F(7, 2)), INCH) == "2 x 3 1/2 in"
    assert size_text((F(2), F(2)), METRIC) == "2 cm"
    assert measured_text((F(7, 2), F(7, 2)), INCH) == "3 1/2 in"
    assert measured_text((F(225, 64), F(225, 64)), INCH) == "3 1/2 in, generous by 1/64 in"
    assert measured_text((F(19, 3), F(41, 12)), INCH) == (
        "6 5/16 x 3 7/16 in, generous by 1/64 in across, scant by 1/64 in down"  # 6.333 and 3.417
    )
    assert measured_text((F(7, 2), F(241, 64)), INCH) == (
        "3 1/2 x 3 3/4 in, generous by 1/64 in down"
    )
    assert measured_text((F(897, 100), F(9)), METRIC) == "9 cm, scant by 0.03 cm across"
    assert place_text(point("3/2", 2)) == "1 1/2 across, 2 down"
    assert method_words("two-at-a-time") == "two at a time"
    assert kind_words("half-square-triangle") == "half-square triangle"
    assert kind_words("flying-geese") == "flying geese"


def test_pieces_and_fabric_in_words():
    two = {"half-square-triangle": "two-at-a-time"}
    block = replace(block_of("0 0 1 1", size=(3, 3)), methods=two)
    project = project_of(block)
    plan = plan_block(project, block)
    method = plan.units[0].in_use
    pieces = method.pieces
    assert piece_text(pieces[0], INCH) == "3 7/8 in square"
    told = move_text("Cut {all}; keep {1}; sew {seam}.", method, project, plan.stacks["A"])
    assert told == (
        "Cut 3 7/8 in squares: 1 of A (A1), 1 of B (A2); keep the 3 7/8 in square of B; sew 1/4 in."
    )
    assert fabric_name(project, None) == "no fabric yet"
    assert buying_text(plan.fabric_plans.best[0], INCH) == (
        "1 strip, 4 3/8 in in all; buy 1/4 yd, 4 1/8 in to spare"
    )
    assert total_text(plan.fabric_plans.best, INCH) == "1/2 yd"
    assert total_text([plan.fabric_plans.best[0]._replace(buy=F(70))], METRIC) == "0.7 m"
    assert without_seams(with_seams(F(3), METRIC), METRIC) == 3
    assert with_seams(F(3), METRIC) == F(9, 2)
    assert "buy 10 cm" in buying_text(plan.fabric_plans.best[0]._replace(buy=F(10)), METRIC)


def test_a_quilts_blocks_are_counted_place_by_place():
    """Places outside it count nothing; one that names no block has the usual one."""
    at = [(0, 0, "b"), (1, 0, ""), (3, 0, "b"), (0, 2, "c"), (2, 1, "c")]
    places = tuple(QuiltPlace(column=c, row=r, block=block) for c, r, block in at)
    quilt = Quilt(columns=3, rows=2, block="a", places=places)
    assert block_counts(quilt) == {"a": 4, "b": 1, "c": 1}
    assert block_counts(replace(quilt, block="")) == {"b": 1, "c": 1}
    assert block_counts(Quilt(block="a")) == {}
