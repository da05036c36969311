"""A long log: opened, and told after a tick."""

from __future__ import annotations

from benchmarks.remake import Row, timed
from inlet.core.bench import diary, jobs, progress, quick_lines, quilt_things, today
from inlet.core.bench.entries import ticked
from inlet.core.plan import plan_quilt
from inlet.core.project import LogEntry, replace
from inlet.files.project.project_json import dumps, load, loads, why_not_kept
from inlet.ui.shell.actions import DEMO

ENTRIES = 20_000
FRAME = "16"


def log_rows() -> list[Row]:
    project = load(DEMO)
    things = quilt_things(plan_quilt(project).steps)
    log = tuple(
        LogEntry(
            what=things[i % len(things)].name, number=1 + i % 3, at=f"2026-11-30T{i % 24:02d}:05",
            size=things[i % len(things)].size, drawn=things[i % len(things)].drawn,
            did="done" if i % 5 else "unpicked",
        )
        for i in range(ENTRIES)
    )  # fmt: skip
    logged = replace(project, log=log)
    text = dumps(logged)
    others = iter(range(1, 10_000))

    def tick() -> None:
        """A tick as an edit is taken, and what all steps have then."""
        new = replace(logged, log=ticked(log, things[3], 0, next(others) % 28 + 1, "2026-12-01"))
        assert not why_not_kept(new, logged)
        assert progress(new.log, things).done

    plan = plan_quilt(project)
    plan.work_out()
    all_jobs = jobs(plan, logged)

    def next_hour() -> None:
        """Today's list for an hour, and what is quickly done."""
        listed = today(jobs(plan, logged), logged, 60, "2026-12-01")
        assert listed.sittings or not all_jobs
        list(quick_lines(all_jobs, logged, listed))

    def shown() -> None:
        """The diary of the latest days, and today's list."""
        next_hour()
        assert diary(logged.log[-120:])

    return [
        (f"the next hour's list after {ENTRIES} entries", timed(next_hour, 20, str), "50"),
        (f"the bench shown after {ENTRIES} entries", timed(shown, 20, str), "50"),
        (
            f"a file read, {ENTRIES} entries in its log",
            timed(lambda: loads(text), 5, str),
            "300",
        ),
        (f"a tick after {ENTRIES} entries", timed(tick, 20, str), FRAME),
    ]
