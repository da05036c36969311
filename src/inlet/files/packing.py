"""A project and its photographs as one file, to hand on or to keep: packed, and unpacked again.

A packed project is a ZIP file with the project, ``NAME.inlet``, and its photographs in
``NAME.photos``, as they lie beside one another in a folder.
"""

from __future__ import annotations

import io
import zipfile
import zlib
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.project import Project
from inlet.files.photos import photo_folder, photo_path
from inlet.files.problem import FileProblem, file_name, reason
from inlet.files.project.project_json import MOST_BYTES, dumps, loads
from inlet.files.whole import export_whole, write_whole

ENDING = ".inlet"
MOST_PACKED = 512 * 2**20
"""Bytes of all photographs together."""
MOST_PHOTO = 16 * 2**20


class Unpacked(NamedTuple):
    """Where the project was written, and how many photographs beside it."""

    project: Path
    photos: int


def pack(project: Project, beside: Path | None, target: Path) -> list[str]:
    """Write a project with the photographs that lie beside its file; the names of photographs that
    are not there. Raises ``FileProblem``."""
    name = (beside or target).stem
    missing, total = [], 0
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as parcel:
        parcel.writestr(f"{name}{ENDING}", dumps(project))
        for photo in dict.fromkeys(entry.photo for entry in project.log if entry.photo):
            check()
            data = _photo(beside, photo)
            if data is None:
                missing.append(photo)
                continue
            total += len(data)
            if total > MOST_PACKED:
                raise FileProblem(
                    f"{file_name(target)}: the photographs are too large to be packed together "
                    f"(more than {MOST_PACKED // 2**20} MB)"
                )
            inside = f"{photo_folder(Path(name + ENDING)).name}/{photo}"
            parcel.writestr(zipfile.ZipInfo(inside), data)  # a photograph shrinks no more
    export_whole(target, packed.getvalue())
    return missing


def missing_text(missing: Sequence[str]) -> str:
    """That photographs are not in the packed file; empty where all are."""
    return f"Not packed, as they are not there: {', '.join(missing)}." if missing else ""


def _photo(beside: Path | None, name: str) -> bytes | None:
    """The bytes of a photograph; None where it is not there."""
    path = photo_path(beside, name) if beside is not None else None
    try:
        return path.read_bytes() if path is not None and path.is_file() else None
    except OSError:
        return None


def unpack(source: Path, folder: Path) -> Unpacked:
    """Write a packed project and its photographs into a folder. Nothing that is there is replaced;
    nothing is written outside the folder. Raises ``FileProblem``."""
    name = file_name(source)
    try:
        with zipfile.ZipFile(source) as parcel:
            inside, text = _project_in(parcel, name)
            loads(text, f"{name}: {inside}")
            project = folder / inside
            photos = dict(_photos_in(parcel, project, name))
    except (zipfile.BadZipFile, zlib.error, EOFError, NotImplementedError, RuntimeError):
        raise FileProblem(f"{name}: this is no packed project, or it is damaged") from None
    except (OSError, ValueError) as error:
        raise FileProblem(f"{name}: cannot be read ({reason(error)})") from None
    for path in (project, photo_folder(project)):
        if path.exists():
            raise FileProblem(f"{file_name(path)}: is there already; unpack into another folder")
    try:
        folder.mkdir(parents=True, exist_ok=True)
        if photos:
            photo_folder(project).mkdir()
        for path, data in photos.items():
            write_whole(path, data, sync=False)
        write_whole(project, text)  # last: what can be opened is whole
    except OSError as error:
        raise FileProblem(
            f"{file_name(folder)}: the project cannot be unpacked there ({reason(error)})"
        ) from None
    return Unpacked(project, len(photos))


def _project_in(parcel: zipfile.ZipFile, name: str) -> tuple[str, bytes]:
    """The name and the text of the one project in a packed file."""
    projects = [item for item in parcel.infolist() if item.filename.endswith(ENDING)]
    if len(projects) != 1 or Path(projects[0].filename).name != projects[0].filename:
        raise FileProblem(f"{name}: there is no project in it, or more than one")
    return projects[0].filename, _limited(parcel, projects[0], MOST_BYTES, name)


def _photos_in(parcel: zipfile.ZipFile, project: Path, name: str) -> Iterator[tuple[Path, bytes]]:
    """Where each photograph goes, and its bytes; anything else in the file is left there."""
    inside, total = photo_folder(project).name + "/", 0
    for item in parcel.infolist():
        check()
        path = photo_path(project, item.filename.removeprefix(inside))
        if path is None or not item.filename.startswith(inside) or path.suffix != ".jpg":
            continue
        data = _limited(parcel, item, MOST_PHOTO, name)
        total += len(data)
        if total > MOST_PACKED:
            raise FileProblem(f"{name}: more photographs than Inlet unpacks")
        yield path, data


def _limited(parcel: zipfile.ZipFile, item: zipfile.ZipInfo, most: int, name: str) -> bytes:
    """The bytes of a part, whatever length the file says it has."""
    with parcel.open(item) as stream:
        data = stream.read(most + 1)
    if len(data) > most:
        raise FileProblem(f"{name}: {file_name(item.filename)} in it is too large")
    return data
