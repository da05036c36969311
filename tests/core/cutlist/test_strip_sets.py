"""Strip sets across the project, and what is left over offered where it could be used."""

from __future__ import annotations

from collections import Counter

from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.cutlist.strip_sets import four_patches, plan_sets, project_sets
from inlet.core.layout.laid_places import places_of
from inlet.core.layout.words import set_lines, set_name
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.planning.words import offer_text
from inlet.core.project.fabric import Fabric
from inlet.core.project.measure import METRIC
from inlet.core.project.value import replace
from inlet.core.units.known import units_of
from inlet.files.text.plan_json import plan_dict
from tests.blocks import FABRICS, block_of, in_fabrics, project_of

BARS = "0 1 3 1 / 0 2 3 2"


def bars(block_id: str, fabrics: str = "aba", size: int = 6):
    return replace(block_of(BARS, 3, 3, (size, size), fabrics), id=block_id, name=block_id.title())


def nine(block_id: str = "nine"):
    drawn = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"
    return replace(block_of(drawn, 3, 3, (6, 6), "ab"), id=block_id, name=block_id.title())


def test_one_set_serves_two_blocks():
    """Bars a b a, and a nine-patch whose outer rows are a b a: segments of two lengths from one
    set; the middle row b a b is another."""
    project = project_of(bars("rail"), nine())
    first, second = project_sets(project, 10)
    assert set_name(first, project) == "2 in A + 2 in B + 2 in A"
    assert [(s.height, s.number, s.labels) for s in first.segments] == [
        (F(6), 10, ("Rail A",)), (F(2), 20, ("Nine A",)),
    ]  # fmt: skip
    assert [(s.height, s.number) for s in second.segments] == [(F(2), 10)]
    # by hand: 10 x 6 1/2 + 20 x 2 1/2 = 115 in of set, 41 1/2 in a set
    assert len(first.lengths) == 3
    lines = set_lines(first, project)
    assert lines[0].startswith("3 sets to sew")
    assert "10 segments, cut 6 1/2 in, for Rail A" in lines


def test_another_block_that_could_share_is_told():
    rail = replace(bars("rail"), methods={"strips": "strip-set"})
    plan = plan_block(project_of(rail, nine()), rail, 4)
    (one,) = plan.sets
    assert [(e.block, e.label, e.height, e.number) for e in one.elsewhere] == [
        ("Nine", "A", F(2), 2)
    ]
    assert any("could also give A of Nine" in line for line in set_lines(one, plan.project))
    # cut as strips they are in the cut list, once for both uses of a fabric
    strips = [c for c in plan.cuts if c.shape == "strip"]
    assert Counter(c.fabric for c in strips for _ in range(c.number)) == {"a": 2, "b": 1}
    assert {width for laid in plan.fabric_plans.best for width in laid.strips} == {F(5, 2)}


@given(st.integers(1, 40), st.integers(10, 44), st.booleans())
@settings(max_examples=40, deadline=None)
def test_sets_hold_what_is_cut_from_them(copies, usable, metric):
    """Every segment comes off some set, no set is longer than its fabric, and fewer would not do
    where all segments are alike."""
    block = replace(bars("rail"), methods={"strips": "strip-set"})
    project = replace(
        project_of(block), fabrics=tuple(replace(c, width=F(usable)) for c in FABRICS)
    )
    if metric:
        project = replace(project, measure=METRIC)
    plan = plan_block(project, block, copies)
    (one,) = plan.sets
    squaring = project.measure.squared_off
    (segment,) = one.segments
    if segment.cut + squaring > usable:
        return
    assert sum(one.lengths) >= copies * segment.cut + len(one.lengths) * squaring
    assert all(length <= usable for length in one.lengths)
    each = (usable - squaring) // segment.cut
    assert len(one.lengths) == -(-copies // each)
    (step,) = plan.steps  # it names every stack of the cut list, of whatever length
    named = [name for each in step.needs for name in each.split(", ")]
    assert sorted(named) == sorted(cut.label for cut in plan.cuts)
    assert all(name in step.text for name in named)
    kinds = [s.kind for s in one.choices]
    assert kinds[0] == "full-width"
    for strips in one.choices:
        assert strips.left >= 0
        assert strips.sets * (strips.long - squaring) == strips.left + copies * segment.cut


def test_ends_of_two_band_sets_are_four_patches():
    block = block_of("0 1 2 1", 2, 2, (4, 4), "ab")
    block = replace(block, methods={"strips": "strip-set"})
    plan = plan_block(project_of(block), block, 5)
    (one,) = plan.sets
    full = one.choices[0]
    # 5 segments of 4 1/2 leave 19 in of 41 1/2: seven of 2 1/2, three four-patches
    assert full.left == 19
    assert four_patches(one, full, plan.measure) == 3
    assert any("enough for 3 four-patches" in line for line in set_lines(one, plan.project))
    three = project_sets(project_of(bars("rail")), 1)[0]
    assert four_patches(three, three.choices[0], plan.measure) == 0


def test_nothing_to_cut_from_sets():
    assert plan_sets([]) == ()
    assert project_sets(project_of(block_of("0 0 1 1")), 3) == ()


def test_what_is_over_is_offered_where_it_could_be_used():
    """Eight at a time for three leaves five; another block has smaller ones of the same fabric, and
    takes them cut down; other fabrics, and larger ones, are not offered."""
    drawn = "1 0 1 1 / 2 0 2 1 / 0 0 1 1 / 1 0 2 1 / 2 0 3 1"
    big = replace(block_of(drawn, 3, 1, (9, 3), "ab"), id="big", name="Big",
                  methods={"half-square-triangle": "eight-at-a-time"})  # fmt: skip
    small = replace(block_of("0 0 1 1", size=(2, 2)), id="small", name="Small")
    other = replace(in_fabrics(small, "cd"), id="other", name="Other")
    larger = replace(block_of("0 0 1 1", size=(5, 5)), id="larger", name="Larger")
    plan = plan_block(project_of(big, small, other, larger), big)
    (offer,) = plan.offers
    assert (offer.what.kind, offer.what.number) == ("half-square-triangle", 5)
    assert offer.uses == (("Small", "A", (F(5, 2), F(5, 2))),)
    assert offer_text(offer, plan.measure) == (
        "Over: 5 × half-square triangle, 3 in finished; could be A of Small, cut down to 2 1/2 in."
    )
    same = replace(small, finished=(F(3), F(3)))
    (offer,) = plan_block(project_of(big, same, other, larger), big).offers
    assert offer.uses == (("Small", "A", None),)
    plain = plan_block(project_of(big), replace(big, methods={}))
    assert [o.what.number for o in plain.offers] == [1]


def test_a_plan_is_the_same_whatever_was_looked_at_before():
    """It knows of other blocks only what it is told."""
    rail = replace(bars("rail"), methods={"strips": "strip-set"})
    big = replace(
        block_of("0 0 1 1"), id="big", methods={"half-square-triangle": "eight-at-a-time"}
    )
    small = replace(block_of("0 0 1 1", size=(2, 2)), id="small")
    for one, other in ((big, small), (rail, bars("other"))):
        project = project_of(one, other)

        def shared(**known):
            plan = plan_block(project, one, **known)  # noqa: B023
            return plan.offers, plan.sets, plan_dict(plan)

        alone = shared(others=())
        told = shared()  # and every block is known from here on
        assert alone[:2] != told[:2]
        assert shared(others=()) == alone
        assert shared(others=[units_of(other)]) == told


def test_fabric_that_is_owned_has_its_own_stack():
    block = replace(bars("rail"), fabric_at=bars("rail").fabric_at)
    project = replace(project_of(block), fabrics=(*FABRICS, Fabric(id="spare")))
    plan = plan_block(project, block)
    assert {c.label for c in plan.cuts} == {"A1", "A2"}
    assert plan.stacks == {"A": ("A1", "A2")}


def test_segments_longer_than_the_fabric_is_wide_are_cut_along_it():
    block = replace(block_of(BARS, 3, 3, (60, 6), "aba"), methods={"strips": "strip-set"})
    plan = plan_block(project_of(block), block, 2)
    (one,) = plan.sets
    assert one.lengths == (F(61), F(61))
    assert one.choices == ()
    assert sum(c.number for c in plan.cuts) == 2 * 3
    laid = [
        place.at for c in plan.fabric_plans.best for fabric in c.laid for place in places_of(fabric)
    ]
    assert {place.height for place in laid} == {F(61)}
    assert sum(place.layers for place in laid) == 2 * 3
