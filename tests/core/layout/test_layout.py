"""Cut lists laid out on what there is and on new fabric, followed on the mat from the JSON
alone."""

from __future__ import annotations

import json
from collections import Counter

from hypothesis import example, given, settings
from hypothesis import strategies as st

from inlet.core.cutlist.cuts import Cut
from inlet.core.draft.symmetry import turned as turned_block
from inlet.core.geometry.point import Point
from inlet.core.layout.cards import stack_ready
from inlet.core.layout.fabric_plan import ToCut
from inlet.core.layout.grain import grain_texts
from inlet.core.layout.laid_places import length_used, places_of
from inlet.core.layout.layout import FEW, lay_out
from inlet.core.layout.progress import (
    begin,
    begun_at,
    cuts_of,
    kept,
    lines_of,
    worth_keeping,
)
from inlet.core.layout.stroke_words import line_text
from inlet.core.layout.strokes import strokes_of
from inlet.core.layout.tools import tools_of
from inlet.core.layout.words import buying_text, strips_text, strips_to_cut
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import CENTIMETRES, INCHES
from inlet.core.plan.block import plan_block
from inlet.core.project.cutting import Cutting, Have
from inlet.core.project.fabric import Fabric
from inlet.core.project.measure import INCH, METRIC, Measure
from inlet.core.project.project import Project, measured_in
from inlet.core.project.value import replace
from inlet.files.project.project_json import dumps, loads
from inlet.files.text.cutting_json import cutting_list
from tests.blocks import block_of, project_of
from tests.core.layout.mat import USUAL, follow
from tests.sample import many

SQUARE = Cut("a", "square", (F(7, 2), F(7, 2)), "none", 12, ("A",), label="A")
SINGLE = Cutting(folds=0, square_every=0)
TOOLS = tools_of(Project())

eighths = st.integers(8, 130).map(lambda n: F(n, 8))
shapes = st.sampled_from(["rectangle", "rectangle", "strip"])
sizes = st.lists(st.tuples(eighths, eighths, st.integers(1, 25), shapes), min_size=1, max_size=6)
haves = st.lists(
    st.builds(
        lambda kind, w, h, n: Have(kind=kind, width=w, length=h, count=n),
        st.sampled_from(["bolt", "fat-quarter", "strips", "squares", "scrap", "panel"]),
        eighths, eighths, st.integers(1, 3),
    ),
    max_size=4,
)  # fmt: skip
rules = st.builds(
    Cutting,
    folds=st.sampled_from([0, 1, 2]),
    square_every=st.integers(0, 5),
    blade=st.sampled_from([1, 2, 4, 8]),
    goal=st.sampled_from(["balance", "cloth", "cuts", "widths"]),
    wash=st.booleans(),
    scraps_first=st.booleans(),
)


def cut_list(wanted) -> list[Cut]:
    return [
        Cut("a", shape, (min(a, b), max(a, b)), "none", n, ("A",), label=f"A{i}")
        for i, (a, b, n, shape) in enumerate(wanted)
    ]


def laid(project: Project, cuts: list[Cut], work: int = 0):
    """The plans, and the pieces that lie cut on the mat, by the label of their stack."""
    plans = lay_out(project, ToCut(tuple(cuts), {}), work)
    hand = USUAL._replace(blade=(project.cutting or Cutting()).blade)
    ready: Counter[str] = Counter()
    for fabric in json.loads(json.dumps(cutting_list(plans, project))):
        ready += follow(fabric, hand)
    return plans, ready


ALONE_IN_A_WIDER_STRIP = [
    (F(8), F(73, 8), 19, "rectangle"), (F(55, 4), F(29, 2), 9, "strip"),
    (F(49, 8), F(91, 8), 5, "strip"), (F(19, 2), F(55, 4), 15, "rectangle"),
    (F(77, 8), F(31, 2), 9, "rectangle"), (F(113, 8), F(129, 8), 1, "rectangle"),
]  # fmt: skip


@given(sizes, haves, rules, st.sampled_from([F(0), F(1, 2)]), st.sampled_from([0, 0, FEW]))
@example(ALONE_IN_A_WIDER_STRIP, [], Cutting(folds=2, square_every=0, blade=1), F(0), FEW)
@settings(max_examples=many(25, 50), deadline=None)
def test_a_plan_followed_on_the_mat_gives_the_pieces_asked_for(
    wanted, have, cutting, squaring, work
):
    fabric = Fabric(id="a", width=F(42), have=tuple(have), shrink=(F(3), F(2)))
    project = Project(fabrics=(fabric,), measure=Measure(squaring=squaring), cutting=cutting)
    cuts = cut_list(wanted)
    (plan,), ready = laid(project, cuts, work)
    missing = {m.cut.label: m.number for m in plan.missing}
    for place in (place for on_mat in plan.laid for place in places_of(on_mat)):
        (cut,) = (c for c in cuts if c.label == place.label)
        low, high = sorted((place.at.width, place.at.height))
        assert cut.cut == (low, high) or (
            cut.shape == "strip" and low == cut.cut[0] and cut.cut[1] < high <= F(3, 2) * cut.cut[1]
        )
    for cut in cuts:
        more = ready[cut.label] - (cut.number - missing.get(cut.label, 0))
        # Folded twice, a strip has two halves alike: what one has too few the other has too many.
        assert more == 0 or (cutting.folds == 2 and more > 0)
    if plan.lengths:
        assert plan.bound <= plan.length
        assert all(length_used(new) + squaring <= new.length for new in plan.lengths)
        shrunk = F(97, 100) if cutting.wash else 1
        assert sum(new.length for new in plan.lengths) == plan.buy * shrunk
        steps = plan.buy / F(9, 2)
        assert steps.denominator == 1
        # Nothing is longer than the maker handles, but where one strip is.
        assert all(length_used(new) <= 45 or number_of_strips(new) == 1 for new in plan.lengths)


def number_of_strips(on_mat) -> int:
    return sum(strip.count for strip in on_mat.strips)


def plan_of(*cuts: Cut, cutting=SINGLE, measure=INCH, work=0):
    project = Project(measure=measure, cutting=cutting)
    (plan,) = lay_out(project, ToCut(cuts, {}), work)
    return plan


def test_the_end_of_a_strip_serves_for_narrower_pieces():
    wide, narrow = (
        SQUARE._replace(cut=(F(4), F(4)), number=2),
        SQUARE._replace(cut=(F(2), F(2)), number=5, label="B"),
    )
    plan = plan_of(wide, narrow)
    assert (plan.strips, plan.yards()) == ([F(4)], F(1, 4))  # 5 in, with the far edge cut


def test_the_ends_of_a_strip_are_squared():
    """Twelve squares of 3 1/2 in take all of 42 in. In a single layer one end is squared: eleven;
    folded, both are, by one cut: eleven still, of 41 in; folded twice each half loses both: ten of
    40 in, five a half."""
    assert plan_of(SQUARE, measure=Measure(squaring=F(0))).strips == [F(7, 2)]
    for folds, in_one in ((0, 11), (1, 11), (2, 10)):
        cutting = Cutting(folds=folds)
        assert len(plan_of(SQUARE._replace(number=in_one), cutting=cutting).strips) == 1
        assert len(plan_of(SQUARE._replace(number=in_one + 1), cutting=cutting).strips) == 2


def test_in_folded_fabric_pieces_come_off_in_pairs():
    """Six of 7 3/4 in on two strips of five: four and two, not five and one."""
    square = SQUARE._replace(cut=(F(31, 4), F(31, 4)), number=6)
    (laid,) = plan_of(square, cutting=Cutting()).laid
    assert {place.at.layers for place in places_of(laid)} == {2}
    assert not any(stroke.opens for stroke in strokes_of(laid, TOOLS))


def test_a_whole_strip_for_a_set_is_not_squared():
    """It runs from selvage to selvage, and is squared once it is sewn."""
    strip = SQUARE._replace(shape="strip", cut=(F(5, 2), F(42)), number=3)
    plan = plan_of(strip, cutting=Cutting())
    assert plan.strips == [F(5, 2)] * 3
    assert not plan.missing
    assert plan.length == 8  # and the fabric's edge, once


def test_a_strip_nearly_all_of_which_a_set_takes_stays_whole():
    """Of three of 39 in no end is squared nor cut off; of one of 7 1/2 in it is, as the rest is of
    use."""
    long = SQUARE._replace(shape="strip", cut=(F(3, 2), F(39)), number=3)
    short = long._replace(cut=(F(3, 2), F(15, 2)), number=1, label="B")
    for folds in (0, 1):
        plan = plan_of(long, short, cutting=Cutting(folds=folds, square_every=0))
        (fabric,) = plan.laid
        assert not plan.missing
        lengths = sorted(place.at.width for place in places_of(fabric))
        assert lengths == [F(15, 2), F(42), F(42), F(42)]
        cuts = [stroke.what for stroke in strokes_of(fabric, TOOLS)]
        assert cuts == ["square", *["strip"] * 4, "square", "segment"]
    (rectangles,) = plan_of(long._replace(shape="rectangle")).laid
    assert {place.at.width for place in places_of(rectangles)} == {F(39)}


def test_whole_strips_come_off_the_bolt_there_is():
    """Six of 2 1/2 in: a bolt of 10 1/2 in gives three, squared once; three are bought. Of the two
    inches left of it come squares, with half an inch beyond them."""
    strip = SQUARE._replace(shape="strip", cut=(F(5, 2), F(42)), number=6)
    small = SQUARE._replace(cut=(F(2), F(2)), number=20, label="B")
    bolt = Have(kind="bolt", width=F(42), length=F(21, 2))
    project = Project(fabrics=(Fabric(id="a", have=(bolt,)),), cutting=Cutting())
    (plan,), ready = laid(project, [strip, small])
    assert ready == {"A": 6, "B": 20}
    assert [(c.kind, [(s.width, s.count) for s in c.strips]) for c in plan.laid] == [
        ("bolt", [(F(5, 2), 3), (F(2), 1)]), ("new", [(F(5, 2), 3)])
    ]  # fmt: skip


def test_fabric_is_folded_no_more_than_its_pieces_allow():
    """Folded twice, half of 42 in at most has room; what has none at all folds nothing."""
    for size, layers in ((20, 4), (21, 4), (22, 2), (42, 2)):
        square = SQUARE._replace(cut=(F(size), F(size)), number=2)
        plan = plan_of(square, SQUARE._replace(cut=(F(43), F(43))), cutting=Cutting(folds=2))
        assert {laid.layers for laid in plan.laid} == {layers}
        assert [missing.cut.cut[0] for missing in plan.missing] == [43]
    strip = SQUARE._replace(shape="strip", cut=(F(5, 2), F(42)), number=6)
    assert plan_of(strip, cutting=Cutting(folds=2)).new.layers == 2


def test_fabric_narrower_than_a_piece_is_told():
    plan = plan_block(project_of(big := block_of(size=(50, 50), fabrics="a")), big)
    assert [p.code for p in plan.problems] == ["too-wide"]
    assert "50 1/2 in" in plan.problems[0].text
    assert buying_text(plan.fabric_plans.best[0], INCH) == "nothing can be cut of it"


def test_a_long_piece_is_cut_along_the_fabric():
    plan = plan_block(project_of(block := block_of(size=(60, 5), fabrics="a")), block)
    assert plan.fabric_plans.best[0].strips == [F(121, 2)]


def test_metric_fabric_is_bought_by_ten_centimetres():
    block = block_of("1 0 1 1", 2, 1, (16, 8))
    plan = plan_block(replace(project_of(block), measure=METRIC), block)
    assert [(c.length, c.buy) for c in plan.fabric_plans.best] == [(F(21, 2), F(20))] * 2


def test_the_strips_to_cut_first_are_told_widest_first():
    """Ten squares of 7 1/4, five to a strip of 41; thirty of 3 1/2: what is left of the wide strips
    takes a stack of two each, and the rest three strips."""
    large = SQUARE._replace(cut=(F(29, 4), F(29, 4)), number=10, label="L")
    plan = plan_of(large, SQUARE._replace(number=30), cutting=Cutting(square_every=0))
    assert strips_text(plan, INCH) == "Cut 2 strips 7 1/4 in, then 3 at 3 1/2 in."
    assert strips_text(plan_of(large._replace(number=3)), INCH) == "Cut 1 strip 7 1/4 in."


def test_what_is_there_is_used_first_and_counted_down():
    """Two fat quarters hold eight squares of 7 in, four each; the other four are cut from new
    fabric. They are cut alike, one on the other; once they are on the mat, none is left."""
    have = (Have(kind="fat-quarter", count=2),)
    fabric = Fabric(id="a", have=have)
    block = block_of(size=(F(13, 2), F(13, 2)), fabrics="a")
    project = replace(project_of(block), fabrics=(fabric,))
    plan = plan_block(project, block, 12)
    (fabric_plan,) = plan.fabric_plans.best
    assert [(c.kind, c.count) for c in fabric_plan.laid] == [("fat-quarter", 2), ("new", 1)]
    assert {stroke.layers for stroke in cuts_of(fabric_plan.laid[0], project)} == {2}
    assert fabric_plan.buy == F(9)  # one strip of 7 in and the squaring
    begun = begin(project, block.id, 12, "a", fabric_plan.laid[0])
    assert begun.fabrics[0].have == ()
    (again,) = plan_block(begun, block, 12).fabric_plans.best
    assert again.laid == fabric_plan.laid
    assert again.begun == 1


def test_a_bolt_goes_back_shorter():
    fabric = Fabric(id="a", have=(Have(kind="bolt", width=F(42), length=F(30)),))
    block = block_of(size=(F(13, 2), F(13, 2)), fabrics="a")
    project = replace(project_of(block), fabrics=(fabric,), cutting=Cutting(wash=True))
    project = project.with_fabric("a", replace(fabric, shrink=(F(10), F(0))))
    (fabric_plan,) = plan_block(project, block, 4).fabric_plans.best
    (laid,) = fabric_plan.laid
    assert laid.length == 27
    begun = begin(project, block.id, 4, "a", laid)
    (left,) = begun.fabrics[0].have
    assert left.length == 30 - F(15, 2) / F(9, 10)


@given(st.integers(1, 30), st.booleans())
@settings(max_examples=15, deadline=None)
def test_a_print_with_a_top_stands_as_in_the_block(copies, turned):
    """Bars 2 x 6 in: upright where the block stands, lying where it is turned a quarter."""
    block = block_of("1 0 1 1 / 2 0 2 1", 3, 1, (6, 6), "aba")
    block = replace(block, methods={"strips": "plain"})
    if turned:
        block = turned_block(block, (1, False))
    project = project_of(block)
    project = project.with_fabric("a", replace(project.fabrics[0], direction="one-way"))
    plan = plan_block(project, block, copies)
    fabric_plan = next(c for c in plan.fabric_plans.best if c.fabric == "a")
    sizes = {(p.at.width, p.at.height) for laid in fabric_plan.laid for p in places_of(laid)}
    assert sizes == {(F(13, 2), F(5, 2)) if turned else (F(5, 2), F(13, 2))}
    assert not any(p.code == "print-turned" for p in plan.problems)


def test_what_is_left_is_told_and_kept():
    """A scrap of 10 x 10 in gives four squares of 4 1/2, squared on two sides: no more is left of
    it than 1/2 in; of 12 x 10, the ends of both strips, 2 1/2 in long."""
    square = SQUARE._replace(cut=(F(9, 2), F(9, 2)), number=4)
    for wide, left in ((F(10), []), (F(12), [(F(5, 2), F(9, 2))] * 2)):
        have = (Have(kind="scrap", width=wide, length=F(10)),)
        project = Project(fabrics=(Fabric(id="a", have=have),))
        (plan,) = lay_out(project, ToCut((square,), {}), 0.2)
        (laid,) = plan.laid
        found = [(r.width, r.height) for r in worth_keeping(laid, project)]
        assert found == left
        scraps = kept(project, "a", laid).fabrics[0].have
        assert [h.count for h in scraps[1:]] == ([2] if left else [])


def test_fabric_that_is_being_cut_is_the_same_in_centimetres():
    """Every place and cut 2.54 times as far; a yard's price for a metre."""
    block = block_of("1 0 1 1", 2, 1, (8, 4), "ab")
    project = project_of(block)
    project = project.with_fabric("a", replace(project.fabrics[0], price=F(9144, 1000)))
    (fabric_plan, _) = plan_block(project, block, 9).fabric_plans.best
    begun = begin(project, block.id, 9, "a", fabric_plan.laid[0])
    metric = measured_in(begun, CENTIMETRES)
    old, new = begun.cutting.begun[0].laid, metric.cutting.begun[0].laid
    for a, b in zip(places_of(old), places_of(new), strict=True):
        assert [x * F(254, 100) for x in a.at[:4]] == list(b.at[:4])
    assert metric.fabrics[0].price == 10
    assert loads(dumps(metric)) == metric
    assert measured_in(metric, INCHES).cutting == begun.cutting


def test_fabric_that_is_being_cut_is_cut_with_the_tools_it_was_begun_with():
    """A new ruler or a sharper blade changes the cuts of other fabric; not which of these are
    made."""
    strip = SQUARE._replace(cut=(F(9), F(9)), number=24)
    project = Project(fabrics=(Fabric(id="a", name="A"),))
    (plan,) = lay_out(project, ToCut((strip,), {}), 0)
    begun = begin(project, "", 1, "a", plan.laid[0])
    before = cuts_of(plan.laid[0], project)
    sharper = replace(begun.cutting, rulers=((F(9), F(36)),), mat=(F(40), F(60)), blade=8)
    other = replace(begun, cutting=sharper)
    assert cuts_of(plan.laid[0], replace(other, cutting=replace(sharper, begun=()))) != before
    assert cuts_of(plan.laid[0], other) == before
    assert begun_at(other, "", 1, "a", plan.laid[0]) == 0
    metric = measured_in(other, CENTIMETRES)
    assert len(cuts_of(metric.cutting.begun[0].laid, metric)) == len(before)
    assert loads(dumps(other)) == other


def test_strips_and_squares_cut_already_are_cut_in_stacks():
    """Twelve of 10 1/2 in come from four of seven strips of 42 in, three each, as both ends are
    squared; ten squares of 5 in are trimmed four at a time, then two."""
    have = (Have(kind="strips", width=F(5, 2), length=F(42), count=7),
            Have(kind="squares", width=F(5), count=10))  # fmt: skip
    project = Project(fabrics=(Fabric(id="a", name="A", have=have),))
    long = SQUARE._replace(shape="rectangle", cut=(F(5, 2), F(21, 2)), number=12)
    small = SQUARE._replace(cut=(F(9, 2), F(9, 2)), number=10, label="B")
    for work in (0, FEW):
        (plan,), ready = laid(project, [long, small], work)
        assert ready == {"A": 12, "B": 10}
        assert [(each.kind, each.count) for each in plan.laid] == [("strips", 4), ("squares", 10)]
        assert plan.buy == 0
        strips, squares = (cuts_of(each, project) for each in plan.laid)
        assert [(c.what, c.layers) for c in strips] == [("square", 4), *[("segment", 4)] * 3]
        assert [c.layers for c in squares] == [4, 4, 4, 4, 2, 2]


def test_pieces_of_two_entries_that_are_cut_together_are_both_used_up():
    scrap = Have(kind="scrap", width=F(10), length=F(10))
    project = Project(fabrics=(Fabric(id="a", name="Blue, length", have=(scrap, scrap)),))
    square = SQUARE._replace(cut=(F(4), F(4)), number=8)
    (plan,) = lay_out(project, ToCut((square,), {}), 0)
    assert [(each.kind, each.count) for each in plan.laid] == [("scrap", 2)]
    assert begin(project, "", 1, "a", plan.laid[0]).fabrics[0].have == ()


def test_a_fabric_may_be_named_like_a_length():
    """Its strips are told by their numbers, whatever it is called."""
    project = Project(fabrics=(Fabric(id="a", name="Blue, length B"),))
    for number, lengths in ((4, [""]), (300, ["lengths 1 to 3"])):
        (plan,) = lay_out(project, ToCut((SQUARE._replace(number=number),), {}), 0)
        assert [strips.of for strips in strips_to_cut(plan, project)] == lengths
        assert sum(strips.many for strips in strips_to_cut(plan, project)) == len(plan.strips)


def test_long_pieces_are_cut_along_a_stripe():
    """Borders 3 x 60 in of a stripe lie side by side along the fabric; squares fill what is left
    beside them."""
    border = SQUARE._replace(shape="rectangle", cut=(F(3), F(60)), number=4)
    small = SQUARE._replace(number=40, label="B")
    project = Project(fabrics=(Fabric(id="a", lengthwise=True),))
    (plan,) = lay_out(project, ToCut((border, small), {}), 0.3)
    places = places_of(plan.new)
    said = [line_text(line, TOOLS, INCH) for line in lines_of(plan.new, project)]
    assert said[1].startswith("Cut a length 60 in: sixty, measured with a tape")
    assert said[3].startswith("Fold it again. Cut 2 lengthwise strips 3 in: three, with the 6 x 24")
    assert said[3].endswith("moving the ruler on once (4 layers).")
    assert {(p.at.width, p.at.height) for p in places if p.label == "A"} == {(F(3), F(60))}
    assert plan.length < 61


def test_ten_thousand_blocks_are_planned():
    """Twenty thousand squares: counted, not gone through one by one."""
    plan = plan_of(SQUARE._replace(number=20_000), cutting=Cutting())
    assert len(plan.strips) == -(-20_000 // 11)
    assert not plan.missing


def test_what_is_pinned_to_a_stack_says_what_is_done_with_it():
    """Bias edges of triangles, squares paired for sewing, templates with a left and a right."""
    project = project_of(block := block_of("0 0 1 1", 1, 1, (6, 6), "ab"))

    def told(method):
        plan = plan_block(project, replace(block, methods={"half-square-triangle": method}), 4)
        return " ".join(stack_ready(plan.cuts[0], plan.units, project).notes)

    assert "the long side is bias" in told("single-triangles")
    assert "pair them with its squares, right sides together" in told("two-at-a-time")
    kite = SQUARE._replace(shape="template", outline=(
        Point(F(0), F(0)), Point(F(4), F(0)), Point(F(3), F(2)), Point(F(0), F(2))))  # fmt: skip
    even = SQUARE._replace(shape="template", outline=(
        Point(F(0), F(0)), Point(F(4), F(0)), Point(F(3), F(2)), Point(F(1), F(2))))  # fmt: skip
    for cut, sided in ((kite, True), (even, False)):
        notes = " ".join(stack_ready(cut, (), project).notes)
        assert "grain arrow" in notes
        assert ("comes out reversed" in notes) == sided


@given(sizes, st.sampled_from([0, FEW]))
@settings(max_examples=many(10, 40), deadline=None)
def test_long_pieces_of_one_stack_lie_on_one_grain(wanted, work):
    """On new fabric every stack longer than 6 in lies one way, and the cut list says which."""
    cuts = cut_list(wanted)
    (plan,), _ = laid(Project(fabrics=(Fabric(id="a", name="A", width=F(42)),)), cuts, work)
    words = grain_texts([plan], cuts, INCH)
    for cut in cuts:
        ways = {
            place.at.width < place.at.height
            for fabric in plan.laid for place in places_of(fabric) if place.label == cut.label
        }  # fmt: skip
        long = cut.cut[1] > 6 and cut.cut[0] != cut.cut[1]
        if long and ways:
            assert len(ways) == 1
            way = "cut lengthwise" if ways.pop() else "cut across the fabric"
            assert words[cut.label] == way
        elif not long:
            assert cut.label not in words


def test_pieces_laid_one_way_on_wide_fabric_find_room_on_narrow_fabric():
    """Stacks of 24 3/8 in across a bolt of 60 in, some of them both ways: what is left goes
    lengthwise on 20 in, as it has no room across."""
    wanted = [
        (F(19, 8), F(195, 8), 6, "rectangle"), (F(9, 8), F(59, 8), 11, "rectangle"),
        (F(39, 8), F(325, 8), 11, "rectangle"), (F(17, 8), F(76, 8), 5, "rectangle"),
    ]  # fmt: skip
    bolt = Have(kind="bolt", width=F(60), length=F(48))
    project = Project(fabrics=(Fabric(id="a", name="A", width=F(20), have=(bolt,)),))
    (plan,), _ = laid(project, cut_list(wanted), 0)
    assert plan.missing == ()
