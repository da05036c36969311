"""Strip sets across units and blocks: equal sets sewn together, segments for all cut from them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import draft
from inlet.core.methods import Bands, segments
from inlet.core.numbers import Exact, Fraction, floor_exact, next_mark
from inlet.core.planning import UnitPlan, Widths, plan_units, usual_rule
from inlet.core.project import Measure, Project
from inlet.core.units import BlockUnits, break_down


class Segments(NamedTuple):
    """``number`` segments that finish ``height``, cut ``cut`` wide across the set, for the units
    labelled."""

    height: Exact
    cut: Fraction
    number: int
    labels: tuple[str, ...]


class StripChoice(NamedTuple):
    """What strips of one kind would come to: ``sets`` of them, each ``long``; ``left`` is what is
    left of them in all, along the strip."""

    kind: str
    long: Exact
    sets: int
    left: Exact


class Elsewhere(NamedTuple):
    """A unit of another block that could be cut from the same set: ``number`` segments a block that
    finish ``height``."""

    block: str
    label: str
    height: Exact
    number: int


class PlannedSet(NamedTuple):
    """One kind of set: finished widths and fabrics of its ``bands``, the ``segments`` wanted, the
    lengths of the sets to sew from full-width strips, what other strips would come to, and which
    units of other blocks could share it."""

    bands: Bands
    segments: tuple[Segments, ...]
    lengths: tuple[Fraction, ...]
    choices: tuple[StripChoice, ...]
    wide: Exact
    elsewhere: tuple[Elsewhere, ...] = ()

    @property
    def labels(self) -> tuple[str, ...]:
        return tuple(dict.fromkeys(label for s in self.segments for label in s.labels))


def plan_sets(units: Sequence[UnitPlan]) -> tuple[PlannedSet, ...]:
    """The sets to sew for every unit made by strip set, those of equal bands as one; in the order
    in which units first want them. Units may be of several blocks of one project."""
    return tuple(
        _planned_set(bands, rows, units[0].usable, units[0].measure)
        for bands, rows in _wanted(units).items()
    )


def _wanted(units: Iterable[UnitPlan]) -> dict[Bands, tuple[Segments, ...]]:
    """The segments wanted of each kind of set, the longest first."""
    kinds: dict[Bands, dict[Exact, Segments]] = {}
    for plan in units:
        check()
        for sewn in plan.in_use.sets:
            height = sewn.strips.height
            rows = kinds.setdefault(sewn.strips.bands, {})
            known_segments = rows.get(height)
            labels = dict.fromkeys(
                (*(known_segments.labels if known_segments else ()), plan.unit.label)
            )
            more = sewn.strips.number * plan.in_use.runs
            number = more + (known_segments.number if known_segments else 0)
            cut = plan.cutting.as_sewn(height + 2 * plan.measure.seam, sewn.strips.slanted)
            rows[height] = Segments(height, cut, number, tuple(labels))
    return {
        bands: tuple(row for _, row in sorted(rows.items(), reverse=True))
        for bands, rows in kinds.items()
    }


def _planned_set(
    bands: Bands, rows: tuple[Segments, ...], usable: Widths, measure: Measure
) -> PlannedSet:
    width = min(usable(fabric) for _, fabric in bands)
    kinds = (
        ("full-width", width),
        ("half-width", width / 2),
        ("fat quarter", min(width, measure.system.fat_quarter)),
    )
    strip_choices = (_strips(name, long, rows, measure) for name, long in kinds)
    # Longer than the fabric is wide, each segment is a set of its own, cut lengthwise.
    alone: list[Exact] = [row.cut for row in rows for _ in range(row.number)]
    lengths = _lengths(_filled(width, rows, measure) or alone, measure)
    wide = sum((w for w, _ in bands), Fraction(0)) + 2 * measure.seam
    choices = tuple(choice for choice in strip_choices if choice is not None)
    return PlannedSet(bands, rows, lengths, choices, wide)


def project_sets(project: Project, copies: int) -> tuple[PlannedSet, ...]:
    """The sets for everything in the project that can be cut from sets, ``copies`` of each block,
    whatever method is in use; labels begin with the block's title."""
    sets = []
    for block in project.blocks:
        drawn = draft(block)
        for plan in plan_units(project, block, drawn, break_down(drawn), copies):
            if segments(plan.unit):
                named = plan.unit._replace(label=f"{block.title} {plan.unit.label}")
                sets.append(replace(plan, unit=named, wanted="strip-set"))
    return plan_sets(sets)


def with_elsewhere(
    sets: tuple[PlannedSet, ...], others: Sequence[BlockUnits]
) -> tuple[PlannedSet, ...]:
    """Sets with the units of other blocks that could be cut from them too."""
    found: dict[Bands, list[Elsewhere]] = {planned_set.bands: [] for planned_set in sets}
    for other_block, units in others:
        for unit in units:
            rows = Counter((row.set_bands, row.height) for row in segments(unit) or ())
            for (bands, height), number in rows.items():
                if bands in found:
                    each = number * len(unit.places)
                    found[bands].append(Elsewhere(other_block.title, unit.label, height, each))
    return tuple(
        planned_set._replace(elsewhere=tuple(found[planned_set.bands])) for planned_set in sets
    )


def four_patches(planned_set: PlannedSet, strips: StripChoice, measure: Measure) -> int:
    """How many four-patches the ends left of sets of two bands would give: each takes two segments
    as wide as the narrower band is cut."""
    if len(planned_set.bands) != 2:
        return 0
    segment = usual_rule(measure).as_sewn(min(w for w, _ in planned_set.bands) + 2 * measure.seam)
    each = floor_exact(strips.left / strips.sets / segment)
    return strips.sets * each // 2


def _filled(long: Exact, segments: Iterable[Segments], measure: Measure) -> list[Exact]:
    """What is cut from each set when segments are taken longest first, each from the first set with
    room for it: floor((usable - squaring)/(f + 2s)) of one length from a set."""
    room = long - measure.squared_off
    sets: list[Exact] = []
    for one in segments:
        if one.cut > room:
            return []
        at = 0  # sets before this one have no room for this length any more
        for _ in range(one.number):
            while at < len(sets) and sets[at] + one.cut > room:
                at += 1
            if at == len(sets):
                check()
                sets.append(Fraction(0))
            sets[at] += one.cut
    return sets


def _lengths(sets: list[Exact], measure: Measure) -> tuple[Fraction, ...]:
    return tuple(next_mark(used + measure.squared_off, measure.mark) for used in sets)


def _strips(
    name: str, long: Exact, segments: tuple[Segments, ...], measure: Measure
) -> StripChoice | None:
    """None where a segment is longer than the strips."""
    sets = _filled(long, segments, measure)
    if not sets:
        return None
    left = sum((long - measure.squared_off - used for used in sets), Fraction(0))
    return StripChoice(name, long, len(sets), left)
