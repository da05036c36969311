"""Minutes learnt from timings of hidden hands, and from a log."""

from __future__ import annotations

import numpy as np
import pytest

from inlet.core.bench.jobs import jobs
from inlet.core.bench.pace import Timing, pace_of, timings
from inlet.core.hand.minutes import rates_learnt, times_learnt, times_lines
from inlet.core.numbers import CENTIMETRES
from inlet.core.plan.block import plan_block
from inlet.core.project import INCH, LogEntry, Rates, measured_in, replace
from tests.blocks import block_of, project_of

RATES = Rates(cut=10, mark=10, seam=10, length=20, press=10, trim=30)


def timed(seed: int, number: int, factors: dict, together: tuple = (), pauses: int = 0):
    """Timings of a hand with these factors, each off by some 8 %; the kinds of ``together`` always
    come in the same shares."""
    chance = np.random.default_rng(seed)
    found = []
    for i in range(number):
        shared = chance.uniform(5, 40)
        work = {k: shared if k in together else chance.uniform(0, 40) for k in factors}
        if not together:
            work = {k: m if chance.random() < 0.6 or k == "cut" else 0.0 for k, m in work.items()}
        taken = sum(factors[k] * m for k, m in work.items()) * chance.normal(1, 0.08)
        found.append(Timing(round(taken * (3 if i < pauses else 1)), work))
    return found


def test_each_kind_is_told_and_the_truth_lies_in_the_interval_nine_times_in_ten():
    hidden = {"cut": 1.5, "sew": 0.8, "press": 1.2}
    hits, number = 0, 0
    for seed in range(120):
        times = times_learnt(timed(seed, 30, hidden))
        for kind, factor in hidden.items():
            each = times.groups[(kind,)]
            hits += abs(each.factor - factor) <= each.within
            number += 1
            assert each.factor == pytest.approx(factor, abs=0.45)
    assert 0.85 <= hits / number <= 0.95


def test_a_pause_is_told_and_not_counted():
    hidden = {"cut": 1.5, "sew": 0.8}
    times = times_learnt(timed(2, 30, hidden, pauses=3))
    assert times.pauses >= 3
    assert times.groups[("cut",)].factor == pytest.approx(1.5, abs=0.15)
    assert "3 timings are far" in " ".join(times_lines(times, RATES, INCH))


def test_whole_steps_are_told_from_cutting_and_the_rest_is_one():
    hidden = {"cut": 2.0, "sew": 1.0, "press": 1.6}
    times = times_learnt(timed(5, 24, hidden, together=("sew", "press")))
    assert set(times.groups) == {("cut",), ("mark", "sew", "press", "trim", "other")}
    rest = times.groups[("mark", "sew", "press", "trim", "other")]
    assert rest.factor == pytest.approx(1.3, abs=0.15)
    new = rates_learnt(times, RATES)
    assert new.cut == pytest.approx(20, abs=2)
    assert new.press / RATES.press == pytest.approx(1.3, abs=0.15)
    metric = measured_in(project_of(block_of()), CENTIMETRES).measure
    lines = list(times_lines(times, RATES, metric))
    assert any(line.startswith("All but cutting takes") for line in lines)
    assert "for 25 cm of it, 13 s for pressing a seam" in lines[-1]


@pytest.mark.parametrize("few", [[], [Timing(30, {"sew": 10.0})] * 3, [Timing(2, {"sew": 1.0})] * 9,
                                 [Timing(30, {})] * 9])  # fmt: skip
def test_too_few_change_no_rate(few):
    times = times_learnt(few)
    assert times.groups is None
    assert rates_learnt(times, RATES) == RATES
    assert "of 4 timings" in next(iter(times_lines(times, RATES, INCH)))


def test_what_varies_wildly_changes_no_rate():
    wild = [Timing(m, {"sew": 10.0}) for m in (4, 60, 9, 33, 5, 80)]
    times = times_learnt(wild)
    assert rates_learnt(times, RATES) == RATES
    assert "do not tell yet" in next(iter(times_lines(times, RATES, INCH)))


def slow_log(factor: float):
    """A project of many copies whose sewing was timed six times, at so many times its rate; its
    pressing at the rate."""
    block = block_of("0 0 1 1 / 1 0 2 1", 2, 1, fabrics="abc")
    project = project_of(block)
    plan = plan_block(project, block, 96)
    log = []
    for job in jobs(plan, project):
        if job.verb in ("Sew", "Press") and job.thing is not None:
            each = job.minutes * job.times / job.thing.times
            slow = factor if job.verb == "Sew" else 1.0
            number = -(-20 // each)
            log += [
                LogEntry(what=job.thing.name, part=job.part, drawn=job.thing.drawn, did="done",
                         number=int(number), minutes=round(number * each * slow),
                         at=f"2026-11-{day:02}T19:30")
                for day in range(1, 7)
            ]  # fmt: skip
    return plan, replace(project, log=tuple(log))


def test_with_the_learnt_rates_the_log_says_what_they_say():
    plan, project = slow_log(2.0)
    times = times_learnt(timings(project.log, jobs(plan, project)))
    new = rates_learnt(times, Rates())
    assert (new.seam, new.length) == (20, 30)
    assert new.press == Rates().press
    changed = replace(project, rates=new)
    plan = plan_block(changed, changed.blocks[0], 96)
    again = jobs(plan, changed)
    assert pace_of(changed.log, again).factor == pytest.approx(1, abs=0.05)
    assert rates_learnt(times_learnt(timings(changed.log, again)), new) == new
