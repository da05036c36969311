"""How long the maker takes, learnt from what was timed, kind of work by kind of work.

A timing of work to which the rates give ``r`` minutes took ``Σ f r_k``: each kind ``k`` takes ``f``
times what its rate says. Timings are off by parts of themselves, so what is fitted is ``taken / r``
over the shares of the kinds: the same least squares as of seams, slips being pauses.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple

from inlet.core.bench import Timing, WorkKind
from inlet.core.hand.estimate import LEAST, HandMeasure, learnt
from inlet.core.project import Measure, Rates, replace

KINDS: tuple[WorkKind, ...] = ("cut", "mark", "sew", "press", "trim", "other")
Kinds = tuple[WorkKind, ...]
GROUPINGS: tuple[tuple[Kinds, ...], ...] = (
    tuple((kind,) for kind in KINDS), (KINDS[:1], KINDS[1:]), (KINDS,),
)  # fmt: skip
"""What is told apart: every kind; cutting from the rest, where whole steps were timed; nothing."""
NOTICED = 0.1
"""Part of a timing to which a clock is looked at."""
SHORTEST = 3
"""Minutes below which a timing is mostly of the clock."""
SURE_ENOUGH = 0.25
"""Part of a figure within which it must be known to become a rate."""
RATES: dict[WorkKind, tuple[str, ...]] = {
    "cut": ("cut",), "mark": ("mark",), "sew": ("seam", "length"), "press": ("press",),
    "trim": ("trim",),
}  # fmt: skip
NAMES: dict[WorkKind, str] = {
    "cut": "cutting", "mark": "marking", "sew": "sewing", "press": "pressing", "trim": "trimming",
    "other": "other steps",
}  # fmt: skip
RATE_NAMES = {
    "cut": "for a cut", "mark": "for a line drawn", "seam": "for a seam",
    "length": "for {long} of it", "press": "for pressing a seam", "trim": "for trimming a unit",
}  # fmt: skip
MOST = 600
"""Seconds of a rate."""


class TimeEstimate(NamedTuple):
    """How many times as long as by the rates some work takes, give or take ``within``; from so many
    timings."""

    factor: float
    within: float
    number: int

    @property
    def is_known(self) -> bool:
        return self.number >= LEAST and 0 < self.within <= SURE_ENOUGH * self.factor

    @property
    def is_other(self) -> bool:
        """Is it known to be another than the rates say?"""
        return self.is_known and abs(self.factor - 1) > self.within


class TimesLearnt(NamedTuple):
    """What each group of kinds takes, as far as they can be told apart; None from too few of a
    ``number`` of timings. How many were of ``pauses``."""

    groups: Mapping[Kinds, TimeEstimate] | None
    number: int
    pauses: int = 0


def times_learnt(timings: Sequence[Timing]) -> TimesLearnt:
    """How long the work takes by these timings."""
    timed = [t for t in timings if t.taken >= SHORTEST and sum(t.by_rates.values()) > 0]
    for grouping in GROUPINGS:
        names = [_name(kinds) for kinds in grouping]
        estimate = learnt([_as_measure(t, grouping) for t in timed], NOTICED, names)
        if estimate is None:
            break
        if not estimate.apart:
            groups = {
                kinds: TimeEstimate(1 + seam.more, seam.within, seam.number)
                for kinds in grouping
                for seam in [estimate.seams.get(_name(kinds))]
                if seam is not None
            }
            return TimesLearnt(groups, len(timed), len(estimate.slips))
    return TimesLearnt(None, len(timed))


def _as_measure(timing: Timing, grouping: Sequence[Kinds]) -> HandMeasure:
    """The time as sizes are learnt from: how far off as a part of it, by each group's share."""
    whole = sum(timing.by_rates.values())
    shares = {
        _name(kinds): sum(timing.by_rates.get(kind, 0.0) for kind in kinds) / whole
        for kinds in grouping
    }
    return HandMeasure(1 - timing.taken / whole, shares, 1.0, 0)


def rates_learnt(times: TimesLearnt, rates: Rates) -> Rates:
    """The rates with what is known to be otherwise."""
    fields = {
        field: max(1, min(MOST, round(getattr(rates, field) * each.factor)))
        for kinds, each in (times.groups or {}).items() if each.is_other
        for kind in kinds for field in RATES.get(kind, ())
    }  # fmt: skip
    return replace(rates, **fields)


def times_lines(times: TimesLearnt, rates: Rates, measure: Measure) -> Iterator[str]:
    """What the timings say, the rates they make at the end."""
    if times.groups is None:
        yield (
            f"{times.number} of {LEAST} timings are there to learn your minutes from. Start the "
            "timer at Today, or type how long a step took."
        )
        return
    for kinds, each in times.groups.items():
        yield _group_text(_name(kinds), each)
    if times.pauses:
        subject = "1 timing is" if times.pauses == 1 else f"{times.pauses} timings are"
        yield f"{subject} far from the others, as after a pause, and not counted."
    if any(len(kinds) > 1 and each.is_known for kinds, each in times.groups.items()):
        yield "To tell its parts apart, tick sewing and pressing each for itself at All steps."
    new = rates_learnt(times, rates)
    if new != rates:
        long = f"{measure.system.rate_length} {measure.system.unit}"
        told = (
            f"{getattr(new, field)} s {words.format(long=long)}"
            for field, words in RATE_NAMES.items()
            if getattr(new, field) != getattr(rates, field)
        )
        yield f"Your rates by that: {', '.join(told)}."


def _name(kinds: Kinds) -> str:
    if kinds == KINDS:
        return "all work"
    return NAMES[kinds[0]] if len(kinds) == 1 else "all but cutting"


def _group_text(name: str, each: TimeEstimate) -> str:
    subject, verb = name[0].upper() + name[1:], "take" if name.endswith("steps") else "takes"
    if each.number == 1:
        number, tells = "1 timing", "does not tell"
    else:
        number, tells = f"{each.number} timings", "do not tell"
    if not each.is_known:
        return f"{subject}: {number} {tells} yet how long it takes."
    if not each.is_other:
        return f"{subject} {verb} as long as your rates say, as far as {number} tell."
    return (
        f"{subject} {verb} {round(100 * each.factor)} % of the time your rates say, give or take "
        f"{max(1, round(100 * each.within))} % ({number})."
    )
