"""Files written whole or not at all: the one place that opens a target for writing.

Only a regular file, or none, may be the target: what is a folder, a pipe or a device is left alone.
An export is never put in place of an Inlet project; what it does replace is kept beside it.
"""

from __future__ import annotations

import hashlib
import json
import os
import re
import stat
import uuid
from contextlib import suppress
from pathlib import Path

from inlet.files.problem import FileProblem, file_name, reason

LONGEST_NAME = 240
"""Bytes of a file's name; file systems hold 255, and the version before is named one longer."""


class NameTooLong(OSError):
    """The name of a file has more than ``LONGEST_NAME`` bytes."""

    def __init__(self) -> None:
        super().__init__(36, "its name is too long")


class NoFile(OSError):
    """What stands at the target is no regular file."""

    def __init__(self, what: str) -> None:
        super().__init__(22, f"this is a {what}, not a file")


def write_whole(
    target: Path, data: bytes, *, keep_previous: bool = False, sync: bool = True
) -> None:
    """Write a temporary file beside ``target`` and rename it over; the version before it is kept
    as ``previous_version`` if asked. A symbolic link stays one: the file it leads to is written.
    ``sync`` puts it on the disk itself before going on, so that it outlives a power cut and not
    only the process. Raises ``OSError``; then what was there is still there."""
    target = real_file(target)
    _refuse_no_file(target)
    clear_abandoned(target.parent, _prefix(target))
    temporary = _temporary(target)
    try:
        with open(temporary, "xb") as buffered_writer:
            buffered_writer.write(data)
            buffered_writer.flush()
            if sync:
                os.fsync(buffered_writer.fileno())
        _refuse_no_file(target)  # it may have changed meanwhile
        if target.exists():
            os.chmod(temporary, target.stat().st_mode & 0o777)
            if keep_previous:
                _keep_previous(target)
        os.replace(temporary, target)
        if sync:
            _sync_folder(target.parent)
    except OSError:
        with suppress(OSError):
            os.unlink(temporary)
        raise


def export_whole(path: Path, data: bytes) -> None:
    """``write_whole`` of something made from a project, the file it replaces kept as
    ``previous_version``. Raises ``FileProblem`` where it cannot be, or must not: see
    ``check_export``."""
    check_export(path)
    try:
        write_whole(path, data, keep_previous=True, sync=False)
    except (OSError, ValueError) as error:
        raise FileProblem(f"{file_name(path)}: cannot be written here ({reason(error)})") from None


def check_export(path: Path) -> None:
    """Raise ``FileProblem`` where an export must not be written: on what is no regular file, and
    on an Inlet project, or where the version that an export replaces would be kept over one."""
    try:
        target = real_file(path)
        _refuse_no_file(target)
        if not os.path.exists(target):
            return
        for there in (target, previous_version(target)):
            if _is_project(there):
                raise FileProblem(
                    f"{file_name(there)}: this is an Inlet project; an export does not replace it"
                )
    except (OSError, ValueError) as error:
        raise FileProblem(f"{file_name(path)}: cannot be written here ({reason(error)})") from None


def _refuse_no_file(target: Path) -> None:
    """Raise ``OSError`` where a real file's name is too long, or what stands there is no file."""
    if len(os.fsencode(target.name)) > LONGEST_NAME:
        raise NameTooLong
    try:
        mode = os.stat(target).st_mode
    except FileNotFoundError:
        return
    if not stat.S_ISREG(mode):
        raise NoFile("folder" if stat.S_ISDIR(mode) else "device or a pipe")


def _is_project(path: Path) -> bool:
    """Does a file hold an Inlet project, a damaged one included?"""
    try:
        data = path.read_bytes() if path.is_file() else b""
    except OSError:
        return False
    if not data.removeprefix(b"\xef\xbb\xbf").lstrip().startswith(b"{"):
        return False
    try:
        raw = json.loads(data.decode("utf-8-sig"))
    except (ValueError, RecursionError):
        return re.search(rb'"format"\s*:\s*"inlet"', data) is not None
    return isinstance(raw, dict) and raw.get("format") == "inlet"


def real_file(path: Path) -> Path:
    """The file a path names, symbolic links followed."""
    return Path(os.path.realpath(path)) if os.path.islink(path) else path


def previous_version(path: str | os.PathLike[str]) -> Path:
    """Where the version before the last is kept."""
    target = real_file(Path(path))
    return target.with_name(target.name + "~")


def set_aside(path: Path) -> Path:
    """A file takes the name of its version before the last; nothing else stands at its name then.
    Raises ``OSError``."""
    kept = previous_version(path)
    os.replace(path, kept)
    return kept


def _keep_previous(target: Path) -> None:
    """Link, not copy, the old version under its backup name, so that it is never half there."""
    link = _temporary(target)
    try:
        try:
            os.link(target, link)
        except OSError:  # a file system without hard links
            link.write_bytes(target.read_bytes())
        os.replace(link, previous_version(target))
    finally:
        with suppress(OSError):
            os.unlink(link)


def _temporary(target: Path) -> Path:
    """A new name beside ``target`` that tells whose it is: a hash of the target's name, and the
    process that writes it."""
    return target.with_name(f"{_prefix(target)}{os.getpid()}-{uuid.uuid4().hex[:8]}.tmp")


def _prefix(target: Path) -> str:
    return f".inlet-{hashlib.sha256(os.fsencode(target.name)).hexdigest()[:12]}-"


def clear_abandoned(folder: Path, prefix: str = "") -> None:
    """Remove what processes that were killed while they wrote left behind in a folder; with a
    ``prefix``, only what was to become one file."""
    with suppress(OSError):
        for name in os.listdir(folder):
            match = re.fullmatch(r"\.inlet-[0-9a-f]{12}-(\d+)-[0-9a-f]{8}\.tmp", name)
            if match and name.startswith(prefix) and not _lives(int(match[1])):
                with suppress(OSError):
                    os.unlink(folder / name)


def _lives(pid: int) -> bool:
    try:
        os.kill(pid, 0)
    except (ProcessLookupError, OverflowError):
        return False
    except OSError:
        return True
    return True


def _sync_folder(folder: Path) -> None:
    handle = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)
