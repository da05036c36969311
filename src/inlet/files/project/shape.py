"""The shape a project file must have, read from the types of the document: what is a group, a list,
text, a number, or one of a few words.

A file's data goes through it once: keys a type does not know are moved into "extra", numbers become
exact, and the first thing of another shape is refused in one plain sentence that begins with its
place: “blocks[0].columns: expected a list […], found “3””.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import isfinite
from types import NoneType, UnionType
from typing import Any, Literal, Union, get_args, get_origin, get_type_hints

import msgspec

from inlet.core.memo import memo
from inlet.core.numbers import Exact, NumberError, parse_exact
from inlet.files.problem import FileProblem, printable, shown

Place = tuple[Any, str | int] | None
"""Where a value stands in a file: the place it stands in and its key or number there; None is the
file itself. Put in words only where something is wrong there."""
Reader = Callable[[Any, Place], Any]
"""From a value of a file and its place to a value of the document."""
DEEPEST = 50
"""Lists in lists, of keys Inlet does not know."""
LARGEST_WHOLE = 2**63
SHOWN_KEY = 40


class Digits(str):
    """A JSON number with a point, kept as its digits: 0.1 means a tenth."""


def read_struct(value: Any, kind: type[msgspec.Struct], place: Place = None) -> dict[str, Any]:
    """A group of a file, ready to become a ``kind``. Raises ``FileProblem``."""
    if not isinstance(value, dict):
        raise _unlike(place, "a group {…}", value)
    readers, needed = _fields(kind)
    for key in needed:
        if key not in value:
            raise FileProblem(f"{_at(place)}“{key}” is missing")
    fields: dict[str, Any] = {}
    extra: dict[str, Any] = {}
    for key, item in value.items():
        if key in readers:
            fields[key] = readers[key](item, (place, key))
        else:
            extra[key] = _plain(item, (place, key))
    return {**fields, "extra": extra} if extra else fields


def as_it_is(kind: type, value: Any) -> Any:
    """Numbers are exact already: what the library asks for where it makes a struct."""
    return value


@memo(None)
def _fields(kind: type[msgspec.Struct]) -> tuple[dict[str, Reader], tuple[str, ...]]:
    """How to read each key a struct knows, and the keys it cannot do without."""
    hints = get_type_hints(kind)
    fields = [field for field in msgspec.structs.fields(kind) if field.name != "extra"]
    readers = {field.encode_name: _reader(hints[field.name]) for field in fields}
    return readers, tuple(field.encode_name for field in fields if field.required)


def _reader(kind: Any) -> Reader:
    """How to read a value of a type that the document uses."""
    if kind in _SIMPLE:
        return _SIMPLE[kind]
    origin, parts = get_origin(kind), get_args(kind)
    if origin in (Union, UnionType):
        return _one_of(parts)
    if origin is Literal:
        return _word_of(parts)
    if origin is dict:
        return _group_of(_reader(parts[1]))
    if origin is tuple and parts[-1] is Ellipsis:
        return _list_of(_reader(parts[0]))
    if origin is tuple:
        return _row_of([_reader(part) for part in parts])
    return lambda value, place: read_struct(value, kind, place)


def _one_of(kinds: Sequence[Any]) -> Reader:
    """A value that may be left open, or text or else a list."""
    may_be_none = NoneType in kinds
    readers = [(_is_text(kind), _reader(kind)) for kind in kinds if kind is not NoneType]

    def read(value: Any, place: Place) -> Any:
        if value is None and may_be_none:
            return None
        fitting = (reader for text, reader in readers if text == isinstance(value, str))
        return next(fitting, readers[0][1])(value, place)

    return read


def _is_text(kind: Any) -> bool:
    return kind is str or get_origin(kind) is Literal


def _list_of(item: Reader) -> Reader:
    def read(value: Any, place: Place) -> Any:
        if not isinstance(value, list):
            raise _unlike(place, "a list […]", value)
        return [item(member, (place, i)) for i, member in enumerate(value)]

    return read


def _row_of(items: Sequence[Reader]) -> Reader:
    def read(value: Any, place: Place) -> Any:
        if not isinstance(value, list):
            raise _unlike(place, "a list […]", value)
        if len(value) != len(items):
            raise _unlike(place, f"a list of {len(items)}", value)
        pairs = zip(items, value, strict=True)
        return [item(each, (place, i)) for i, (item, each) in enumerate(pairs)]

    return read


def _group_of(item: Reader) -> Reader:
    def read(value: Any, place: Place) -> Any:
        if not isinstance(value, dict):
            raise _unlike(place, "a group {…}", value)
        return {key: item(each, (place, key)) for key, each in value.items()}

    return read


def _word_of(words: Sequence[str | int]) -> Reader:
    def read(value: Any, place: Place) -> Any:
        for word in words:
            if value == word and type(value) is type(word):
                return value
        kind = type(words[0])
        if not isinstance(value, kind) or isinstance(value, bool | Digits):
            raise _unlike(place, "text" if kind is str else "a whole number", value)
        listed = [f'"{word}"' if kind is str else str(word) for word in words if word != ""]
        choices = " or ".join(filter(None, (", ".join(listed[:-1]), listed[-1])))
        raise FileProblem(f"{_at(place)}{shown(value)} is not {choices}")

    return read


def _text(value: Any, place: Place) -> str:
    if not isinstance(value, str) or isinstance(value, Digits):
        raise _unlike(place, "text", value)
    return value


def _whole(value: Any, place: Place) -> int:
    if not isinstance(value, int) or isinstance(value, bool):
        raise _unlike(place, "a whole number", value)
    if not -LARGEST_WHOLE <= value < LARGEST_WHOLE:
        raise FileProblem(f"{_at(place)}{shown(value)} is out of range")
    return value


def _yes_or_no(value: Any, place: Place) -> bool:
    if not isinstance(value, bool):
        raise _unlike(place, "true or false", value)
    return value


def _number(value: Any, place: Place) -> Exact:
    try:
        if isinstance(value, str):
            return parse_exact(value)
        if isinstance(value, int) and not isinstance(value, bool):
            return parse_exact(str(value))
    except (NumberError, ValueError) as why:
        raise FileProblem(f"{_at(place)}{why}") from None
    raise FileProblem(f"{_at(place)}{shown(value)} is not a number")


_SIMPLE: dict[Any, Reader] = {str: _text, int: _whole, bool: _yes_or_no, Exact: _number}


def _unlike(place: Place, wanted: str, value: Any) -> FileProblem:
    return FileProblem(f"{_at(place)}expected {wanted}, found {shown(value)}")


def _at(place: Place) -> str:
    """A place as a sentence begins with it, as “blocks[0].columns: ”; nothing for the file."""
    words = ""
    while place is not None:
        place, key = place
        if isinstance(key, int):
            words = f"[{key}]{words}"
        else:
            dot = "." if place is not None else ""
            words = f"{dot}{printable(key)[:SHOWN_KEY]}{words}"
    return f"{words}: " if words else ""


def _plain(value: Any, place: Place, depth: int = 0) -> Any:
    """Unknown values as ordinary JSON data."""
    if depth > DEEPEST:
        raise FileProblem(f"{_at(place)}nested too deeply")
    if isinstance(value, Digits):
        number = float(value)
        if not isfinite(number):
            raise FileProblem(f"{_at(place)}{shown(value)} is not a number Inlet can use")
        return number
    if isinstance(value, dict):
        return {k: _plain(v, place, depth + 1) for k, v in value.items()}
    return [_plain(v, place, depth + 1) for v in value] if isinstance(value, list) else value
