"""The project file (docs/file-format.md): JSON with numbers as strings.

Reading checks everything the format promises and names the place of what is wrong; keys it does
not know ride along in each value's ``extra`` and are written back. Writing is atomic: a temporary
file beside the target, flushed to disk, renamed over it, the previous version kept beside it.
"""

from __future__ import annotations

import json
import os
import stat
from collections.abc import Callable
from pathlib import Path
from typing import Any

import msgspec

from inlet.core.memo import Latest
from inlet.core.numbers import Exact, write_exact
from inlet.core.project import Block, Brief, Fabric, LogEntry, Project
from inlet.core.remake import CannotFollow, followed
from inlet.files.problem import FileProblem, file_name, reason, shown
from inlet.files.project.limits import MOST_LOGGED
from inlet.files.project.log_reading import UNREAD, log_apart
from inlet.files.project.rules import block_rules, broken_rules
from inlet.files.project.shape import Digits, as_it_is, read_struct
from inlet.files.project.usual import with_usual
from inlet.files.whole import write_whole

__all__ = ["FileProblem", "dumps", "entries_not_read", "load", "loads", "save"]

VERSION = 1
MOST_BYTES = 32 * 2**20


def load(path: str | os.PathLike[str]) -> Project:
    """The project in a file. Raises ``FileProblem``; the file is never touched."""
    name = file_name(path)
    try:
        about = os.stat(path)
        if stat.S_ISDIR(about.st_mode):
            raise FileProblem(f"{name}: this is a folder, not a project file")
        if not stat.S_ISREG(about.st_mode):
            raise FileProblem(f"{name}: this is a device or a pipe, not a project file")
        if about.st_size > MOST_BYTES:
            raise FileProblem(
                f"{name}: too large for an Inlet project ({about.st_size // 2**20} MB)"
            )
        data = Path(path).read_bytes()
    except (OSError, ValueError) as error:
        raise FileProblem(f"{name}: cannot be read ({reason(error)})") from None
    return loads(data, name)


def loads(data: bytes | str, name: str = "project") -> Project:
    """The project in the text of a file; ``name`` starts every message."""
    try:
        text = data.decode("utf-8-sig") if isinstance(data, bytes) else data
        raw = json.loads(
            text, parse_float=Digits, parse_constant=_no_constant, object_pairs_hook=_once
        )
    except UnicodeDecodeError as error:
        raise FileProblem(f"{name}: not a text file (byte {error.start})") from None
    except json.JSONDecodeError as error:
        here = shown(error.doc[error.pos : error.pos + 12])
        raise FileProblem(
            f"{name}: the text is not valid JSON at line {error.lineno}, column {error.colno} "
            f"({here})"
        ) from None
    except RecursionError:
        raise FileProblem(f"{name}: not an Inlet project (nested too deeply)") from None
    except FileProblem as error:
        raise FileProblem(f"{name}: {error}") from None
    except ValueError:
        raise FileProblem(f"{name}: a number in it has too many digits to read") from None
    try:
        return _project(raw, whole_text=_is_whole(text))
    except FileProblem as error:
        raise FileProblem(f"{name}: {error}") from None


def dumps(project: Project) -> str:
    """The text of a project file; ``loads`` of it equals ``project``."""
    raw = {"format": "inlet", "version": VERSION, **_ungather(project)}
    return _whole_characters(_layout(raw) + "\n")


def dumps_compact(project: Project) -> str:
    """The same in one line, in a moment: parts that were written lately are known. For what no
    person reads, put down after each edit."""
    raw = {"format": "inlet", "version": VERSION, **_ungather(project, _known_part)}
    return _whole_characters(json.dumps(raw, ensure_ascii=False))


def _whole_characters(text: str) -> str:
    """Half of a character, as a program may leave on the clipboard, is no text a file can hold."""
    return text if text.isascii() else text.encode("utf-8", "replace").decode("utf-8")


_PARTS: Latest[Block | Fabric, Any] = Latest(256)
_ENTRIES: Latest[LogEntry, Any] = Latest(MOST_LOGGED)


def _known_part(value: Any) -> Any:
    """A block or a fabric as JSON data; that of the latest ones is known."""
    if isinstance(value, LogEntry):
        return _ENTRIES.of(value, _ungather)
    if not isinstance(value, Block | Fabric):
        return _ungather(value, _known_part)
    return _PARTS.of(value, _ungather)


def entries_not_read(project: Project) -> int:
    """How many entries of its log could not be read, and are kept as they are."""
    kept = project.extra.get(UNREAD, [])
    return len(kept) if isinstance(kept, list) else 1


def why_not_kept(project: Project, known_project: Project) -> str:
    """Why a file could not hold an edited project, as a sentence for the maker; empty where it can.
    What it shares with ``known_project``, the one before it, is not looked at again.
    """
    seen = {id(block) for block in known_project.blocks}
    for block in project.blocks:
        why = "" if id(block) in seen else _why_not_held(project, block)
        if why:
            return f"That change to {block.title} is not possible: {why}"
    broken = next(broken_rules(project, known_project), "")
    return f"That change is not possible: {broken}" if broken else ""


def _why_not_held(project: Project, block: Block) -> str:
    """Why a file could not hold a block, in words that begin with the place in it; empty where one
    can. Where the rules are kept and no text is odd, nothing is written to see."""
    broken = next(block_rules(block, project), "")
    if broken or _is_plain(block):
        return broken
    named = {spot.fabric for spot in block.fabric_at}
    if block.improvised is not None:
        named.update(block.improvised.fabrics)
    if block.panel is not None:
        named.update(filter(None, (block.panel.fabric, block.panel.added)))
    fabrics = tuple(Fabric(id=name) for name in sorted(named))
    drawn = msgspec.structs.replace(block, made_from=None)
    alone = Project(measure=project.measure, fabrics=fabrics, blocks=(drawn,))
    try:
        loads(dumps(alone))
    except FileProblem as problem:
        return str(problem).removeprefix("project: ").removeprefix("blocks[0].")
    return ""


def _is_plain(block: Block) -> bool:
    """Is there nothing in a block but numbers, which the rules have seen, and its name?"""
    return block.name.isprintable() and not block.units and block.pressing is None


def save(project: Project, path: str | os.PathLike[str]) -> None:
    """Write ``project`` to ``path`` whole or not at all; the version before it becomes ``NAME~``.

    Raises ``FileProblem`` with the reason; then what was on disk is still there.
    """
    target = Path(path)
    text = dumps(project)
    try:
        loads(text, file_name(target))
    except FileProblem as problem:
        raise FileProblem(f"{problem}; so it was not saved, and the file is as it was") from None
    if os.path.exists(target) and not os.access(target, os.W_OK):
        raise FileProblem(f"{file_name(target)}: cannot be saved here (the file is read-only)")
    try:
        write_whole(target, text.encode("utf-8"), keep_previous=True)
    except (OSError, ValueError) as error:
        raise FileProblem(f"{file_name(target)}: cannot be saved here ({reason(error)})") from None


# --- JSON to values ---------------------------------------------------------------------------


def _no_constant(text: str) -> Any:
    raise FileProblem(f"“{text}” is not a number Inlet can use")


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    group = dict(pairs)
    if len(group) < len(pairs):
        seen: set[str] = set()
        twice = next(k for k, _ in pairs if k in seen or seen.add(k))  # type: ignore[func-returns-value]
        raise FileProblem(f"“{twice}” is given twice in one place")
    return group


def _project(raw: Any, whole_text: bool) -> Project:
    if not whole_text:
        _no_half_characters(raw, "")
    if not isinstance(raw, dict) or raw.get("format") != "inlet":
        raise FileProblem('not an Inlet project ("format": "inlet" is missing)')
    version = raw.get("version")
    if version != VERSION or isinstance(version, bool):
        raise FileProblem(
            f"version: {shown(version)} is not one this Inlet reads (it reads {VERSION})"
        )
    if "blocks" not in raw:
        raise FileProblem("blocks: missing")
    body, log = log_apart({k: v for k, v in raw.items() if k not in ("format", "version")})
    shaped = read_struct(with_usual(body), Project)
    project = msgspec.convert(shaped, Project, dec_hook=as_it_is)
    project = msgspec.structs.replace(project, log=log)
    problem = next(broken_rules(project, known_log=log), None)
    if problem:
        raise FileProblem(problem)
    try:
        return followed(project)
    except CannotFollow as trouble:
        place = f"blocks[{project.blocks.index(trouble.block)}].made_from"
        raise FileProblem(f"{place}: {trouble.why}") from None


def _is_whole(text: str) -> bool:
    """Surely free of halves of characters, written out or as an escape?"""
    try:
        text.encode("utf-8")
    except UnicodeEncodeError:
        return False
    return "\\ud" not in text and "\\uD" not in text


def _no_half_characters(value: Any, place: str) -> None:
    """Refuse text that holds half of a character: it could be read, and never saved again."""
    if isinstance(value, str):
        if any("\ud800" <= c <= "\udfff" for c in value):
            raise FileProblem(f"{place or 'the file'}: {shown(value)} holds half of a character")
    elif isinstance(value, dict):
        for key, item in value.items():
            _no_half_characters(key, place)
            _no_half_characters(item, f"{place}.{key}" if place else key)
    elif isinstance(value, list):
        for i, item in enumerate(value):
            _no_half_characters(item, f"{place}[{i}]")


_MAY_BE_LEFT_OUT = ("log", "made", "marks", "units", "places", "borders", "pins", "have", "begun",
                    "rulers")  # fmt: skip
"""Lists that are left out where empty."""


def _ungather(value: Any, part: Callable[[Any], Any] | None = None) -> Any:
    """A document value as JSON data, ``extra`` keys back in their place; what is empty and may
    be left out is. ``part`` does the same for what is in it, if it is not done here."""
    each = part or _ungather
    if isinstance(value, Exact):
        return write_exact(value)
    if isinstance(value, msgspec.Struct):
        data = {}
        defaults = value.__struct_defaults__
        fields = value.__struct_fields__
        # Struct defaults belong to the last fields.
        known = dict(zip(fields[len(fields) - len(defaults) :], defaults, strict=True))
        for name, key in zip(fields, value.__struct_encode_fields__, strict=True):
            item = getattr(value, name)
            if name == "extra" or _is_usual(item, known.get(name, msgspec.NODEFAULT)):
                continue
            if name in _MAY_BE_LEFT_OUT and not item:
                continue
            if isinstance(value, Brief) and item == known.get(name, msgspec.NODEFAULT):
                continue
            data[key] = each(item)
        return {**data, **value.extra}  # type: ignore[attr-defined]
    if isinstance(value, dict):
        return {k: each(v) for k, v in value.items()}
    return [each(v) for v in value] if isinstance(value, tuple | list) else value


def _is_usual(item: Any, usual: Any) -> bool:
    """Is a value empty, and what reading gives where its key is left out?"""
    if item == {}:  # the library keeps the usual {} as a way to make one
        return usual is not None and usual is not msgspec.NODEFAULT
    return (item is False and usual is False) or (item in (None, "") and item == usual)


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
