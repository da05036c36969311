"""The project file (docs/file-format.md): JSON with numbers as strings.

Reading checks everything the format promises and names the place of what is wrong; keys it does
not know ride along in each value's ``extra`` and are written back. Writing is atomic: a temporary
file beside the target, flushed to disk, renamed over it, the previous version kept beside it.
"""

from __future__ import annotations

import base64
import json
import os
import re
from collections.abc import Callable, Iterator
from fractions import Fraction
from functools import cache
from pathlib import Path
from typing import Any, get_args, get_origin, get_type_hints

import msgspec

from inlet.core import project as document
from inlet.core.geometry.curve import arc_fault
from inlet.core.geometry.point import Point
from inlet.core.numbers import Exact, NumberError, parse_exact, write_exact
from inlet.core.project import LONGEST_LABEL, Block, Choice, Print, Project, Seam
from inlet.core.units.stock import parse_stock
from inlet.files.whole import write_whole

VERSION = 1
_NUMBER: Any = Exact
MOST_BYTES = 32 * 2**20


class FileProblem(Exception):
    """A file that cannot be read or written; the message is one plain sentence with the place."""


def load(path: str | os.PathLike[str]) -> Project:
    """The project in a file. Raises ``FileProblem``; the file is never touched."""
    name = Path(path).name
    try:
        size = os.stat(path).st_size
        if size > MOST_BYTES:
            raise FileProblem(f"{name}: too large for an Inlet project ({size // 2**20} MB)")
        data = Path(path).read_bytes()
    except IsADirectoryError:
        raise FileProblem(f"{name}: this is a folder, not a project file") from None
    except OSError as error:
        raise FileProblem(f"{name}: cannot be read ({_reason(error)})") from None
    return loads(data, name)


def loads(data: bytes | str, name: str = "project") -> Project:
    """The project in the text of a file; ``name`` starts every message."""
    try:
        text = data.decode("utf-8-sig") if isinstance(data, bytes) else data
        raw = json.loads(
            text, parse_float=_Decimal, parse_constant=_no_constant, object_pairs_hook=_once
        )
    except UnicodeDecodeError as error:
        raise FileProblem(f"{name}: not a text file (byte {error.start})") from None
    except json.JSONDecodeError as error:
        raise FileProblem(
            f"{name}: not valid JSON at line {error.lineno}, column {error.colno}: {error.msg}"
        ) from None
    except RecursionError:
        raise FileProblem(f"{name}: not an Inlet project (nested too deeply)") from None
    except FileProblem as error:
        raise FileProblem(f"{name}: {error}") from None
    except ValueError as error:
        raise FileProblem(f"{name}: not valid JSON: {error}") from None
    try:
        return _project(raw)
    except FileProblem as error:
        raise FileProblem(f"{name}: {error}") from None


def dumps(project: Project) -> str:
    """The text of a project file; ``loads`` of it equals ``project``."""
    raw = {"format": "inlet", "version": VERSION, **_ungather(project)}
    return _layout(raw) + "\n"


def save(project: Project, path: str | os.PathLike[str]) -> None:
    """Write ``project`` to ``path`` whole or not at all; the version before it becomes ``NAME~``.

    Raises ``FileProblem`` with the reason; then what was on disk is still there.
    """
    target = Path(path)
    text = dumps(project).encode("utf-8")
    if target.is_dir():
        raise FileProblem(f"{target.name}: this is a folder; choose a file name")
    if target.exists() and not os.access(target, os.W_OK):
        raise FileProblem(f"{target.name}: cannot be saved here (the file is read-only)")
    try:
        write_whole(target, text, keep_previous=True)
    except OSError as error:
        raise FileProblem(f"{target.name}: cannot be saved here ({_reason(error)})") from None


def _reason(error: OSError) -> str:
    return (error.strerror or str(error)).lower()


# --- JSON to values ---------------------------------------------------------------------------


class _Decimal(str):
    """A JSON number with a point, kept as its digits: 0.1 means a tenth."""


def _no_constant(text: str) -> Any:
    raise FileProblem(f"“{text}” is not a number Inlet can use")


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    out = dict(pairs)
    if len(out) < len(pairs):
        seen: set[str] = set()
        twice = next(k for k, _ in pairs if k in seen or seen.add(k))  # type: ignore[func-returns-value]
        raise FileProblem(f"“{twice}” is given twice in one place")
    return out


def _project(raw: Any) -> Project:
    if not isinstance(raw, dict) or raw.get("format") != "inlet":
        raise FileProblem('not an Inlet project ("format": "inlet" is missing)')
    version = raw.get("version")
    if version != VERSION or isinstance(version, bool):
        raise FileProblem(
            f"version: {json.dumps(version)} is not one this Inlet reads (it reads {VERSION})"
        )
    if "blocks" not in raw:
        raise FileProblem("blocks: missing")
    body = {k: v for k, v in raw.items() if k not in ("format", "version")}
    gathered = _gather(body, Project, "")
    try:
        project = msgspec.convert(gathered, Project, dec_hook=_read_number)
    except msgspec.ValidationError as error:
        raise FileProblem(_with_place(str(error))) from None
    problem = next(_broken_rules(project), None)
    if problem:
        raise FileProblem(problem)
    return project


def _read_number(kind: type, value: Any) -> Any:
    if kind is not _NUMBER:
        raise NotImplementedError(kind)
    if isinstance(value, str):
        return parse_exact(value)
    if isinstance(value, int) and not isinstance(value, bool):
        return parse_exact(str(value))
    raise NumberError(f"{json.dumps(value)} is not a number")


def _with_place(message: str) -> str:
    """msgspec's “… - at `$.blocks[0].finished[1]`” as “blocks[0].finished[1]: …”."""
    found = re.fullmatch(r"(.*) - at `\$\.?(.*?)`(?: in .*)?", message, re.DOTALL)
    if not found:
        return message
    text = found[1].replace("`", "")
    text = text.replace("Object missing required field", "missing:")
    return f"{found[2]}: {text}" if found[2] else text


def _children(kind: Any) -> Callable[[Any, str], Any] | None:
    """How to gather values of a field's type: structs, and lists or options of them."""
    if isinstance(kind, type) and issubclass(kind, msgspec.Struct):
        return lambda value, place: _gather(value, kind, place)
    options = [a for a in get_args(kind) if a is not type(None)]
    if get_origin(kind) is tuple and len(options) == 2 and options[1] is Ellipsis:
        item = _children(options[0])
        if item:
            return lambda value, place: (
                [item(v, f"{place}[{i}]") for i, v in enumerate(value)]
                if isinstance(value, list)
                else value
            )
    elif get_origin(kind) is not tuple and len(options) == 1:
        return _children(options[0])
    return None


@cache
def _fields(kind: type[msgspec.Struct]) -> dict[str, Callable[[Any, str], Any] | None]:
    """How to gather each key a struct knows."""
    hints = get_type_hints(kind)
    return {
        key: _children(hints[name])
        for key, name in zip(kind.__struct_encode_fields__, kind.__struct_fields__, strict=True)
    }


def _gather(value: Any, kind: type[msgspec.Struct], place: str) -> Any:
    """``value`` with the keys ``kind`` does not know moved into "extra", all the way down."""
    if not isinstance(value, dict):
        return value
    fields = _fields(kind)
    out: dict[str, Any] = {}
    extra: dict[str, Any] = {}
    for key, item in value.items():
        if key not in fields or key == "extra":
            extra[key] = item
            continue
        child = fields[key]
        out[key] = (
            child(item, f"{place}.{key}") if child else _plain(item) if key == "quilt" else item
        )
    if extra:
        out["extra"] = _plain(extra)
    return out


def _plain(value: Any) -> Any:
    """Unknown values as ordinary JSON data."""
    if isinstance(value, _Decimal):
        return float(value)
    if isinstance(value, dict):
        return {k: _plain(v) for k, v in value.items()}
    return [_plain(v) for v in value] if isinstance(value, list) else value


_NEWER = ("marks", "units")
"""Lists that files before them do not have: left out where empty."""


def _ungather(value: Any) -> Any:
    """A document value as JSON data, ``extra`` keys back in their place; what is empty and may
    be left out is."""
    if isinstance(value, Exact):
        return write_exact(value)
    if isinstance(value, msgspec.Struct):
        out = {}
        defaults = value.__struct_defaults__
        fields = value.__struct_fields__
        # Struct defaults belong to the last fields; kw_only keeps required ones without.
        known = dict(zip(fields[len(fields) - len(defaults) :], defaults, strict=True))
        for name, key in zip(fields, value.__struct_encode_fields__, strict=True):
            item = getattr(value, name)
            if name == "extra" or (item in (None, "", {}) and name in known):
                continue
            if name in _NEWER and not item:
                continue
            out[key] = _ungather(item)
        return {**out, **value.extra}  # type: ignore[attr-defined]
    if isinstance(value, dict):
        return {k: _ungather(v) for k, v in value.items()}
    return [_ungather(v) for v in value] if isinstance(value, tuple | list) else value


# --- rules of the format ----------------------------------------------------------------------


def _broken_rules(project: Project) -> Iterator[str]:
    """What the format forbids and the types cannot say; the first one refuses the file."""
    measure = project.measure
    if measure.system not in ("inch", "cm"):
        yield f'measure.system: “{measure.system}” is not "inch" or "cm"'
    if measure.school not in ("exact", "trim"):
        yield f'measure.school: “{measure.school}” is not "exact" or "trim"'
    for name in ("seam", "ruler"):
        value = getattr(measure, name)
        if not isinstance(value, Fraction) or not 0 < value <= 10:
            yield f"measure.{name}: {write_exact(value)} must be a fraction above 0, up to 10"
    yield from _trim_rules(measure)
    for name in document.Rates.__struct_fields__:
        seconds = getattr(project.rates, name, 0) if name != "extra" else 0
        if not 0 <= seconds <= 3600:
            yield f"rates.{name}: {seconds} must be seconds from 0 to 3600"
    for name in ("sitting", "bobbin"):
        if project.rates and getattr(project.rates, name) < 1:
            yield f"rates.{name}: must be 1 or more"
    needle = project.needle
    if needle is not None and not 0 < needle.middle < needle.strip:
        yield "needle: the middle strip must be narrower than it was cut, and above 0"
    fabrics = [f.id for f in project.fabrics]
    yield from _repeated("fabrics", fabrics)
    for i, fabric in enumerate(project.fabrics):
        if not re.fullmatch(r"#[0-9a-fA-F]{6}", fabric.colour):
            yield f"fabrics[{i}].colour: “{fabric.colour}” is not a colour like #d9dcd6"
        if fabric.value and fabric.value not in ("light", "medium", "dark"):
            yield f"fabrics[{i}].value: “{fabric.value}” is not light, medium or dark"
        if fabric.print is not None:
            yield from _print_rules(fabric.print, f"fabrics[{i}].print")
        if fabric.width is not None and fabric.width <= 0:
            yield f"fabrics[{i}].width: {write_exact(fabric.width)} must be above 0"
    yield from _repeated("blocks", [b.id for b in project.blocks])
    for i, block in enumerate(project.blocks):
        yield from _block_rules(block, f"blocks[{i}]", project, set(fabrics))


def _trim_rules(measure: document.Measure) -> Iterator[str]:
    for i, length in enumerate(measure.oversize or ()):
        if not isinstance(length, Fraction) or not 0 < length <= 10:
            yield (
                f"measure.oversize[{i}]: {write_exact(length)} must be a fraction above 0, up to 10"
            )
    if measure.squaring is not None and not 0 <= measure.squaring <= 10:
        yield f"measure.squaring: {write_exact(measure.squaring)} must be from 0 to 10"


def _choice_rules(choice: Choice, place: str, system: str) -> Iterator[str]:
    if choice.school not in ("", "exact", "trim"):
        yield f'{place}.school: “{choice.school}” is not "exact" or "trim"'
    if len(choice.label) > LONGEST_LABEL:
        yield f"{place}.label: “{choice.label}” is longer than {LONGEST_LABEL} letters"
    try:
        parse_stock(choice.stock, system)
    except NumberError as why:
        yield f"{place}.stock: {why}"


def _print_rules(shown: Print, place: str) -> Iterator[str]:
    if shown.width <= 0:
        yield f"{place}.width: {write_exact(shown.width)} must be above 0"
    try:
        base64.b64decode(shown.image, validate=True)
    except ValueError:
        yield f"{place}.image: not a picture (base64 of a PNG or JPEG file)"


def _block_rules(block: Block, place: str, project: Project, fabrics: set[str]) -> Iterator[str]:
    largest = project.measure.from_inches(document.LARGEST_BLOCK_INCHES)
    for i, size in enumerate(block.finished):
        if size <= 0:
            yield f"{place}.finished[{i}]: {write_exact(size)} must be above 0"
        if size > largest:
            yield (
                f"{place}.finished[{i}]: {write_exact(size)} is larger than a block can be "
                f"({write_exact(largest)})"
            )
    for name, bands in (("columns", block.columns), ("rows", block.rows)):
        if not 0 < len(bands) <= document.MOST_BANDS:
            yield f"{place}.{name}: between 1 and {document.MOST_BANDS} bands are needed"
        for i, band in enumerate(bands):
            if band <= 0:
                yield f"{place}.{name}[{i}]: {write_exact(band)} must be above 0"
    if len(block.seams) > document.MOST_SEAMS:
        yield f"{place}.seams: more than {document.MOST_SEAMS} seams"
    for i, seam in enumerate(block.seams):
        yield from _seam_rules(seam, f"{place}.seams[{i}]")
    for i, choice in enumerate(block.units):
        yield from _choice_rules(choice, f"{place}.units[{i}]", project.measure.system)
    for i, spot in enumerate(block.fabric_at):
        if spot.fabric not in fabrics:
            yield f"{place}.fabric_at[{i}].fabric: no fabric has the id “{spot.fabric}”"


def _seam_rules(seam: Seam, place: str) -> Iterator[str]:
    if (seam.line is None) == (seam.arc is None):
        yield f'{place}: a seam is either a "line" or an "arc"'
    elif seam.arc is not None:
        start, end, centre = (Point(*p) for p in (seam.arc.start, seam.arc.end, seam.arc.centre))
        fault = arc_fault(start, end, centre)
        if fault:
            yield f"{place}.arc: {fault}"
    elif seam.ends[0] == seam.ends[1]:
        yield f"{place}.line: both ends are the same point"


def _repeated(place: str, ids: list[str]) -> Iterator[str]:
    for i, name in enumerate(ids):
        if not name:
            yield f"{place}[{i}].id: an id is missing"
        if name in ids[:i]:
            yield f"{place}[{i}].id: “{name}” is used twice"


# --- layout -----------------------------------------------------------------------------------

_LINE = 96


def _layout(value: Any, indent: int = 0) -> str:
    """JSON a person can read and diff: what fits on a line stays on it."""
    flat = json.dumps(value, ensure_ascii=False)
    if len(flat) + indent <= _LINE or not isinstance(value, dict | list) or not value:
        return flat
    pad = " " * (indent + 1)
    if isinstance(value, dict):
        items = [
            f"{pad}{json.dumps(k, ensure_ascii=False)}: {_layout(v, indent + 1)}"
            for k, v in value.items()
        ]
        return "{\n" + ",\n".join(items) + "\n" + " " * indent + "}"
    lines = ",\n".join(pad + _layout(v, indent + 1) for v in value)
    return "[\n" + lines + "\n" + " " * indent + "]"
