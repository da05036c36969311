"""The cover of a guide: the block with its units, what it is made of, what the maker needs."""

from __future__ import annotations

from typing import Any

from reportlab.lib.colors import black

from inlet.core.figures import sheet_figure
from inlet.core.layout import tools_of
from inlet.core.plan import SewnBlock
from inlet.core.planning import UnitPlan, kind_words, method_words
from inlet.core.project import Project
from inlet.core.units import label_place
from inlet.core.words import size_text
from inlet.files.pdf.document import PagePart
from inlet.files.pdf.guide_blocks import Fabrics


def to_have(project: Project) -> list[str]:
    """What the maker needs besides fabric."""
    measure, tools = project.measure, tools_of(project)
    rulers = " and ".join(size_text(ruler, measure) for ruler in tools.rulers)
    return [
        f"rotary cutter, mat {size_text(tools.mat, measure)}, rulers {rulers}",
        "sewing machine, thread, pins, iron, labels for the stacks",
    ]


class CoverPicture(PagePart):
    """The block with the labels of its units, ``side`` points wide where it is square."""

    def __init__(self, plan: SewnBlock, fabrics: Fabrics, side: float) -> None:
        super().__init__()
        self.plan, self.fabrics = plan, fabrics
        across, self.down = (float(x) for x in plan.block.finished)
        self.scale = min(side / across, side * 1.4 / self.down)

    def tall(self, wide: float) -> float:
        return self.down * self.scale + 10

    def paint(self, canvas: Any, wide: float, high: float) -> None:
        plan, scale = self.plan, self.scale
        pen = self.fabrics.pen(canvas, high)
        picture = tuple((p.polygon, p.fabric) for p in plan.draft.patches)
        pen.draw(sheet_figure(picture, pen.frame(0, high, scale), lettered=False))
        canvas.setFillColor(black)
        for unit in plan.units:
            label = unit.unit.label.split(" ")[-1]  # without the block's name
            for place in unit.unit.places:
                xs, ys = zip(*(p.floats() for p in place.part.outline), strict=True)
                x, y = label_place(plan.draft, place.part)
                room = min(max(xs) - min(xs), max(ys) - min(ys)) * scale
                pen.tag(label, x * scale, high - y * scale, max(6.0, min(16.0, room / 3)))


def unit_line(unit: UnitPlan, plan: SewnBlock) -> str:
    name = unit.in_use.name
    return (
        f"{unit.unit.label}:  {unit.count} × {kind_words(unit.unit.kind)}, unfinished "
        f"{size_text(unit.unfinished, plan.measure)}"
        + ("" if name == "plain" else f", {method_words(name)}")
        + (f" (mirror image of {unit.unit.mirror_of})" if unit.unit.mirror_of else "")
    )
