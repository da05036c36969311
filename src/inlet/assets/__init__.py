"""Files that ship with Inlet: typeface, icons, style sheet."""

from pathlib import Path

ASSETS = Path(__file__).parent
FONTS = ASSETS / "fonts"
ICONS = ASSETS / "icons"
