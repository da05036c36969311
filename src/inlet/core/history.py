"""Undo as a stack of documents."""

from __future__ import annotations

from inlet.core.project import Project

DEEPEST = 500
"""Steps kept; documents share all they have in common, so they cost little."""


class History:
    """The document now, those before it, and those undone. ``saved`` is the one on disk, if any."""

    def __init__(self, project: Project, saved: bool = True) -> None:
        self.project = project
        self._saved: Project | None = project if saved else None
        self._before: list[Project] = []
        self._undone: list[Project] = []

    def edit(self, project: Project) -> bool:
        """Take a new document; False (and no step) where it equals the one now."""
        if project == self.project:
            return False
        self._before.append(self.project)
        del self._before[:-DEEPEST]
        self._undone.clear()
        self.project = project
        return True

    def undo(self) -> bool:
        if not self._before:
            return False
        self._undone.append(self.project)
        self.project = self._before.pop()
        return True

    def redo(self) -> bool:
        if not self._undone:
            return False
        self._before.append(self.project)
        self.project = self._undone.pop()
        return True

    @property
    def can_undo(self) -> bool:
        return bool(self._before)

    @property
    def can_redo(self) -> bool:
        return bool(self._undone)

    def mark_saved(self) -> None:
        self._saved = self.project

    @property
    def unsaved(self) -> bool:
        return self.project != self._saved
