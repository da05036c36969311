"""The rooms of the core, lowest first: each imports from itself and from those before it only."""

from __future__ import annotations

import ast
from graphlib import TopologicalSorter
from pathlib import Path

import pytest

import inlet

ROOMS = (
    "memo", "staged", "trampoline", "numbers", "cancellation", "geometry", "project", "problem",
    "words", "history", "draft", "assembly", "units", "table", "methods", "planning", "cutlist",
    "templates", "layout", "fitting", "piecing", "schedule", "setting", "pressing", "plan",
    "buying",
)  # fmt: skip
HOME = Path(inlet.__file__).parent


def imports() -> dict[str, set[str]]:
    """Each module of Inlet with what it imports, for types only included."""
    found: dict[str, set[str]] = {}
    for file in HOME.rglob("*.py"):
        name = ".".join(("inlet", *file.relative_to(HOME).with_suffix("").parts))
        found[name] = set()
        for node in ast.walk(ast.parse(file.read_text("utf-8"))):
            if isinstance(node, ast.ImportFrom):
                home = node.module or ""
                found[name] |= {home, *(f"{home}.{each.name}" for each in node.names)}
            elif isinstance(node, ast.Import):
                found[name] |= {each.name for each in node.names}
    return found


IMPORTS = imports()


@pytest.mark.parametrize("room", ROOMS)
def test_a_room_imports_from_lower_rooms_only(room):
    own = [m for m in IMPORTS if f"{m}.".startswith(f"inlet.core.{room}.")]
    assert own
    lower = ROOMS[: ROOMS.index(room) + 1]
    for module in own:
        for other in IMPORTS[module]:
            if other.startswith("inlet."):
                assert other.startswith("inlet.core."), (module, other)
                assert other.split(".")[2] in lower, (module, other)


def test_every_module_of_the_core_is_in_a_room():
    core = {m.split(".")[2] for m in IMPORTS if m.startswith("inlet.core.")}
    assert core - {"__init__"} == set(ROOMS)


def test_only_the_window_knows_qt_and_nothing_below_knows_the_window():
    for module, others in IMPORTS.items():
        if module.startswith(("inlet.core.", "inlet.files.")):
            assert not [m for m in others if m.startswith(("PySide6", "inlet.ui"))], module


def test_no_module_imports_itself_by_way_of_others():
    core = {
        module: {other for other in others if other in IMPORTS}
        for module, others in IMPORTS.items()
        if not module.startswith("inlet.ui")
    }
    order = list(TopologicalSorter(core).static_order())  # raises where there is a circle
    assert order.index("inlet.core.plan.block") > order.index("inlet.core.draft.patches")
