"""The diary on paper: the log day by day, its photographs beside what was written with them."""

from __future__ import annotations

import os
from collections.abc import Iterator
from pathlib import Path
from typing import Any, BinaryIO

from reportlab.lib.utils import ImageReader
from reportlab.platypus import Flowable, Image, Spacer

from inlet.core.bench import DiaryDay, clock, day_title, diary, entry_text
from inlet.core.project import LogEntry, Project
from inlet.files.pdf.document import BETWEEN, Document, paragraph, together
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, REGULAR, page_of, write_pages
from inlet.files.photos import photo_path

PHOTO = 200.0
"""Points of a photograph's longer side."""


def write_diary(
    project: Project,
    file: Path | None,
    path: str | os.PathLike[str],
    paper: str | None = None,
) -> None:
    """Write the diary of a project as PDF, see ``write_pages``; ``file`` is the project's, beside
    which its photographs lie."""
    title = project.name or "Diary"

    def furnish(canvas: Any) -> None:
        wide, high = canvas._pagesize
        canvas.setFillColor(INK)
        canvas.setFont(BOLD, 12)
        canvas.drawString(MARGIN, high - MARGIN - 4, title)
        canvas.setFillColor(FAINT)
        canvas.setFont(REGULAR, 8)
        page_of(canvas, wide - MARGIN, 24, "Diary, ")

    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        document = Document(to, size, f"{title}: diary", MARGIN + 26)
        document.section("diary", furnish)
        for day in diary(project.log):
            document.add(*_day(day, project, file))
        document.write()

    write_pages(path, project.measure, paper, draw)


def _day(day: DiaryDay, project: Project, file: Path | None) -> Iterator[Flowable]:
    """A day's heading with its first line, then the others."""
    heading = paragraph(day_title(day), 11, BOLD, 3)
    (_, first), *rest = day.entries
    yield together([heading, *_entry(first, project, file)], 0)
    for _, entry in rest:
        yield together(_entry(entry, project, file), 0)
    yield Spacer(1, BETWEEN)


def _entry(entry: LogEntry, project: Project, file: Path | None) -> list[Flowable]:
    text = entry_text(entry, project.measure)
    parts: list[Flowable] = [paragraph(f"{clock(entry)}  {text}".strip() or " ")]
    if entry.photo:
        parts.append(_photo(entry.photo, file) or paragraph(f"Photograph {entry.photo}", 8))
    return parts


def _photo(name: str, file: Path | None) -> Flowable | None:
    """A photograph; None where it is not there or no picture any more."""
    at = photo_path(file, name) if file is not None else None
    if at is None or not at.is_file():
        return None
    try:
        wide, high = ImageReader(str(at)).getSize()
        scale = PHOTO / max(wide, high)
        return Image(str(at), wide * scale, high * scale, hAlign="LEFT")
    except Exception:  # the library raises errors of many kinds for what is no picture
        return None
