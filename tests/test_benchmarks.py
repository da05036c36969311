"""The benchmarks find what they measure, and forget what must not be remembered."""

from __future__ import annotations

from importlib import import_module

from inlet.core.draft import patches
from inlet.core.memo import number_kept
from tests.blocks import block_of


def test_they_can_be_run():
    bench = import_module("benchmarks.__main__")
    patches.draft(block_of("0 0 1 1"))
    bench.forget()
    assert number_kept() == 0
