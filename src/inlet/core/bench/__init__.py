"""The bench: what was made, as the log keeps it, and how far the work is by it.

Promises: nothing that was logged is lost: it counts for a step that makes the same, or is spare; no
step has more than it takes; a drawing has one mark in every turn and in both systems.
"""

from inlet.core.bench.entries import noted, ticked, unpicked
from inlet.core.bench.progress import Log, progress, same_but_log
from inlet.core.bench.things import Thing, block_things, corner_thing, quilt_things
from inlet.core.bench.words import log_lines, progress_lines, spare_text

__all__ = [
    "Log",
    "Thing",
    "block_things",
    "corner_thing",
    "log_lines",
    "noted",
    "progress",
    "progress_lines",
    "quilt_things",
    "same_but_log",
    "spare_text",
    "ticked",
    "unpicked",
]
