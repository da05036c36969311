"""``./fuzz --minutes N``: hostile tries for so long, a line a family; 1 where something failed.

What fails is made as small as it can be and kept as regression data in ``tests/data/fuzz``, where
the tests read it again in each run.
"""

from __future__ import annotations

import argparse
import json
import os
import re
import subprocess
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Callable
from pathlib import Path

KEPT = Path(__file__).parent.parent / "data" / "fuzz"
MOST_KEPT = 5
"""Failing inputs of one family and one run."""


class Family:
    """Tries of one kind: ``attempt`` says what is wrong with a seed, ``keep`` writes its input."""

    def __init__(
        self, name: str, attempt: Callable[[int], str | None], keep: Callable[[int, Path], None]
    ) -> None:
        self.name, self.attempt, self.keep = name, attempt, keep

    def run(self, seed: int, seconds: float, tries: int | None = None) -> int:
        """Try seeds from ``seed`` on for so long, or so many; the number of failures."""
        wrong: Counter[str] = Counter()
        tried, slowest, kept = 0, (0.0, seed), 0
        until = time.monotonic() + seconds
        while tried < tries if tries else tried == 0 or time.monotonic() < until:
            began = time.monotonic()
            found = self.attempt(seed + tried)
            slowest = max(slowest, (time.monotonic() - began, seed + tried))
            if found is not None:
                wrong["".join(c for c in found if not c.isdigit())[:100]] += 1
                print(f"  {self.name} {seed + tried}: {found[:200]}", flush=True)
                if kept < MOST_KEPT:
                    KEPT.mkdir(exist_ok=True)
                    self.keep(seed + tried, KEPT / f"{self.name}-{seed + tried}.json")
                    kept += 1
            tried += 1
        total = sum(wrong.values())
        print(f"{self.name}: {tried} tries, {total} failed, slowest {slowest[0]:.2f} s", flush=True)
        return total


def draft_family(name: str) -> Family:
    from inlet.files.project.project_json import dumps
    from tests.blocks import project_of
    from tests.fuzz import drafts

    def attempt(seed: int) -> str | None:
        try:
            block = drafts.random_block(name, seed)
        except Exception as error:
            return f"making it: {type(error).__name__}: {error}"
        return drafts.complaint(block)

    def keep(seed: int, path: Path) -> None:
        small = drafts.smaller(drafts.random_block(name, seed))
        path.write_text(dumps(project_of(small)), "utf-8")

    return Family(name, attempt, keep)


def file_family() -> Family:
    from tests.fuzz import files

    return Family(
        "files",
        lambda seed: files.complaint(files.damaged(seed)),
        lambda seed, path: _write(path, files.damaged(seed)),
    )


def drawing_family() -> Family:
    from tests.fuzz import drawings

    return Family(
        "drawings",
        lambda seed: drawings.complaint(drawings.drawing(seed)),
        lambda seed, path: _write(path.with_suffix(".svg"), drawings.drawing(seed)),
    )


def _write(path: Path, text: str) -> None:
    path.write_bytes(text.encode("utf-8", "surrogatepass"))


def hand_family() -> Family:
    from PySide6.QtWidgets import QApplication

    from inlet.ui import theme
    from tests.fuzz.hand import Hand

    app = QApplication.instance() or QApplication([])
    theme.apply(app, 1.0)  # type: ignore[arg-type]

    def attempt(seed: int) -> str | None:
        hand = Hand(seed)
        found = hand.work(EVENTS)
        hand.leave()
        slow, what = found.slowest
        closing = max(found.closings, default=0.0)
        memory = ", ".join(f"{m:.0f}" for m in found.memory)
        beside = ", ".join(f"{took:.2f}" for took in found.not_judged) or "none"
        print(
            f"  hand {seed}: slowest event {slow:.2f} s ({what}), {len(found.stalls)} stalls, "
            f"{len(found.closings)} closings, slowest {closing:.2f} s, memory {memory} MB, "
            f"slow while others took the processors: {beside}",
            flush=True,
        )
        for stall in found.stalls:
            print(f"    {stall}", flush=True)
        return "; ".join(found.wrong) or None

    return Family("hand", attempt, lambda seed, path: _write(path, json.dumps({"hand": seed})))


def kill_family() -> Family:
    """Windows killed while their maker edits, ten at a time in a process of their own."""

    def attempt(seed: int) -> str | None:
        command = [sys.executable, "-m", "tests.fuzz.kills", "10", str(seed)]
        said = subprocess.run(command, capture_output=True, text=True, check=False)
        found = re.search(r"(\d+) lost at most", said.stdout)
        if found is None:
            return said.stderr[-300:] or "nothing was said"
        return None if int(found[1]) <= 1 else said.stdout.strip()

    return Family("kills", attempt, lambda seed, path: _write(path, json.dumps({"kills": seed})))


SAMPLED = (
    "tests/core/pressing", "tests/core/test_independent.py", "tests/core/setting",
    "tests/files/test_files.py", "tests/ui/test_window.py", "tests/ui/test_states.py",
    "tests/ui/test_background.py", "tests/core/buying", "tests/core/piecing", "tests/core/assembly",
)  # fmt: skip
"""Tests that try a sample in ./check."""


def whole_family() -> Family:
    """The tests that ./check samples, with all they can try."""

    def attempt(seed: int) -> str | None:
        command = [sys.executable, "-m", "pytest", "-q", "-n", "auto", f"--hypothesis-seed={seed}"]
        env = {**os.environ, "INLET_TEST_WHOLE": "1", "QT_QPA_PLATFORM": "offscreen"}
        run = subprocess.run(
            [*command, *SAMPLED], env=env, capture_output=True, text=True, check=False
        )
        return None if run.returncode == 0 else run.stdout[-2000:]

    return Family("whole", attempt, lambda seed, path: _write(path, json.dumps({"whole": seed})))


EVENTS = 2500


def main() -> int:
    from tests.fuzz.drafts import ALL

    names = [*ALL, "files", "drawings", "hand", "kills", "whole"]
    parser = argparse.ArgumentParser(prog="./fuzz", description=__doc__)
    parser.add_argument("--minutes", type=float, default=1.0)
    parser.add_argument("--tries", type=int, help="of each family, however long they take")
    parser.add_argument("--only", default=",".join(names), help="families, with commas between")
    parser.add_argument("--seed", type=int, default=int(time.time()))
    options = parser.parse_args()
    wanted = [n for n in options.only.split(",") if n]
    unknown = [n for n in wanted if n not in (*names, "drafts")]
    if unknown:
        parser.error(f"no family is called {unknown[0]}: {', '.join(names)}, drafts")
    wanted = [m for n in wanted for m in (ALL if n == "drafts" else [n])]
    home = tempfile.mkdtemp()  # the hand must not touch the user's own
    os.environ.update(XDG_CONFIG_HOME=home, XDG_STATE_HOME=home, HOME=home)
    makers = {"files": file_family, "drawings": drawing_family, "hand": hand_family,
              "kills": kill_family, "whole": whole_family}  # fmt: skip
    seconds = 60 * options.minutes / len(wanted)
    print(f"Seed {options.seed}, {seconds:.0f} s for each of {len(wanted)} families", flush=True)
    failed = 0
    for name in wanted:
        family = makers[name]() if name in makers else draft_family(name)
        failed += family.run(options.seed, seconds, options.tries)
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main())
