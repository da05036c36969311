"""JSON as deep as a block has strips: the joins of a plan nest one in the other."""

from __future__ import annotations

import json
from typing import Any


class _Mark(str):
    """Text of the JSON itself, not a value of it."""

    __slots__ = ()


def json_text(data: Any, ascii_only: bool = False) -> str:
    """``json.dumps(data)``, which gives up where values nest deeper than Python calls do."""
    lines: list[str] = []
    left: list[Any] = [data]
    while left:
        each = left.pop()
        if isinstance(each, _Mark):
            lines.append(each)
        elif isinstance(each, dict):
            parts: list[Any] = [_Mark("{")]
            for key, value in each.items():
                comma = ", " if len(parts) > 1 else ""
                name = json.dumps(str(key), ensure_ascii=ascii_only)
                parts += [_Mark(f"{comma}{name}: "), value]
            left += reversed([*parts, _Mark("}")])
        elif isinstance(each, list | tuple):
            parts = [_Mark("[")]
            for value in each:
                parts += [_Mark(", "), value] if len(parts) > 1 else [value]
            left += reversed([*parts, _Mark("]")])
        else:
            lines.append(json.dumps(each, ensure_ascii=ascii_only))
    return "".join(lines)
