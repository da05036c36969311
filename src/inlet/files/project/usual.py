"""What a file leaves out that hangs on its system of measures, and keys that files said otherwise
before."""

from __future__ import annotations

from typing import Any

from inlet.core.numbers import SYSTEMS, write_exact

RENAMED = {"stack": "blade"}
"""Keys of ``cutting``, as files had them before."""


def with_usual(body: dict[str, Any]) -> dict[str, Any]:
    """The data of a file, with the seam allowance and the mark that are usual in its system where
    it says none; anything that cannot be read stays as it is, for the rules to tell."""
    rest = dict(body)
    measure, cutting = body.get("measure"), body.get("cutting")
    if isinstance(measure, dict):
        name = measure.get("system")
        system = SYSTEMS.get(name) if isinstance(name, str) else None
        if system is not None:
            usual = {"seam": write_exact(system.seam), "ruler": write_exact(system.ruler)}
            rest["measure"] = {**usual, **measure}
    if isinstance(cutting, dict):
        said = {RENAMED.get(key, key): value for key, value in cutting.items()}
        rest["cutting"] = {**said, **{k: v for k, v in cutting.items() if k not in RENAMED}}
    return rest
