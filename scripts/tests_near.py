"""The tests of what was changed since the last commit, as paths for pytest: those of a changed
module's room or stage, and changed tests themselves."""

from __future__ import annotations

import subprocess
import sys
from pathlib import Path

HOME = Path(__file__).parents[1]
STAGES = {
    "draft": ("draft", "guard"), "units": ("units",), "cutting": ("cutting",),
    "quilt": ("quilt", "top_picture"), "piecing": ("piecing",), "pressing": ("pressing",),
    "remake": ("remake", "corners", "panels"), "bench": ("bench", "forecast", "hand_page"),
    "at_table": ("table_view",), "printing": ("printing",), "shelf": ("finding", "beginning"),
    "tasks": ("background", "planner"), "widgets": ("parts", "answers", "finding"),
    "shell": ("window", "place", "states", "beginning", "help"),
}  # fmt: skip


def changed() -> list[Path]:
    """What differs from the last commit, with what is new."""
    lines: list[str] = []
    for command in (["diff", "--name-only", "HEAD"], ["ls-files", "-o", "--exclude-standard"]):
        said = subprocess.run(["git", *command], cwd=HOME, capture_output=True, text=True)
        lines += said.stdout.splitlines()
    return [Path(line) for line in lines if line.endswith(".py")]


def tests_of(path: Path) -> list[Path]:
    """Where the tests of a changed file are; nothing where that cannot be told."""
    if path.parts[0] == "tests":
        return [path] if path.name.startswith("test_") else [path.parent]
    if path.parts[:2] != ("src", "inlet") or len(path.parts) < 4:
        return []
    layer, room = path.parts[2], path.parts[3]
    if layer == "core":
        name = room.removesuffix(".py")
        return [Path("tests/core", name), Path("tests/core", f"test_{name}.py")]
    if layer == "files":
        return [Path("tests/files")]
    names = (*STAGES.get(room, ("guard",)), "what_pages_say")
    return [p for n in names for p in sorted(Path("tests/ui").glob(f"test_{n}*.py"))]


def main() -> int:
    rooms = [Path("src/inlet/core", room, "x.py") for room in sys.argv[1:]] or changed()
    found = dict.fromkeys(test for path in rooms for test in tests_of(path) if test.exists())
    print(*found, Path("tests/core/test_rooms.py"))
    return 0


if __name__ == "__main__":
    sys.exit(main())
