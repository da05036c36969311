"""What the window remembers between runs: files opened lately, the text size and the like. Nothing
here is needed to work; what cannot be read is as usual, the rest is kept."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Annotated, Any, Literal

import msgspec
from msgspec import Meta

from inlet.core.numbers import CENTIMETRES, INCHES
from inlet.core.project import Cutting, Project, replace
from inlet.files.program_files import settings_file
from inlet.files.whole import write_whole
from inlet.ui import theme
from inlet.ui.shell.panels import Panel
from inlet.ui.shell.shown import new_project

MOST_RECENT = 8
Pixels = Annotated[int, Meta(ge=-100_000, le=100_000)]
Scale = Annotated[float, Meta(ge=0.25, le=4)]


class Usual(msgspec.Struct, frozen=True):
    """What a new project begins with: its system, the hand that cuts, the finest mark, in the
    system's unit (empty: as usual there)."""

    system: Literal["inch", "cm"] = "inch"
    handed: Literal["right", "left"] = "right"
    mark: str = ""


class Remembered(msgspec.Struct, frozen=True):
    """``recent`` files, newest first; the ``text`` size, 1 is usual; ``printed``, how much larger
    templates are drawn, across and down, so that the printer in use draws them true; the
    ``window``'s left, top, width and height; the ``paper`` to print on, None: by the measure; the
    ``look``; the printers a test square was ``tested`` on; which panels the maker ``folded`` (true)
    or keeps open (false); what is ``usual`` in a new project, None before the first start."""

    recent: tuple[str, ...] = ()
    text: Annotated[float, Meta(ge=0.5, le=3)] = 1.0
    printed: tuple[Scale, Scale] = (1.0, 1.0)
    window: tuple[Pixels, Pixels, Pixels, Pixels] | None = None
    paper: Literal["letter", "a4"] | None = None
    look: theme.Chosen = "system"
    tested: tuple[str, ...] = ()
    usual: Usual | None = None
    folded: dict[Panel, bool] = {}


class Settings:
    """The remembered values, each kept as soon as it is set."""

    def __init__(self) -> None:
        self.path = settings_file()
        self._kept = _read(self.path)

    def _keep(self, **values: Any) -> None:
        self._kept = msgspec.structs.replace(self._kept, **values)
        try:
            self.path.parent.mkdir(parents=True, exist_ok=True)
            write_whole(self.path, msgspec.json.encode(self._kept), sync=False)
        except OSError:
            pass  # a read-only home: remembered for this run only

    @property
    def recent(self) -> list[Path]:
        return [Path(name) for name in self._kept.recent]

    def opened(self, path: Path) -> None:
        """Put a file at the head of the list."""
        full = path.resolve()
        rest = [p for p in self.recent if p != full]
        self._keep(recent=tuple(str(p) for p in [full, *rest][:MOST_RECENT]))

    @property
    def text(self) -> float:
        return self._kept.text

    @text.setter
    def text(self, scale: float) -> None:
        self._keep(text=scale)

    @property
    def printed(self) -> tuple[float, float]:
        return self._kept.printed

    @printed.setter
    def printed(self, correction: tuple[float, float]) -> None:
        self._keep(printed=correction)

    @property
    def window(self) -> tuple[int, int, int, int] | None:
        return self._kept.window

    @window.setter
    def window(self, place: tuple[int, int, int, int]) -> None:
        self._keep(window=place)

    @property
    def paper(self) -> Literal["letter", "a4"] | None:
        return self._kept.paper

    @paper.setter
    def paper(self, name: Literal["letter", "a4"]) -> None:
        self._keep(paper=name)

    @property
    def is_new(self) -> bool:
        """Has Inlet never been started before?"""
        return self._kept.usual is None

    @property
    def usual(self) -> Usual:
        return self._kept.usual or Usual()

    @usual.setter
    def usual(self, usual: Usual) -> None:
        self._keep(usual=usual)

    def new_project(self) -> Project:
        """An empty project, as the maker usually begins."""
        usual = self.usual
        project = new_project(CENTIMETRES if usual.system == "cm" else INCHES)
        marks = {str(mark): mark for mark in project.measure.system.marks}
        if usual.mark in marks:
            project = replace(project, measure=replace(project.measure, ruler=marks[usual.mark]))
        if usual.handed == "left":
            project = replace(project, cutting=Cutting(handed="left"))
        return project

    @property
    def tested(self) -> tuple[str, ...]:
        return self._kept.tested

    def printed_on(self, printer: str) -> None:
        """A test square was printed."""
        self._keep(
            tested=(*(name for name in self.tested if name != printer), printer)[-MOST_RECENT:]
        )

    @property
    def look(self) -> theme.Chosen:
        return self._kept.look

    @look.setter
    def look(self, look: theme.Chosen) -> None:
        self._keep(look=look)

    @property
    def folded(self) -> dict[Panel, bool]:
        return self._kept.folded

    @folded.setter
    def folded(self, folded: dict[Panel, bool]) -> None:
        self._keep(folded=folded)


def _read(path: Path) -> Remembered:
    """What a file says, value by value: one that makes no sense is as usual."""
    try:
        said = json.loads(path.read_text("utf-8"))
    except (OSError, ValueError):
        return Remembered()
    values = {}
    for field in msgspec.structs.fields(Remembered):
        try:
            values[field.name] = msgspec.convert(said[field.name], field.type)
        except (KeyError, TypeError, msgspec.ValidationError):
            continue
    return Remembered(**values)
