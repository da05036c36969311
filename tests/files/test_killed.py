"""A process killed while it saves leaves a whole file behind."""

from __future__ import annotations

import random
import signal
import subprocess
import sys
import time

from inlet.files.project_json import load

SAVER = """
import sys
from inlet.core.project import Block, Project, replace
from inlet.files.project_json import save
path = sys.argv[1]
project = Project(blocks=tuple(Block(id=f"b{i}") for i in range(300)))
print("ready", flush=True)
number = 0
while True:
    number += 1
    save(replace(project, name=str(number)), path)
"""


def test_killed_at_any_moment_the_file_opens(tmp_path):
    path = tmp_path / "reed.inlet"
    chance = random.Random(5)
    newest = 0
    for _ in range(6):
        process = subprocess.Popen(
            [sys.executable, "-c", SAVER, str(path)], stdout=subprocess.PIPE, text=True
        )
        assert process.stdout is not None
        assert process.stdout.readline() == "ready\n"
        time.sleep(0.15 + chance.random() / 5)
        process.send_signal(signal.SIGKILL)
        process.wait()
        process.stdout.close()
        saved = load(path)
        assert len(saved.blocks) == 300
        newest = max(newest, int(saved.name))
    assert newest > 1
