"""The bench: what was made, as the log keeps it, how far the work is by it, and what comes next.

Promises: nothing that was logged is lost: it counts for a step that makes the same, or is spare; no
step has more than it takes; a drawing has one mark in every turn and in both systems; what is left
and what is done take, by the rates, as long as the schedule says.
"""

from inlet.core.bench.diary import (
    DiaryDay,
    clock,
    day_title,
    diary,
    diary_lines,
    entry_text,
)
from inlet.core.bench.edits import (
    minutes_logged,
    with_cuts,
    with_job,
    with_minutes,
    with_note,
    with_tick,
    with_time,
    with_timer,
    with_unpicked,
)
from inlet.core.bench.entries import REASONS
from inlet.core.bench.finish import date_typed
from inlet.core.bench.jobs import BenchJob, LaidFor, job_of, jobs, share_done, things_of
from inlet.core.bench.kit import kit
from inlet.core.bench.made import (
    ANSWER_WORDS,
    REMADE,
    MadeEffect,
    MadeThing,
    made_effects,
    made_of,
    made_things,
    measured_lines,
    sizes_typed,
    uneven_text,
    unmeasured_text,
    with_answer,
    with_measured,
    without_measured,
)
from inlet.core.bench.overview import HEAD as OVERVIEW_HEAD
from inlet.core.bench.overview import StepLine, step_lines
from inlet.core.bench.pace import Timing, WorkKind, timings
from inlet.core.bench.progress import number_done, progress, same_but_log
from inlet.core.bench.report import (
    PLACE_TITLES,
    QUICK,
    end_text,
    kit_lines,
    pace_text,
    quick_lines,
    today_lines,
    used_lines,
)
from inlet.core.bench.sharing import Portion
from inlet.core.bench.things import (
    Plan,
    Thing,
    block_things,
    corner_thing,
    quilt_things,
    sewn_things,
)
from inlet.core.bench.timing import going_on, is_forgotten, minutes_typed, paused, timed
from inlet.core.bench.today import Today, today
from inlet.core.bench.words import log_lines, progress_lines, spare_text

__all__ = [
    "ANSWER_WORDS",
    "OVERVIEW_HEAD",
    "PLACE_TITLES",
    "QUICK",
    "REASONS",
    "REMADE",
    "BenchJob",
    "DiaryDay",
    "LaidFor",
    "MadeEffect",
    "MadeThing",
    "Plan",
    "Portion",
    "StepLine",
    "Thing",
    "Timing",
    "Today",
    "WorkKind",
    "block_things",
    "clock",
    "corner_thing",
    "date_typed",
    "day_title",
    "diary",
    "diary_lines",
    "end_text",
    "entry_text",
    "going_on",
    "is_forgotten",
    "job_of",
    "jobs",
    "kit",
    "kit_lines",
    "log_lines",
    "made_effects",
    "made_of",
    "made_things",
    "measured_lines",
    "minutes_logged",
    "minutes_typed",
    "number_done",
    "pace_text",
    "paused",
    "progress",
    "progress_lines",
    "quick_lines",
    "quilt_things",
    "same_but_log",
    "sewn_things",
    "share_done",
    "sizes_typed",
    "spare_text",
    "step_lines",
    "things_of",
    "timed",
    "timings",
    "today",
    "today_lines",
    "uneven_text",
    "unmeasured_text",
    "used_lines",
    "with_answer",
    "with_cuts",
    "with_job",
    "with_measured",
    "with_minutes",
    "with_note",
    "with_tick",
    "with_time",
    "with_timer",
    "with_unpicked",
    "without_measured",
]
