"""The rooms of the core, lowest first: each imports from itself and from those before it only."""

from __future__ import annotations

import ast
from graphlib import TopologicalSorter
from pathlib import Path

import pytest

import inlet

ROOMS = (
    "memo", "search", "staged", "trampoline", "numbers", "cancellation", "geometry", "project",
    "problem", "words", "history", "draft", "assembly", "units", "table", "panels", "methods",
    "planning", "cutlist", "templates", "layout", "fitting", "piecing", "schedule", "improvised",
    "setting", "minimum", "pressing", "remake", "plan", "bench", "hand", "tolerance", "figures",
    "buying",
)  # fmt: skip
HOME = Path(inlet.__file__).parent


def imports() -> dict[str, set[str]]:
    """Each module of Inlet with what it imports, for types only included."""
    found: dict[str, set[str]] = {}
    for file in HOME.rglob("*.py"):
        name = ".".join(("inlet", *file.relative_to(HOME).with_suffix("").parts))
        name = name.removesuffix(".__init__")
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
    assert core == set(ROOMS)


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
    assert order.index("inlet.core.plan") > order.index("inlet.core.draft.patches")


# --- faces --------------------------------------------------------------------------------------


def room_of(module: str) -> str | None:
    """The room a module is in: a package of the core, of the files or of the window."""
    parts = module.split(".")
    folder = HOME.joinpath(*parts[1:3])
    deep = len(parts) > 2 and parts[1] in ("core", "files", "ui") and folder.is_dir()
    return ".".join(parts[:3]) if deep else None


def face_of(room: str) -> set[str]:
    """What a room's ``__init__`` lets others use: names, or modules of it."""
    source = HOME.joinpath(*room.split(".")[1:], "__init__.py").read_text("utf-8")
    for node in ast.parse(source).body:
        if isinstance(node, ast.Assign) and ast.unparse(node.targets[0]) == "__all__":
            return {ast.literal_eval(item) for item in node.value.elts}
    raise AssertionError(f"{room} has no face")


def visits() -> dict[str, set[tuple[str, str]]]:
    """By room: what modules outside ask it for, as (module, name or module of the room)."""
    found: dict[str, set[tuple[str, str]]] = {}
    for file in HOME.rglob("*.py"):
        module = ".".join(("inlet", *file.relative_to(HOME).with_suffix("").parts))
        for node in ast.walk(ast.parse(file.read_text("utf-8"))):
            if not isinstance(node, ast.ImportFrom):
                continue
            asked = node.module or ""
            room = room_of(asked)
            if room is None or room == room_of(module.removesuffix(".__init__")):
                continue
            inner = asked.removeprefix(room).removeprefix(".")
            names = [inner] if inner else [each.name for each in node.names]
            found.setdefault(room, set()).update((module, name) for name in names)
    return found


VISITS = visits()


@pytest.mark.parametrize("room", sorted(VISITS))
def test_a_room_is_entered_by_its_face(room):
    face = face_of(room)
    past = sorted(visit for visit in VISITS[room] if visit[1] not in face)
    assert past == []


@pytest.mark.parametrize("room", sorted(VISITS))
def test_a_face_shows_nothing_that_no_other_room_asks_for(room):
    assert face_of(room) - {name for _, name in VISITS[room]} == set()


def test_every_room_says_what_it_knows():
    for folder in (f for part in ("core", "files", "ui") for f in (HOME / part).iterdir()):
        if folder.is_dir() and folder.name != "__pycache__":
            told = ast.get_docstring(ast.parse((folder / "__init__.py").read_text("utf-8")))
            assert told, folder.name
            assert "Promise" in told or folder.parent.name == "ui", folder.name


# --- sizes --------------------------------------------------------------------------------------

MOST_LINES, MOST_OF_A_FUNCTION = 450, 60


def test_no_module_and_no_function_is_too_long_to_be_read_at_once():
    long = []
    for file in HOME.rglob("*.py"):
        text = file.read_text("utf-8")
        if text.count("\n") > MOST_LINES:
            long.append(file.name)
        for node in ast.walk(ast.parse(text)):
            if isinstance(node, ast.FunctionDef):
                lines = (node.end_lineno or 0) - node.lineno + 1
                if lines > MOST_OF_A_FUNCTION:
                    long.append(f"{file.name}: {node.name}")
    assert long == []


def test_a_name_of_a_class_is_given_once():
    names = [
        node.name
        for file in HOME.rglob("*.py")
        for node in ast.parse(file.read_text("utf-8")).body
        if isinstance(node, ast.ClassDef)
    ]
    assert {name for name in names if names.count(name) > 1} == set()
