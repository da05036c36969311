"""The plan as JSON and in the terminal: partial, set-in and curved seams, and the work they are."""

from __future__ import annotations

import json

import pytest

from inlet.command_line import main
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.measure import Rates, SeamTest
from inlet.core.project.value import replace
from inlet.files.project.project_json import FileProblem, dumps, loads, save
from inlet.files.text.plan_json import plan_dict
from tests.blocks import project_of
from tests.core.assembly.corpus import SET_IN, corpus, drawing

CORPUS = {name: block for name, block, *_ in corpus()}


def dict_of(name, **project):
    block = CORPUS[name]
    whole = replace(project_of(block), **project)
    return json.loads(json.dumps(plan_dict(plan_block(whole, block, 2))))


def joins(node):
    if isinstance(node, dict):
        for part in node["parts"]:
            yield from joins(part)
        yield node


def test_a_partial_join_is_finished_by_a_later_one():
    plan = dict_of("ring")
    found = {j["id"]: j for j in joins(plan["assembly"])}
    (partial,) = [j for j in found.values() if j["seam"] == "partial"]
    assert list(found) == ["j1", "j2", "j3", "j4"]
    assert partial["finished_by"] == "j4"
    assert len(partial["left_open"]) == 1
    assert partial["left_open"][0] in (partial["path"][0], partial["path"][-1])
    assert plan["seams"] == {
        "straight": 3, "partial": 1, "set_in": 0, "curve": 0,
        "pivots": 0, "pivots_at_least": 0, "partial_gap": 0,
    }  # fmt: skip


def test_a_set_in_join_says_where_it_turns_and_what_would_spare_it():
    plan = dict_of("mitred corner")
    first, last = joins(plan["assembly"])
    assert (last["seam"], last["pivots"], last["turns"]) == ("set-in", 1, [["3", "3"]])
    assert first["dots"] == [["3", "3"]]
    advice = plan["advice"][0]
    assert (advice["pivots_spared"], advice["partial_more"]) == (1, 0)
    assert advice["corner_square"]
    assert "spares a set-in" in advice["text"]


@pytest.mark.parametrize("name", ["wave with a flat", "ring and mitre", "herringbone 4 x 8"])
def test_kinds_add_up_and_work_is_shared_out(name):
    plan = dict_of(name, rates=Rates(sitting=12))
    count = plan["seams"]
    assert sum(count[k] for k in ("straight", "partial", "set_in", "curve")) == (
        len(plan["patches"]) - 1
    )
    assert len(plan["sittings"]) >= 1
    for sitting in plan["sittings"]:
        assert sitting["minutes"] <= 12.1
    tasks = [t for s in plan["sittings"] for b in s["batches"] for t in b["tasks"]]
    assert {t["step"] for t in tasks} - {0} == {s["number"] for s in plan["steps"]}
    assert plan["thread"]["bobbins"] == 1
    chains = [b["chain"] for s in plan["sittings"] for b in s["batches"]]
    assert plan["thread"]["top"] == pytest.approx(sum(chains) * 2.8 / 2.2, rel=1e-2)


def test_the_seam_test_test_of_a_project():
    seam_test = SeamTest(strip=F(3, 2), middle=F(31, 32), stitched=F(1, 4))
    found = dict_of("nine", seam_test=seam_test)["needle"]
    assert (found["takes"], found["off"], found["fold"]) == ("17/64", "1/64", "1/64")
    assert found["unfinished"] == [[6.4375, 6.4375], [6.4375, 6.4375]]
    assert "needle" not in dict_of("nine")
    text = dumps(replace(project_of(CORPUS["nine"]), seam_test=seam_test))
    assert loads(text).seam_test == seam_test
    with pytest.raises(FileProblem, match="narrower"):
        loads(text.replace('"31/32"', '"2"'))
    with pytest.raises(FileProblem, match=r"rates\.sitting"):
        loads(dumps(replace(project_of(CORPUS["nine"]), rates=Rates(sitting=0))))


def test_the_terminal_tells_steps_sittings_and_advice(capsys, tmp_path):
    path = tmp_path / "mitre.inlet"
    save(project_of(drawing(SET_IN, 3, 3)), path)
    assert main(["plan", str(path), "--copies", "20"]) == 0
    out = capsys.readouterr().out
    for words in ("Set in: sew one side", "should measure 6 1/2 in", "1 corner is pivoted at",
                  "Thread: ", "Sitting 1, ", "At the machine", "One more seam"):  # fmt: skip
        assert words in out
    assert main(["plan", str(path), "--needle", "1 1/2, 15/16"]) == 0
    assert "toward the needle" in capsys.readouterr().out
    assert main(["plan", str(path), "--needle", "1, 2"]) == 2
    assert capsys.readouterr().err.startswith("inlet: --seam-test: the middle strip")
