"""Inlet among the programs of the desktop: its entry, icons, file type, description and manual page
in the folders of one user where desktops look for them.

Where what lies is laid down by the specifications of freedesktop.org (desktop entry, icon theme,
shared MIME information, AppStream), all below the user's data folder.
"""

from __future__ import annotations

import shutil
import subprocess
from collections.abc import Callable, Iterator, Sequence
from contextlib import suppress
from pathlib import Path

from inlet.assets import ASSETS
from inlet.files.problem import FileProblem, reason
from inlet.files.program_files import data_folder
from inlet.files.whole import write_whole

ID = "local.inlet.Inlet"
"""The name of the entry, by which a window is known as Inlet's."""
DESKTOP = ASSETS / "desktop"
ICON_SIZES = (16, 22, 24, 32, 48, 64, 128, 256, 512)
ICONS = (("inlet", "apps"), ("inlet-project", "mimetypes"))
"""Drawings with the folder of an icon theme they belong in."""
REFRESH = (
    ("update-desktop-database", "applications"),
    ("update-mime-database", "mime"),
    ("gtk-update-icon-cache", "icons/hicolor"),
)
"""Commands that tell a desktop of what is new, where it has them, and the folder each is given."""
PATIENCE = 20
"""Seconds for each of them."""
_RESERVED = set(" \t\n\"'\\><~|&;$*?#()`")
Draw = Callable[[Path, int], bytes]


def install(command: Sequence[str], draw: Draw, manual: str) -> list[Path]:
    """Put Inlet, started by ``command``, among this user's programs: the files written. ``draw``
    gives a drawing (SVG) as a PNG of so many pixels a side, ``manual`` is the manual page. Raises
    ``FileProblem`` that names the place that cannot be written."""
    written = []
    for place, data in _contents(command, draw, manual):
        path = data_folder() / place
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            write_whole(path, data, sync=False)
        except OSError as error:
            raise FileProblem(f"inlet: {path}: cannot be written ({reason(error)})") from None
        written.append(path)
    _refresh()
    return written


def remove() -> list[Path]:
    """Take away what ``install`` wrote: the files that were there. Raises ``FileProblem``."""
    removed = []
    for place in _places():
        path = data_folder() / place
        try:
            path.unlink()
        except FileNotFoundError:
            continue
        except OSError as error:
            raise FileProblem(f"inlet: {path}: cannot be removed ({reason(error)})") from None
        removed.append(path)
    if removed:
        _refresh()
    return removed


def exec_line(command: Sequence[str]) -> str:
    """A command as the value of ``Exec``: arguments with reserved letters quoted, a percent sign
    doubled; and each backslash doubled once more, as in every value of an entry."""
    return " ".join(map(_exec_word, command)).replace("\\", "\\\\")


def _exec_word(word: str) -> str:
    word = word.replace("%", "%%")
    if not _RESERVED.intersection(word):
        return word
    return '"' + "".join(f"\\{c}" if c in '"`$\\' else c for c in word) + '"'


def _contents(command: Sequence[str], draw: Draw, manual: str) -> Iterator[tuple[Path, bytes]]:
    """Each file below the data folder, and what is in it."""
    entry = (DESKTOP / f"{ID}.desktop").read_text("utf-8")
    entry = entry.replace("@try", command[0].replace("\\", "\\\\"))
    entry = entry.replace("@exec", exec_line(command))
    texts = {
        _ENTRY: entry.encode(),
        _DESCRIPTION: (DESKTOP / f"{ID}.metainfo.xml").read_bytes(),
        _FILE_TYPE: (DESKTOP / "inlet-mime.xml").read_bytes(),
        _MANUAL: manual.encode(),
    }
    yield from texts.items()
    for name, kind in ICONS:
        drawing = DESKTOP / f"{name}.svg"
        yield _icon_place("scalable", kind, f"{name}.svg"), drawing.read_bytes()
        for side in ICON_SIZES:
            yield _icon_place(f"{side}x{side}", kind, f"{name}.png"), draw(drawing, side)


_ENTRY = Path("applications", f"{ID}.desktop")
_DESCRIPTION = Path("metainfo", f"{ID}.metainfo.xml")
_FILE_TYPE = Path("mime", "packages", "inlet.xml")
_MANUAL = Path("man", "man1", "inlet.1")


def _places() -> Iterator[Path]:
    yield from (_ENTRY, _DESCRIPTION, _FILE_TYPE, _MANUAL)
    for name, kind in ICONS:
        yield _icon_place("scalable", kind, f"{name}.svg")
        for side in ICON_SIZES:
            yield _icon_place(f"{side}x{side}", kind, f"{name}.png")


def _icon_place(size: str, kind: str, name: str) -> Path:
    return Path("icons", "hicolor", size, kind, name)


def _refresh() -> None:
    """Have the desktop look again. One without these commands looks by itself."""
    for name, place in REFRESH:
        program, folder = shutil.which(name), data_folder() / place
        if program is not None and folder.is_dir():
            extra = ["--ignore-theme-index", "--quiet"] if name.startswith("gtk") else []
            with suppress(OSError, subprocess.SubprocessError):
                subprocess.run(
                    [program, *extra, str(folder)], capture_output=True, timeout=PATIENCE,
                    check=False, stdin=subprocess.DEVNULL,
                )  # fmt: skip
