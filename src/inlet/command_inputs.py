"""What a command is given: a project, one of its blocks, its quilt, a plan."""

from __future__ import annotations

import argparse
from pathlib import Path

from inlet.core.plan import BlockPlan, plan_block
from inlet.core.project import Block, Project
from inlet.files.problem import FileProblem
from inlet.files.project.project_json import load


def plan_asked(options: argparse.Namespace) -> BlockPlan:
    """The plan of the block asked for."""
    project = load(options.file)
    return plan_block(project, block_asked(project, options.block, options.file), options.copies)


def with_quilt(file: str) -> Project:
    """The project in a file that has a quilt."""
    project = load(file)
    if project.quilt is None:
        raise FileProblem(f"{Path(file).name}: quilt: missing; this project has no quilt yet")
    return project


def block_asked(project: Project, wanted: str | None, file: str) -> Block:
    """The block with an id, else the first. Raises ``FileProblem`` where there is none."""
    name = Path(file).name
    if not project.blocks:
        raise FileProblem(f"{name}: blocks: there is no block to plan")
    if wanted is None:
        return project.blocks[0]
    try:
        return project.block(wanted)
    except KeyError:
        known = ", ".join(b.id for b in project.blocks)
        raise FileProblem(
            f"{name}: blocks: none has the id “{wanted}” (there are {known})"
        ) from None
