"""A hand described in a file; forecasts, simulations and exercises from the command line."""

from __future__ import annotations

import json

import pytest

from inlet.command_line import main
from inlet.core.numbers import CENTIMETRES
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project import INCH, METRIC, measured_in
from inlet.files.hand_file import load_hand
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import load, save
from tests.blocks import block_of, project_of


def written(tmp_path, **described):
    path = tmp_path / "hand.json"
    path.write_text(json.dumps(described), encoding="utf-8")
    return path


@pytest.fixture
def strips(tmp_path):
    """A project of five strips, 1 1/2 in wide."""
    drawn = " / ".join(f"{i} 0 {i} 6" for i in range(1, 5))
    path = tmp_path / "strips.inlet"
    save(project_of(block_of(drawn, 5, 6, (F(15, 2), 6), "ab")), path)
    return path


def test_a_hand_is_read_in_its_own_system(tmp_path):
    path = written(tmp_path, system="inch", seam="17/64", curve_seam=0.3, spread="1/64", pace=2)
    hand = load_hand(path, INCH)
    assert hand.takes_more("straight") == hand.takes_more("bias") == pytest.approx(1 / 64)
    assert hand.takes_more("curve") == pytest.approx(0.05)
    assert (hand.spread, hand.pace) == (pytest.approx(1 / 64), 2)
    metric = written(tmp_path, system="cm", seam="0.8", spread="0.05", turned=0.1)
    hand = load_hand(metric, METRIC)
    assert hand.takes_more("straight") == pytest.approx(0.05 / 2.54)
    assert hand.slips.turned == pytest.approx(0.1)
    inches = load_hand(metric, INCH)  # the same hand in a project in inches
    assert inches.takes_more("straight") == pytest.approx(0.8 / 2.54 - 0.25)
    assert inches.spread == hand.spread


@pytest.mark.parametrize(
    ("described", "wrong"),
    [
        ({"spread": -0.01}, "hand.json: spread: a spread is not below 0"),
        ({"cut_spread": "-1/64"}, "hand.json: cut_spread: a spread is not below 0"),
        ({"seam": 0}, "hand.json: seam: a seam is above 0 and at most 2 in"),
        ({"bias_seam": 9}, "hand.json: bias_seam: a seam is above 0 and at most 2 in"),
        ({"spread": 3}, "hand.json: spread: more than 1 in is no spread of a hand"),
        ({"turned": 2}, "hand.json: turned: a share is from 0 to 1, as 0.05 for 1 in 20"),
        ({"pace": 0}, "hand.json: pace: a pace is above 0 and at most 20"),
        ({"seam": "wide"}, "hand.json: seam: "),
        ({"seam": None}, "hand.json: seam: expected a number, found nothing (null)"),
        ({"system": "ell"}, "hand.json: system: expected inch or cm, found “ell”"),
        ({"seems": 1}, "hand.json: “seems” is no part of a hand: system, seam"),
    ],
)
def test_what_is_wrong_with_a_hand_is_said_with_its_place(tmp_path, described, wrong):
    with pytest.raises(FileProblem) as said:
        load_hand(written(tmp_path, **described), INCH)
    assert str(said.value).startswith(wrong)


def test_a_file_that_is_no_hand(tmp_path):
    path = tmp_path / "hand.json"
    for text, wrong in (
        ("[1]", "expected a group"),
        ("{", "not JSON"),
        ("9" * 20_000, "too large"),
    ):
        path.write_text(text, encoding="utf-8")
        with pytest.raises(FileProblem, match=wrong):
            load_hand(path, INCH)
    with pytest.raises(FileProblem, match="cannot be read"):
        load_hand(tmp_path / "none.json", INCH)


def test_simulate_learn_and_forecast_agree_from_the_command_line(strips, tmp_path, capsys):
    """A hand of 0.28 in makes the block; it is learnt from the log, and forecasts by that."""
    hand = written(tmp_path, seam=0.28, spread=0.006, cut_spread=0.006)
    made = tmp_path / "made.inlet"
    say = ["simulate", str(strips), "--copies", "40", "--hand", str(hand), "--day", "2026-12-01"]
    assert main([*say, "-o", str(made)]) == 0
    assert capsys.readouterr().out.endswith("entries of the log. No slips.\n")
    first = load(made).log
    assert main([*say, "-o", str(made)]) == 0
    assert load(made).log == first
    capsys.readouterr()
    assert main(["log", str(made), "--hand"]) == 0
    seam = capsys.readouterr().out.splitlines()[0]
    assert seam.startswith("Your seam takes 0.2")
    assert float(seam.split()[3]) == pytest.approx(0.28, abs=0.004)
    assert main(["forecast", str(made), "--advice"]) == 0
    lines = capsys.readouterr().out.splitlines()
    (block,) = [line for line in lines if line.startswith("The block: ")]
    assert block.startswith("The block: 8 x 6 1/2 in planned; nine in ten come out 7.7")
    assert main(["forecast", str(made), "--hand", "steady", "--sewings", "50"]) == 0
    assert "come out 7.9" in capsys.readouterr().out


def test_a_hand_that_cannot_sew_the_project_is_refused(strips, tmp_path, capsys):
    hand = written(tmp_path, seam=1)
    for command in ("simulate", "forecast"):
        assert main([command, str(strips), "--hand", str(hand)]) == 2
        said = capsys.readouterr().err
        assert said == (
            "inlet: a seam that takes 1.00 in leaves nothing of a piece cut 2 in wide\n"
        )
    assert main(["simulate", str(strips), "--day", "Monday"]) == 2
    assert "type a day as 2026-12-01" in capsys.readouterr().err


def test_exercises_from_the_command_line(strips, tmp_path, capsys):
    out = tmp_path / "practised.inlet"
    assert main(["practise", str(strips)]) == 0
    said = capsys.readouterr().out
    assert said.startswith("Three strips. Two plain seams")
    assert "cut 2 × 1 1/2 x 6 1/2 in rectangle" in said
    assert main(["practise", str(strips), "--measured", "3 3/8 x 6 1/2", "-o", str(out)]) == 0
    said = capsys.readouterr().out.splitlines()
    assert said[0] == (
        "Each seam takes 0.031 in more than planned. Move the guide ¹⁄₃₂ in toward the needle."
    )
    assert said[1:] == [
        "So far: 0.031 in off a seam.",
        "Next: Three strips. Once more: move the guide as it says, and sew it again.",
    ]
    assert main(["practise", str(out), "--exercise", "curve", "--measured", "6 1/2"]) == 0
    assert "Well done: each seam takes 1/4 in" in capsys.readouterr().out
    assert main(["practise", str(out), "--exercise", "knitting"]) == 2
    assert "'knitting' is none of three-strips" in capsys.readouterr().err
    assert main(["practise", str(out), "--measured", "9"]) == 2
    assert "--measured: type both sides" in capsys.readouterr().err
    metric = tmp_path / "cm.inlet"
    save(measured_in(load(strips), CENTIMETRES), metric)
    assert main(["practise", str(metric), "--measured", "8.8 x 16.5"]) == 0
    assert "0.050 cm more than planned. Move the guide 0.05 cm" in capsys.readouterr().out


def test_the_rows_of_a_quilt_are_told(capsys):
    from inlet.ui.shell.actions import DEMO

    assert main(["forecast", str(DEMO), "--sewings", "60", "--hand", "steady"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert "between rows" in lines[0] or "rows match" in lines[0]
    assert sum(line.startswith("Row ") for line in lines) == 8
    assert sum(line.startswith("Border ") for line in lines) == 4
