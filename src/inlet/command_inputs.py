"""What a command is given: a project, one of its blocks, its quilt, a plan."""

from __future__ import annotations

import argparse
from pathlib import Path

from inlet.core.bench import Plan
from inlet.core.plan import BlockPlan, plan_block, plan_quilt
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


def work_asked(project: Project, wanted: str | None, copies: int, file: str) -> Plan:
    """The plan of the work: of the quilt where there is one and no block is ``wanted``, else of
    ``copies`` of the block. Raises ``FileProblem`` where there is none."""
    if project.quilt is not None and not wanted:
        return plan_quilt(project)
    return plan_block(project, block_asked(project, wanted, file), copies)
