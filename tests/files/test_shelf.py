"""The shelf's files: what is put there is what is taken, and what is broken is told."""

from __future__ import annotations

import pytest

from inlet.core.draft.patches import draft
from inlet.core.numbers.systems import CENTIMETRES
from inlet.core.plan.block import plan_block
from inlet.core.project.project import Project, first_project, measured_in
from inlet.core.project.value import replace
from inlet.core.search import Index
from inlet.files.problem import FileProblem
from inlet.files.program_files import shelf_folder
from inlet.files.project.project_json import load
from inlet.files.shelf import (
    SHIPPED,
    Unread,
    facts_of,
    findable,
    put_on_shelf,
    read_shelf_block,
    remove_from_shelf,
    shelf_files,
    take_from_shelf,
)
from inlet.ui.shell.app import DEMO
from tests.sample import sampled

OURS = sorted(SHIPPED.glob("*.inlet"))


@pytest.fixture(autouse=True)
def empty_shelf(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


def test_what_is_put_on_the_shelf_is_taken_into_another_project():
    demo = load(DEMO)
    block = demo.block("lantern")
    path = put_on_shelf(demo, block)
    again = put_on_shelf(demo, block)  # a second one, and the first stays
    assert path != again
    assert {path, again} == {p for p in shelf_files() if p.parent == shelf_folder()}
    kept = read_shelf_block(path)
    used = {patch.fabric for patch in draft(block).patches}
    assert {fabric.id for fabric in kept.project.fabrics} == used
    project, name = take_from_shelf(kept, first_project())
    taken = project.block(name)
    assert replace(taken, id=block.id) == block
    assert {f.id for f in project.fabrics} == {"light", "medium", "dark"} | used
    twice, other = take_from_shelf(kept, project)
    assert other != name
    assert twice.fabrics == project.fabrics  # of the same names
    removed = remove_from_shelf(kept)
    assert removed.exists()
    assert path not in shelf_files()


def test_fabrics_go_by_name_and_lengths_by_the_projects_system():
    demo = load(DEMO)
    kept = read_shelf_block(put_on_shelf(demo, demo.block("sluice")))
    fog = next(f for f in demo.fabrics if f.id == "fog")
    there = Project(fabrics=(replace(fog, id="x1", name="FOG"),), blocks=(demo.blocks[1],))
    project, name = take_from_shelf(kept, measured_in(there, CENTIMETRES))
    taken = project.block(name)
    assert taken.finished[0] == demo.block("sluice").finished[0] * CENTIMETRES.per_inch
    used = {spot.fabric for spot in taken.fabric_at}
    assert "x1" in used
    assert "fog" not in used
    assert used <= {f.id for f in project.fabrics}


def test_about_two_dozen_designs_ship_and_each_can_be_sewn():
    assert 24 <= len(OURS) <= 40
    structures = set()
    for path in OURS:
        kept = read_shelf_block(path)
        assert not isinstance(kept, Unread), kept
        assert kept.ships
        assert kept.block.id == path.stem
        assert all(patch.fabric for patch in draft(kept.block).patches)
        structures |= {len(kept.block.columns), *facts_of(kept).kinds}
    assert {2, 3, 4, 5, 6, 7} <= structures
    assert {"eight-point star", "rounds", "ring", "strips", "quarter circle"} <= structures
    assert any("set-in" in str(kind) for kind in structures)


@pytest.mark.parametrize("path", sampled(OURS, 4), ids=lambda path: path.stem)
def test_designs_are_planned_and_resewn(path):
    project = load(path)
    plan = plan_block(project, project.blocks[0])
    assert plan.resewn
    assert not plan.errors


def test_blocks_are_looked_for_by_all_that_is_told_of_them():
    kept = [read_shelf_block(path) for path in OURS]
    index = Index(findable(block, facts_of(block)) for block in kept)
    titles = [[kept[i].block.title for i in index.find(words)] for words in (
        "star", "geese", "8 in", "49 patches", "star hourglass")]  # fmt: skip
    assert len(titles[0]) >= 4
    assert all("geese" in t.lower() for t in titles[1])
    assert "Four triangles turning" in titles[2]
    assert titles[3] == ["Two crosses on seven"]
    assert titles[4] == ["Star of hourglasses"]


def test_broken_files_and_folders_are_told(tmp_path):
    folder = shelf_folder()
    folder.mkdir(parents=True)
    (folder / "bad.inlet").write_text("{")
    (folder / "none.inlet").write_text('{"format": "inlet", "version": 1, "blocks": []}')
    unread = [read_shelf_block(p) for p in shelf_files() if p.parent == folder]
    assert [type(each) for each in unread] == [Unread, Unread]
    assert "not valid JSON" in unread[0].why
    assert "no block" in unread[1].why
    for path in folder.iterdir():
        path.unlink()
    folder.rmdir()
    folder.write_text("a file, not a folder")
    with pytest.raises(FileProblem, match="the shelf cannot be read"):
        shelf_files()
    demo = load(DEMO)
    with pytest.raises(FileProblem, match="the shelf cannot be written"):
        put_on_shelf(demo, demo.blocks[0])
