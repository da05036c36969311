"""The window round the stages: help opened, anything found, a shelf of many blocks."""

from __future__ import annotations

import os
import shutil
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from PySide6.QtWidgets import QApplication

from inlet.files.program_files import shelf_folder
from inlet.files.project.project_json import load
from inlet.files.shelf import SHIPPED
from inlet.ui import theme
from inlet.ui.shelf.shelf_dialog import ShelfDialog
from inlet.ui.shell.actions import DEMO
from inlet.ui.shell.session import Session
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.window import Window

SHELVED = 500
Row = tuple[str, tuple[float, float], str]


def took(do: Callable[[], object], app: QApplication) -> float:
    """Milliseconds until all that follows of it is drawn."""
    began = time.perf_counter()
    do()
    app.processEvents()
    return (time.perf_counter() - began) * 1000


def shell_rows() -> list[Row]:
    """The rows of the table, in a home of their own."""
    home, before = Path(tempfile.mkdtemp()), dict(os.environ)
    for name in ("CONFIG", "DATA", "STATE"):
        os.environ[f"XDG_{name}_HOME"] = str(home / name.lower())
    try:
        return _rows()
    finally:
        os.environ.clear()
        os.environ.update(before)
        shutil.rmtree(home, ignore_errors=True)


def _rows() -> list[Row]:
    app = QApplication.instance() or QApplication([])
    assert isinstance(app, QApplication)
    theme.apply(app)
    session = Session()
    window = Window(session, Settings())
    session.start(load(DEMO), None)
    window.show()
    app.processEvents()
    opened = []
    for stage in ("draft", "cutting", "quilt"):
        window.show_stage(stage)
        opened.append(took(window.show_help, app))
        window.show_help()
    window.find_anything()
    assert window.search is not None
    line = window.search.line
    keys = [took(lambda k=key: line.insert(k), app) for key in "seam allowance"]
    shelf_folder().mkdir(parents=True)
    ours = sorted(SHIPPED.glob("*.inlet"))
    for i in range(SHELVED):
        shutil.copy(ours[i % len(ours)], shelf_folder() / f"{i:03}.inlet")
    dialogs: list[ShelfDialog] = []

    def open_shelf() -> None:
        dialogs.append(ShelfDialog(window))
        dialogs[0].show()

    first = took(open_shelf, app)
    dialogs[0].close()
    session.history.mark_saved()
    window.close()
    return [
        ("help opened", (statistics.median(opened), max(opened)), "100"),
        ("a key of the command search", (statistics.median(keys), max(keys)), "16"),
        (f"shelf of {SHELVED} blocks, first page", (first, first), "300"),
    ]


if __name__ == "__main__":
    for name, (middle, worst), aim in shell_rows():
        print(f"{name:58} {middle:8.1f} {worst:8.1f}   {aim}", flush=True)
