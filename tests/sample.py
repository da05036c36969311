"""How much of what there is a test tries: a sample in ./check, all of it in ./fuzz --only whole."""

from __future__ import annotations

import os
from collections.abc import Iterable
from typing import TypeVar

WHOLE = os.environ.get("INLET_TEST_WHOLE") == "1"

T = TypeVar("T")


def sampled(items: Iterable[T], every: int, first: int = 0) -> list[T]:
    """Each ``every``-th, from the ``first`` on; all of them where the whole is tried."""
    return list(items) if WHOLE else list(items)[first % every :: every]


def many(sample: int, whole: int) -> int:
    """How many random cases are tried."""
    return whole if WHOLE else sample
