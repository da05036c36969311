"""Seams from a drawing of any program.

A drawing of ours carries each seam's exact ends beside the picture of it; where another program has
since moved the picture, the picture counts.
"""

from __future__ import annotations

import json
import os
import stat
import subprocess
import sys
from collections import Counter
from collections.abc import Iterator
from math import lcm
from pathlib import Path
from time import monotonic
from typing import TYPE_CHECKING, Any, NamedTuple

from inlet.core.cancellation import check
from inlet.core.draft import (
    MOST_GUESSED,
    TOLERANCE,
    Bounds,
    TracedStroke,
    guess_bands,
    trace,
    with_square_unit,
)
from inlet.core.geometry import Curve, Point
from inlet.core.numbers import INCHES, SYSTEMS, Exact, Fraction, NumberError, System, parse_exact
from inlet.core.project import LARGEST_BLOCK_INCHES, MOST_BANDS, Block, Pair, replace
from inlet.files.problem import FileProblem, file_name, reason

if TYPE_CHECKING:
    from inlet.files.drawings.svg_strokes import ForeignDrawing

LONGEST = 20
"""A drawing more times as long as wide than this is no block."""
MOST_BYTES = 16 * 2**20
MOST_SECONDS = 5.0
"""How long reading a drawing may take."""
POLL = 0.02
"""Seconds between two looks whether reading is to be stopped."""


class Imported(NamedTuple):
    """A block made of a drawing, and ``report``, sentences on what was done and left out."""

    block: Block
    report: tuple[str, ...]


def read_svg(
    text: str,
    name: str,
    *,
    block: Block,
    system: System = INCHES,
    columns: int | None = None,
    rows: int | None = None,
    apart: bool = True,
) -> Imported:
    """The lines and arcs of a drawing as seams of ``block``, which is measured in ``system``. Its
    id, name and finished width are kept; its bands are guessed from the drawing unless given.
    ``apart``: the drawing is read in a process of its own, as any that is not ours must be. Raises
    ``FileProblem``."""
    drawing = _read_apart(text, name) if apart else _read_here(text, name)
    strokes = list(_strokes(drawing))
    left_out = Counter(drawing["left_out"])
    frame = _frame_of(drawing["own"], system)
    if not strokes:
        raise FileProblem(f"{name}: no lines or arcs to make seams of")
    box = _box(strokes)
    if box[2] - box[0] < 1e-9 or box[3] - box[1] < 1e-9:
        raise FileProblem(f"{name}: all its lines lie on one line; a block needs two directions")
    if not 1 / LONGEST < (box[3] - box[1]) / (box[2] - box[0]) < LONGEST:
        raise FileProblem(f"{name}: too long and thin to be a block")
    across, down = _bands(strokes, box)
    across, down = columns or across, rows or down
    new_block = _framed(block, box, across, down, frame)
    traced = trace(new_block, strokes, box)
    kept = len(traced.block.seams)
    report = [
        f"{kept} {'seam' if kept == 1 else 'seams'} read on {len(new_block.columns)} by "
        f"{len(new_block.rows)} bands; ends within 1/{TOLERANCE.denominator} of a band were moved "
        "onto the grid, its halves, thirds and quarters."
    ]
    if traced.off_grid:
        report.append(f"{traced.off_grid} ends lie off the grid and were kept where they are.")
    if traced.left_out:
        left_out["line too short or too many"] += traced.left_out
    if left_out:
        listed = ", ".join(f"{n} × {what}" for what, n in sorted(left_out.items()))
        report.append(f"Left out: {listed}.")
    return Imported(traced.block, tuple(report))


def _bands(strokes: list[TracedStroke], box: Bounds) -> tuple[int, int]:
    """How many bands the drawing seems to have; as many both ways where it is square."""
    across, down = (guess_bands(strokes, box, axis) for axis in (0, 1))
    square = abs((box[2] - box[0]) - (box[3] - box[1])) < 0.01 * (box[2] - box[0])
    both = lcm(across, down)
    return (both, both) if square and both <= MOST_GUESSED else (across, down)


def load_svg(path: Path, **choices: Any) -> Imported:
    """``read_svg`` of a file."""
    try:
        about = path.stat()
        if not stat.S_ISREG(about.st_mode):
            raise FileProblem(f"{file_name(path)}: not an ordinary file")
        if about.st_size > MOST_BYTES:
            raise FileProblem(f"{file_name(path)}: too large for a drawing of a block")
        text = path.read_bytes().decode("utf-8-sig")
    except UnicodeDecodeError:
        raise FileProblem(f"{file_name(path)}: not a text file") from None
    except OSError as error:
        raise FileProblem(f"{file_name(path)}: cannot be read ({reason(error)})") from None
    return read_svg(text, file_name(path), **choices)


class _Frame(NamedTuple):
    """What a drawing of ours says of its block."""

    columns: tuple[Exact, ...]
    rows: tuple[Exact, ...]
    finished: Pair


def _framed(
    block: Block,
    box: Bounds,
    across: int,
    down: int,
    frame: _Frame | None,
) -> Block:
    """The empty block to trace on: as wide as ``block``, as high as the drawing makes it."""
    bare = replace(block, seams=(), fabric_at=(), marks=())
    shape = (box[3] - box[1]) / (box[2] - box[0])
    if frame is not None and abs(float(frame.finished[1] / frame.finished[0]) - shape) < 1e-3:
        return replace(bare, columns=frame.columns, rows=frame.rows, finished=frame.finished)
    one: Exact = Fraction(1)
    # As high as a short fraction of the width makes it: a drawing's own measures are never exact.
    ratio = _short(shape)
    width = block.finished[0] / max(one, ratio)  # no side longer than the width asked for
    new_block = replace(
        bare,
        columns=(one,) * across,
        rows=(one,) * down,
        finished=(width, width * ratio),
    )
    return with_square_unit(new_block)


def _short(x: float) -> Fraction:
    fraction = Fraction(x).limit_denominator(24)
    return fraction if abs(float(fraction) - x) < 0.01 else Fraction(x).limit_denominator(1000)


# --- the drawing's own process --------------------------------------------------------------------


def _read_here(text: str, name: str) -> ForeignDrawing:
    from inlet.files.drawings.svg_strokes import read_drawing  # its library is slow to start

    try:
        return read_drawing(text)
    except ValueError as fault:
        raise FileProblem(f"{name}: {fault}") from None


def _read_apart(text: str, name: str) -> ForeignDrawing:
    """What is in a drawing, read by a process that is ended when it takes too long, or when the
    work under way is to stop. Raises ``FileProblem``."""
    command = [sys.executable, "-m", "inlet.files.drawings.svg_strokes"]
    environment = {**os.environ, "PYTHONPATH": os.pathsep.join(filter(None, sys.path))}
    try:
        process = subprocess.Popen(
            command,
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            env=environment,
        )
    except OSError as error:
        raise FileProblem(f"{name}: cannot be read here ({reason(error)})") from None
    try:
        output = _answer(process, text.encode("utf-8", "replace"), name)
    finally:
        process.kill()
        process.communicate()
    try:
        answer = json.loads(output)
    except ValueError:
        raise FileProblem(f"{name}: reading this drawing takes too much time or memory") from None
    if "fault" in answer:
        raise FileProblem(f"{name}: {answer['fault']}")
    drawing: ForeignDrawing = answer
    return drawing


def _answer(process: subprocess.Popen[bytes], sent: bytes, name: str) -> bytes:
    until = monotonic() + MOST_SECONDS
    waiting: bytes | None = sent
    while True:
        check()
        try:
            output, _ = process.communicate(waiting, timeout=POLL)
            return output
        except subprocess.TimeoutExpired:
            waiting = None  # it has been handed over
        if monotonic() > until:
            raise FileProblem(
                f"{name}: reading this drawing takes longer than {MOST_SECONDS:g} s, so it is not "
                "read"
            )


def _strokes(drawing: ForeignDrawing) -> Iterator[TracedStroke]:
    """The strokes of a drawing; those of a shape that says its exact seam as parts of one."""
    for seam, lines in drawing["shapes"]:
        check()
        parts = [_stroke(*line) for line in lines]
        exact = _exact_of(seam)
        if exact is None:
            yield from parts
        else:
            yield parts[0]._replace(end=parts[-1].end, exact=exact, parts=tuple(parts))


def _stroke(x0: float, y0: float, x1: float, y1: float, *centre: float) -> TracedStroke:
    return TracedStroke((x0, y0), (x1, y1), (centre[0], centre[1]) if centre else None)


def _exact_of(text: str) -> Curve | None:
    numbers = _numbers(text)
    if len(numbers) not in (4, 6):
        return None
    return Curve(*(Point(*numbers[i : i + 2]) for i in range(0, len(numbers), 2)))


def _numbers(text: str) -> tuple[Exact, ...]:
    try:
        return tuple(parse_exact(part) for part in text.split())
    except NumberError:
        return ()


def _frame_of(attributes: dict[str, str], system: System) -> _Frame | None:
    """What a drawing of ours says of its block, its size in ``system``; None of another's, or
    where it says what no block can be."""
    columns, rows, finished = (
        _numbers(attributes.get(f"data-{key}", "")) for key in ("columns", "rows", "finished")
    )
    good = 0 < len(columns) <= MOST_BANDS and 0 < len(rows) <= MOST_BANDS and len(finished) == 2
    if not good or any(x <= 0 for x in (*columns, *rows, *finished)):
        return None
    drawn_in = SYSTEMS.get(attributes.get("data-system", ""), INCHES)
    inches = [x / drawn_in.per_inch for x in finished]
    if max(inches) > LARGEST_BLOCK_INCHES:
        return None
    size = inches[0] * system.per_inch, inches[1] * system.per_inch
    return _Frame(columns, rows, size)


def _box(strokes: list[TracedStroke]) -> Bounds:
    """The box of the drawing: its ends, and its arcs where they bulge past them."""
    xs, ys = [], []
    for stroke in strokes:
        xs += [stroke.start[0], stroke.end[0]]
        ys += [stroke.start[1], stroke.end[1]]
    return min(xs), min(ys), max(xs), max(ys)
