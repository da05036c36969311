"""What is done where and when: tasks, batches, sittings, thread.

Promise: every step is done once, after what it needs.
"""

from inlet.core.schedule.batches import Batch, batches
from inlet.core.schedule.sittings import Sitting, sittings
from inlet.core.schedule.tasks import Task
from inlet.core.schedule.thread import thread_per_length
from inlet.core.schedule.words import (
    CUTS_OF,
    least_text,
    long_text,
    minutes_text,
    seams_text,
    sitting_lines,
    thread_text,
    walks_text,
)
from inlet.core.schedule.work import Work, work_for

__all__ = [
    "CUTS_OF",
    "Batch",
    "Sitting",
    "Task",
    "Work",
    "batches",
    "least_text",
    "long_text",
    "minutes_text",
    "seams_text",
    "sitting_lines",
    "sittings",
    "thread_per_length",
    "thread_text",
    "walks_text",
    "work_for",
]
