"""Files written whole or not at all."""

from __future__ import annotations

import hashlib
import os
import re
import uuid
from contextlib import suppress
from pathlib import Path

from inlet.files.problem import FileProblem, reason

LONGEST_NAME = 240
"""Bytes of a file's name; file systems hold 255, and the version before is named one longer."""


class NameTooLong(OSError):
    """The name of a file has more than ``LONGEST_NAME`` bytes."""

    def __init__(self) -> None:
        super().__init__(36, "its name is too long")


def write_whole(
    target: Path, data: bytes, *, keep_previous: bool = False, sync: bool = True
) -> None:
    """Write a temporary file beside ``target`` and rename it over; the version before it is kept
    as ``previous_version`` if asked. A symbolic link stays one: the file it leads to is written.
    ``sync`` puts it on the disk itself before going on, so that it outlives a power cut and not
    only the process. Raises ``OSError``; then what was there is still there."""
    if len(os.fsencode(target.name)) > LONGEST_NAME:
        raise NameTooLong
    target = real_file(target)
    clear_abandoned(target.parent, _prefix(target))
    temporary = _temporary(target)
    try:
        with open(temporary, "xb") as out:
            out.write(data)
            out.flush()
            if sync:
                os.fsync(out.fileno())
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
    """``write_whole`` of something made from a project; ``FileProblem`` where it cannot be."""
    try:
        write_whole(path, data, sync=False)
    except (OSError, ValueError) as error:
        raise FileProblem(f"{path.name}: cannot be written here ({reason(error)})") from None


def real_file(path: Path) -> Path:
    """The file a path names, symbolic links followed."""
    return Path(os.path.realpath(path)) if path.is_symlink() else path


def previous_version(path: str | os.PathLike[str]) -> Path:
    """Where the version before the last is kept."""
    target = real_file(Path(path))
    return target.with_name(target.name + "~")


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
            found = re.fullmatch(r"\.inlet-[0-9a-f]{12}-(\d+)-[0-9a-f]{8}\.tmp", name)
            if found and name.startswith(prefix) and not _lives(int(found[1])):
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
