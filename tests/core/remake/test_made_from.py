"""Blocks of the project that are made from others: they follow, and their plan sews them."""

from __future__ import annotations

from collections import Counter

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.assembly.tree import all_joins
from inlet.core.draft.patches import draft
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import INCHES
from inlet.core.numbers.text import NumberError
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.block import Block, curved, straight
from inlet.core.project.made_from import Cuts, MadeFrom, SetPiece, StartBlock
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.project import Project, measured_in
from inlet.core.project.quilt import Colourway, Quilt, QuiltPlace
from inlet.core.project.value import replace
from inlet.core.remake.edit import (
    by_chance,
    cuts_text,
    cuts_typed,
    flipped,
    parts_at_marks,
    swapped,
    turned_at,
    with_cuts,
)
from inlet.core.remake.follow import CannotFollow, followed, pieces_of, remade
from inlet.core.remake.numbers import Wanted, needed
from inlet.core.remake.seam_lines import cut_words, through_seams
from inlet.core.remake.set_again import Laid
from inlet.core.remake.slices import SliceError, sliced
from inlet.files.project.project_json import dumps, loads
from tests.blocks import FABRICS, block_of, in_fabrics, point, unit_blocks
from tests.core.remake.test_slices import PINWHEEL, THIRDS, some_cuts
from tests.sample import many

START = replace(PINWHEEL, id="start", name="Start")


def project_of_sliced(start, cuts, laid=None, **about):
    """A project with a start block and a block made from it."""
    slices = sliced(start.finished, cuts, INCH)
    pieces = pieces_of(laid or [Laid(i) for i in range(len(slices))])
    made_from = MadeFrom(starts=(StartBlock(block=start.id),), cuts=cuts, pieces=pieces)
    made = Block(id="made", name="Made", made_from=made_from)
    return followed(Project(fabrics=FABRICS, blocks=(start, made), **about))


def laid_by_chance(slices, data):
    """Every slice once or more, wherever it fits."""
    laid = []
    for place in slices:
        ways = [
            Laid(i, quarters)
            for i, each in enumerate(slices)
            for quarters in range(4)
            if (each.size if quarters % 2 == 0 else each.size[::-1]) == place.size
        ]
        laid.append(data.draw(st.sampled_from(ways)))
    return laid


@given(unit_blocks(), some_cuts, some_cuts, st.data())
@settings(max_examples=many(12, 40), deadline=None)
def test_its_plan_sews_what_is_shown_and_a_file_holds_it(block, upright, level, data):
    """Made of slices laid by chance, a slice used twice or not at all: the start blocks are as many
    as the slice used most, every slice is one leaf of the tree, and the plan is proved."""
    cuts = Cuts(tuple(set(upright)), tuple(set(level)))
    start = replace(block, id="start")
    try:
        slices = sliced(start.finished, cuts, INCH)
    except SliceError:
        return
    laid = laid_by_chance(slices, data)
    project = project_of_sliced(start, cuts, laid)
    assert loads(dumps(project)) == project
    plan = plan_block(project, project.block("made"), 3)
    used = Counter(piece.piece for piece in laid)
    assert plan.copies == 3 * max(used.values())
    alone = plan_block(project, project.block("start"), plan.copies)
    assert plan.cuts == alone.cuts
    asked = plan.asked
    assert asked.resewn
    assert plan.resewn == alone.resewn
    assert len(list(all_joins(asked.root.side))) == len(slices) - 1
    cut_steps = [step for step in plan.steps if step.cuts]
    assert sum(step.times for step in cut_steps) == plan.copies * bool(cut_steps)
    if alone.fit is not None:
        project = project_of_sliced(start, cuts)
        asked = plan_block(project, project.block("made"), plan.copies).asked  # as they were
        off = [F(out) - drawn for out, drawn in zip(alone.made_size, alone.unfinished, strict=True)]
        for axis, side in enumerate(asked.made_size):
            assert float(side - asked.unfinished[axis]) == pytest.approx(float(off[axis]), abs=1e-3)


def test_the_tip_of_an_arc_in_a_slice_is_a_part_of_it():
    """Part of a circle whose top reaches over the cut: that patch has two corners, both on
    the edge of its slice."""
    arc = curved(point(0, 3), point(6, 3), point(3, 7))
    start = replace(block_of(columns=6, rows=6, size=(12, 12)), id="start", seams=(arc,))
    project = project_of_sliced(in_fabrics(start, "ab"), Cuts((), (F(-1),)))
    asked = plan_block(project, project.block("made")).asked
    assert asked.resewn
    assert min(len(patch.outline) for patch in asked.draft.patches) == 2


def test_a_tree_that_sews_other_pieces_is_not_proved(monkeypatch):
    """The proof cuts the slices itself: where the drawing has another, it says so."""
    from inlet.core.plan import sliced as module

    assert plan_block(project_of_sliced(START, THIRDS), project_of_sliced(START, THIRDS).blocks[1])
    usual = module.slice_picture
    monkeypatch.setattr(module, "slice_picture", lambda s, p, q: usual(s, p, q + (p.label == "2")))
    project = project_of_sliced(START, THIRDS)
    plan = plan_block(project, project.block("made"))
    assert not plan.asked.resewn
    assert "not-resewn" in {problem.code for problem in plan.problems}


def test_what_the_start_block_measures_reaches_every_piece():
    """It came out 11 1/8 x 11 3/8 instead of 11 1/4: the cuts lie where they lay, from the centre,
    so the slices at the edges have the difference, half each."""
    quilt = Quilt(made={"start": (F(89, 8), F(91, 8))})
    project = project_of_sliced(START, THIRDS, quilt=quilt)
    plan = plan_block(project, project.block("made"))
    (cut,) = [step for step in plan.steps if step.cuts]
    assert "1 7/8 in left of and right of the centre seam" in cut.text
    assert cut.notes[0].startswith("Pieces 1, 3, 7, 9: 3 11/16 x 3 13/16 in.")
    rows = [step.measures for step in plan.steps if step.makes.startswith("Made row")]
    assert rows[0] == (F(89, 8) - 1, F(15, 4) + F(1, 16))
    assert plan.steps[-1].measures == (F(89, 8) - 1, F(91, 8) - 1)


def test_a_slice_of_the_edge_is_as_large_wherever_it_is_set():
    """The start block measures 11 1/2 instead of 11 1/4; its first corner and its middle change
    places: the row in the middle has an eighth more three times, the first but once."""
    quilt = Quilt(made={"start": (F(23, 2), F(23, 2))})
    laid = [Laid(i) for i in (4, 1, 2, 3, 0, 5, 6, 7, 8)]
    plan = plan_block(*_plan_of(project_of_sliced(START, THIRDS, laid, quilt=quilt)))
    rows = [step.measures[0] for step in plan.steps if step.makes.startswith("Made row")]
    assert rows == [F(41, 4) + F(n, 8) for n in (1, 3, 2)]
    assert "rows differ by up to 1/4 in" in " ".join(problem.text for problem in plan.problems)
    turned = [Laid(i, i % 4) for i in range(9)]
    plan = plan_block(*_plan_of(project_of_sliced(START, THIRDS, turned, quilt=quilt)))
    rows = [step.measures[0] for step in plan.steps if step.makes.startswith("Made row")]
    assert rows == [F(41, 4) + F(n, 8) for n in (3, 0, 3)]  # 2, 4, 6 and 8 lie on their side


def _plan_of(project):
    return project, project.block("made")


def test_a_made_block_in_the_quilt_is_cut_from_its_start_blocks():
    """Two by two of it, one of the start block beside them: five start blocks in one batch, four of
    them cut apart once."""
    places = (QuiltPlace(column=0, row=2, block="start"),)
    project = project_of_sliced(START, THIRDS)
    quilt = Quilt(setting="straight", columns=2, rows=2, block="made")
    plan = plan_quilt(replace(project, quilt=quilt))
    assert [(block.block.id, block.number) for block in plan.blocks] == [("start", 4), ("made", 4)]
    four = plan_block(project, project.block("start"), 4)
    assert [(c.cut, c.number) for c in plan.batch.cuts] == [(c.cut, c.number) for c in four.cuts]
    titles = [step.title for step in plan.steps]
    assert titles.index("Cut 4 × pieces of Start") < titles.index("Make 4 × Made")
    assert plan.top.sizes["made"].drawn == (F(39, 4), F(39, 4))
    whole = replace(quilt, rows=3, row_lengths=(), places=(*places, replace(places[0], column=1)))
    more = plan_quilt(replace(project, quilt=whole))
    assert [(b.block.id, b.number) for b in more.blocks] == [("start", 6), ("made", 4)]


def one_cloth_centres():
    """Two blocks that exchange the middles of two colourways."""
    slices = sliced(START.finished, THIRDS, INCH)
    starts = StartBlock(block="start"), StartBlock(block="start", colourway="dusk")
    blocks = []
    for number, name in enumerate(("first", "second")):
        frame = [Laid(i, 0, number) for i in range(len(slices))]
        frame[4] = Laid(4, 0, 1 - number)
        made_from = MadeFrom(starts=starts, cuts=THIRDS, pieces=pieces_of(frame))
        blocks.append(Block(id=name, name=name, made_from=made_from))
    way = Colourway(id="dusk", block="start", fabrics={"a": "c", "b": "d"})
    quilt = Quilt(setting="straight", columns=2, rows=1, block="first", colourways=(way,),
                  places=(QuiltPlace(column=1, row=0, block="second"),))  # fmt: skip
    return followed(Project(fabrics=FABRICS, blocks=(START, *blocks), quilt=quilt))


def test_slices_are_shared_by_all_blocks_of_the_quilt():
    """A block alone needs one of each colourway and leaves a middle of one, a frame of the other;
    both together leave nothing."""
    project = one_cloth_centres()
    alone = needed(project, [Wanted(project.block("first"), "", 1)])
    assert [wanted.number for wanted in alone.blocks] == [1, 1, 1]
    over = [cut.left_over for cut in alone.cut_apart.values()]
    assert over == [{5: 1}, dict.fromkeys((1, 2, 3, 4, 6, 7, 8, 9), 1)]
    plan = plan_quilt(project)
    assert [(b.name, b.number) for b in plan.blocks] == [
        ("Start", 1), ("Start in dusk", 1), ("first", 1), ("second", 1),
    ]  # fmt: skip
    cut = [step for sewn in plan.sewn for step in sewn.steps if step.cuts]
    assert [step.times for step in cut] == [1, 1]
    assert [step.makes for step in cut] == ["pieces of Start", "pieces of Start in dusk"]
    assert "piece 5 of Start in dusk" in next(
        step.text for step in plan.sewn[2].steps if step.makes == "first row 2"
    )
    assert not any("Left over" in note for step in cut for note in step.notes)
    fabrics = {cut.fabric for cut in plan.batch.cuts}
    assert fabrics == {"a", "b", "c", "d"}
    both = plan_block(project, project.block("second"), 2)
    assert both.resewn
    assert {cut.fabric for cut in both.cuts} == fabrics


def test_blocks_follow_their_start_block_and_blocks_made_from_them():
    project = project_of_sliced(START, THIRDS)
    halves = Cuts((F(0),), ())
    pieces = (SetPiece(piece=2, turn=180), SetPiece(piece=1))
    again = Block(
        id="again", made_from=MadeFrom(starts=(StartBlock(block="made"),), cuts=halves,
                                       pieces=pieces)
    )  # fmt: skip
    chain = followed(replace(project, blocks=(again, *project.blocks)))
    assert chain.block("again").finished == (F(37, 4), F(39, 4))
    larger = followed(chain.with_block(replace(START, finished=(F(12), F(43, 4)))))
    assert larger.block("again").finished == (F(12) - F(3, 2), F(39, 4))
    assert followed(larger) is larger
    plan = plan_block(larger, larger.block("again"), 2)
    assert plan.resewn
    assert [sewn.block.id for sewn in (plan, *plan.then_sewn)] == ["start", "made", "again"]
    in_cm = measured_in(chain, METRIC.system)
    assert followed(in_cm) is not in_cm  # the usual seam there is another
    made_from = in_cm.block("made").made_from
    assert made_from.cuts.upright[1] == F(15, 8) * F("2.54")
    left = larger.without_block("made")
    assert left.block("again").made_from is None
    assert left.block("again").seams == larger.block("again").seams


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"cuts": Cuts((F(9),), ())}, "outside the block"),
        ({"cuts": Cuts((F(0),), ())}, "leave 2 pieces, and 9 are set"),
        ({"pieces": (SetPiece(piece=10), *[SetPiece(piece=1)] * 8)}, "no piece 10"),
        ({"pieces": (SetPiece(piece=1, start=2), *[SetPiece(piece=1)] * 8)}, "no start block 2"),
        ({"starts": (StartBlock(block="made"),)}, "cannot be made from itself"),
    ],
)
def test_what_cannot_be_made_is_refused_with_its_place(change, said):
    project = project_of_sliced(START, THIRDS)
    made = project.block("made")
    broken = project.with_block(replace(made, made_from=replace(made.made_from, **change)))
    with pytest.raises(CannotFollow, match=said):
        followed(broken)
    with pytest.raises(Exception, match=r"blocks\[1\]\.made_from: .*" + said):
        loads(dumps(broken))


def test_a_block_of_too_many_patches_is_not_sliced():
    fine = block_of("", 18, 18, (18, 18), "ab")
    lines = [straight((F(k), F(0)), (F(k), F(18))) for k in range(1, 18)]
    lines += [straight((F(0), F(k)), (F(18), F(k))) for k in range(1, 18)]
    fine = replace(fine, id="start", seams=tuple(lines))
    with pytest.raises(CannotFollow, match="324 patches: up to 300"):
        project_of_sliced(fine, Cuts((F(0),), ()))
    coarse = replace(fine, seams=tuple(lines[: 17 + 14]))
    cuts = Cuts(tuple(F(k) for k in range(-8, 9)), (F(0), F(2)))
    with pytest.raises(CannotFollow, match="make fewer cuts"):
        project_of_sliced(coarse, cuts)


def test_curves_that_are_part_of_ellipses_are_not_sliced():
    """At finished size an arc on stretched bands is no arc, which no turned piece could hold."""
    arc = curved((F(0), F(0)), (F(1), F(1)), (F(0), F(1)))
    bent = replace(START, finished=(F(9), F(6)), columns=(F(1),), rows=(F(1),), seams=(arc,))
    with pytest.raises(CannotFollow, match="no squares"):
        project_of_sliced(bent, Cuts((F(0),), ()))
    project_of_sliced(replace(bent, finished=(F(9), F(9))), Cuts((F(0),), ()))


def test_pieces_are_turned_swapped_and_flipped_where_they_fit():
    """The middle column of a block cut in thirds is no square: it turns upside down at once."""
    cuts = Cuts((F(-2), F(2)), (F(-1), F(1)))
    how = remade(*_made(project_of_sliced(replace(START, finished=(F(9), F(9))), cuts)))
    assert turned_at(how, 1)[1] == Laid(1, 2)
    assert turned_at(how, 4)[4] == Laid(4, 2)
    assert swapped(how, 0, 1) is None
    assert swapped(how, 1, 7)[1] == Laid(7)
    for seed in range(20):
        laid = by_chance(how, seed)
        assert all(piece.quarters % 2 == 0 for piece in laid if piece.piece in (1, 3, 5, 7))
    assert by_chance(how, 3) == by_chance(how, 3) != by_chance(how, 4)


def _made(project):
    return project, project.block("made").made_from


def test_a_flipped_piece_is_another_that_is_its_mirror_image():
    """The left side of a slanted block is no mirror image of any piece; of a roof the two halves
    are one another's; what is symmetric stays."""
    halves = Cuts((F(0),), ())
    slanted = replace(block_of("0 0 1 1", 1, 1, (6, 6), "ab"), id="start")
    assert flipped(remade(*_made(project_of_sliced(slanted, halves))), 0) is None
    roof = replace(block_of("0 1 1 0 / 1 0 2 1", 2, 1, (6, 3), "aba"), id="start")
    assert flipped(remade(*_made(project_of_sliced(roof, halves))), 0) == (Laid(1), Laid(0))
    plain = replace(block_of("", 1, 1, (6, 6), "a"), id="start")
    assert flipped(remade(*_made(project_of_sliced(plain, halves))), 1) == (Laid(0), Laid(1))


def test_pieces_stay_as_they_lie_where_the_cuts_are_moved():
    project = project_of_sliced(START, THIRDS)
    made_from = project.block("made").made_from
    turned = replace(made_from, pieces=(SetPiece(piece=3), *made_from.pieces[1:]))
    wider = Cuts((F(-2), F(2)), (F(-2), F(2)))
    assert with_cuts(turned, wider, draft(START), INCH).pieces == turned.pieces
    uneven = Cuts((F(-2), F(3)), (F(-2), F(2)))
    assert with_cuts(turned, uneven, draft(START), INCH).pieces == made_from.pieces
    assert len(with_cuts(turned, Cuts((F(0),), ()), draft(START), INCH).pieces) == 2


def test_cuts_as_a_maker_types_and_reads_them():
    """Four half-square triangles at 5 7/8 measure 11 1/4: thirds are cut 1 7/8 from the centre.
    An hourglass that measures 9 3/4: 1 5/8. Ten inches: 1 2/3, cut at the nearest mark."""
    mark = F(1, 8)
    assert parts_at_marks(F(45, 4), 3, mark) == (F(-15, 8), F(15, 8))
    assert parts_at_marks(F(39, 4), 3, mark) == (F(-13, 8), F(13, 8))
    assert parts_at_marks(F(10), 3, mark) == (F(-13, 8), F(13, 8))
    assert parts_at_marks(F(10), 4, mark) == (F(-5, 2), F(0), F(5, 2))
    ways = ("left", "right")
    for text, cuts in (
        ("1 7/8", (F(-15, 8), F(15, 8))), ("left 2, right 3", (F(-2), F(3))),
        ("centre, 2 1/2", (F(-5, 2), F(0), F(5, 2))), ("", ()),
    ):  # fmt: skip
        assert cuts_typed(text, ways, INCHES, F(0)) == cuts
        assert cuts_typed(cuts_text(cuts, ways, INCHES), ways, INCHES, F(0)) == cuts
    assert cuts_typed("right 1", ways, INCHES, F(3, 2)) == (F(5, 2),)
    with pytest.raises(NumberError):
        cuts_typed("two", ways, INCHES, F(0))


def test_a_cut_is_measured_from_the_seam_nearest_to_it():
    """A nine patch has no seam at its centre; what has none at all is folded there."""
    nine = draft(block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 1 2", 3, 3, (9, 9), "a"))
    seams = through_seams(nine)
    assert seams == ((F(-3, 2), F(3, 2)), (F(-3, 2),))
    assert cut_words((F(-2), F(2)), seams.upright, True, INCH) == [
        "upright, 1/2 in left of upright seam 1", "upright, 1/2 in right of upright seam 2",
    ]  # fmt: skip
    assert cut_words((F(0),), seams.level, False, INCH) == ["level, 1 1/2 in below the level seam"]
    assert cut_words((F(0),), (), True, INCH) == ["upright, through the centre, folded there"]
