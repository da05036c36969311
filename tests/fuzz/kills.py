"""A real window killed at any moment while its maker edits every 40 ms: what is found on its desk.

``python -m tests.fuzz.kills NUMBER SEED`` prints a line: how many were killed, after how many
edits, and how many edits were lost at most. Each window is a process of its own, forked from one
that has loaded everything and started nothing.
"""

from __future__ import annotations

import os
import random
import signal
import sys
import tempfile
import time
from pathlib import Path
from typing import NamedTuple

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication

from inlet.core.bench import with_note
from inlet.core.project.value import replace
from inlet.files.project.project_json import load
from inlet.files.project.recovery import Desk, clear
from inlet.ui import theme
from inlet.ui.shell.app import DEMO
from inlet.ui.shell.session import Session
from inlet.ui.shell.window import Window

APART = 40
"""Milliseconds between two edits."""
MOST_EDITS = 12
"""A window is killed at any moment after 2 to so many edits, however slow the machine is."""
STAGES = ("draft", "units", "quilt", "bench")


class Killed(NamedTuple):
    """One window's end: how many edits it had made, and the number of the one on its desk."""

    edits: int
    kept: int


def edit_for_ever(pipe: int, folder: Path, stage: str) -> None:
    """A window whose maker edits: names the project by numbers, logs them, turns the block."""
    app = QApplication([])
    theme.apply(app)
    session = Session()
    window = Window(session, desk=Desk(folder))
    session.start(load(DEMO), None)
    window.show()
    window.show_stage(stage)
    number = 0

    def edit() -> None:
        nonlocal number
        number += 1
        if number % 3 == 0:
            session.turn_block((1, False))
        noted = with_note(session.project, str(number), session.now)
        session.edit(replace(noted, name=str(number)))
        os.write(pipe, b"%d\n" % number)

    timer = QTimer()
    timer.timeout.connect(edit)
    timer.start(APART)
    app.exec()


def kill_one(chance: random.Random) -> Killed:
    """Start a window, kill it at a random moment, look at its desk."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        ours, theirs = os.pipe()
        child = os.fork()
        if not child:
            os.close(ours)
            try:
                edit_for_ever(theirs, folder, chance.choice(STAGES))
            finally:
                os._exit(1)
        os.close(theirs)
        with os.fdopen(ours, "rb") as edits:
            done = b"".join(edits.readline() for _ in range(chance.randint(2, MOST_EDITS)))
            time.sleep(chance.random() * 3 * APART / 1000)
            os.kill(child, signal.SIGKILL)
            done += edits.read()
        _, status = os.waitpid(child, 0)
        assert os.WTERMSIG(status) == signal.SIGKILL, "the window ended by itself"
        number = int(done.split(b"\n")[-2])
        desk = Desk(folder)
        left = desk.left_behind()
        assert not desk.unread, "a desk that cannot be read"
        kept = [int(each.project.name) for each in left]
        for each in left:
            logged = [entry.text for entry in each.project.log]
            assert logged == [str(i + 1) for i in range(int(each.project.name))], "a torn log"
            clear(each)
        return Killed(number, max(kept, default=0))


def main(number: int, seed: int) -> str:
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    os.environ["XDG_CONFIG_HOME"] = os.environ["XDG_STATE_HOME"] = tempfile.mkdtemp()
    chance = random.Random(seed)
    ends = [kill_one(random.Random(chance.random())) for _ in range(number)]
    lost = max(end.edits - end.kept for end in ends)
    edits = sum(end.edits for end in ends)
    return f"{number} killed after {edits} edits, {lost} lost at most"


if __name__ == "__main__":
    print(main(*map(int, sys.argv[1:])), flush=True)
