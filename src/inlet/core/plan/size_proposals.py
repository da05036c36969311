"""A quilt of about a size: how many blocks, which sashing and which border reach it.

Blocks of a setting make w by h; a border b all round makes w + 2b by h + 2b. The border that comes
nearest to both is the mean of what is missing across and down, halved, at the ruler's mark.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.numbers import ROOT2, Exact, Fraction, NumberError, nearest_mark, parse_length, show
from inlet.core.plan.quilt import QuiltPlan, plan_quilt
from inlet.core.plan.shared_units import sizes_as_cut
from inlet.core.project import MOST_PLACES, Border, Measure, Pair, Project, Quilt, Sashing, replace
from inlet.core.setting import MOST_LAID_OUT, block_sizes, placed, plain_size

BEDS = {
    "wall": (36, 36), "cot": (36, 52), "lap": (50, 65), "throw": (60, 72), "single": (68, 90),
    "double": (82, 90), "king": (104, 96),
}  # fmt: skip
"""Usual sizes by what they lie on, in inches."""
WIDEST_BORDER = Fraction(10)
"""Inches: more border than that frames a picture, not a quilt."""
PROPOSED = 4
LARGEST = 200


class Proposal(NamedTuple):
    """One way to reach a target: the quilt, its finished ``size``, how far it is ``off`` in all,
    and that with a border wider than half a block ``weighed`` in."""

    quilt: Quilt
    size: Pair
    off: Exact
    weighed: Exact
    words: str

    def plan(self, project: Project) -> QuiltPlan:
        return plan_quilt(replace(project, quilt=self.quilt))


def target_typed(text: str, measure: Measure) -> Pair:
    """A size as typed: ``56 x 70``, or what it lies on: ``lap``. Raises ``NumberError``."""
    words = text.strip().lower().removeprefix("about").strip()
    if words in BEDS:
        wide, high = BEDS[words]
        return measure.from_inches(wide), measure.from_inches(high)
    parts = re.split(r"\s*[x×]\s*|\s+by\s+", words)
    if len(parts) != 2:
        raise NumberError(f"type a size, as in 56 x 70, or one of {', '.join(BEDS)}")
    wide_typed, high_typed = (parse_length(part, measure.system) for part in parts)
    most = measure.from_inches(LARGEST)
    if not (0 < wide_typed <= most and 0 < high_typed <= most):
        raise NumberError(f"both sides must be above 0, up to {LARGEST} inches")
    return wide_typed, high_typed


def proposals(project: Project, target: Pair) -> tuple[Proposal, ...]:
    """Ways to reach a size with the quilt's block, as large as it comes out, the nearest of each
    kind of setting first: as it is set now, straight without sashing and with, on point."""
    quilt = project.quilt or Quilt()
    sizes = block_sizes(project, sizes_as_cut(project))
    side = plain_size(quilt, sizes, placed(quilt)).in_use
    if not side[0]:
        return ()
    offers: list[Proposal] = []
    for setting, sashing in _settings(quilt, side, project.measure):
        check()
        proposal = min(
            _of_setting(quilt, setting, sashing, side, target, project.measure),
            key=lambda p: p.weighed,
            default=None,
        )
        if proposal is not None and proposal.quilt not in [p.quilt for p in offers]:
            offers.append(proposal)
    return tuple(sorted(offers, key=lambda p: p.weighed))[:PROPOSED]


def _settings(quilt: Quilt, side: Pair, measure: Measure) -> Iterator[tuple[str, Sashing | None]]:
    now = quilt.sashing if quilt.sashing is not None and quilt.sashing.width else None
    name = quilt.setting or "straight"
    yield name, now
    yield "straight", None
    sash = now or Sashing(width=nearest_mark(side[0] / 8, measure.system.ruler * 2))
    yield "straight", sash
    if side[0] == side[1]:
        yield "on-point", None
        yield "on-point", sash


def _of_setting(
    quilt: Quilt, setting: str, sashing: Sashing | None, side: Pair, target: Pair, measure: Measure
) -> Iterator[Proposal]:
    """Every number of blocks that leaves a border of a sensible width, or none."""
    widest = measure.from_inches(WIDEST_BORDER)
    mark = measure.from_inches(Fraction(1, 4)) if measure.system.fractions else Fraction(1, 2)
    assert isinstance(mark, Fraction)
    for columns in _numbers(setting, sashing, side[0], target[0], widest, beside=True):
        check()
        for rows in _numbers(setting, sashing, side[1], target[1], widest, beside=False):
            if columns * rows > MOST_LAID_OUT:
                break
            inner = _inner(setting, sashing, side, columns, rows)
            spare = (target[0] - inner[0], target[1] - inner[1])
            border = nearest_mark((spare[0] + spare[1]) / 4, mark)
            border = max(Fraction(0), border)
            if border > widest:
                continue
            size = inner[0] + 2 * border, inner[1] + 2 * border
            off = abs(size[0] - target[0]) + abs(size[1] - target[1])
            wide = max(Fraction(0), border - min(side) / 2)
            yield Proposal(
                _made(quilt, setting, sashing, columns, rows, border), size, off, off + wide,
                _words(setting, sashing, columns, rows),
            )  # fmt: skip


def _numbers(
    setting: str, sashing: Sashing | None, side: Exact, target: Exact, widest: Exact, beside: bool
) -> Sequence[int]:
    """How many blocks may lie one way, so that the rest is border."""
    strip = _strip(sashing, beside)
    pitch = (side + strip) * ROOT2 if setting == "on-point" else side + strip
    most = int(float((target + pitch / 2) / pitch))
    least = int(float((target - 2 * widest) / pitch))
    return range(max(1, least), min(MOST_PLACES, max(1, most)) + 1)


def _strip(sashing: Sashing | None, beside: bool) -> Exact:
    if sashing is None or not sashing.width:
        return Fraction(0)
    if beside or sashing.down is None:
        return sashing.width
    return sashing.down


def _inner(setting: str, sashing: Sashing | None, side: Pair, columns: int, rows: int) -> Pair:
    """The size without borders: straight m·f + (m - 1)·w, with sashing outside (m + 1)·w; on point
    m(f + w)√2."""
    across, down = _strip(sashing, True), _strip(sashing, False)
    if setting == "on-point":
        return columns * (side[0] + across) * ROOT2, rows * (side[1] + across) * ROOT2
    more = 1 if sashing is not None and sashing.outside else -1
    return (
        columns * side[0] + (columns + more) * across, rows * side[1] + (rows + more) * down
    )  # fmt: skip


def _made(
    quilt: Quilt, setting: str, sashing: Sashing | None, columns: int, rows: int, border: Fraction
) -> Quilt:
    """The quilt so: its own first border as wide as it must be, others left out."""
    first = quilt.borders[0] if quilt.borders else Border()
    if first.kind == "pieced":
        first = Border(fabric=first.fabric)
    borders = (replace(first, width=border, measured=None),) if border else ()
    return replace(
        quilt, setting=setting, sashing=sashing, columns=columns, rows=rows, borders=borders,
        places=(), row_lengths=(),
    )  # fmt: skip


def _words(setting: str, sashing: Sashing | None, columns: int, rows: int) -> str:
    how = "on point" if setting == "on-point" else "straight"
    strips = ", with sashing" if sashing is not None and sashing.width else ""
    return f"{columns} x {rows} {how}{strips}"


class SizeCost(NamedTuple):
    """What a proposal takes: ``blocks`` to make, fabric to buy with its backing, minutes of work on
    the blocks."""

    blocks: int
    fabric: Fraction
    minutes: float


def cost_of(plan: QuiltPlan) -> SizeCost:
    """Fabric as it is first laid out, and the minutes of all batches of its blocks."""
    fabric = sum((layout.buy for layout in plan.fabric_plans.at_once), Fraction(0))
    if plan.backing is not None:
        fabric += plan.backing.buy
    minutes = sum(batch.minutes for batch in plan.batches)
    return SizeCost(sum(block.number for block in plan.blocks), fabric, minutes)


def cost_text(cost: SizeCost, measure: Measure) -> str:
    """What it takes in words: ``32 blocks, 9 1/2 yd, about 11 hours``."""
    unit = measure.system.long_unit
    fabric = show(cost.fabric / unit.length, system=measure.system)
    hours = max(1, round(cost.minutes / 60))
    return (
        f"{cost.blocks} blocks, {fabric} {unit.name} with the backing, about {hours} h of piecing"
    )
