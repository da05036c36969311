"""What the window is about: the open project, its history, the block shown, its plan. Every stage
reads from here and edits through here."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path

from PySide6.QtCore import QTimer

from inlet.core.bench import BenchJob, LaidFor, Thing, with_cuts, with_job, with_note, with_tick
from inlet.core.draft import Regridded, draft, turned
from inlet.core.geometry import Turn
from inlet.core.history import History
from inlet.core.layout import under_way
from inlet.core.project import (
    Block,
    Measure,
    Project,
    Quilt,
    fresh_id,
    new_block,
    replace,
    started_from,
)
from inlet.core.remake import CannotFollow, drawing_of, followed
from inlet.core.setting import in_quilt
from inlet.files import photos
from inlet.files.problem import FileProblem
from inlet.files.project import project_json
from inlet.ui import guard
from inlet.ui.shell.shown import Shown, new_project

__all__ = ["Session", "new_project"]


class Session(Shown):
    """What is shown, and every way to edit it."""

    # --- editing ------------------------------------------------------------------------------

    def edit(self, project: Project, show: str | None = None) -> bool:
        """Take an edited project, and ``show`` one of its blocks. False, with the reason said and
        all as it was, where a file could not hold it or its block shown cannot be drawn; and where
        nothing is edited."""
        if not project.blocks or project == self.project:
            return False
        project, fault = self._following(project)
        if fault:
            self.said.emit(f"{fault} Nothing was changed.")
            QTimer.singleShot(0, self, self.changed.emit)
            return False
        if project == self.project:
            return False
        why = project_json.why_not_kept(project, self.project)
        if why:
            self.said.emit(f"{why}. Nothing was changed.")
            # What was typed goes back to what is kept, once whoever asks is done with it.
            QTimer.singleShot(0, self, self.changed.emit)
            return False
        wanted = show if show is not None else self.block_id
        if not self._can_be_drawn(project, wanted):
            return False
        self._wanted = wanted
        self.history.edit(project)
        self._refresh()
        return True

    def _following(self, project: Project) -> tuple[Project, str]:
        """An edited project, blocks that are made from others as they come of them; and a sentence
        where they cannot follow, or one of them was drawn on."""
        kept = {id(block) for block in self.project.blocks}
        for block in project.blocks:
            before = next((b for b in self.project.blocks if b.id == block.id), None)
            if before is None or before is block:
                continue
            if block.panel is not None and _drawn_on(block, before):
                return project, (
                    f"{block.title} is a panel, drawn from its piece and motif: change those at "
                    "the stage Remake."
                )
            if block.made_from is None:
                continue
            same = block.made_from == before.made_from and all(
                id(project.block(name)) in kept
                for name in started_from(block)
                if any(b.id == name for b in project.blocks)
            )
            if same and drawing_of(block) != drawing_of(before):
                starts = " and ".join(project.block(name).title for name in started_from(block))
                return project, (
                    f"{block.title} is made from {starts}: edit that, or slice it otherwise at the "
                    "stage Remake."
                )
        try:
            return followed(project), ""
        except CannotFollow as why:
            return project, f"That change is not possible. {why}"

    def _can_be_drawn(self, project: Project, block_id: str) -> bool:
        """Try the drawing before anything shows it. Nothing is known that fails here; if something
        does, the work must not go with it."""
        block = next((b for b in project.blocks if b.id == block_id), None)
        if block is None or (self._draft is not None and self._draft[0] is block):
            return True
        try:
            self._draft = (block, draft(block))
        except Exception as error:
            guard.note(error)
            self.said.emit(f"Inlet cannot draw {block.title} so; what was there is kept.")
            return False
        return True

    def edit_block(self, block: Block) -> None:
        self.edit(self.project.with_block(block))

    def edit_quilt(self, quilt: Quilt) -> None:
        if quilt != self.project.quilt:
            self.edit(replace(self.project, quilt=quilt))

    @property
    def now(self) -> str:
        """The time, as the log writes it."""
        return datetime.now().isoformat(timespec="minutes")

    def tick(self, thing: Thing, done: int, by: int, part: str = "") -> None:
        """A step of which so many are done was done ``by`` times more, or fewer; it is logged."""
        self.edit(with_tick(self.project, thing, done, by, self.now, part))

    def tick_job(self, job: BenchJob, by: int) -> None:
        """So many more of a job are done, or fewer."""
        self.edit(with_job(self.project, job, by, self.now))

    def cut(self, lying: LaidFor, by: int) -> None:
        """So many cuts more are made of a piece of fabric, or fewer."""
        self.edit(with_cuts(self.project, lying, by, self.now))

    def keep_photo(self, source: str, text: str) -> None:
        """A photograph copied beside the project, and a note that names it; a sentence where it
        cannot be kept, and what was to be noted with it is not lost."""
        path, at = self.path, self.now
        if path is None:
            self.said.emit("Save the project first: its photographs are kept beside it.")
            return

        def copy() -> tuple[str, str]:
            try:
                return photos.keep_photo(source, path, at.partition("T")[0]), ""
            except FileProblem as problem:
                return "", str(problem)

        def take(result: tuple[str, str]) -> None:
            kept, fault = result
            if fault:
                self.said.emit(f"{fault}. No photograph was kept.")
            if self.path == path and (kept or text):
                self.edit(with_note(self.project, text, at, photo=kept))

        self._keeper.then(copy, take)

    def edit_measure(self, measure: Measure) -> None:
        self.edit(replace(self.project, measure=measure))

    def take_bands(self, regridded: Regridded) -> None:
        """Take a block on new bands; say so where some of its seams did not fit them."""
        self.edit_block(regridded.block)
        if regridded.left_out:
            count = regridded.left_out
            self.said.emit(
                f"{count} {'curve' if count == 1 else 'curves'} did not fit the new bands and "
                f"{'was' if count == 1 else 'were'} left out; Undo brings "
                f"{'it' if count == 1 else 'them'} back."
            )

    def turn_block(self, turn: Turn) -> None:
        self.edit_block(turned(self.block, turn))

    def copy_block(self) -> None:
        """The block once more beside itself, to make another of."""
        block, blocks = self.block, self.project.blocks
        name = f"{block.title} copy"
        copied = replace(block, id=fresh_id(name, {b.id for b in blocks}), name=name)
        at = blocks.index(block) + 1
        self.edit(replace(self.project, blocks=(*blocks[:at], copied, *blocks[at:])), copied.id)

    def move_block(self, by: int) -> None:
        """One place earlier or later among the blocks."""
        blocks = list(self.project.blocks)
        at = blocks.index(self.block)
        to = max(0, min(len(blocks) - 1, at + by))
        blocks.insert(to, blocks.pop(at))
        self.edit(replace(self.project, blocks=tuple(blocks)))

    def take_block(self, block: Block) -> bool:
        """A block from elsewhere, as a new one after the others; shown. False where it is
        refused."""
        return self.edit(replace(self.project, blocks=(*self.project.blocks, block)), block.id)

    def undo(self) -> None:
        if self.history.undo():
            self._refresh()

    def redo(self) -> None:
        if self.history.redo():
            self._refresh()

    def show_block(self, block_id: str) -> None:
        if self._can_be_drawn(self.project, block_id):
            self._wanted = block_id
            self._refresh()

    def add_block(self) -> None:
        taken = {b.id for b in self.project.blocks}
        block = new_block(taken, f"Block {len(taken) + 1}", self.measure)
        self.take_block(block)

    def delete_block(self) -> None:
        if len(self.project.blocks) == 1:
            self.said.emit("A project keeps at least one block.")
            return
        number = in_quilt(self.project, self.block_id)
        title = self.block.title
        made = [b.title for b in self.project.blocks if self.block_id in started_from(b)]
        if not self.edit(self.project.without_block(self.block_id)):
            return
        if made:
            self.said.emit(f"{', '.join(made)} was made from {title} and keeps its drawing.")
        if number:
            self.said.emit(f"{title} lay in the quilt {number} times; Undo brings it back.")

    def set_copies(self, copies: int) -> None:
        if copies != self.copies:
            self.copies = copies
            self._ask()

    def pick_unit(self, label: str | None) -> None:
        if label != self.label:
            self.label = label
            self.selected.emit()

    def pick_fabric(self, fabric: str) -> None:
        self.fabric = fabric
        self.picked_fabric.emit()

    # --- files --------------------------------------------------------------------------------

    def start(self, project: Project, path: Path | None, saved: bool = True) -> bool:
        """Begin with a project just made, opened or shipped. False, with the reason said and all as
        it was, where its first block cannot be drawn."""
        if not project.blocks:
            project = replace(project, blocks=(new_block(set(), "Block 1"),))
        if not self._can_be_drawn(project, project.blocks[0].id):
            return False
        self.history = History(project, saved)
        self.path = path
        self._wanted = project.blocks[0].id
        self.fabric = project.fabrics[0].id if project.fabrics else None
        self.label = None
        going_on = under_way(project)
        if going_on is not None and going_on.block:
            self._wanted, self.copies = going_on.block, going_on.copies
        self._refresh()
        return True

    def save_to(self, path: Path) -> bool:
        """Save; False, with the reason said, where it cannot be."""
        try:
            project_json.save(self.project, path)
        except project_json.FileProblem as problem:
            self.said.emit(str(problem))
            return False
        if self.path is not None and self.path != path:
            names = [entry.photo for entry in self.project.log if entry.photo]
            left = photos.take_along(names, self.path, path)
            if left:
                self.said.emit(f"Not copied beside the project: {', '.join(left[:4])}.")
        self.path = path
        self.history.mark_saved()
        self.changed.emit()
        return True


def _drawn_on(block: Block, before: Block) -> bool:
    """Was the drawing of a panel changed, and nothing that it follows from?"""
    same = block.panel == before.panel and block.finished == before.finished
    return same and drawing_of(block) != drawing_of(before)
