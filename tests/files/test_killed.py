"""A process killed at any moment leaves a whole file behind, and its work on its desk."""

from __future__ import annotations

import json
import os
import random
import signal
import subprocess
import sys
import time

from inlet.core.project.project import Project
from inlet.core.project.value import replace
from inlet.files.project import recovery
from inlet.files.project.project_json import load, loads, save
from inlet.files.project.recovery import Desk, clear, look_of
from tests.blocks import block_of, project_of

WORKER = """
import sys
from inlet.core.numbers.fraction import Fraction as F
from pathlib import Path
from inlet.core.draft.edit import add_seams
from inlet.core.project.project import Project
from inlet.core.project.block import Block, straight
from inlet.core.project.value import replace
from inlet.files.project.project_json import save
from inlet.files.project.recovery import Desk, clear, look_of
path, desk, number = Path(sys.argv[1]), Desk(Path(sys.argv[2])), int(sys.argv[3])
bands = (F(1),) * 12
project = Project(blocks=(Block(id="b", columns=bands, rows=bands),))
while True:
    number += 1
    print(number, flush=True)
    seam = straight((F(number % 12), F(0)), (F(number // 12 % 12), F(12)))
    block = add_seams(replace(project.blocks[0], seams=project.blocks[0].seams[-9:]), [seam])
    project = replace(project, name=str(number), blocks=(block,))
    desk.keep(project, path)
    if number % 2:
        save(project, path)
        desk.keep(None, path)
"""


def test_killed_at_any_moment_at_most_the_last_burst_is_missing(tmp_path):
    path, desks = tmp_path / "reed.inlet", tmp_path / "desks"
    chance = random.Random(5)
    kills, cut_short, number = 0, 0, 0
    while kills < 6:
        process = subprocess.Popen(
            [sys.executable, "-c", WORKER, str(path), str(desks), str(number)],
            stdout=subprocess.PIPE,
            text=True,
        )
        assert process.stdout is not None
        first = [process.stdout.readline() for _ in range(3)]
        assert all(first), "the worker died by itself"
        time.sleep(chance.random() / 20)
        assert process.poll() is None, "the worker died by itself"
        process.send_signal(signal.SIGKILL)
        begun = [*map(int, first), *map(int, process.stdout.read().split())]
        process.wait()
        process.stdout.close()
        kills += 1
        mine = Desk(desks)
        left = mine.left_behind()
        assert mine.unread == []
        found = [int(each.project.name) for each in left]
        found += [int(load(path).name)] if path.exists() else []
        for each in left:
            assert each.path == path.resolve()
            clear(each)
        aside = list((desks / "outdated").glob("*.json"))  # saved, and not yet off the desk
        cut_short += bool(left or aside)
        assert max(found) >= begun[-1] - 1  # only the edit under way may be missing
        number = begun[-1]
    assert number >= 3 * kills  # they did work
    assert cut_short > 0  # and some were killed between desk and file
    assert not list(desks.glob("*.json"))
    save(load(path), path)
    assert not [p for p in tmp_path.iterdir() if p.name.endswith(".tmp")]


def test_a_living_window_is_noticed_and_a_dead_one_is_not(tmp_path):
    path = tmp_path / "reed.inlet"
    one, two = Desk(tmp_path / "desks"), Desk(tmp_path / "desks")
    one.keep(None, path)
    assert two.held_elsewhere(path)
    assert not one.held_elsewhere(path)
    assert not two.held_elsewhere(tmp_path / "other.inlet")
    assert two.left_behind() == []
    one.leave()
    assert not two.held_elsewhere(path)


def test_a_desk_that_cannot_be_written_or_read_stops_nothing(tmp_path):
    blocked = tmp_path / "desks"
    blocked.write_text("not a folder")
    desk = Desk(blocked)
    desk.keep(None, None)
    assert desk.trouble
    assert desk.left_behind() == []
    blocked.unlink()
    blocked.mkdir()
    (blocked / "1-x.json").write_text("{broken")
    (blocked / "2-x.json").write_text('{"pid": 0, "project": "{}"}')
    assert desk.left_behind() == []
    assert sorted(p.name for p in desk.unread) == ["1-x.json", "2-x.json"]
    assert [p.read_text("utf-8") for p in sorted(desk.unread)] == [
        "{broken",
        '{"pid": 0, "project": "{}"}',
    ]
    assert desk.left_behind() == []
    assert desk.unread == []  # told once


def test_work_older_than_its_file_is_set_aside_and_later_deleted(tmp_path):
    """Its file was saved by another window since: whoever saved it was offered the work."""
    path, folder = tmp_path / "reed.inlet", tmp_path / "desks"
    save(named(1), path)
    crashed = Desk(folder)
    crashed.keep(named(2), path, look_of(path))
    record = json.loads(crashed.file.read_text())
    crashed.file.write_text(json.dumps({**record, "begun": "long ago"}))
    mine = Desk(folder)
    assert [left.project.name for left in mine.left_behind()] == ["2"]
    save(named(3), path)
    later = time.time() + 5
    os.utime(path, (later, later))
    assert mine.left_behind() == []
    (kept,) = (folder / "outdated").iterdir()
    assert '\\"2\\"' in kept.read_text()
    assert mine.left_behind() == []
    assert kept.exists()
    long_ago = time.time() - 31 * 86_400
    os.utime(kept, (long_ago, long_ago))
    mine.left_behind()
    assert not kept.exists()


def named(number: int) -> Project:
    return replace(project_of(block_of("0 0 1 1", 1, 1)), name=str(number))


def test_of_many_edits_the_newest_is_kept_and_none_after_leaving(tmp_path):
    desk = Desk(tmp_path)
    for number in range(60):
        desk.keep_soon(named(number), None)
    until = time.monotonic() + 30
    while "59" not in desk.file.read_text() and time.monotonic() < until:
        time.sleep(0.01)
    assert loads(json.loads(desk.file.read_text())["project"]) == named(59)
    desk.keep_soon(named(60), None)
    desk.keep(named(61), None)  # in its place
    assert loads(json.loads(desk.file.read_text())["project"]) == named(61)
    desk.leave()
    desk.keep_soon(named(62), None)
    desk.keep(named(63), None)
    time.sleep(0.1)
    assert not list(tmp_path.iterdir())


def test_a_slow_machine_loses_one_edit_at_most(tmp_path, monkeypatch):
    """Each edit is down before the one after the next is made, however long writing takes."""
    desk, down, behind = Desk(tmp_path), [0], []

    def slow(project, _path, _seen):
        time.sleep(0.12)
        down.append(int(project.name))

    monkeypatch.setattr(desk, "_keep", slow)
    monkeypatch.setattr(recovery, "PATIENCE", 30.0)  # of a machine slower still
    for number in range(1, 9):
        desk.keep_soon(named(number), None)
        behind.append(number - down[-1])
    assert max(behind) == 1  # it does go on before the edit itself is down
    desk.leave()
