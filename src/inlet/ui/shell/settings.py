"""What the window remembers between runs: files opened lately and the text size. Nothing here is
needed to work; where it cannot be read or written, the usual values serve."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import platformdirs

from inlet.files.whole import write_whole

MOST_RECENT = 8
FARTHEST_PIXEL = 100_000


class Settings:
    def __init__(self) -> None:
        self.path = Path(platformdirs.user_config_dir("inlet")) / "window.json"
        self._values = self._read()

    def _read(self) -> dict[str, Any]:
        try:
            values = json.loads(self.path.read_text("utf-8"))
        except (OSError, ValueError):
            return {}
        return values if isinstance(values, dict) else {}

    def _set(self, name: str, value: object) -> None:
        self._values[name] = value
        try:
            self.path.parent.mkdir(parents=True, exist_ok=True)
            write_whole(self.path, json.dumps(self._values).encode("utf-8"), sync=False)
        except OSError:
            pass  # a read-only home: remembered for this run only

    @property
    def recent(self) -> list[Path]:
        found = self._values.get("recent", [])
        return [Path(p) for p in found if isinstance(p, str)] if isinstance(found, list) else []

    def opened(self, path: Path) -> None:
        """Put a file at the head of the list."""
        full = path.resolve()
        rest = [p for p in self.recent if p != full]
        self._set("recent", [str(p) for p in [full, *rest][:MOST_RECENT]])

    @property
    def text(self) -> float:
        value = self._values.get("text", 1.0)
        return float(value) if isinstance(value, int | float) and 0.5 <= value <= 3 else 1.0

    @text.setter
    def text(self, scale: float) -> None:
        self._set("text", scale)

    @property
    def printed(self) -> tuple[float, float]:
        """How much larger templates are drawn, across and down, so that the printer in use draws
        them true."""
        value = self._values.get("printed")
        if isinstance(value, list) and len(value) == 2:
            across, down = value
            if all(isinstance(k, int | float) and 0.25 <= k <= 4 for k in value):
                return float(across), float(down)
        return 1.0, 1.0

    @printed.setter
    def printed(self, correction: tuple[float, float]) -> None:
        self._set("printed", list(correction))

    @property
    def window(self) -> tuple[int, int, int, int] | None:
        """Where the window was and how large: left, top, width, height; None before the first
        run."""
        value = self._values.get("window")
        if not isinstance(value, list) or len(value) != 4:
            return None
        if not all(type(x) is int and abs(x) < FARTHEST_PIXEL for x in value):
            return None
        return value[0], value[1], value[2], value[3]

    @window.setter
    def window(self, place: tuple[int, int, int, int]) -> None:
        self._set("window", list(place))

    @property
    def paper(self) -> str | None:
        """ "letter" or "a4" where the maker chose one, else None: by the project's measure."""
        value = self._values.get("paper")
        return value if value in ("letter", "a4") else None

    @paper.setter
    def paper(self, name: str) -> None:
        self._set("paper", name)
