"""A small button beside a sentence of trouble, which opens the help at it."""

from __future__ import annotations

from PySide6.QtWidgets import QToolButton

from inlet.ui.shell.session import Session
from inlet.ui.widgets.parts import icon_button

WORDS = "What this means, and what to do"


def help_button(session: Session, code: str) -> QToolButton:
    """Opens the page of a problem's code; nothing where there is no code."""

    def ask() -> None:
        if code:
            session.asked_help.emit(f"trouble#{code}")

    button = icon_button("tool-help", WORDS, ask)
    button.setObjectName("flat")
    return button
