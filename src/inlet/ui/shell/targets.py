"""Asking where to write: the one way, so that nothing is replaced unasked."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtWidgets import QFileDialog, QMessageBox, QWidget

from inlet.files.whole import real_file


def ask_target(parent: QWidget, title: str, start: Path, kinds: str) -> Path | None:
    """The file to write, with the ending of ``start`` where none is typed; None where the maker
    thought better of it. The dialog asks before a file of the typed name is replaced; where the
    ending makes it another name, that is asked here."""
    name, _ = QFileDialog.getSaveFileName(parent, title, str(start), kinds)
    if not name:
        return None
    typed = Path(name)
    if typed.suffix:
        return typed
    path = typed.with_suffix(start.suffix)
    return path if path == typed or not path.exists() or may_replace(parent, path) else None


def may_replace(parent: QWidget, path: Path) -> bool:
    """Ask before a file is replaced."""
    kept = real_file(path).name + "~"
    buttons = QMessageBox.StandardButton
    answer = QMessageBox.question(
        parent,
        "Replace the file?",
        f"{path.name} exists already. Replace it? The version there now is kept as {kept}.",
        buttons.Yes | buttons.Cancel,
        buttons.Cancel,
    )
    return answer == buttons.Yes
