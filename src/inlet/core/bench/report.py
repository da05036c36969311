"""What is next, as lines of text: today's list by place, what is quickly done, the end, the kit,
what is used."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date
from itertools import groupby

from inlet.core.bench.finish import finish, finish_text
from inlet.core.bench.jobs import BenchJob, BenchPlace
from inlet.core.bench.kit import Kit
from inlet.core.bench.pace import MakerPace
from inlet.core.bench.sharing import Portion, quick_jobs
from inlet.core.bench.spent import fabric_spent, spent_lines, thread_spent
from inlet.core.bench.things import Plan
from inlet.core.bench.today import Today
from inlet.core.project import Bench, Project
from inlet.core.schedule import minutes_text

QUICK = 20
"""Minutes of what is quickly done."""
PLACE_TITLES: dict[BenchPlace, str] = {
    "mat": "At the mat", "machine": "At the machine", "iron": "At the iron",
    "floor": "Where there is room",
}  # fmt: skip


def today_lines(listed: Today) -> Iterator[str]:
    """Today's list: each place with its minutes, then a line for each job."""
    if not listed.portions:
        yield "Everything is done." if not listed.sittings else "Today's list is done."
    for place, portions in groupby(listed.portions, lambda portion: portion.job.place):
        some = list(portions)
        yield f"{PLACE_TITLES[place]}, {minutes_text(sum(p.minutes for p in some))}"
        yield from (f"  {portion_text(portion)}" for portion in some)


def portion_text(portion: Portion) -> str:
    """``Sew 14 runs of Sluice A, 24 min; check 3 1/2 in``."""
    text = portion.job.title(portion.number)
    if portion.minutes:
        text += f", {minutes_text(portion.minutes)}"
    return f"{text}; check {portion.job.size}" if portion.job.size else text


def quick_lines(jobs: Sequence[BenchJob], project: Project, listed: Today | None) -> Iterator[str]:
    """What can be done in the next few minutes, at the pace of today's list."""
    pace = listed.pace.factor if listed is not None else 1.0
    return map(portion_text, quick_jobs(jobs, project, QUICK, pace))


def end_text(project: Project, listed: Today, day: str) -> str:
    """When it will be done, seen from a day (``2026-11-30``)."""
    bench = project.bench or Bench()
    today = date.fromisoformat(day)
    when = finish(listed.sittings, bench.sittings_a_week, today, wished_day(bench))
    return finish_text(when, listed.sittings, bench.sittings_a_week)


def wished_day(bench: Bench) -> date | None:
    """The day all is to be done by; None where none is wished, or a file says no day."""
    try:
        return date.fromisoformat(bench.finish)
    except ValueError:
        return None


def pace_text(pace: MakerPace) -> str:
    """How fast the maker is; nothing where nothing was timed."""
    if not pace.minutes:
        return ""
    return (
        f"At your pace by the log: {round(100 * pace.factor)} % of the time your rates say, from "
        f"{minutes_text(pace.minutes)}."
    )


def kit_lines(kit: Kit) -> Iterator[str]:
    """The steps, then what is packed for them."""
    if not kit.steps:
        yield "There is nothing to sew."
        return
    yield from kit.steps
    yield "Pack:"
    yield from (f"  {stack}" for stack in kit.stacks)
    yield from (f"  {part}, as far as they are sewn" for part in kit.parts)


def used_lines(jobs: Sequence[BenchJob], plan: Plan, project: Project) -> Iterator[str]:
    """Fabric, thread and money so far, against what is planned."""
    fabrics = fabric_spent(jobs, plan, project)
    return spent_lines(fabrics, thread_spent(jobs, project.log), project.measure)
