"""What the maker measures by: system, seam allowance, ruler, and how long work takes."""

from __future__ import annotations

from typing import Literal

from msgspec import field

from inlet.core.numbers import CENTIMETRES, INCHES, SYSTEMS, Exact, Fraction, System, SystemName
from inlet.core.project.value import Pair, Value

CuttingStyle = Literal["exact", "trim"]
Awkward = Literal["best", "trim", "finer", "bands", "leave"]


class Measure(Value, frozen=True, kw_only=True):
    """How this project measures: lengths are in its ``system``. ``oversize`` is what the trim
    style cuts larger: up to the next mark of the first, plus the second. ``squaring`` is lost of
    each strip to square its end. Where they are None the usual ones hold. ``awkward`` is what is
    done where cuts on the ruler's marks would not fit: what is best, or always one thing."""

    system_name: SystemName = field(default="inch", name="system")
    seam: Exact = Fraction(1, 4)
    ruler: Exact = Fraction(1, 8)
    style: CuttingStyle = field(name="school", default="exact")
    oversize: Pair | None = None
    squaring: Exact | None = None
    awkward: Awkward = "best"

    @property
    def system(self) -> System:
        """Inches or centimetres; files with any other are refused."""
        return SYSTEMS.get(self.system_name, INCHES)

    @property
    def mark(self) -> Fraction:
        """The ruler mark; files with an irrational one are refused."""
        assert isinstance(self.ruler, Fraction)
        return self.ruler

    @property
    def finest(self) -> Fraction:
        """Nothing finer is told: half way between two marks is as near as a hand sets a ruler."""
        return self.mark / 2

    @property
    def larger(self) -> Pair:
        """The trim style's rule, see ``oversize``."""
        return self.oversize if self.oversize is not None else self.system.oversize

    @property
    def squared_off(self) -> Exact:
        return self.squaring if self.squaring is not None else self.system.squaring

    def inches(self, length: Exact) -> Exact:
        """A length of this project in inches."""
        return length / self.system.per_inch

    def from_inches(self, length: Exact | int) -> Exact:
        return self.system.per_inch * length


def usual_measure(system: System) -> Measure:
    """How one measures in a system who says nothing else."""
    return Measure(system_name=system.name, seam=system.seam, ruler=system.ruler)


INCH = usual_measure(INCHES)
METRIC = usual_measure(CENTIMETRES)


class Rates(Value, frozen=True, kw_only=True):
    """How long the maker takes, in seconds: to cut one shape or line, draw a line, sew a seam (and
    each ten inches of it, or 25 cm), press one seam, trim one unit. ``sitting`` is how many minutes
    they have at a time, ``bobbin`` how many yards (or metres) one holds."""

    cut: int = 12
    mark: int = 15
    seam: int = 10
    length: int = 15
    press: int = 10
    trim: int = 30
    sitting: int = 60
    bobbin: int = 60


class SeamTest(Value, frozen=True, kw_only=True):
    """A seam allowance test: three strips ``strip`` wide sewn side by side and pressed,
    and what the middle one measures then; ``stitched``, if it was measured, from the raw edge to
    the stitches."""

    strip: Exact = Fraction(3, 2)
    middle: Exact = Fraction(1)
    stitched: Exact | None = None
