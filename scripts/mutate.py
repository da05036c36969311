"""Puts small errors into a copy of the code, one at a time, and runs the tests against each.

An error is noticed where a test fails, or where tests take ten times as long as they do without it.
The tests of the changed file's room run first, so that most errors are noticed in a second or two;
then all tests of its layer. What no test notices is listed with its line: either the line does not
matter, or a test is missing. ``--near`` runs the tests of the room alone: what they do not notice
is more than what none does.
"""

from __future__ import annotations

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path

from tests_near import tests_of

ROOT = Path(__file__).resolve().parent.parent
SWAPS: dict[type, type] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq, ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Add, ast.And: ast.Or,
    ast.Or: ast.And, ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
}  # fmt: skip


LOOK = frozenset(
    ["px", "font", "column", "row", "flowing", "FlowLayout", "addStretch", "setStretch", "icon",
     "setSpacing", "setHorizontalSpacing", "setVerticalSpacing", "setContentsMargins", "addWidget",
     "addLayout", "setColumnStretch", "QPen"]
)  # fmt: skip
"""Calls whose numbers are of the look alone: a margin of 10 or 11 pixels is right or wrong to an
eye, not to a test."""


def places(tree: ast.AST) -> Iterator[tuple[ast.AST, str, int]]:
    """Where an error can be put: (node, field, index)."""
    of_look = {
        id(argument) for call in ast.walk(tree) if isinstance(call, ast.Call)
        if getattr(call.func, "attr", getattr(call.func, "id", "")) in LOOK
        for argument in call.args if isinstance(argument, ast.Constant)
    }  # fmt: skip
    for node in ast.walk(tree):
        if id(node) in of_look:
            continue
        if isinstance(node, ast.Compare):
            yield from ((node, "ops", i) for i, op in enumerate(node.ops) if type(op) in SWAPS)
        elif isinstance(node, ast.BinOp | ast.BoolOp) and type(node.op) in SWAPS:
            if not _of_types(node):
                yield node, "op", 0
        elif isinstance(node, ast.Constant) and type(node.value) is int and node.value < 1000:
            yield node, "value", 0
        elif isinstance(node, ast.If):
            yield node, "test", 0


def _of_types(node: ast.AST) -> bool:
    """Is it a union of types rather than a sum?"""
    return isinstance(node, ast.BinOp) and isinstance(node.op, ast.BitOr)


def broken(source: str, chance: random.Random) -> tuple[str, int, str] | None:
    """The source with one error, its line, and what it is; None where none can be put."""
    tree = ast.parse(source)
    everywhere = list(places(tree))
    if not everywhere:
        return None
    node, name, index = chance.choice(everywhere)
    before = ast.unparse(node)
    if name == "ops":
        node.ops[index] = SWAPS[type(node.ops[index])]()  # type: ignore[attr-defined]
    elif name == "op":
        node.op = SWAPS[type(node.op)]()  # type: ignore[attr-defined]
    elif name == "value":
        node.value += 1  # type: ignore[attr-defined]
    else:
        node.test = ast.UnaryOp(ast.Not(), node.test)  # type: ignore[attr-defined]
    after = ast.unparse(node)
    line = getattr(node, "lineno", 0)
    return ast.unparse(tree), line, f"{before.splitlines()[0]}  ->  {after.splitlines()[0]}"


def near(file: Path, copy: Path) -> list[str]:
    """The tests of a file's room or stage, those named after it first."""
    path = file.relative_to(copy)
    tests = [copy / test for test in tests_of(path) if (copy / test).exists()]
    cases = [case for test in tests for case in (sorted(test.glob("test_*.py")) or [test])]
    return [str(case) for case in sorted(cases, key=lambda case: file.stem not in case.stem)]


class Suites:
    """The tests of a copy of the code, with how long they take where nothing is wrong."""

    def __init__(self, copy: Path, only_near: bool) -> None:
        self.copy, self.only_near = copy, only_near
        self.seconds: dict[tuple[str, ...], float] = {}

    def notice(self, file: Path, text: str) -> bool:
        """Does any test fail where a file holds this text?"""
        source = file.read_text("utf-8")
        layer = file.relative_to(self.copy / "src" / "inlet").parts[0]
        suites = [near(file, self.copy)]
        if not self.only_near:
            suites.append([str(self.copy / "tests" / layer), "-n", "auto"])
        for suite in filter(None, suites):
            if tuple(suite) not in self.seconds:
                began = time.monotonic()
                if self._fails(suite, None):
                    raise SystemExit(f"the tests fail as they are: {' '.join(suite)}")
                self.seconds[tuple(suite)] = time.monotonic() - began
        try:
            file.write_text(text, "utf-8")
            return any(
                self._fails(suite, 30 + 10 * self.seconds[tuple(suite)])
                for suite in filter(None, suites)
            )
        finally:
            file.write_text(source, "utf-8")

    def _fails(self, suite: list[str], patience: float | None) -> bool:
        env = {**os.environ, "PYTHONPATH": str(self.copy / "src"), "CI": "1"}
        command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *suite]
        try:
            run = subprocess.run(command, cwd=self.copy, env=env, capture_output=True,
                                 timeout=patience, check=False)  # fmt: skip
        except subprocess.TimeoutExpired:
            return True
        return run.returncode != 0


def main() -> int:
    parser = argparse.ArgumentParser(prog="./mutate", description=__doc__)
    parser.add_argument("--number", type=int, default=40, help="errors of each folder")
    parser.add_argument("--seed", type=int, default=1)
    folders = "folders of src/inlet, with commas between: core/methods,ui/quilt"
    parser.add_argument("--only", default="core,files,ui", help=folders)
    parser.add_argument("--near", action="store_true", help="the tests of the room alone")
    options = parser.parse_args()
    chance = random.Random(options.seed)
    with tempfile.TemporaryDirectory() as temporary:
        copy = Path(temporary) / "inlet"
        kept = shutil.ignore_patterns(".git", ".venv", "__pycache__", ".*_cache", "screenshots")
        shutil.copytree(ROOT, copy, ignore=kept)
        suites = Suites(copy, options.near)
        for folder in options.only.split(","):
            files = sorted((copy / "src" / "inlet" / folder).rglob("*.py"))
            weights = [file.stat().st_size for file in files]
            tried = missed = 0
            while tried < options.number:
                (file,) = chance.choices(files, weights)
                error = broken(file.read_text("utf-8"), chance)
                if error is None:
                    continue
                text, line, what = error
                tried += 1
                if not suites.notice(file, text):
                    missed += 1
                    place = f"{file.relative_to(copy)}:{line}"
                    print(f"{missed} of {tried} not noticed: {place}: {what}", flush=True)
            print(f"{folder}: {missed} of {tried} not noticed", flush=True)
    return 0


if __name__ == "__main__":
    sys.exit(main())
