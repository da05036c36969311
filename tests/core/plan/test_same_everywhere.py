"""What is kept, printed and exported is bound by work: a busy machine finds the same plan."""

from __future__ import annotations

import json
import subprocess
import sys
from contextlib import contextmanager

import pytest
from benchmarks.pressing import squares

from inlet.core.memo import forget_all
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.value import replace
from inlet.files.project.project_json import load
from inlet.files.text.plan_json import plan_dict
from inlet.files.text.quilt_json import quilt_dict
from inlet.ui.shell.app import DEMO
from tests.blocks import project_of


@contextmanager
def three_busy_processes():
    busy = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(3)]
    try:
        yield
    finally:
        for process in busy:
            process.kill()
            process.wait()


def block_json():
    """A block of 44 seams in five fabrics scattered over it: hard to press and to lay out."""
    block = replace(squares(9, 5), finished=(9, 5))
    return plan_dict(plan_block(project_of(block), block, 7))


def quilt_json():
    return quilt_dict(plan_quilt(load(DEMO)))


@pytest.mark.parametrize("made", [block_json, quilt_json])
def test_a_plan_is_the_same_beside_busy_processes(made):
    forget_all()
    alone = json.dumps(made())
    forget_all()
    with three_busy_processes():
        assert json.dumps(made()) == alone
