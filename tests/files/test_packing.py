"""A project packed with its photographs, and unpacked."""

from __future__ import annotations

import zipfile

import pytest
from PIL import Image

from inlet.command_line import main
from inlet.core.project.log import LogEntry
from inlet.core.project.value import replace
from inlet.files import packing
from inlet.files.packing import pack, unpack
from inlet.files.photos import keep_photo, photo_folder
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import dumps, load, save
from inlet.ui.shell.app import DEMO


@pytest.fixture
def kept(tmp_path):
    """A project saved with two photographs, one of which is gone, and a name of another folder."""
    path = tmp_path / "here" / "Reed Channel.json"
    path.parent.mkdir()
    project = load(DEMO)
    for colour in ("red", "blue"):
        Image.new("RGB", (30, 20), colour).save(tmp_path / "taken.png")
        name = keep_photo(tmp_path / "taken.png", path, "2026-11-30")
        entry = LogEntry(at="2026-11-30T10:00", did="note", photo=name)
        project = replace(project, log=(*project.log, entry))
    stray = LogEntry(at="2026-11-30T10:00", did="note", photo="../elsewhere.jpg")
    project = replace(project, log=(*project.log, stray))
    save(project, path)
    return path


def test_what_is_unpacked_is_what_was_packed(kept, tmp_path, capsys):
    parcel, there = tmp_path / "to send.zip", tmp_path / "there"
    gone = photo_folder(kept) / "2026-11-30-2.jpg"
    lost = gone.read_bytes()
    gone.unlink()
    assert main(["pack", str(kept), "-o", str(parcel)]) == 0
    error = capsys.readouterr().err
    assert "2026-11-30-2.jpg" in error
    gone.write_bytes(lost)
    assert main(["pack", str(kept), "-o", str(parcel)]) == 0
    assert main(["unpack", str(parcel), "-o", str(there)]) == 0
    assert "2 photographs" in capsys.readouterr().out
    unpacked = there / "Reed Channel.inlet"
    assert load(unpacked) == load(kept)
    before = {p.name: p.read_bytes() for p in photo_folder(kept).iterdir()}
    assert {p.name: p.read_bytes() for p in photo_folder(unpacked).iterdir()} == before
    assert main(["unpack", str(parcel), "-o", str(there)]) == 2  # nothing there is replaced
    assert "is there already" in capsys.readouterr().err


def test_a_parcel_that_means_harm_writes_nothing_outside(kept, tmp_path, monkeypatch):
    text = dumps(load(kept))

    def parcel(*parts: tuple[str, str | bytes]):
        path = tmp_path / "parcel.zip"
        with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as made:
            for name, data in parts:
                made.writestr(name, data)
        return path

    photos = [("a.photos/../../evil.jpg", b"1"), ("/evil.jpg", b"1"), ("a.photos/run.sh", b"1")]
    unpacked = unpack(parcel(("a.inlet", text), *photos, ("evil.jpg", b"1")), tmp_path / "x")
    assert unpacked.photos == 0
    assert [p.name for p in (tmp_path / "x").iterdir()] == ["a.inlet"]
    assert not list(tmp_path.parent.rglob("evil*"))
    monkeypatch.setattr(packing, "MOST_PHOTO", 1000)
    refused = {
        "more than one": [("a.inlet", text), ("b.inlet", text)],
        "no project": [("../a.inlet", text)],
        "too large": [("a.inlet", text), ("a.photos/1.jpg", b"0" * 1001)],
        "not an Inlet project": [("a.inlet", "[]")],
    }
    for words, parts in refused.items():
        with pytest.raises(FileProblem, match=words):
            unpack(parcel(*parts), tmp_path / "y")
        assert not (tmp_path / "y").exists()
    for damaged in (b"", b"PK\x03\x04" + b"\0" * 40, parcel(("a.inlet", text)).read_bytes()[:-30]):
        (tmp_path / "parcel.zip").write_bytes(damaged)
        with pytest.raises(FileProblem, match=r"no packed project|cannot be read"):
            unpack(tmp_path / "parcel.zip", tmp_path / "y")
    with pytest.raises(FileProblem, match="this is an Inlet project"):
        pack(load(kept), kept, kept)
