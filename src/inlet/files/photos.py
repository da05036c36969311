"""Photographs of the work, kept in a folder beside the project: scaled, upright, without any word
of where and by what they were taken.

What is kept is drawn anew from the picture's own pixels, so nothing else of the file comes along.
"""

from __future__ import annotations

import io
import os
import stat
from collections.abc import Iterable
from pathlib import Path

from PIL import Image, ImageOps, UnidentifiedImageError

from inlet.files.problem import FileProblem, file_name, reason
from inlet.files.whole import write_whole

FOLDER = ".photos"
"""What the name of the folder ends in: ``Reed Channel.photos`` beside ``Reed Channel.json``."""
LONGEST_SIDE = 1600
"""Pixels that are kept."""
MOST_PIXELS = 80_000_000
MOST_BYTES = 200 * 2**20
QUALITY = 85
FORMATS = ("JPEG", "PNG", "WEBP", "TIFF", "BMP", "GIF")


def photo_folder(project: Path) -> Path:
    """The folder of a project's photographs."""
    return project.with_name(project.stem + FOLDER)


def photo_path(project: Path, name: str) -> Path | None:
    """Where a photograph of the log lies; None of a name that would lead out of the folder."""
    if not name or Path(name).name != name:
        return None
    return photo_folder(project) / name


def keep_photo(source: str | os.PathLike[str], project: Path, day: str) -> str:
    """A photograph copied into the folder of a project, as a JPEG file named by the ``day``; its
    name there. Raises ``FileProblem``."""
    data = _as_kept(source)
    folder = photo_folder(project)
    try:
        folder.mkdir(exist_ok=True)
        taken = {path.name for path in folder.iterdir()}
        number = next(n for n in range(1, len(taken) + 2) if _name(day, n) not in taken)
        write_whole(folder / _name(day, number), data)
    except OSError as error:
        raise FileProblem(
            f"{file_name(folder)}: photographs cannot be kept there ({reason(error)})"
        ) from None
    return _name(day, number)


def take_along(names: Iterable[str], before: Path, project: Path) -> list[str]:
    """Photographs of a project that is saved under another name, copied beside it; the names of
    those that could not be. What is there already stays as it is."""
    left = []
    for name in dict.fromkeys(names):
        source, target = photo_path(before, name), photo_path(project, name)
        if source is None or target is None or target.exists() or not source.is_file():
            continue
        try:
            target.parent.mkdir(exist_ok=True)
            write_whole(target, source.read_bytes())
        except OSError:
            left.append(name)
    return left


def _name(day: str, number: int) -> str:
    return f"{day}-{number}.jpg"


def _as_kept(source: str | os.PathLike[str]) -> bytes:
    """A picture turned as it was taken, scaled, as the bytes of a JPEG file."""
    name = file_name(source)
    try:
        about = os.stat(source)
        if not stat.S_ISREG(about.st_mode):
            raise FileProblem(f"{name}: this is no file")
        if about.st_size > MOST_BYTES:
            raise FileProblem(f"{name}: larger than {MOST_BYTES // 2**20} MB")
        with Image.open(source, formats=FORMATS) as picture:
            wide, high = picture.size
            if wide * high > MOST_PIXELS:
                raise FileProblem(
                    f"{name}: {wide} x {high} pixels are too many; up to "
                    f"{MOST_PIXELS // 10**6} million are read"
                )
            picture.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))
            upright = ImageOps.exif_transpose(picture).convert("RGB")
        upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
        bare = Image.new("RGB", upright.size)
        bare.paste(upright)
        jpeg = io.BytesIO()
        bare.save(jpeg, "JPEG", quality=QUALITY)
    except UnidentifiedImageError:
        raise FileProblem(f"{name}: this is no photograph Inlet can read") from None
    except Image.DecompressionBombError:
        raise FileProblem(
            f"{name}: it has too many pixels; up to {MOST_PIXELS // 10**6} million are read"
        ) from None
    except (OSError, ValueError, SyntaxError) as error:
        why = reason(error) if isinstance(error, OSError | ValueError) else "it is damaged"
        raise FileProblem(f"{name}: cannot be read ({why})") from None
    return jpeg.getvalue()
