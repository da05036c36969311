"""Files written whole or not at all."""

from __future__ import annotations

import os
import tempfile
from contextlib import suppress
from pathlib import Path


def write_whole(
    target: Path, data: bytes, *, keep_previous: bool = False, sync: bool = True
) -> None:
    """Write a temporary file beside ``target`` and rename it over; the version before it is kept
    as ``previous_version`` if asked. ``sync`` puts it on the disk itself before going on, so that
    it outlives a power cut and not only the process. Raises ``OSError``; then what was there is
    still there."""
    temporary = ""
    try:
        handle, temporary = tempfile.mkstemp(prefix=f".{target.name}.", dir=target.parent)
        with os.fdopen(handle, "wb") as out:
            out.write(data)
            out.flush()
            if sync:
                os.fsync(out.fileno())
        if target.exists():
            os.chmod(temporary, target.stat().st_mode & 0o777)
            if keep_previous:
                _keep_previous(target)
        else:
            os.chmod(temporary, 0o666 & ~_umask())
        os.replace(temporary, target)
        if sync:
            _sync_folder(target.parent)
    except OSError:
        if temporary:
            with suppress(OSError):
                os.unlink(temporary)
        raise


def previous_version(path: str | os.PathLike[str]) -> Path:
    """Where the version before the last is kept."""
    target = Path(path)
    return target.with_name(target.name + "~")


def _keep_previous(target: Path) -> None:
    """Link, not copy, the old version under its backup name, so that it is never half there."""
    backup = previous_version(target)
    with tempfile.TemporaryDirectory(prefix=f".{target.name}.", dir=target.parent) as folder:
        link = Path(folder) / "previous"
        try:
            os.link(target, link)
        except OSError:  # a file system without hard links
            link.write_bytes(target.read_bytes())
        os.replace(link, backup)


def _sync_folder(folder: Path) -> None:
    handle = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def _umask() -> int:
    mask = os.umask(0)
    os.umask(mask)
    return mask
