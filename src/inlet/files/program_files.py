"""Where Inlet keeps what is not a project: settings, the shelf, unsaved work, the log of errors."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import platformdirs


def settings_file() -> Path:
    return Path(platformdirs.user_config_dir("inlet")) / "window.json"


def desks_folder() -> Path:
    return Path(platformdirs.user_state_dir("inlet")) / "desks"


def log_file() -> Path:
    return Path(platformdirs.user_log_dir("inlet")) / "errors.log"


def shelf_folder() -> Path:
    return Path(platformdirs.user_data_dir("inlet")) / "shelf"


def data_folder() -> Path:
    """The user's data folder of all programs: what the desktop reads lies in it."""
    return Path(platformdirs.user_data_dir())


def all_places() -> Iterator[tuple[str, Path]]:
    """Every place with what it is for."""
    yield "Settings of the window", settings_file()
    yield "The shelf: your blocks for all projects", shelf_folder()
    yield "Work that is not saved yet, and what a crash left", desks_folder()
    yield "Log of errors inside Inlet", log_file()
