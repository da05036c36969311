"""The shelf: blocks kept across projects, one project file each, in the user's data folder; and
those that ship with Inlet."""

from __future__ import annotations

import os
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

from inlet.assets import ASSETS
from inlet.core.draft import draft
from inlet.core.planning import kind_words
from inlet.core.project import (
    Block,
    Project,
    fresh_id,
    measured_in,
    replace,
)
from inlet.core.search import Findable
from inlet.core.units import units_of
from inlet.core.words import size_text
from inlet.files.problem import FileProblem, file_name, reason
from inlet.files.program_files import shelf_folder
from inlet.files.project.project_json import load, save
from inlet.files.whole import set_aside

SHIPPED = ASSETS.parent / "shelf"
ENDING = ".inlet"
MOST = 5_000
"""Files that are looked at."""


class ShelfBlock(NamedTuple):
    """A block on the shelf: its file, and the project in it, of which it is the first block."""

    path: Path
    project: Project

    @property
    def block(self) -> Block:
        return self.project.blocks[0]

    @property
    def ships(self) -> bool:
        """Is it one of Inlet's?"""
        return self.path.parent == SHIPPED


class ShelfFacts(NamedTuple):
    """What is told of a block: its size, how many patches, fabrics, and the kinds of its units."""

    size: str
    patches: int
    fabrics: int
    kinds: tuple[str, ...]

    def text(self) -> str:
        kinds = ", ".join(self.kinds)
        return f"{self.size}; {self.patches} patches, {self.fabrics} fabrics; {kinds}"


class Unread(NamedTuple):
    """A file of the shelf that holds no block, and why."""

    path: Path
    why: str


def shelf_files() -> list[Path]:
    """The files of the shelf, the maker's by name, then Inlet's. Raises ``FileProblem`` where the
    folder is there and cannot be read."""
    return [*_files(shelf_folder()), *_files(SHIPPED)]


def _files(folder: Path) -> Iterator[Path]:
    try:
        names = sorted(os.listdir(folder), key=str.casefold)
    except FileNotFoundError:
        return
    except OSError as error:
        raise FileProblem(f"{folder}: the shelf cannot be read ({reason(error)})") from None
    yield from (folder / name for name in names[:MOST] if name.endswith(ENDING))


def read_shelf_block(path: Path) -> ShelfBlock | Unread:
    """The block in a file of the shelf."""
    try:
        project = load(path)
    except FileProblem as problem:
        return Unread(path, str(problem))
    if not project.blocks:
        return Unread(path, f"{file_name(path)}: there is no block in it")
    return ShelfBlock(path, project)


def facts_of(shelf_block: ShelfBlock) -> ShelfFacts:
    """Worked out from the drawing."""
    block, project = shelf_block.block, shelf_block.project
    patches = draft(block).patches
    kinds = dict.fromkeys(kind_words(unit.kind) for unit in units_of(block).units)
    return ShelfFacts(
        size_text(block.finished, project.measure), len(patches),
        len({patch.fabric for patch in patches}), tuple(kinds),
    )  # fmt: skip


def findable(shelf_block: ShelfBlock, facts: ShelfFacts | None) -> Findable:
    """The words a block is looked for by."""
    return Findable(shelf_block.block.title, facts.text() if facts is not None else "")


def put_on_shelf(project: Project, block: Block) -> Path:
    """Keep a block with its fabrics; where. Raises ``FileProblem``."""
    used = {patch.fabric for patch in draft(block).patches}
    alone = Project(
        name=block.title, measure=project.measure,
        fabrics=tuple(fabric for fabric in project.fabrics if fabric.id in used),
        blocks=(replace(block, made_from=None),),
    )  # fmt: skip
    folder = shelf_folder()
    try:
        folder.mkdir(parents=True, exist_ok=True)
        taken = {path.stem for path in _files(folder)}
    except OSError as error:
        raise FileProblem(f"{folder}: the shelf cannot be written ({reason(error)})") from None
    path = folder / f"{fresh_id(block.id, taken)}{ENDING}"
    save(alone, path)
    return path


def take_from_shelf(shelf_block: ShelfBlock, project: Project) -> tuple[Project, str]:
    """A project with a block of the shelf as its last, and the block's id: measured as the project
    is, in the project's fabrics where they have the same name, else in its own, which are added."""
    source = measured_in(shelf_block.project, project.measure.system)
    block = source.blocks[0]
    name = fresh_id(block.id, {b.id for b in project.blocks})
    brought = {fabric.id: fabric for fabric in source.fabrics}
    used = dict.fromkeys(spot.fabric for spot in block.fabric_at)
    by_name = {fabric.title.casefold(): fabric.id for fabric in project.fabrics}
    taken, added, becomes = {fabric.id for fabric in project.fabrics}, [], {}
    for fabric_id in used:
        fabric = brought.get(fabric_id)
        if fabric is None:
            continue
        there = by_name.get(fabric.title.casefold())
        if there is None:
            there = fresh_id(fabric.id, taken)
            taken.add(there)
            added.append(replace(fabric, id=there))
        becomes[fabric_id] = there
    spots = tuple(
        replace(spot, fabric=becomes.get(spot.fabric, spot.fabric)) for spot in block.fabric_at
    )
    block = replace(block, id=name, fabric_at=spots)
    fabrics = (*project.fabrics, *added)
    return replace(project, fabrics=fabrics, blocks=(*project.blocks, block)), name


def remove_from_shelf(shelf_block: ShelfBlock) -> Path:
    """Take a block of the maker's off the shelf; its file stays beside the others, with ``~`` at
    its end. Raises ``FileProblem``."""
    try:
        return set_aside(shelf_block.path)
    except OSError as error:
        raise FileProblem(
            f"{file_name(shelf_block.path)}: cannot be taken off the shelf ({reason(error)})"
        ) from None
