"""JSON written without recursion is that of the standard library."""

from __future__ import annotations

import json

from hypothesis import given
from hypothesis import strategies as st

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.cutting import Have
from inlet.core.project.value import replace
from inlet.files.project.project_json import load
from inlet.files.text.cutting_json import laid_dict
from inlet.files.text.json_text import json_text
from inlet.files.text.plan_json import plan_dict
from inlet.ui.shell.app import DEMO
from tests.blocks import block_of

values = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats(allow_nan=False) | st.text(),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(), inner, max_size=3),
)


@given(values, st.booleans())
def test_it_is_what_the_library_writes(value, plain):
    assert json_text(value, plain) == json.dumps(value, ensure_ascii=plain)


def test_it_goes_as_deep_as_it_is_asked_to():
    deep: object = "x"
    for _ in range(5000):
        deep = {"parts": [deep]}
    assert json_text(deep) == '{"parts": [' * 5000 + '"x"' + "]}" * 5000


def test_stacked_fabric_is_used_by_all_its_pieces_and_blocks_say_what_they_are_made_from():
    """Three strips in a stack have three times the area of one."""
    demo = load(DEMO)
    for block in demo.blocks:
        plan = plan_dict(plan_block(demo, block))
        assert ("made_from" in plan) == (block.made_from is not None)
    have = (Have(kind="strips", width=F(5, 2), length=F(42), count=3),)
    fabric = replace(demo.fabric("fog"), have=have)
    project = replace(demo, fabrics=(fabric,), quilt=None)
    block = replace(block_of("1 0 1 2 / 0 1 2 1", 2, 2, (F(4), F(4)), ["fog"] * 4), id="four")
    project = replace(project, blocks=(block,))
    plan = plan_block(project, block, 9)
    stacked = [laid for fabric in plan.fabric_plans.best for laid in fabric.laid if laid.count > 1]
    assert stacked
    for laid in stacked:
        whole = laid_dict(laid, project)
        alone = laid_dict(replace(laid, count=1), project)
        assert 0 < whole["used"] <= 1
        assert whole["used"] == alone["used"]
