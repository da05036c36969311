"""``inlet`` without a window."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys

import pytest
from PIL import Image
from pypdf import PdfReader

from inlet.command_line import main
from inlet.core.draft.compass import quarter_arc
from inlet.core.draft.edit import add_seams
from inlet.core.draft.patches import draft
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.block import seam_along
from inlet.core.project.cutting import Cutting, PrintMotif
from inlet.core.project.quilt import Binding, Quilt, QuiltingLines
from inlet.core.project.value import replace
from inlet.files.project.project_json import load, save
from inlet.files.text.quilt_json import quilt_dict
from inlet.ui.shell.app import DEMO
from tests.blocks import block_of, point, project_of


def run(capsys, *args: object) -> tuple[int, str, str]:
    code = main([str(a) for a in args])
    out, err = capsys.readouterr()
    return code, out, err


def test_plan_of_the_demo(capsys):
    code, out, err = run(capsys, "plan", DEMO, "--block", "sluice", "--copies", 6, "--json")
    plan = json.loads(out)
    assert (code, err) == (0, "")
    assert plan["block"]["id"] == "sluice"
    assert {u["kind"]: u["count"] for u in plan["units"]} == {
        "half-square-triangle": 24, "strips": 24, "square": 6,
    }  # fmt: skip
    code, out, _ = run(capsys, "plan", DEMO)
    assert code == 0
    assert "Checked: sewn up, the plan gives the drawing exactly." in out


def test_every_demo_block_is_ready_and_one_is_not_comfortable(capsys):
    code, out, err = run(capsys, "check", DEMO)
    assert (code, err) == (0, "")
    assert "(Slipway): warning: Not a ruler-friendly size" in out


def test_export_of_a_guide(capsys, tmp_path):
    out = tmp_path / "g.pdf"
    args = ("export", DEMO, "--what", "guide", "--format", "pdf", "--block", "slipway", "-o", out)
    assert run(capsys, *args) == (0, "", "")
    assert "Slipway" in PdfReader(out).pages[0].extract_text()


def test_labels_for_the_stacks(capsys, tmp_path):
    """Every stack of the cut list and every unit has its label on the sheet."""
    out = tmp_path / "labels.pdf"
    args = ("export", DEMO, "--what", "labels", "--format", "pdf", "--block", "sluice", "-o", out)
    assert run(capsys, *args) == (0, "", "")
    text = PdfReader(out).pages[0].extract_text()
    plan = json.loads(run(capsys, "plan", DEMO, "--block", "sluice", "--json")[1])
    for cut in plan["cuts"]:
        assert cut["label"] in text
    assert "4 × half-square triangle" in text
    assert "sewn, measures 3 1/2 in" in text


def test_methods_side_by_side(capsys):
    code, out, err = run(capsys, "plan", DEMO, "--block", "sluice", "--copies", 9, "--compare")
    assert (code, err) == (0, "")
    lines = out.splitlines()
    heads = [line for line in lines if not line.startswith(" ")]
    assert heads[0] == "A: half-square triangle, 36 A"
    rows = {line.split()[-10]: line.split()[-9:] for line in lines if len(line.split()) >= 10}
    names = next(line.split() for line in lines if "method" in line)
    over = names.index("over") - 1
    assert rows["two-at-a-time"][over] == "0"
    assert rows["eight-at-a-time"][over] == "4"
    assert sum(line.startswith("  * ") for line in lines) == len(heads)


def test_strip_sets_of_the_whole_project(capsys):
    code, out, err = run(capsys, "plan", DEMO, "--sets", "--copies", 12)
    assert (code, err) == (0, "")
    assert "48 segments, cut 3 1/2 in, for Sluice B" in out
    sets = json.loads(run(capsys, "plan", DEMO, "--sets", "--copies", 12, "--json")[1])
    assert sets["strip_sets"][0]["sets"] == ["39"] * 4 + ["29/2"]


def test_the_summary_says_what_is_better_and_over(capsys, tmp_path):
    drawn = "1 0 1 1 / 2 0 2 1 / 3 0 3 1 / 0 0 1 1 / 1 0 2 1 / 2 0 3 1"
    block = block_of(drawn, 4, 1, (12, 3), "ab")
    path = tmp_path / "row.inlet"
    save(project_of(replace(block, methods={"half-square-triangle": "eight-at-a-time"})), path)
    out = run(capsys, "plan", path)[1]
    assert "A: 3 × half-square-triangle" in out
    assert "eight-at-a-time: 8 a run, 1 run, 5 over" in out
    assert "better two-at-a-time: " in out
    assert "Over: 5 × half-square triangle, 3 in finished" in out


@pytest.mark.parametrize(
    ("where", "value", "place"),
    [
        (("measure", "oversize"), ["0", "1/8"], "measure.oversize[0]"),
        (("measure", "squaring"), "11", "measure.squaring"),
        (("rates",), {"cut": -1}, "rates.cut"),
        (("blocks", 0, "units"), [{"point": ["1", "1"], "school": "loose"}], "units[0].school"),
        (("blocks", 0, "units"), [{"point": ["1", "1"], "stock": "5 ribbons"}], "units[0].stock"),
        (("blocks", 0, "units"), [{"point": ["1", "1"], "label": "x" * 13}], "units[0].label"),
        (("blocks", 0, "units"), [{"label": "x"}], "units[0]"),
    ],
)
def test_choices_that_cannot_be_are_refused_with_their_place(capsys, tmp_path, where, value, place):
    raw = json.loads(DEMO.read_text())
    at = raw
    for key in where[:-1]:
        at = at[key]
    at[where[-1]] = value
    path = tmp_path / "wrong.inlet"
    path.write_text(json.dumps(raw))
    code, _, err = run(capsys, "plan", path)
    assert code == 2
    assert place in err


def test_sizes_from_fabric_already_cut(capsys):
    args = ("plan", DEMO, "--block", "sluice", "--have", "2 1/2 strips, 5 squares")
    code, out, err = run(capsys, *args)
    assert (code, err) == (0, "")
    assert "from 2 1/2 in strips: 4 1/2 in finished" in out
    assert "from 5 in squares: 13 1/2 in finished, A from wider fabric" in out
    code, out, _ = run(capsys, *args, "--json")
    sizes = json.loads(out)["from_stock"]
    assert {s["stock"] for s in sizes} == {"strip", "square"}
    assert all(s["comfortable"] for s in sizes)


def test_a_curved_block_is_planned(capsys, tmp_path):
    block = block_of("1 0 1 2 / 0 1 2 1", 2, 2, (8, 8), "ab")
    arc = seam_along(quarter_arc(point(1, 0), point(0, 1)))
    path = tmp_path / "bend.inlet"
    save(project_of(add_seams(block, [arc])), path)
    code, out, _ = run(capsys, "plan", path, "--json")
    plan = json.loads(out)
    assert (code, plan["resewn"], plan["seams"]["curve"]) == (0, True, 1)
    found = [p for p in plan["patches"] if p["arcs"]]
    assert [p["arcs"][0]["centre"] for p in found] == [["0", "0"], ["0", "0"]]
    (side,) = {p["arcs"][0]["edge"] for p in found if len(p["outline"]) == 3}
    convex = next(p for p in found if len(p["outline"]) == 3)
    ends = [convex["outline"][i % 3] for i in (side, side + 1)]
    assert sorted(ends) == [["0", "4"], ["4", "0"]]
    assert run(capsys, "check", path)[0] == 0


def test_a_block_goes_out_as_a_drawing_and_comes_back(capsys, tmp_path):
    drawing, project = tmp_path / "lantern.svg", tmp_path / "new.inlet"
    args = ("export", DEMO, "--what", "block", "--format", "svg", "--block", "lantern")
    assert run(capsys, *args, "-o", drawing) == (0, "", "")
    code, out, err = run(capsys, "import", drawing, "-o", project)
    assert (code, err) == (0, "")
    assert "seams read on 4 by 4 bands" in out
    shapes = [{p.shape for p in draft(load(f).block("lantern")).patches} for f in (DEMO, project)]
    assert shapes[0] == shapes[1]
    again = ("import", drawing, "-o", project, "--name", "Skiff", "--size", "10 1/2")
    assert run(capsys, *again)[0] == 0
    assert [b.id for b in load(project).blocks] == ["lantern", "skiff"]


def test_check_names_the_place_of_an_error(capsys, tmp_path):
    path = tmp_path / "gate.json"
    save(project_of(block_of("0 1 2 1", 3, 3)), path)
    code, out, err = run(capsys, "check", path)
    assert code == 2
    assert "A seam stops inside a patch at 2 across, 1 down." in out
    assert err.count("\n") == 1
    assert err.startswith("gate.json: blocks[0] (test): ")
    code, out, _ = run(capsys, "plan", path, "--json")
    plan = json.loads(out)
    assert (code, plan["resewn"], plan["assembly"]) == (0, False, None)
    assert plan["cuts"]


@pytest.mark.parametrize(
    "args",
    [
        ("plan", "missing.json"), ("plan", "."), ("plan",), ("plan", str(DEMO), "--block", "x"),
        ("plan", str(DEMO), "--copies", "0"), ("plan", str(DEMO), "--copies", "two"),
        ("export", str(DEMO), "--what", "guide", "--format", "svg", "-o", "x"),
        ("export", str(DEMO), "--what", "block", "--format", "svg", "-o", "/nowhere/x.svg"),
        ("import", "missing.svg", "-o", "x"), ("import", str(DEMO), "-o", "x.inlet"),
        ("import", "x.svg", "-o", "x", "--size", "0"),
        ("import", "x.svg", "-o", "y", "--rows", "0"),
        ("export", str(DEMO), "--what", "guide", "--format", "pdf", "-o", "/nowhere/x.pdf"),
        ("check", __file__), ("--stage", "moon", "--demo"), ("--nonsense",),
    ],
)  # fmt: skip
def test_bad_calls_end_with_one_line_and_2(capsys, args):
    code, out, err = run(capsys, *args)
    assert (code, out) == (2, "")
    assert err.count("\n") == 1
    assert len(err) > 10


def test_a_picture_of_a_stage(tmp_path):
    out = tmp_path / "units.png"
    call = [sys.executable, "-m", "inlet", "--demo", "--picture", str(out), "--stage", "units"]
    assert subprocess.run(call, capture_output=True, timeout=120).returncode == 0
    assert out.stat().st_size > 10_000


def program(*args: object, **how: object) -> subprocess.CompletedProcess:
    return subprocess.run(
        [sys.executable, "-m", "inlet", *map(str, args)],
        capture_output=True, check=False, timeout=60, **how,
    )  # fmt: skip


def test_a_terminal_of_plain_letters_is_no_reason_to_fail():
    env = {**os.environ, "PYTHONIOENCODING": "ascii", "PYTHONUTF8": "0"}
    said = program("plan", DEMO, env=env)
    assert (said.returncode, said.stderr) == (0, b"")
    assert said.stdout.isascii()
    exact = json.loads(program("plan", DEMO, "--json", env=env).stdout)
    assert exact == json.loads(program("plan", DEMO, "--json").stdout)
    assert "√2" in json.dumps(exact, ensure_ascii=False)


def test_a_pipe_that_nobody_reads_ends_quietly():
    run = subprocess.Popen(
        [sys.executable, "-m", "inlet", "plan", str(DEMO)],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
    )
    assert run.stdout is not None
    run.stdout.close()
    assert run.stderr is not None
    assert run.stderr.read() == b""
    assert run.wait() == 0


def test_ctrl_c_is_one_line_and_130(tmp_path):
    code = (
        "import os, signal, sys, time; from inlet import command_line\n"
        "signal.signal(signal.SIGINT, signal.default_int_handler)\n"  # ignored in the background
        "command_line.load = lambda _: (os.kill(os.getpid(), signal.SIGINT), time.sleep(9))\n"
        "sys.exit(command_line.main(['check', 'x.inlet']))"
    )
    usual = signal.signal(signal.SIGINT, signal.SIG_IGN)
    try:
        said = subprocess.run([sys.executable, "-c", code], capture_output=True, check=False)
    finally:
        signal.signal(signal.SIGINT, usual)
    assert (said.returncode, said.stdout, said.stderr) == (130, b"", b"inlet: stopped\n")


def test_strip_sets_of_rounds_as_deep_as_a_block_has_strips(capsys, tmp_path):
    """A spiral of 300 strips nests one part in the other three hundred times."""
    left, top, right, bottom, lines = 0, 0, 320, 320, []
    for i in range(300):
        side = i % 4
        if side == 0:
            top += 1
            lines.append(f"{left} {top} {right} {top}")
        elif side == 1:
            right -= 1
            lines.append(f"{right} {top} {right} {bottom}")
        elif side == 2:
            bottom -= 1
            lines.append(f"{left} {bottom} {right} {bottom}")
        else:
            left += 1
            lines.append(f"{left} {top} {left} {bottom}")
    block = block_of(" / ".join(lines), 1, 1, (100, 100), "ab")
    block = replace(block, columns=(F(320),), rows=(F(320),))
    file = tmp_path / "spiral.inlet"
    save(project_of(block), file)
    code, out, err = run(capsys, "plan", file, "--sets")
    assert (code, err) == (0, "")
    assert out


def test_what_to_buy_sizes_and_templates_from_the_command_line(tmp_path, capsys):
    """Every table in its formats; what is wrong is told in one line."""
    file = str(DEMO)
    assert main(["plan", file, "--shopping", "--copies", "3"]) == 0
    assert "Fog" in capsys.readouterr().out
    assert main(["plan", file, "--shopping", "--project"]) == 0
    out = capsys.readouterr().out
    assert "Shopping list: the quilt" in out
    assert "Batting" in out
    assert main(["plan", file, "--sizes", "6, 9"]) == 0
    assert "9 in" in capsys.readouterr().out
    assert main(["plan", file, "--enough"]) == 0
    assert "Nothing is entered" in capsys.readouterr().out
    assert main(["plan", file, "--motif"]) == 2
    assert "cutting.motif: missing" in capsys.readouterr().err
    motif = PrintMotif(
        size=(F(5), F(5)), left=F(1), right=F(9), top=F(4), bottom=F(4), finished=(F(9), F(9))
    )
    measured = tmp_path / "motif.inlet"
    save(replace(load(DEMO), cutting=Cutting(motif=motif)), measured)
    assert main(["plan", str(measured), "--motif"]) == 0
    assert "off the right" in capsys.readouterr().out
    for what, kinds in (("shopping", "csv pdf"), ("sizes", "csv pdf"), ("cutting", "csv pdf")):
        for kind in kinds.split():
            out = tmp_path / f"{what}.{kind}"
            args = ["export", file, "--what", what, "--format", kind, "-o", str(out)]
            assert main([*args, "--sizes", "6, 9"]) == 0
            assert out.stat().st_size > 100
    for kind in ("pdf", "svg", "dxf"):
        args = ["export", file, "--what", "templates", "--format", kind, "--block", "heron-bend"]
        assert main([*args, "-o", str(tmp_path / f"t.{kind}"), "--printed", "31/32, 1"]) == 0
    for args, why in (
        (["plan", file, "--sizes", "big"], "--sizes: “big” is not a size"),
        (["export", file, "--what", "sizes", "--format", "csv", "-o", "x"], "see --sizes"),
        (["export", file, "--what", "templates", "--format", "csv", "--block", "heron-bend",
          "-o", "x"], "pdf or svg or dxf"),
        (["export", file, "--what", "templates", "--format", "pdf", "-o", "x"], "no template"),
        (["export", file, "--what", "templates", "--format", "pdf", "--block", "heron-bend",
          "--printed", "9", "-o", "x"], "--printed"),
    ):  # fmt: skip
        assert main(args) == 2
        assert why in capsys.readouterr().err


def test_what_a_library_prints_does_not_end_up_in_our_output():
    """Past Python, as a solver does; what Python prints before and after still comes through."""
    script = (
        "import ctypes, os\nfrom inlet import terminal\nprint('before', flush=True)\n"
        "with terminal.only_ours():\n    os.write(1, b'noise')\n    terminal.say('ours')\n"
        "    os.write(1, b'noise')\n    ctypes.CDLL(None).printf(b'kept back\\n')\nprint('after')\n"
    )
    env = {name: value for name, value in os.environ.items() if name != "PYTHONUNBUFFERED"}
    done = subprocess.run([sys.executable, "-c", script], capture_output=True, text=True, env=env)
    assert done.stdout.split() == ["before", "ours", "after"]


def test_the_quilt_from_the_command_line(tmp_path, capsys):
    """Text, JSON and pictures of a quilt; a project without one says so in a line."""
    project = load(DEMO)
    none = tmp_path / "none.inlet"
    save(replace(project, quilt=None), none)
    assert main(["plan", str(none), "--quilt"]) == 2
    assert "quilt: missing" in capsys.readouterr().err
    file = tmp_path / "quilt.inlet"
    quilt = Quilt(columns=2, rows=3, block="sluice", binding=Binding(fabric="buoy"))
    save(replace(project, quilt=quilt), file)
    assert main(["plan", str(file), "--quilt", "--json"]) == 0
    data = json.loads(capsys.readouterr().out)
    grows = 2 * (7.75 / 2 - 0.5 - 2**0.5 / 4 - 3)  # two half-square triangles, cut from 7 3/4
    finished = [float(F(side)) for side in data["finished"]]
    assert finished == pytest.approx([2 * (9 + grows), 3 * (9 + grows)], abs=1e-3)
    assert data["blocks"] == {"sluice": 6}
    assert [row["label"] for row in data["rows"]] == ["Row 1", "Row 2", "Row 3"]
    length = float(F(data["binding"]["length"]))
    assert length == pytest.approx(10 * (9 + grows) + 12, abs=1e-3)
    (unit,) = [step for step in data["steps"] if step["makes"] == "A"]
    assert (unit["block"], unit["times"], unit["of"]) == ("Sluice", 24, ["A1", "A2"])
    assert sum(sitting["minutes"] for sitting in data["work"]["sittings"]) == pytest.approx(
        data["work"]["minutes"], abs=0.5
    )
    assert main(["plan", str(file), "--quilt"]) == 0
    out = capsys.readouterr().out
    assert "6 × Sluice, 9 in" in out
    assert "3 × Sluice" not in out
    assert main(["plan", str(file), "--quilt", "--enough"]) == 0
    assert "Nothing is entered" in capsys.readouterr().out
    assert main(["plan", str(file), "--quilt", "--target", "36 x 45"]) == 0
    assert "36 1/8 x 45 3/16 in: 3 x 4 straight, border 4 1/2 in" in capsys.readouterr().out
    assert main(["plan", str(file), "--quilt", "--target", "wide"]) == 2
    assert "--target: type a size, as in 56 x 70" in capsys.readouterr().err
    picture = tmp_path / "q.png"
    args = ["export", str(file), "--what", "quilt", "-o"]
    assert main([*args, str(picture), "--format", "png", "--pixels", "90", "--no-seams"]) == 0
    with Image.open(picture) as image:
        assert image.size == (60, 90)
    drawing = tmp_path / "q.svg"
    assert main([*args, str(drawing), "--format", "svg"]) == 0
    assert drawing.read_text().count("<use ") == 6
    guide = tmp_path / "q.pdf"
    assert main([*args, str(guide), "--format", "pdf"]) == 0
    words = "".join(page.extract_text() for page in PdfReader(guide).pages)
    in_order = (
        "To buy", "Sitting 1", "6 × Sluice", "Cutting Reed Channel", "A: half-square triangle",
        "Sluice row 2, make 6", "Sluice, make 6", "The back, as it is pressed", "Rows 1 and 3",
        "Binding: ",
    )  # fmt: skip
    at = [words.index(said) for said in in_order]
    assert at == sorted(at)
    sheet = tmp_path / "labels.pdf"
    asked = ["export", str(file), "--what", "quilt-labels", "-o", str(sheet), "--format"]
    assert main([*asked, "pdf"]) == 0
    words = "".join(page.extract_text() for page in PdfReader(sheet).pages)
    data = quilt_dict(plan_quilt(load(file)))
    assert all(cut["label"] in words for cut in data["cuts"])
    assert all(row["label"] in words for row in data["rows"])
    assert main([*asked, "svg"]) == 2
    lines = tmp_path / "lines.svg"
    asked = ["export", str(file), "--what", "quilting", "--format", "svg", "-o", str(lines)]
    assert main(asked) == 2
    assert "no quilting lines yet" in capsys.readouterr().err
    grid = QuiltingLines(kind="grid", distance=F(9))
    save(replace(project, quilt=replace(quilt, quilting=(grid,))), file)
    assert main(asked) == 0
    assert lines.read_text().count("<path ") == 3 + 3
    assert main([*args, str(picture), "--format", "png", "--pixels", "9"]) == 2
    assert "16 to 6000 pixels" in capsys.readouterr().err
    assert main([*args, str(picture), "--format", "dxf"]) == 2
    save(replace(project, quilt=replace(quilt, rows=0)), file)
    assert main([*args, str(drawing), "--format", "svg"]) == 2
    assert "no places yet" in capsys.readouterr().err
    assert main(["plan", str(file), "--quilt"]) == 0
    assert "no places yet" in capsys.readouterr().out
