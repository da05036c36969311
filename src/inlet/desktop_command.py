"""``inlet --install-desktop``, ``--remove-desktop`` and ``--where``."""

from __future__ import annotations

import os
import sys
from pathlib import Path

from inlet import terminal
from inlet.files import desktop
from inlet.files.program_files import all_places


def start_command() -> list[str]:
    """How this Inlet is started again, from wherever: by its command, or by its Python."""
    called = Path(os.path.abspath(sys.argv[0]))
    if called.name == "inlet" and os.access(called, os.X_OK) and called.is_file():
        return [str(called)]
    return [sys.executable, "-m", "inlet"]


def install(manual: str) -> int:
    from inlet.ui.icon_files import as_png  # loads Qt, which draws the icons

    written = desktop.install(start_command(), as_png, manual)
    folder = os.path.commonpath(written)
    terminal.say(
        f"Inlet is among your programs now; a double click on a project (*.inlet) opens it. "
        f"{len(written)} files were written below {folder}. "
        "inlet --remove-desktop takes them away again."
    )
    return 0


def remove() -> int:
    removed = desktop.remove()
    if removed:
        terminal.say(f"{len(removed)} files of Inlet were removed. Your projects are untouched.")
    else:
        terminal.say("There was nothing to remove: Inlet is not among your programs.")
    return 0


def where() -> int:
    for words, path in all_places():
        terminal.say(f"{words}: {path}{'' if path.exists() else ' (not there yet)'}")
    return 0
