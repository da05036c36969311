"""A short run of each family of drafts, and every draft that once was taken wrongly."""

from __future__ import annotations

from pathlib import Path

import pytest

from inlet.files.project_json import load
from tests.fuzz.drafts import ALL, complaint, random_block

KEPT = Path(__file__).parent.parent / "data" / "fuzz"
TRIES = {"corner-arcs": 6, "edits": 12, "slivers": 15, "located": 15}


@pytest.mark.parametrize("family", ALL)
def test_random_drafts_tile_and_are_sewn_or_told(family):
    for seed in range(TRIES.get(family, 25)):
        assert complaint(random_block(family, seed)) is None, (family, seed)


@pytest.mark.parametrize("path", sorted(KEPT.glob("*.json")), ids=lambda p: p.stem)
def test_drafts_that_once_were_taken_wrongly(path):
    for block in load(path).blocks:
        assert complaint(block) is None
