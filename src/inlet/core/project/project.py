"""The whole document as one immutable value.

An edit makes a new ``Project``; undo is a stack of them. Nothing here is derived: patches, units,
cuts and steps are functions of it, found in the stages' own packages.
"""

from __future__ import annotations

from msgspec import field

from inlet.core.numbers import Exact, Fraction, System
from inlet.core.project.bench import Bench
from inlet.core.project.block import Block, choice_in_system, started_from
from inlet.core.project.cutting import Cutting, cutting_measured, without_fabric
from inlet.core.project.fabric import Fabric, fabric_measured
from inlet.core.project.improvised import corners_in, improvised_measured
from inlet.core.project.log import LogEntry, log_measured
from inlet.core.project.made import MadeUnit, made_measured
from inlet.core.project.made_from import made_from_measured
from inlet.core.project.measure import INCH, Measure, Rates, SeamTest, usual_measure
from inlet.core.project.panel import panel_in, panel_measured
from inlet.core.project.pressing import Pressing
from inlet.core.project.quilt import Quilt, in_other_fabric, quilt_measured, without_block
from inlet.core.project.value import Value, replace


class Project(Value, frozen=True, kw_only=True):
    """Everything the maker decided."""

    name: str = ""
    measure: Measure = INCH
    fabrics: tuple[Fabric, ...] = ()
    blocks: tuple[Block, ...] = ()
    quilt: Quilt | None = None
    rates: Rates | None = None
    seam_test: SeamTest | None = field(name="needle", default=None)
    pressing: Pressing | None = None
    cutting: Cutting | None = None
    made: tuple[MadeUnit, ...] = ()
    log: tuple[LogEntry, ...] = ()
    bench: Bench | None = None

    def block(self, block_id: str) -> Block:
        """The block of that id; ``KeyError`` if there is none."""
        for block in self.blocks:
            if block.id == block_id:
                return block
        raise KeyError(block_id)

    def fabric(self, fabric_id: str) -> Fabric | None:
        return next((f for f in self.fabrics if f.id == fabric_id), None)

    def fabric_width(self, fabric_id: str) -> Exact:
        """Usable width of a fabric, or the usual one where it states none."""
        fabric = self.fabric(fabric_id)
        stated = fabric.width if fabric else None
        return stated if stated is not None else self.measure.system.fabric_width

    def usable_width(self, fabric_id: str) -> Exact:
        """The same as it is cut: less what washing takes, where the maker washes first."""
        fabric = self.fabric(fabric_id)
        washed = fabric is not None and self.cutting is not None and self.cutting.wash
        shrinks = fabric.shrinkage[1] if fabric is not None and washed else Fraction(0)
        return self.fabric_width(fabric_id) * (1 - shrinks / 100)

    def with_fabric(self, old: str, new: Fabric) -> Project:
        """The project with the fabric of id ``old`` replaced."""
        return replace(self, fabrics=tuple(new if f.id == old else f for f in self.fabrics))

    def in_place_of(self, old: str, new: str) -> Project:
        """The project with fabric ``new`` wherever fabric ``old`` lies, and ``old`` put away."""
        return replace(
            self,
            fabrics=tuple(f for f in self.fabrics if f.id != old),
            blocks=tuple(
                replace(
                    block,
                    fabric_at=tuple(
                        replace(spot, fabric=new) if spot.fabric == old else spot
                        for spot in block.fabric_at
                    ),
                    improvised=block.improvised and corners_in(block.improvised, {old: new}),
                    panel=block.panel and panel_in(block.panel, {old: new}),
                )
                for block in self.blocks
            ),
            quilt=self.quilt and in_other_fabric(self.quilt, old, new),
            cutting=self.cutting and without_fabric(self.cutting, old),
        )

    def without_block(self, block_id: str) -> Project:
        """The project with a block put away, in its quilt, too, and what was cut for it; blocks
        made from it keep their drawing."""
        cutting = self.cutting
        if cutting is not None:
            begun = tuple(each for each in cutting.begun if each.block != block_id)
            cutting = replace(cutting, begun=begun)
        return replace(
            self,
            cutting=cutting,
            blocks=tuple(
                replace(b, made_from=None) if block_id in started_from(b) else b
                for b in self.blocks
                if b.id != block_id
            ),
            quilt=self.quilt and without_block(self.quilt, block_id),
        )

    def with_block(self, block: Block) -> Project:
        """The project with the block of the same id replaced."""
        return replace(self, blocks=tuple(block if b.id == block.id else b for b in self.blocks))


FIRST_FABRICS = (
    Fabric(id="light", name="Light", colour="#ece5d3"),
    Fabric(id="medium", name="Medium", colour="#a9b6a2"),
    Fabric(id="dark", name="Dark", colour="#2d5560"),
)


def first_project() -> Project:
    """A project to begin with: three fabrics, no block yet."""
    return Project(fabrics=FIRST_FABRICS)


def measured_in(project: Project, system: System) -> Project:
    """The project in inches or centimetres: lengths are converted exactly (1 in = 2.54 cm), so
    nothing changes size; seam, ruler mark and fabric widths become the usual ones there."""
    before = project.measure.system
    if system is before:
        return project
    factor = system.per_inch / before.per_inch
    seam_test = project.seam_test
    if seam_test is not None:
        stitched = None if seam_test.stitched is None else seam_test.stitched * factor
        seam_test = replace(
            seam_test,
            strip=seam_test.strip * factor,
            middle=seam_test.middle * factor,
            stitched=stitched,
        )
    measure = replace(
        usual_measure(system), style=project.measure.style, awkward=project.measure.awkward
    )
    return replace(
        project,
        measure=measure,
        seam_test=seam_test,
        log=log_measured(project.log, factor),
        made=made_measured(project.made, factor),
        quilt=project.quilt and quilt_measured(project.quilt, factor),
        cutting=project.cutting and cutting_measured(project.cutting, factor),
        fabrics=tuple(
            replace(fabric_measured(f, factor), price=_price(f, before, system))
            for f in project.fabrics
        ),
        blocks=tuple(
            replace(
                b,
                finished=(b.finished[0] * factor, b.finished[1] * factor),
                units=tuple(choice_in_system(choice, before) for choice in b.units),
                made_from=b.made_from and made_from_measured(b.made_from, factor),
                improvised=b.improvised and improvised_measured(b.improvised, factor),
                panel=b.panel and panel_measured(b.panel, factor),
            )
            for b in project.blocks
        ),
    )


def _price(fabric: Fabric, before: System, system: System) -> Exact | None:
    """What a yard costs, for a metre, or the other way round."""
    if fabric.price is None:
        return None
    old, new = (s.long_unit.length / s.per_inch for s in (before, system))
    return fabric.price * new / old
