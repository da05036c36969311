"""``inlet remake``: from a file to a block set of slices, and the chart of start sizes."""

from __future__ import annotations

import pytest
from pypdf import PdfReader

from inlet.command_line import main
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan import plan_block
from inlet.core.project.project import Project
from inlet.core.project.value import replace
from inlet.files.project.project_json import dumps, load, save
from tests.blocks import FABRICS
from tests.core.panels import test_panels as panels
from tests.core.plan import test_improvised as improvised
from tests.core.remake.test_made_from import START


@pytest.fixture
def file(tmp_path):
    path = tmp_path / "start.inlet"
    save(Project(fabrics=FABRICS, blocks=(START,)), path)
    return path


def test_a_block_is_cut_and_written_as_another(file, capsys):
    """Thirds of 11 1/4 in, at the marks; every slice in its place, or as the offer says."""
    out = file.with_name("out.inlet")
    assert main(["remake", str(file), "--name", "Star", "-o", str(out)]) == 0
    said = capsys.readouterr().out
    assert "upright, 1 7/8 in left of and right of the centre seam" in said
    assert "Star: finished 9 3/4 in" in said
    assert "Checked: sewn up, the plan gives the drawing exactly." in said
    star = load(out).block("star")
    assert star.finished == (F(39, 4), F(39, 4))
    assert [piece.turn for piece in star.made_from.pieces] == [0] * 9
    for more in (["--arrangement", "3"], ["--chance", "7"]):
        assert main(["remake", str(file), *more, "-o", str(out)]) == 0
        turned = load(out).blocks[-1].made_from.pieces
        assert any(piece.turn for piece in turned)
    assert main(["remake", str(file), "--upright", "left 1", "-o", str(out)]) == 0
    assert load(out).blocks[-1].made_from.cuts.level == ()
    assert main(["plan", str(out), "--block", load(out).blocks[-1].id, "--json"]) == 0
    assert '"upright": ["-1"]' in capsys.readouterr().out


def test_the_chart_of_start_sizes(file, capsys):
    """Worked by hand: for 6 in cut 1 1/4 in from the centre; 8 in squares give four half-square
    triangles of 7 5/8 in, sewn 14 3/4 in, of which 14 1/4 in is cut on marks."""
    assert main(["remake", str(file), "--start-sizes", "6, 8", "--squares", "8"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert lines[1].endswith(" 6 in")
    assert "7 1/2 in" in lines[1]
    assert "1 1/4 in" in lines[1]
    assert [line.split()[0] for line in lines[2:]] == ["for", "near", "near", "from"]
    assert "14 1/4 in" in lines[-1]
    assert lines[-1].endswith("1/2 in")


@pytest.mark.parametrize(
    ("more", "said"),
    [
        (["--upright", "20"], "outside the block"),
        (["--upright", "wide"], "--upright"),
        (["--upright", "centre, 1/4"], "lost in its seams"),
        (["--arrangement", "4000"], "--arrangement: there are"),
        (["--start-sizes", "0"], "above 0"),
        (["--squares", "1"], "too small"),
        (["--block", "none"], "none"),
    ],
)
def test_what_cannot_be_cut_is_one_line(file, capsys, more, said):
    before = file.read_text()
    assert main(["remake", str(file), *more]) == 2
    problem = capsys.readouterr().err
    assert said in problem
    assert problem.count("\n") == 1
    assert file.read_text() == before
    assert dumps(load(file)) == before


@pytest.fixture
def square(tmp_path):
    path = tmp_path / "square.inlet"
    save(improvised.PROJECT, path)
    return path


def test_corners_are_drawn_by_chance_and_written(square, capsys):
    """What is told is what the plan of the file that is written has."""
    out = square.with_name("out.inlet")
    asked = ["remake", str(square), "--corners", "silt, deep", "--chance", "5", "--copies", "7"]
    assert main([*asked, "--cards", "-o", str(out)]) == 0
    said = capsys.readouterr().out
    block = load(out).blocks[0]
    assert (block.improvised.fabrics, block.improvised.seed) == (("silt", "deep"), 5)
    plan = plan_block(load(out), block, 7)
    corners = sum(len(one.seams) for one in plan.squares)
    assert f"pebble: 7 squares, {corners} corners" in said
    assert said.count(" in along the ") == corners
    assert said.count("of Silt") + said.count("of Deep") == len(plan.scraps.scraps)


def test_a_scrap_is_tried_from_the_command_line(square, capsys):
    """Legs 1 1/4 and 2 1/2 in want 3.42 by 1.37 in: at the marks 3 1/2 by 1 3/8, and 4 in are 0.29
    in longer at each end."""
    asked = ["remake", str(square), "--corner-seam", "1 1/4, 2 1/2", "--scrap"]
    assert main([*asked, "3 1/2 x 1 1/4"]) == 0
    said = capsys.readouterr().out
    assert "It does not cover the corner: 1/8 in too narrow." in said
    assert "Smallest scrap for this seam: 3 1/2 x 1 3/8 in." in said
    assert main([*asked, "4 x 2"]) == 0
    assert "It covers the corner: 9/32 in to spare." in capsys.readouterr().out


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--corners", "mud"], "no fabric has the id"),
        (["--scrap", "3"], "type two lengths"),
        (["--scrap", "3 x 0", "--corner-seam", "1, 1"], "type two lengths"),
        (["--scrap", "3 x 2", "--corner-seam", "1, 9"], "past the end of an edge"),
        (["--scrap", "3 x no", "--corner-seam", "1, 1"], "--scrap"),
    ],
)
def test_bad_corners_are_one_sentence(square, options, words, capsys):
    assert main(["remake", str(square), *options]) == 2
    said = capsys.readouterr().err
    assert words in said
    assert len(said.strip().splitlines()) == 1


def test_corners_of_a_pieced_block_are_refused(file, capsys):
    """Corners lie on one patch: nothing is written of a block that has several."""
    out = file.with_name("out.inlet")
    assert main(["remake", str(file), "--corners", "-o", str(out)]) == 2
    assert "Corners are improvised on one patch" in capsys.readouterr().err
    assert not out.exists()


def test_a_panel_is_added_sized_and_packed(file, capsys):
    """The worked panel, then one size for two: motifs 6 x 3 and 3 x 5 in with 1 in round each."""
    out = file.with_name("out.inlet")
    asked = ["--motif", "6 x 3", "--at", "6, 2 1/4", "--finished", "12 x 15", "--name", "Crest"]
    assert main(["remake", str(file), "--panel", "18 x 22", *asked, "-o", str(out)]) == 0
    said = capsys.readouterr().out
    assert "Move 5 in from the bottom to the top." in said
    assert "Crest: finished 12 x 15 in" in said
    assert "Checked: sewn up, the plan gives the drawing exactly." in said
    asked = ["--motif", "3 x 5", "--at", "6, 6", "--finished", "9 x 9"]
    assert main(["remake", str(out), "--panel", "16 x 17", *asked, "-o", str(out)]) == 0
    assert main(["remake", str(out), "--same-size", "1", "--pack", "12", "-o", str(out)]) == 0
    said = capsys.readouterr().out
    assert "Crest: 8 x 7 in." in said
    assert "Top 12 x 14 in" in said
    assert {block.finished for block in load(out).blocks[-2:]} == {(F(8), F(7))}
    assert main(["remake", str(out), "--own-sizes", "1"]) == 0
    assert "Panel: 5 x 7 in." in capsys.readouterr().out


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--panel", "18 x 22"], "--at: "),
        (["--panel", "18", "--at", "1, 1"], "--finished: "),
        (["--panel", "8 x 9", "--motif", "9 x 2", "--at", "1, 1", "--finished", "12 x 12"],
         "panel.motif: it reaches past the piece"),
        (["--panel", "8 x 9", "--motif", "5 x 2", "--at", "1, 1", "--finished", "12 x 12",
          "--fabric", "mud"], "no fabric has the id"),
        (["--pack", "30"], "has no panel"),
    ],
)  # fmt: skip
def test_bad_panels_are_one_sentence(file, options, words, capsys):
    assert main(["remake", str(file), *options]) == 2
    said = capsys.readouterr().err
    assert words in said
    assert len(said.strip().splitlines()) == 1


def test_a_block_is_cut_along_its_diagonals(file, capsys):
    out = file.with_name("out.inlet")
    asked = ["remake", str(file), "--diagonal", "--upright", "centre", "--level", "centre"]
    assert main([*asked, "-o", str(out)]) == 0
    said = capsys.readouterr().out
    assert "Lay it on point, its upper left corner on top" in said
    assert "Checked: sewn up, the plan gives the drawing exactly." in said
    made = load(out).blocks[-1]
    assert made.made_from.cuts.diagonal
    assert main(["plan", str(out), "--block", made.id, "--json"]) == 0
    assert '"diagonal": true' in capsys.readouterr().out


def words_of(path):
    text = "".join(page.extract_text() for page in PdfReader(path).pages)
    return " ".join(text.split())


def test_guides_of_corners_and_panels_say_what_to_do(tmp_path):
    """The corners' step, where each seam lies for those who want it; a panel move by move."""
    square = improvised.SQUARE
    cards = replace(square, improvised=replace(square.improvised, cards=True))
    project = improvised.PROJECT.with_block(cards)
    save(project, tmp_path / "square.inlet")
    out = tmp_path / "guide.pdf"
    asked = ["--what", "guide", "--format", "pdf", "-o", str(out)]
    assert main(["export", str(tmp_path / "square.inlet"), "--copies", "5", *asked]) == 0
    words = words_of(out)
    plan = plan_block(project, cards, 5)
    assert "Lay a scrap over a corner of A" in words
    assert words.count("in along the") == plan.scraps.corners
    save(panels.project_of(), tmp_path / "panel.inlet")
    assert main(["export", str(tmp_path / "panel.inlet"), *asked]) == 0
    words = words_of(out)
    assert "Cut a strip 5 in wide off the bottom" in words
    assert "From fabric you own" in words
