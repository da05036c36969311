"""Random damage to project files: each is read, or refused in one plain sentence."""

from __future__ import annotations

import copy
import json
import random
import re
from functools import cache

from inlet.core.draft.patches import draft
from inlet.core.plan import plan_block
from inlet.core.project.block import MOST_SEAMS
from inlet.files.problem import FileProblem
from inlet.files.project_json import dumps, load, loads
from inlet.ui.app import DEMO

JARGON = re.compile(r"Expected|got `|`|\bstr\b|\barray\b|\bobject\b|Traceback|Error\b|NoneType")
LONGEST = 250


def _nested(depth: int) -> object:
    value: object = []
    for _ in range(depth):
        value = [value]
    return value


def junk(chance: random.Random) -> object:
    """A value that may stand anywhere in a file."""
    return chance.choice(
        (
            lambda: None,
            lambda: chance.random() < 0.5,
            lambda: chance.randint(-(10**3), 10**3),
            lambda: 10 ** chance.randint(1, 400),
            lambda: chance.choice(["", "x", "1/0", "√2", "-1", "1e9", "0.1", "3 1/2", "NaN", "½"]),
            lambda: chance.choice(["\ud800", "a\nb", "\x00", "`str`", "“", "‮abc", "é" * 300]),
            lambda: f"{chance.randint(0, 10**9)}/{chance.randint(1, 10**12)}",
            lambda: f"{chance.randint(1, 99)}/{10 ** chance.randint(1, 36)}",
            lambda: f"{chance.randint(-9, 9)}+{chance.randint(1, 9)}/{chance.randint(1, 9)}√2",
            list,
            dict,
            lambda: [None],
            lambda: ["1", "2", "3"],
            lambda: {"id": "x"},
            lambda: {"line": [["0", "0"], ["1", "1"]]},
            lambda: {"arc": {"centre": ["0", "0"], "from": ["1", "0"], "to": ["0", "1"]}},
            lambda: _nested(chance.choice((5, 40, 90, 300))),
            lambda: {
                "columns": 20000,
                "rows": 20000,
                "block": "sluice",
                "places": [{"column": []}],
            },
        )
    )()


@cache
def _demo() -> str:
    return dumps(load(DEMO))


def _spots(value: object, found: list) -> list:
    """Every (container, key) of a file."""
    items = value.items() if isinstance(value, dict) else enumerate(value)  # type: ignore[arg-type]
    for key, item in items:
        found.append((value, key))
        if isinstance(item, dict | list):
            _spots(item, found)
    return found


def damaged(seed: int) -> str:
    """The text of a damaged file, always the same for a seed."""
    chance = random.Random(f"file {seed}")
    raw = copy.deepcopy(json.loads(_demo()))
    raw["blocks"] = chance.sample(raw["blocks"], chance.randint(1, 2))
    raw["quilt"] = {"columns": 3, "rows": 2, "block": raw["blocks"][0]["id"]}
    for _ in range(chance.randint(1, 3)):
        where, key = chance.choice(_spots(raw, []))
        what = chance.random()
        if what < 0.65:
            where[key] = junk(chance)
        elif what < 0.8:
            del where[key]
        elif isinstance(where, list):
            where += [copy.deepcopy(where[key])] * chance.choice((1, 2, 30))
        else:
            where[chance.choice(["new", "extra", "id", "name", "image", ""])] = junk(chance)
    text = json.dumps(raw, ensure_ascii=chance.random() < 0.5)
    if chance.random() < 0.15:
        at = chance.randrange(len(text))
        text = text[:at] + chance.choice(["", "}", '"', "\\", "1e999", ",", "\t"]) + text[at + 1 :]
    return text


def complaint(text: str, plan: bool = True) -> str | None:
    """What is wrong with how a text is read, in words; None where nothing is."""
    try:
        project = loads(text, "reed.json")
    except FileProblem as problem:
        said = str(problem)
        if len(said) > LONGEST or "\n" in said or JARGON.search(re.sub("“[^”]*”?", "", said)):
            return f"said: {said[:300]!r}"
        return None
    except Exception as error:
        return f"reading: {type(error).__name__}: {error}"[:300]
    try:
        again = loads(dumps(project), "again.json")
        if again != project:
            return "not read back equal"
        project.in_quilt(project.blocks[0].id if project.blocks else "")
        for block in project.blocks:
            if len(block.seams) <= MOST_SEAMS:
                draft(block)
                if plan:
                    plan_block(project, block)
    except Exception as error:
        return f"using: {type(error).__name__}: {error}"[:300]
    return None
