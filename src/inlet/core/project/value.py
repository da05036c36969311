"""What the values of the document have in common."""

from __future__ import annotations

from typing import Any

import msgspec

from inlet.core.numbers import Exact

Pair = tuple[Exact, Exact]
"""A point or a size: (x, y) or (width, height)."""


class Value(msgspec.Struct, frozen=True, kw_only=True, omit_defaults=True):
    """Base of every part of the document; ``extra`` keeps keys of the file we do not know."""

    extra: dict[str, Any] = {}


class Brief(Value, frozen=True, kw_only=True):
    """A part of which files hold only what differs from the usual."""


replace = msgspec.structs.replace


def fresh_id(name: str, taken: set[str]) -> str:
    """A file id made from a name: lower case, words joined by hyphens, numbered if taken."""
    plain = "".join(c if c.isalnum() else "-" for c in name.lower())
    base = "-".join(filter(None, plain.split("-"))) or "block"
    found, number = base, 2
    while found in taken:
        found, number = f"{base}-{number}", number + 1
    return found
