"""What the command line says: in one place, so that no kind of output ends in a traceback."""

from __future__ import annotations

import ctypes
import os
import sys
from collections.abc import Iterator, Sequence
from contextlib import contextmanager, suppress
from typing import Any

from inlet.files.problem import FileProblem, reason
from inlet.files.text.json_text import json_text


def in_columns(lines: Sequence[Sequence[str]]) -> Iterator[str]:
    """The lines of a table as text, its columns below one another."""
    widths = [max(map(len, column)) for column in zip(*lines, strict=True)]
    for line in lines:
        yield "  ".join(
            text.ljust(width) for text, width in zip(line, widths, strict=True)
        ).rstrip()


@contextmanager
def only_ours() -> Iterator[None]:
    """Standard output for what we say alone: a solver of a library prints there now and then, past
    Python, which would end up in the middle of our JSON, or on the terminal a window was opened
    from. Left as it is where it is no file."""
    stream = sys.stdout
    try:
        ours = stream.fileno()
    except (AttributeError, OSError, ValueError):  # a test reads along, or there is none
        yield
        return
    if ours != 1:
        yield
        return
    kept = os.dup(1)
    nowhere = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nowhere, 1)
    os.close(nowhere)
    encoding, errors = stream.encoding, stream.errors
    sys.stdout = open(kept, "w", encoding=encoding, errors=errors)  # noqa: SIM115
    try:
        yield
    finally:
        with suppress(OSError, ValueError):
            sys.stdout.flush()
        ctypes.CDLL(None).fflush(None)  # what C keeps to write later is not ours either
        os.dup2(kept, 1)
        with suppress(OSError, ValueError):
            sys.stdout.close()
        sys.stdout = stream


def say(text: str) -> None:
    """Print to standard output, whatever letters it can show. Raises ``FileProblem`` where it
    cannot be written to, ``BrokenPipeError`` where nobody reads on."""
    stream = sys.stdout
    encoding = getattr(stream, "encoding", None) or "utf-8"
    try:
        print(text.encode(encoding, "replace").decode(encoding), file=stream, flush=True)
    except BrokenPipeError:
        raise
    except OSError as error:
        give_up()
        raise FileProblem(f"inlet: the output cannot be written ({reason(error)})") from None


def say_json(data: Any) -> None:
    """Print JSON; letters that standard output cannot show are written as escapes."""
    plain = "utf" not in (getattr(sys.stdout, "encoding", None) or "utf-8").lower()
    say(json_text(data, ascii_only=plain))


def complain(text: str) -> None:
    """One line on standard error, as far as there is one."""
    with suppress(OSError, UnicodeError, ValueError):
        encoding = getattr(sys.stderr, "encoding", None) or "utf-8"
        print(text.encode(encoding, "replace").decode(encoding), file=sys.stderr, flush=True)


def give_up() -> None:
    """Send what is still waiting for standard output nowhere: Python would try once more at the
    end, and fail with a message of its own."""
    with suppress(OSError, ValueError):
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
