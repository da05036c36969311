"""The chart of a quilt's sizes: every figure is that of the quilt planned at that size alone."""

from __future__ import annotations

import pytest

from inlet.core.buying.quilt_chart import (
    quilt_chart,
    quilt_chart_lines,
    quilt_chart_notes,
    quilt_sizes_typed,
)
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import NumberError
from inlet.core.plan.quilt import plan_quilt
from inlet.core.plan.size_proposals import BEDS
from inlet.core.project.measure import INCH, METRIC
from inlet.core.project.project import Project
from inlet.core.project.quilt import Backing, Binding, Border, Quilt, Sashing
from inlet.core.project.value import replace
from inlet.core.words import fabric_name
from tests.blocks import FABRICS, block_of

NINE = replace(block_of("1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2", 3, 3, (9, 9)), id="nine")
SASHED = Quilt(
    columns=3, rows=3, block="nine", setting="on-point", sashing=Sashing(width=F(1), fabric="a"),
    borders=(Border(width=F(3), fabric="b"),), binding=Binding(width=F(9, 4), fabric="c"),
    backing=Backing(fabric="d"),
)  # fmt: skip


@pytest.mark.parametrize("quilt", [replace(SASHED, setting="straight"), SASHED])
@pytest.mark.parametrize("measure", [INCH, METRIC])
def test_every_column_is_the_quilt_planned_at_that_size(quilt, measure):
    block = NINE if measure is INCH else replace(NINE, finished=(F(23), F(23)))
    wide = quilt if measure is INCH else replace(
        quilt, sashing=Sashing(width=F(3), fabric="a"), binding=Binding(width=F(6), fabric="c")
    )  # fmt: skip
    project = Project(measure=measure, fabrics=FABRICS, blocks=(block,), quilt=wide)
    sizes = quilt_sizes_typed("lap, king", measure)
    chart = quilt_chart(project, sizes)
    head, *lines = quilt_chart_lines(chart)
    assert head == ["", "lap", "king"]
    rows = {line[0]: line[1:] for line in lines}
    for i, size in enumerate(sizes):
        plan = plan_quilt(replace(project, quilt=chart.plans[i].quilt))
        assert plan.quilt.setting == quilt.setting
        assert plan.quilt.sashing == wide.sashing
        assert (rows["Blocks across"][i], rows["Blocks down"][i]) == (
            str(plan.quilt.columns), str(plan.quilt.rows),
        )  # fmt: skip
        lying = [piece for piece in plan.top.pieces if piece.lying is not None]
        assert rows["Blocks in all"][i] == str(len(lying))
        off = [abs(a - b) for a, b in zip(plan.size, size.size, strict=True)]
        assert max(off) < measure.from_inches(15)
        assert rows["Pieces to cut"][i] == str(sum(cut.number for cut in plan.cuts))
        assert rows["Binding strips"][i] == str(plan.binding.strips)
        for need in plan.fabric_plans.at_once:
            title = fabric_name(project, need.fabric)
            assert rows[f"Buy {title}"][i].split()[-1] in ("yd", "cm")
    assert [s.called for s in quilt_sizes_typed("", measure)] == [n for n in BEDS if n != "wall"]
    for text in ("huge", "0 x 4", ", ".join(["lap"] * 13)):
        with pytest.raises(NumberError):
            quilt_sizes_typed(text, measure)


def test_a_project_without_a_quilt_has_an_empty_chart():
    project = Project(fabrics=FABRICS, blocks=(NINE,))
    chart = quilt_chart(project, quilt_sizes_typed("lap", INCH))
    assert quilt_chart_lines(chart) == [["", "lap"]]
    assert "No number of these blocks comes near to lap." in quilt_chart_notes(chart)
