"""Fabric, thread and money that the work has taken so far, against what is planned."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from typing import NamedTuple

from inlet.core.bench.jobs import BenchJob
from inlet.core.bench.progress import Log
from inlet.core.bench.things import Plan
from inlet.core.layout import length_used
from inlet.core.numbers import Exact, Fraction, show
from inlet.core.project import Measure, Project
from inlet.core.schedule import long_text, thread_per_length
from inlet.core.words import fabric_name, length_text


class FabricSpent(NamedTuple):
    """Of a fabric: how much of its length is cut up by the log, of how much, and what all of it
    costs (None where its price is not known)."""

    fabric: str
    cut: Exact
    planned: Exact
    price: Exact | None


def fabric_spent(jobs: Sequence[BenchJob], plan: Plan, project: Project) -> tuple[FabricSpent, ...]:
    """What is cut up of every fabric: of each piece of it, as much as of its cuts is made."""
    unit = project.measure.system.long_unit.length
    lengths: dict[str | None, list[tuple[Exact, Exact]]] = {}
    for job in jobs:
        if job.laid is not None:
            whole = length_used(job.laid.laid)
            part = whole * Fraction(job.done, max(1, job.times))
            lengths.setdefault(job.laid.fabric, []).append((part, whole))
    buys = {each.fabric: each.buy for each in plan.fabric_plans.now}

    def price(name: str | None) -> Exact | None:
        fabric = project.fabric(name or "")
        priced = fabric is not None and fabric.price is not None and buys.get(name)
        return fabric.price * buys[name] / unit if priced and fabric and fabric.price else None

    return tuple(
        FabricSpent(
            fabric_name(project, name), sum((p for p, _ in both), Fraction(0)),
            sum((w for _, w in both), Fraction(0)), price(name),
        )
        for name, both in lengths.items()
    )  # fmt: skip


def thread_spent(jobs: Sequence[BenchJob], log: Log) -> tuple[float, float]:
    """Top thread, and bobbin thread as well: what the log's seams took, those sewn twice counted
    twice, and what is planned."""
    sewn = Counter[str]()
    for entry in log:
        if entry.did == "unpicked":
            sewn[entry.what] += entry.number
    used = planned = 0.0
    for job in jobs:
        each = job.seam * thread_per_length()
        planned += each * job.times
        again = sewn[job.thing.name] * job.times / max(1, job.thing.times) if job.thing else 0
        used += each * (job.done + again)
    return used, planned


def spent_lines(
    fabrics: Iterable[FabricSpent], thread: tuple[float, float], measure: Measure
) -> Iterator[str]:
    """``Fog: 22 of 45 in cut up``, thread, and the cost."""
    cost: Exact = Fraction(0)
    costs: list[Exact] = []
    for each in fabrics:
        fine = measure.system.checked_to
        cut, planned = (
            length_text(round(float(x) / float(fine)) * fine, measure)
            for x in (each.cut, each.planned)
        )
        yield f"{each.fabric}: {cut} of {planned} cut up"
        if each.price is not None:
            share = float(each.cut) / max(1e-9, float(each.planned))
            costs.append(each.price)
            cost += each.price * Fraction(round(share * 10_000), 10_000)
    used, planned_thread = (2 * long for long in thread)
    if planned_thread:
        yield (
            f"Thread, top and bobbin: {long_text(used, measure)} of "
            f"{long_text(planned_thread, measure)}"
        )
    if costs:
        whole = sum(costs, Fraction(0))
        yield f"Fabric for {show(_cents(cost))} of {show(_cents(whole))} is cut up"


def _cents(money: Exact) -> Fraction:
    return Fraction(round(float(money) * 100), 100)
