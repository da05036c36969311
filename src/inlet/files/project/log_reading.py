"""The log of a file, read entry by entry: what is damaged in it never takes the drawing with it.

Entries that cannot be read are kept as they are, under a key of their own, and written back.
"""

from __future__ import annotations

from typing import Any

import msgspec

from inlet.core.project import LogEntry, Pair
from inlet.files.problem import FileProblem
from inlet.files.project.limits import MOST_LOGGED, limit_faults
from inlet.files.project.shape import as_it_is, read_struct

UNREAD = "log_unread"
"""The key of what cannot be read."""


def log_apart(body: dict[str, Any]) -> tuple[dict[str, Any], tuple[LogEntry, ...]]:
    """The data of a file without its log, and the log: what its quilt had done and what was cut, as
    files said it before there was a log, is in it; what cannot be read lies under
    ``log_unread``."""
    quilt, given = body.get("quilt"), body.get("log")
    raw = list(given) if isinstance(given, list) else [given] * bool(given)
    rest = {key: value for key, value in body.items() if key != "log"}
    if isinstance(quilt, dict) and "done" in quilt:
        raw = [*_of_quilt(quilt["done"]), *raw]
        rest["quilt"] = {key: value for key, value in quilt.items() if key != "done"}
    if "log" not in body:
        raw = [*_of_cutting(body), *raw]
    log: list[LogEntry] = []
    sizes: dict[Any, Pair] = {}
    unread: list[Any] = []
    for each in raw:
        entry = _read_entry(each, sizes) if len(log) < MOST_LOGGED else None
        if entry is None:
            unread.append(each)
        else:
            log.append(entry)
    if unread:
        kept = body.get(UNREAD, [])
        rest[UNREAD] = [*(kept if isinstance(kept, list) else [kept]), *unread]
    return rest, tuple(log)


def _of_quilt(done: Any) -> list[Any]:
    """How often each step was done, as entries without a time."""
    if isinstance(done, dict):
        return [{"what": name, "number": number} for name, number in done.items() if number != 0]
    return [done] if done else []


def _of_cutting(body: dict[str, Any]) -> list[Any]:
    """How many cuts were made of each fabric, as entries without a time; nothing of what cannot be
    read, which the rest of the file will tell."""
    cutting, fabrics = body.get("cutting"), body.get("fabrics")
    begun = cutting.get("begun") if isinstance(cutting, dict) else None
    known_size = [f for f in fabrics if isinstance(f, dict)] if isinstance(fabrics, list) else []
    names = {str(f.get("id")): f.get("name") or f.get("id") for f in known_size}
    entries = []
    for each in begun if isinstance(begun, list) else ():
        number = each.get("done") if isinstance(each, dict) else None
        if isinstance(number, int) and number > 0:
            name = names.get(str(each.get("fabric")), "no fabric yet")
            entries.append({"what": f"Cut {name}", "did": "cut", "number": number})
    return entries


def _read_entry(raw: Any, sizes: dict[Any, Pair]) -> LogEntry | None:
    """An entry of a file, its size taken from the ``sizes`` of those before, as they are written: a
    long log has few."""
    size = raw.get("size") if isinstance(raw, dict) else None
    written = tuple(size) if isinstance(size, list) and all(type(x) is str for x in size) else None
    known_size = sizes.get(written) if written is not None else None
    if known_size is not None:
        entry = _entry({key: value for key, value in raw.items() if key != "size"})
        return entry and msgspec.structs.replace(entry, size=known_size)
    entry = _entry(raw)
    if entry is not None and entry.size is not None and written is not None:
        sizes[written] = entry.size
    return entry


def _entry(raw: Any) -> LogEntry | None:
    """An entry of a file; None where it cannot be read."""
    try:
        entry = msgspec.convert(read_struct(raw, LogEntry), LogEntry, dec_hook=as_it_is)
    except (FileProblem, msgspec.ValidationError):
        return None
    return entry if next(limit_faults(entry, ""), None) is None else None
