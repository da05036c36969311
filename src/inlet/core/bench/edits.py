"""What is done at the bench, as edits of the project: each is one step of undo."""

from __future__ import annotations

from inlet.core.bench.entries import logged_in, noted, ticked, unpicked
from inlet.core.bench.jobs import BenchJob, LaidFor
from inlet.core.bench.progress import Log, number_done
from inlet.core.bench.things import Thing
from inlet.core.bench.timing import is_forgotten, timed
from inlet.core.layout import begin, begun_at, cuts_of, gone_on
from inlet.core.project import Bench, Cutting, LogEntry, Project, Timer, replace
from inlet.core.words import fabric_name


def with_tick(
    project: Project,
    thing: Thing,
    done: int,
    by: int,
    at: str,
    part: str = "",
    minutes: int | None = None,
) -> Project:
    """A step, or a part of it, of which so many are ``done`` done ``by`` times more, or fewer; with
    the ``minutes`` it took, else those that a running timer has counted since the last tick."""
    if minutes is None and by > 0:
        project, minutes = _clocked(project, at)
    return replace(project, log=ticked(project.log, thing, done, by, at, part, minutes))


def with_cuts(project: Project, lying: LaidFor, by: int, at: str) -> Project:
    """Fabric on which so many cuts more are made, or fewer; it is begun where it was not."""
    which = begun_at(project, *lying)
    if which is None:
        project = begin(project, *lying)
        which = begun_at(project, *lying)
    if which is None or project.cutting is None:
        return project
    before = project.cutting.begun[which].done
    project = gone_on(project, which, by)
    cutting = project.cutting or Cutting()
    more = cutting.begun[which].done - before
    number = len(cuts_of(lying.laid, project))
    thing = Thing(f"Cut {fabric_name(project, lying.fabric)}", number)
    project, minutes = _clocked(project, at) if more > 0 else (project, None)
    log = ticked(project.log, thing, before, more, at, "", minutes, did="cut")
    return replace(project, log=log)


def with_job(project: Project, job: BenchJob, by: int, at: str) -> Project:
    """``by`` more of a job done, or fewer. What is counted in runs or segments is logged as the
    units that come of them: more is rounded up, fewer down, so that no tick is without effect."""
    if job.laid is not None:
        return with_cuts(project, job.laid, by, at)
    thing = job.thing
    if thing is None:
        return project
    through = number_done(project.log, thing, job.part)
    runs = max(0, min(job.times, job.done + by))
    whole = runs * thing.times
    wanted = -(-whole // job.times) if by > 0 else whole // job.times
    return with_tick(project, thing, through, wanted - through, at, job.part)


def with_unpicked(project: Project, thing: Thing, number: int, why: str, at: str) -> Project:
    """So many of what is there of a thing unpicked, and why."""
    return replace(project, log=unpicked(project.log, thing, number, why, at))


def with_note(project: Project, text: str, at: str, what: str = "", photo: str = "") -> Project:
    """Something written down, of a step where ``what`` names it, with a photograph or none."""
    return replace(project, log=noted(project.log, text, at, what, photo))


def with_timer(project: Project, timer: Timer | None) -> Project:
    return replace(project, bench=replace(project.bench or Bench(), timer=timer))


def with_time(project: Project, minutes: int, at: str, what: str = "") -> Project:
    """Time spent, on a step where ``what`` names it, that no tick has; no timer runs after it."""
    return with_timer(with_minutes(project, minutes, at, what), None)


def with_minutes(project: Project, minutes: int, at: str, what: str) -> Project:
    """So many minutes more on a step."""
    entry = LogEntry(did="timed", what=what, at=at, minutes=minutes)
    return replace(project, log=logged_in(project.log, entry))


def minutes_logged(log: Log, what: str) -> int:
    """How long a step took so far, by what was timed of it."""
    return sum(entry.minutes or 0 for entry in log if entry.what == what)


def _clocked(project: Project, at: str) -> tuple[Project, int | None]:
    """The minutes a timer has counted, which begins anew; None of a timer that is not there, was
    probably forgotten, or has not counted one yet."""
    timer = project.bench.timer if project.bench is not None else None
    minutes = timed(timer, at) if timer is not None else 0
    if timer is None or not minutes or is_forgotten(timer, at):
        return project, None
    since = at if timer.since else ""
    return with_timer(project, Timer(since=since)), minutes
