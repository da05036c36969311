"""Photographs kept beside a project: upright, scaled, with nothing in them but their pixels."""

from __future__ import annotations

import os
import struct
import zlib

import pytest
from PIL import Image

from inlet.command_line import main
from inlet.core.project import LogEntry, replace
from inlet.files.photos import keep_photo, photo_folder, photo_path, take_along
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import load, save
from tests.blocks import block_of, project_of

DAY = "2026-11-30"


@pytest.fixture
def project_file(tmp_path):
    path = tmp_path / "Reed.inlet"
    save(replace(project_of(block_of("0 0 1 1")), name="Reed"), path)
    return path


def taken(path, wide=3000, high=2000):
    """A photograph whose left half is red, taken with the camera on its side, with its place."""
    picture = Image.new("RGB", (wide, high), "blue")
    picture.paste("red", (0, 0, wide // 2, high))
    exif = picture.getexif()
    exif[0x0112] = 6  # turned a quarter: what is left lies on top
    exif[0x010F] = "A camera"
    exif.get_ifd(0x8825)[1] = "N"
    picture.save(path, "JPEG", exif=exif)
    return path


def test_a_photograph_is_turned_scaled_and_says_no_place(project_file, tmp_path):
    source = taken(tmp_path / "in.jpg")
    before = source.read_bytes()
    names = [keep_photo(source, project_file, DAY) for _ in range(2)]
    assert names == [f"{DAY}-1.jpg", f"{DAY}-2.jpg"]
    assert source.read_bytes() == before
    with Image.open(photo_path(project_file, names[0])) as kept:
        assert kept.size == (1067, 1600)
        assert not kept.getexif()
        assert "exif" not in kept.info
        red, _, blue = kept.getpixel((500, 100))
        assert red > 200 > blue
        red, _, blue = kept.getpixel((500, 1500))
        assert blue > 200 > red
    assert b"A camera" not in photo_path(project_file, names[0]).read_bytes()


def huge_png(path, side):
    """The head of a picture of so many pixels each way, and nothing in it."""

    def chunk(kind, data):
        return (
            struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
        )

    head = struct.pack(">IIBBBBB", side, side, 8, 2, 0, 0, 0)
    path.write_bytes(
        b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", b"") + chunk(b"IEND", b"")
    )


def no_picture(path):
    path.write_text("not a picture")


def half(path):
    taken(path)
    path.write_bytes(path.read_bytes()[:3000])


def folder(path):
    path.mkdir()


def pipe(path):
    os.mkfifo(path)


@pytest.mark.parametrize(
    ("make", "why"),
    [
        (no_picture, "no photograph Inlet can read"), (half, "cannot be read"),
        (lambda path: huge_png(path, 14_200), "too many pixels; up to 80 million"),
        (lambda path: huge_png(path, 9_200), "9200 x 9200 pixels are too many"),
        (folder, "no file"), (pipe, "no file"), (lambda path: None, "cannot be read"),
    ],
)  # fmt: skip
def test_what_is_no_photograph_is_one_sentence(project_file, tmp_path, make, why):
    source = tmp_path / "in.jpg"
    make(source)
    with pytest.raises(FileProblem, match=why) as told:
        keep_photo(source, project_file, DAY)
    assert "\n" not in str(told.value)
    assert not photo_folder(project_file).exists()


@pytest.mark.parametrize("name", ["../secret.jpg", "/etc/passwd", "a/b.jpg", "", "."])
def test_no_name_leads_out_of_the_folder(project_file, name):
    path = photo_path(project_file, name)
    assert path is None or path.parent == photo_folder(project_file)


def test_photographs_go_along_when_a_project_is_saved_elsewhere(project_file, tmp_path):
    name = keep_photo(taken(tmp_path / "in.jpg", 300, 200), project_file, DAY)
    elsewhere = tmp_path / "other"
    elsewhere.mkdir()
    target = elsewhere / "Copy.inlet"
    assert take_along([name, "gone.jpg", "../x"], project_file, target) == []
    assert photo_path(target, name).read_bytes() == photo_path(project_file, name).read_bytes()
    photo_path(target, name).write_bytes(b"mine")
    assert take_along([name], project_file, target) == []
    assert photo_path(target, name).read_bytes() == b"mine"
    blocked = tmp_path / "blocked"
    blocked.mkdir()
    (blocked / "Copy.photos").write_text("no folder")
    assert take_along([name], project_file, blocked / "Copy.inlet") == [name]


def test_from_the_command_line_and_in_the_diary(project_file, tmp_path, capsys):
    source = taken(tmp_path / "in.jpg", 300, 200)
    out = str(project_file)
    assert main(["log", out, "--photo", str(source), "--note", "Laid out.", "-o", out]) == 0
    (entry,) = load(out).log
    assert (entry.did, entry.text) == ("note", "Laid out.")
    assert photo_path(project_file, entry.photo).is_file()
    missing = LogEntry(did="note", photo="gone.jpg", at=f"{DAY}T10:00")
    save(replace(load(out), log=(entry, missing)), out)
    pdf = tmp_path / "diary.pdf"
    assert main(["export", out, "--what", "diary", "--format", "pdf", "-o", str(pdf)]) == 0
    from pypdf import PdfReader

    (page,) = PdfReader(pdf).pages
    assert len(page.images) == 1
    text = page.extract_text()
    assert "Laid out." in text
    assert "gone.jpg" in text
