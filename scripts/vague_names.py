"""Counts local names that do not say what a thing is, and fails where their share has grown.

    .venv/bin/python scripts/vague_names.py [--list]

A name is counted where it is given: assigned, a loop's, or a parameter's.
"""

from __future__ import annotations

import ast
import sys
from collections import Counter
from pathlib import Path

SOURCE = Path(__file__).parents[1] / "src"
VAGUE = frozenset(["found", "made", "out", "own", "one", "known", "each", "other", "told"])
MOST = 0.02
"""The largest share there may be."""


def given_names(tree: ast.AST) -> list[str]:
    """Every local name that a module gives, as often as it gives it."""
    names = []
    for node in ast.walk(tree):
        if isinstance(node, ast.Name) and isinstance(node.ctx, ast.Store):
            names.append(node.id)
        elif isinstance(node, ast.arg) and node.arg not in ("self", "cls"):
            names.append(node.arg)
    return names


def main() -> int:
    count: Counter[str] = Counter()
    where: Counter[str] = Counter()
    for file in SOURCE.rglob("*.py"):
        names = given_names(ast.parse(file.read_text("utf-8")))
        count.update(names)
        where[str(file.relative_to(SOURCE))] = sum(name in VAGUE for name in names)
    vague = sum(count[name] for name in VAGUE)
    share = vague / count.total()
    print(f"Vague local names: {share:.1%} of all ({vague} of {count.total()})")
    if "--list" in sys.argv:
        for name in sorted(VAGUE, key=lambda name: -count[name]):
            print(f"  {count[name]:5} {name}")
        for place, number in where.most_common(20):
            print(f"  {number:5} {place}")
    return int(share > MOST)


if __name__ == "__main__":
    sys.exit(main())
