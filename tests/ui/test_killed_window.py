"""A window killed between two edits loses the last one at most; ``./fuzz`` kills more of them."""

from __future__ import annotations

import os
import re
import subprocess
import sys
from pathlib import Path


def test_a_killed_window_loses_one_edit_at_most():
    run = subprocess.run(
        [sys.executable, "-m", "tests.fuzz.kills", "5", "7"],
        capture_output=True,
        text=True,
        check=False,
        cwd=Path(__file__).parents[2],
        env={**os.environ, "QT_QPA_PLATFORM": "offscreen"},
    )
    found = re.search(r"(\d+) killed after (\d+) edits, (\d+) lost at most", run.stdout)
    assert found, run.stderr[-800:]
    killed, edits, lost = map(int, found.groups())
    assert killed == 5
    assert edits >= 2 * killed  # they were at work
    assert lost <= 1
