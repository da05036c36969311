"""A short run of each family of drafts, and every draft or file that once was taken wrongly."""

from __future__ import annotations

from pathlib import Path

import pytest

from inlet.files.project.project_json import load
from tests.fuzz import files
from tests.fuzz.drafts import ALL, complaint, random_block

KEPT = Path(__file__).parent.parent / "data" / "fuzz"
FILES = sorted(KEPT.glob("files-*.json"))
DRAFTS = sorted({*KEPT.glob("*.json")} - {*FILES})
TRIES = {"corner-arcs": 6, "edits": 12, "slivers": 15, "located": 15}


@pytest.mark.parametrize("family", ALL)
def test_random_drafts_tile_and_are_sewn_or_told(family):
    for seed in range(TRIES.get(family, 25)):
        assert complaint(random_block(family, seed)) is None, (family, seed)


@pytest.mark.parametrize("path", DRAFTS, ids=lambda p: p.stem)
def test_drafts_that_once_were_taken_wrongly(path):
    for block in load(path).blocks:
        assert complaint(block) is None


@pytest.mark.parametrize("path", FILES, ids=lambda p: p.stem)
def test_files_that_once_were_taken_wrongly(path):
    assert files.complaint(path.read_bytes().decode("utf-8", "surrogatepass")) is None
