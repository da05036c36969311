"""Writes docs/inlet.1, the manual page, from the parsers of the command line."""

from __future__ import annotations

from pathlib import Path

from inlet.command_line import manual

if __name__ == "__main__":
    (Path(__file__).parent.parent / "docs" / "inlet.1").write_text(manual(), "utf-8")
