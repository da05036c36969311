"""Puts small errors into a copy of the code, one at a time, and runs the tests against each.

An error is noticed where a test fails. The tests that mirror the changed file run first, then the
rest of ``tests/core`` or ``tests/files``, so that most errors are noticed in a second or two. What
no test notices is listed with its line: either the line does not matter, or a test is missing.
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
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
PATIENCE = 240
"""Seconds for the tests of one error; a loop that does not end is noticed, too."""

SWAPS: dict[type, type] = {
    ast.Lt: ast.LtE, ast.LtE: ast.Lt, ast.Gt: ast.GtE, ast.GtE: ast.Gt, ast.Eq: ast.NotEq,
    ast.NotEq: ast.Eq, ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Add, ast.And: ast.Or,
    ast.Or: ast.And, ast.Is: ast.IsNot, ast.IsNot: ast.Is, ast.In: ast.NotIn, ast.NotIn: ast.In,
}  # fmt: skip


def places(tree: ast.AST) -> Iterator[tuple[ast.AST, str, int]]:
    """Where an error can be put: (node, field, index)."""
    for node in ast.walk(tree):
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
    found = list(places(tree))
    if not found:
        return None
    node, name, index = chance.choice(found)
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


def mirrored(file: Path, copy: Path) -> list[str]:
    """The tests of the folder that mirrors a file's, those named after it first."""
    folder = copy / "tests" / file.parent.relative_to(copy / "src" / "inlet")
    while not folder.is_dir() or not list(folder.glob("test_*.py")):
        folder = folder.parent
    own = sorted(folder.glob("test_*.py"), key=lambda p: file.stem not in p.stem)
    return [str(p) for p in own]


def notices(copy: Path, file: Path, kind: str) -> bool:
    """Does any test of a copy fail?"""
    env = {**os.environ, "PYTHONPATH": str(copy / "src"), "CI": "1"}
    wider = [str(copy / "tests" / kind), str(copy / "tests" / "test_command_line.py")]
    for tests in (mirrored(file, copy), [*wider, str(copy / "tests" / "fuzz")]):
        command = [sys.executable, "-m", "pytest", "-x", "-q", "-p", "no:cacheprovider", *tests]
        try:
            run = subprocess.run(
                command, cwd=copy, env=env, capture_output=True, timeout=PATIENCE, check=False
            )
        except subprocess.TimeoutExpired:
            return True
        if run.returncode:
            return True
    return False


def main() -> int:
    parser = argparse.ArgumentParser(prog="./mutate", description=__doc__)
    parser.add_argument("--number", type=int, default=40)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--only", choices=["core", "files"])
    options = parser.parse_args()
    chance = random.Random(options.seed)
    missed: dict[str, int] = {"core": 0, "files": 0}
    tried: dict[str, int] = {"core": 0, "files": 0}
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / "inlet"
        kept = shutil.ignore_patterns(".git", ".venv", "__pycache__", ".*_cache", "screenshots")
        shutil.copytree(ROOT, copy, ignore=kept)
        kinds = [options.only] if options.only else ["core", "core", "core", "files"]
        for _ in range(options.number):
            kind = chance.choice(kinds)
            files = sorted((copy / "src" / "inlet" / kind).rglob("*.py"))
            weights = [p.stat().st_size for p in files]
            (file,) = chance.choices(files, weights)
            source = file.read_text("utf-8")
            made = broken(source, chance)
            if made is None:
                continue
            text, line, what = made
            file.write_text(text, "utf-8")
            tried[kind] += 1
            if not notices(copy, file, kind):
                missed[kind] += 1
                print(f"not noticed: {file.relative_to(copy)}:{line}: {what}", flush=True)
            file.write_text(source, "utf-8")
            if sum(tried.values()) % 10 == 0:
                print(f"  so far: {told(missed, tried)}", flush=True)
    print(told(missed, tried))
    return 0


def told(missed: dict[str, int], tried: dict[str, int]) -> str:
    """How many errors were not noticed, of how many."""
    return ", ".join(f"{kind} {missed[kind]} of {n} not noticed" for kind, n in tried.items() if n)


if __name__ == "__main__":
    sys.exit(main())
