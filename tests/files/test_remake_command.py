"""``inlet remake``: from a file to a block set of slices, and the chart of start sizes."""

from __future__ import annotations

import pytest

from inlet.command_line import main
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.project import Project
from inlet.files.project.project_json import dumps, load, save
from tests.blocks import FABRICS
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
