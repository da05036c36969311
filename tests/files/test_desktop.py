"""Inlet installed like a program: the wheel, the desktop's files, the manual page."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest
from PIL import Image
from svgelements import SVG

from inlet.command_line import COMMANDS, main, manual
from inlet.files import desktop
from inlet.files.desktop import ICON_SIZES, exec_line

ROOT = Path(__file__).parents[2]
VALIDATORS = {"desktop": ["desktop-file-validate"], "xml": ["appstreamcli", "validate", "--no-net"]}


@pytest.fixture
def data(monkeypatch, tmp_path):
    """An empty data folder of the user, with a space in its name."""
    folder = tmp_path / "my data"
    monkeypatch.setenv("XDG_DATA_HOME", str(folder))
    return folder


def files_in(folder: Path) -> set[Path]:
    return {path.relative_to(folder) for path in folder.rglob("*") if path.is_file()}


def test_the_desktop_gets_all_it_reads_and_loses_it_again(data, capsys):
    (data / "applications").mkdir(parents=True)
    (data / "applications" / "other.desktop").write_text("[Desktop Entry]\n")
    before = files_in(data)
    assert main(["--install-desktop"]) == 0
    said = capsys.readouterr().out
    written = {p for p in files_in(data) if "inlet" in p.name.lower()}
    written -= {Path("mime/application/x-inlet.xml")}  # what the desktop's own command made of it
    assert f"{len(written)} files" in said
    for side in ICON_SIZES:
        for kind, name in (("apps", "inlet"), ("mimetypes", "inlet-project")):
            with Image.open(data / f"icons/hicolor/{side}x{side}/{kind}/{name}.png") as icon:
                assert icon.size == (side, side)
                assert len(icon.convert("RGBA").getcolors(10**6)) > 3  # something is drawn
    for kind, command in VALIDATORS.items():
        if shutil.which(command[0]):
            (file,) = (p for p in written if p.name.startswith("local") and p.suffix == f".{kind}")
            run = subprocess.run([*command, str(data / file)], capture_output=True, check=False)
            assert run.returncode == 0, run.stdout + run.stderr
    assert main(["--remove-desktop"]) == 0
    assert not {p for p in files_in(data) if p in written}
    assert before <= files_in(data)
    assert main(["--remove-desktop"]) == 0
    assert "nothing to remove" in capsys.readouterr().out


def test_the_entry_starts_inlet_with_the_file_whatever_its_folder_is_called(data, tmp_path):
    """The command, as a shell would take the entry's line, writes down what it is given."""
    folder = tmp_path / 'a "b" $HOME %f `c` \\d'
    folder.mkdir()
    script = folder / "inlet"
    script.write_text(f'#!/bin/sh\nprintf "%s\\n" "$@" > "{tmp_path}/called"\n')
    script.chmod(0o755)
    line = exec_line([str(script)])
    words = line.replace("\\\\", "\\").replace("%%", "%")  # as a desktop reads a value
    subprocess.run(["sh", "-c", f"{words} 'My quilt.inlet'"], check=True)
    assert (tmp_path / "called").read_text() == "My quilt.inlet\n"
    assert exec_line(["/usr/bin/inlet"]) == "/usr/bin/inlet"


def test_a_desktop_that_cannot_be_written_is_named(data, capsys):
    data.write_text("a file where the folder should be")
    assert main(["--install-desktop"]) == 2
    error = capsys.readouterr().err
    assert error.count("\n") == 1
    assert "applications" in error
    assert "cannot be written" in error


def test_the_manual_page_tells_every_command_and_option_and_is_the_one_that_ships():
    page = manual()
    assert (ROOT / "docs" / "inlet.1").read_text("utf-8") == page, "run scripts/man_page.py"
    for name in COMMANDS:
        assert f".SS inlet {name} " in page
    told = set(re.findall(r"\\fB(\\-\\-[a-z\\-]+)\\fR", page))
    assert {"\\-\\-demo", "\\-\\-quilt", "\\-\\-today", "\\-\\-install\\-desktop"} <= told
    lines = page.splitlines()
    assert not [line for line in lines if line.startswith("'")]


def test_the_wheel_holds_everything_and_runs_alone_with_an_empty_home(tmp_path):
    """Built from a copy, unpacked elsewhere, run with nothing of this checkout."""
    copy = tmp_path / "copy"
    shutil.copytree(
        ROOT / "src", copy / "src", ignore=shutil.ignore_patterns("*.egg-info", "__pycache__")
    )
    for name in ("pyproject.toml", "README.md", "LICENSE"):
        shutil.copy(ROOT / name, copy)
    (copy / "docs").mkdir()
    shutil.copy(ROOT / "docs" / "inlet.1", copy / "docs")
    build = ["-m", "pip", "wheel", "-q", "--no-deps", "--no-build-isolation", "-w", str(tmp_path)]
    subprocess.run([sys.executable, *build, str(copy)], check=True, capture_output=True)
    (wheel,) = tmp_path.glob("*.whl")
    alone = tmp_path / "alone"
    with zipfile.ZipFile(wheel) as parcel:
        parcel.extractall(alone)
    ours = {p for p in files_in(ROOT / "src" / "inlet") if "__pycache__" not in p.parts}
    assert ours == files_in(alone / "inlet")
    assert next(alone.glob("*.data/data/share/man/man1/inlet.1")).is_file()
    home = tmp_path / "home"
    home.mkdir()
    env = {k: v for k, v in os.environ.items() if not k.startswith("XDG")}
    env |= {"HOME": str(home), "PYTHONPATH": str(alone), "QT_QPA_PLATFORM": "offscreen"}
    code = "import sys, inlet; from inlet.command_line import main; print(inlet.__file__); "
    code += "sys.exit(main(sys.argv[1:]))"
    for args in (["--install-desktop"], ["--demo", "--picture", str(tmp_path / "demo.png")]):
        run = subprocess.run([sys.executable, "-c", code, *args], env=env, cwd=home,
                             capture_output=True, text=True, check=False)  # fmt: skip
        assert run.returncode == 0, run.stderr
        assert str(alone) in run.stdout
    assert (home / ".local/share/applications" / f"{desktop.ID}.desktop").is_file()
    assert (tmp_path / "demo.png").stat().st_size > 10_000


def test_icons_are_drawings_of_ours_that_any_reader_takes():
    for name, _ in desktop.ICONS:
        drawing = SVG.parse(str(desktop.DESKTOP / f"{name}.svg"))
        assert (drawing.width, drawing.height) == (128, 128)
