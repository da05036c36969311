"""``inlet log`` and the log written as a table."""

from __future__ import annotations

import csv

import pytest

from inlet.command_line import main
from inlet.core.project import Quilt, replace
from inlet.files.project.project_json import load, save
from tests.blocks import block_of, project_of


@pytest.fixture
def file(tmp_path):
    block = replace(block_of("0 0 1 1", size=(3, 3)), name="Eff")
    path = tmp_path / "a.inlet"
    save(replace(project_of(block), quilt=Quilt(columns=3, rows=2, block=block.id)), path)
    return path


def said(capsys, *args):
    assert main(["log", *map(str, args)]) == 0
    return capsys.readouterr().out.splitlines()


def test_steps_are_logged_unpicked_and_written_as_a_table(file, capsys):
    out = file.with_name("b.inlet")
    first = said(capsys, file)[0]
    assert first.startswith("0 of 6: Make ")
    name = first.partition(": ")[2]
    assert said(capsys, file, "--done", name.upper(), "--number", "4", "-o", out)[0] == (
        f"4 of 6: {name}"
    )
    asked = ("--unpicked", name, "--number", "1", "--note", "=stretched", "-o", out)
    assert said(capsys, out, *asked)[0] == f"3 of 6: {name}"
    said(capsys, out, "--note", "The blade is dull.", "-o", out)
    lines = said(capsys, out, "--entries")
    assert [line.split("  ")[1:] for line in lines] == [
        ["done", name, "4", "3 1/2 in"],
        ["unpicked", name, "1", "3 1/2 in", "=stretched"],
        ["note", "The blade is dull."],
    ]
    table = file.with_name("log.csv")
    command = ["export", str(out), "--what", "log", "--format", "csv", "-o", str(table)]
    assert main(command) == 0
    rows = list(csv.reader(table.read_text("utf-8-sig").splitlines()))
    assert rows[0] == [
        "When", "What", "Step", "Part", "How many", "Unfinished", "Minutes", "Note", "Photograph",
    ]  # fmt: skip
    assert [row[1:6] for row in rows[1:]] == [
        ["done", name, "", "4", "3 1/2 in"], ["unpicked", name, "", "1", "3 1/2 in"],
        ["note", "", "", "", ""],
    ]  # fmt: skip
    assert not rows[2][7].startswith("=")  # a spreadsheet must not work it out
    larger = replace(load(out), blocks=(replace(load(out).blocks[0], finished=(5, 5)),))
    save(larger, out)
    assert said(capsys, out)[-1] == f"  3 × {name.removeprefix('Make ')}, 3 1/2 in"
    assert said(capsys, file, "--block", "test", "--copies", "2")[0].startswith("0 of 2: ")


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--done", "Knit"], "no step has the name 'Knit'; there are: Make"),
        (["--unpicked", "Knit"], "--unpicked"),
        (["--block", "none"], "blocks: none has the id “none”"),
        (["--note", "x" * 20_000], "log[0].text"),
    ],
)
def test_what_cannot_be_logged_is_one_sentence(file, capsys, options, words):
    assert main(["log", str(file), *options]) == 2
    told = capsys.readouterr().err
    assert words in told
    assert len(told.strip().splitlines()) == 1


def test_a_damaged_log_is_told_by_check(file, capsys):
    text = file.read_text("utf-8").replace('"blocks":', '"log": [7, {"number": 0}],\n "blocks":')
    file.write_text(text, "utf-8")
    assert main(["check", str(file)]) == 0
    assert "log_unread: 2 entries of the log cannot be read" in capsys.readouterr().out
    file.write_text(text.replace('"log":', '"log_unread": "odd", "log":'), "utf-8")
    assert main(["check", str(file)]) == 0
    assert "log_unread: 3 entries" in capsys.readouterr().out


def test_an_empty_log_is_not_written(file, capsys):
    table = file.with_name("log.csv")
    command = ["export", str(file), "--what", "log", "--format", "csv", "-o", str(table)]
    assert main(command) == 2
    assert "Nothing is logged yet" in capsys.readouterr().err
    assert not table.exists()


def test_what_comes_next_is_told_and_wished(file, capsys):
    out = file.with_name("b.inlet")
    lines = said(capsys, file, "--today", "--minutes", "30", "--wish", "20 Dec 2099", "-o", out)
    assert lines[0].startswith("At the mat, ")
    assert "  Cut A, " in lines[1]
    assert any(line.startswith("0 % is done. 1 sitting is left.") for line in lines)
    assert any(line.endswith("of 31.5 in") or "cut up" in line for line in lines)
    assert load(out).bench.finish == "2099-12-20"
    name = said(capsys, file)[0].partition(": ")[2]
    said(capsys, out, "--done", name, "--took", "1 h 20", "-o", out)
    assert load(out).log[-1].minutes == 80
    assert said(capsys, out, "--diary")[-1].endswith(", 1 h 20 min")
    assert "At your pace by the log" in "\n".join(said(capsys, out, "--today"))
    assert said(capsys, file, "--kit", "1")[1] == "Pack:"
    done = said(capsys, out, "--took", "19:30-20:15", "-o", out)
    assert load(out).log[-1].did == "timed"
    assert done[0].startswith("6 of 6")


def test_parts_of_a_step_are_logged(file, capsys):
    out = file.with_name("b.inlet")
    name = said(capsys, file)[0].partition(": ")[2]
    said(capsys, file, "--done", name, "--part", "sew", "--number", "3", "-o", out)
    (entry,) = load(out).log
    assert (entry.part, entry.number) == ("sew", 3)
    assert said(capsys, out)[0].startswith("0 of 6")
    assert main(["log", str(file), "--done", name, "--part", "knit"]) == 2
    assert "has these parts: " in capsys.readouterr().err


@pytest.mark.parametrize(
    ("options", "words"),
    [
        (["--took", "soon"], "type minutes"), (["--took", "20:15-19:30"], "ends before it starts"),
        (["--wish", "tomorrow"], "type a day"), (["--photo", "nowhere.jpg"], "cannot be read"),
    ],
)  # fmt: skip
def test_times_days_and_photographs_that_cannot_be_are_one_sentence(file, capsys, options, words):
    before = file.read_bytes()
    assert main(["log", str(file), *options, "-o", str(file)]) == 2
    told = capsys.readouterr().err
    assert words in told
    assert len(told.strip().splitlines()) == 1
    assert file.read_bytes() == before


def test_what_was_cut_before_there_was_a_log_is_in_it(file):
    """A file of before: a fabric of which cuts are made, and no log."""
    from inlet.core.bench import jobs, with_cuts
    from inlet.core.plan import plan_quilt

    project = load(file)
    plan = plan_quilt(project)
    lying = jobs(plan, project)[0].laid
    cut = with_cuts(project, lying, 4, "2026-11-30T19:05")
    old = replace(cut, log=())
    save(old, file)
    read = load(file)
    assert [(e.what, e.did, e.number) for e in read.log] == [("Cut A", "cut", 4)]
    assert replace(read, log=()) == old
    assert jobs(plan_quilt(read), read)[0].done == 4
