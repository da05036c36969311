"""What the maker measures by: system, seam allowance, ruler, and how long work takes."""

from __future__ import annotations

from inlet.core.numbers.fraction import Fraction
from inlet.core.numbers.root2 import Exact
from inlet.core.numbers.text import CM_PER_INCH
from inlet.core.project.value import Pair, Value


class Measure(Value, frozen=True, kw_only=True):
    """How this project measures: lengths are in ``system`` ("inch" or "cm"). ``oversize`` is what
    the trim school cuts larger: up to the next mark of the first, plus the second. ``squaring`` is
    lost of each strip to square its end. Where they are None the usual ones hold."""

    system: str = "inch"
    seam: Exact = Fraction(1, 4)
    ruler: Exact = Fraction(1, 8)
    school: str = "exact"
    oversize: Pair | None = None
    squaring: Exact | None = None

    @property
    def mark(self) -> Fraction:
        """The ruler mark; files with an irrational one are refused."""
        assert isinstance(self.ruler, Fraction)
        return self.ruler

    @property
    def larger(self) -> Pair:
        """The trim school's rule, see ``oversize``."""
        return self.oversize if self.oversize is not None else OVERSIZE[self.system]

    @property
    def squared_off(self) -> Exact:
        return self.squaring if self.squaring is not None else SQUARING[self.system]

    def inches(self, length: Exact) -> Exact:
        """A length of this project in inches."""
        return length if self.system == "inch" else length / CM_PER_INCH

    def from_inches(self, length: Exact) -> Exact:
        return length if self.system == "inch" else length * CM_PER_INCH


OVERSIZE: dict[str, Pair] = {
    "inch": (Fraction(1, 8), Fraction(1, 8)),
    "cm": (Fraction(1, 10), Fraction(3, 10)),
}


SQUARING = {"inch": Fraction(1, 2), "cm": Fraction(1)}


INCH = Measure()


METRIC = Measure(system="cm", seam=Fraction(3, 4), ruler=Fraction(1, 10))


DEFAULT_WIDTH = {"inch": Fraction(42), "cm": Fraction(107)}
"""Usable width of cloth where a fabric states none."""


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


class Needle(Value, frozen=True, kw_only=True):
    """A needle test: three strips ``strip`` wide sewn side by side and pressed, and what the middle
    one measures then; ``stitched``, if it was measured, from the raw edge to the stitches."""

    strip: Exact = Fraction(3, 2)
    middle: Exact = Fraction(1)
    stitched: Exact | None = None
