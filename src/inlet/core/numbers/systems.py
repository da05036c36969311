"""Inches and centimetres: how lengths are read in each, and what is usual where it is used."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal, NamedTuple

from inlet.core.numbers.fraction import Fraction

SystemName = Literal["inch", "cm"]


class LongUnit(NamedTuple):
    """What fabric and thread are sold and counted in, and how long one is."""

    name: str
    length: int


class UsualTools(NamedTuple):
    """What most makers cut with: rulers by their two sides, and a mat."""

    rulers: tuple[tuple[Fraction, Fraction], ...]
    mat: tuple[Fraction, Fraction]


@dataclass(frozen=True)
class System:
    """A system of measures. Lengths are in its ``unit``, of which ``per_inch`` make an inch;
    ``fractions`` says whether they are read as such or as decimals.

    What is usual in it: ``seam`` allowance and ``ruler`` mark, of several ``marks``, and the
    ``fine_mark`` of a seam allowance test;
    ``coarse`` are marks for sizes that need not be exact, as of scraps;
    ``thread``, how far two edges may differ and be eased, and ``checked_to``, the mark sizes are
    checked at; ``oversize``, the rule of those who trim (up to the next mark of the first, plus the
    second), and ``squaring``, what squaring off takes of a strip. Fabric has the usable
    ``fabric_width``, its fat quarters are of ``fat_quarter_size`` (along and across) and their
    strips ``fat_quarter`` long; it is cut with the ``tools`` (rulers, each its two sides, and a
    mat) in lengths of about ``handled``, and bought in steps of ``buying``, told in
    ``fabric_unit``, long lengths in ``long_unit``. ``cut_fabric`` is what
    people own cut already. ``rate_length`` is how much seam a rate of sewing is for, ``thread_gap``
    the thread between two seams of a chain, ``fabric_a_minute`` how much wasted fabric (squared)
    weighs as much as a minute's work. ``first_size`` is that of a new block. A patch narrower than
    ``smallest_patch``, a curve of a radius below ``tightest_curve`` and a seam that misses another
    by less than ``nearly`` are warned of."""

    name: SystemName
    unit: str
    per_inch: Fraction
    fractions: bool
    seam: Fraction
    ruler: Fraction
    marks: tuple[Fraction, ...]
    fine_mark: Fraction
    coarse: Fraction
    thread: Fraction
    checked_to: Fraction
    oversize: tuple[Fraction, Fraction]
    squaring: Fraction
    fabric_width: Fraction
    fat_quarter: Fraction
    fat_quarter_size: tuple[Fraction, Fraction]
    tools: UsualTools
    handled: Fraction
    buying: Fraction
    fabric_unit: LongUnit
    long_unit: LongUnit
    cut_fabric: str
    rate_length: int
    thread_gap: float
    fabric_a_minute: float
    first_size: Fraction
    smallest_patch: Fraction
    tightest_curve: Fraction
    nearly: Fraction
    paper: Literal["letter", "a4"]


INCHES = System(
    name="inch",
    unit="in",
    per_inch=Fraction(1),
    fractions=True,
    seam=Fraction(1, 4),
    ruler=Fraction(1, 8),
    marks=(Fraction(1, 4), Fraction(1, 8), Fraction(1, 16), Fraction(1, 32)),
    fine_mark=Fraction(1, 64),
    coarse=Fraction(1, 2),
    thread=Fraction(1, 32),
    checked_to=Fraction(1, 16),
    oversize=(Fraction(1, 8), Fraction(1, 8)),
    squaring=Fraction(1, 2),
    fabric_width=Fraction(42),
    fat_quarter=Fraction(20),
    fat_quarter_size=(Fraction(18), Fraction(20)),
    tools=UsualTools(
        ((Fraction(6), Fraction(24)), (Fraction(25, 2), Fraction(25, 2))),
        (Fraction(24), Fraction(36)),
    ),
    handled=Fraction(36),
    buying=Fraction(36, 8),
    fabric_unit=LongUnit("yd", 36),
    long_unit=LongUnit("yd", 36),
    cut_fabric="2 1/2 strips, 5 squares, 10 squares",
    rate_length=10,
    thread_gap=0.5,
    fabric_a_minute=25.0,
    first_size=Fraction(9),
    smallest_patch=Fraction(1, 2),
    tightest_curve=Fraction(1),
    nearly=Fraction(1, 4),
    paper="letter",
)

CENTIMETRES = System(
    name="cm",
    unit="cm",
    per_inch=Fraction(254, 100),
    fractions=False,
    seam=Fraction(3, 4),
    ruler=Fraction(1, 10),
    marks=(Fraction(1, 10), Fraction(1, 4), Fraction(1, 2)),
    fine_mark=Fraction(1, 100),
    coarse=Fraction(1),
    thread=Fraction(1, 10),
    checked_to=Fraction(1, 10),
    oversize=(Fraction(1, 10), Fraction(3, 10)),
    squaring=Fraction(1),
    fabric_width=Fraction(107),
    fat_quarter=Fraction(50),
    fat_quarter_size=(Fraction(50), Fraction(53)),
    tools=UsualTools(
        ((Fraction(15), Fraction(60)), (Fraction(30), Fraction(30))),
        (Fraction(60), Fraction(90)),
    ),
    handled=Fraction(100),
    buying=Fraction(10),
    fabric_unit=LongUnit("cm", 1),
    long_unit=LongUnit("m", 100),
    cut_fabric="6 strips, 12 squares, 25 squares",
    rate_length=25,
    thread_gap=1.2,
    fabric_a_minute=160.0,
    first_size=Fraction(24),
    smallest_patch=Fraction(1),
    tightest_curve=Fraction(5, 2),
    nearly=Fraction(3, 5),
    paper="a4",
)

SYSTEMS: dict[str, System] = {system.name: system for system in (INCHES, CENTIMETRES)}
