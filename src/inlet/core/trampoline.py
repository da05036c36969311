"""Recursion as deep as a block has strips, without Python's own stack.

A recursive function is written as a generator that yields a call of itself wherever it wants its
result: ``made = yield self.build(part)``. ``run`` keeps the calls under way in a list.
"""

from __future__ import annotations

from collections.abc import Generator
from typing import Any, TypeVar

R = TypeVar("R")
Steps = Generator[Any, Any, R]
"""A call under way; what it yields are other calls, what it is sent their results."""


def run(call: Steps[R]) -> R:
    """What a call returns, after all the calls it asks for."""
    stack: list[Steps[Any]] = [call]
    result: Any = None
    while stack:
        try:
            inner = stack[-1].send(result)
        except StopIteration as done:
            stack.pop()
            result = done.value
        else:
            stack.append(inner)
            result = None
    found: R = result
    return found
