"""Random damage to project files: each is read, or refused in one plain sentence."""

from __future__ import annotations

import copy
import json
import random
import re
import threading
from functools import cache

import msgspec

from inlet.core.cancellation import Job, Stopped, under
from inlet.core.draft.patches import draft
from inlet.core.layout.progress import begin
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.bench import Bench, Timer
from inlet.core.project.block import MOST_SEAMS, Choice
from inlet.core.project.cutting import Have, PrintMotif
from inlet.core.project.fabric import Print
from inlet.core.project.log import LogEntry
from inlet.core.project.made import MadeUnit, MeasuredSize
from inlet.core.project.measure import Rates, SeamTest
from inlet.core.project.pressing import BlockPressing, Pin, Pressing
from inlet.core.project.quilt import (
    Alternate,
    Backing,
    Batting,
    Binding,
    Border,
    Colourway,
    Motif,
    Quilt,
    QuiltingLines,
    QuiltPlace,
    Sashing,
    Scatter,
    Triangles,
)
from inlet.core.project.value import replace
from inlet.core.setting.places import in_quilt
from inlet.files.problem import FileProblem
from inlet.files.project.limits import LIMITS, MarkLimit, Range
from inlet.files.project.project_json import dumps, load, loads
from inlet.ui.shell.app import DEMO

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
def _rich() -> str:
    """A project that uses every key the documents name."""
    demo = load(DEMO)
    plan = plan_block(demo, demo.blocks[0])
    fabric_plan = plan.fabric_plans.at_once[0]
    demo = begin(demo, demo.blocks[0].id, 1, fabric_plan.fabric, fabric_plan.laid[0])
    first, second = (fabric.id for fabric in demo.fabrics[:2])
    pins = (Pin(point=(F(1), F(1)), toward="whirl"), Pin(point=(F(1, 2), F(1))))
    block = replace(
        demo.blocks[0],
        marks=((F(1, 2), F(1, 3)),),
        methods={"half-square-triangle": "eight-at-a-time"},
        units=(Choice(point=(F(1, 2), F(1, 2)), label="Z", stock="5 squares", style="trim"),),
        pressing=BlockPressing(method="nest", versions=2, setting="round", pins=pins),
    )
    other = demo.blocks[1].id
    place = QuiltPlace(column=1, row=1, block=other, turn=90, mirror=True, colourway="w")
    quilt = Quilt(
        setting="straight",
        columns=3,
        rows=3,
        block=block.id,
        alternate=Alternate(fabric=first, by="rings"),
        turning="round",
        row_lengths=(3, 2),
        filler=second,
        uneven="ease",
        as_placed=True,
        places=(place, QuiltPlace(column=0, row=1, block="m")),
        motifs=(Motif(id="m", columns=1, rows=1, block=other, turning="by-row", places=(
            QuiltPlace(column=0, row=0, turn=180),)),),
        colourways=(Colourway(id="w", name="W", block=block.id, fabrics={first: second}),),
        scatter=Scatter(colourways=("w",), seed=3, fabrics_apart=True),
        sashing=Sashing(width=F(1), fabric=first, corner_fabric=second, down=F(2), outside=True),
        triangles=Triangles(fabric=first, fit="float", float_by=F(1)),
        borders=(
            Border(width=F(2), fabric=first, kind="corner-squares", measured=(F(30), F(31))),
            Border(kind="pieced", block=other, fabric=second, order="ends-first"),
        ),
        binding=Binding(width=F(9, 4), fabric=first, cut="bias"),
        backing=Backing(fabric=second, overage=F(4), seam="across"),
        batting=Batting(overage=F(3)),
        quilting=(QuiltingLines(distance=F(1, 4), repeats=2), QuiltingLines(kind="seams"),
                  QuiltingLines(kind="grid", diagonal=True)),
        made={block.id: (F(19, 2), F(37, 4))},
    )  # fmt: skip
    owned = (Have(kind="scrap", width=F(5), length=F(7), count=2), Have(kind="fat-quarter"))
    fabrics = (
        replace(demo.fabrics[0], have=owned, direction="one-way", shrink=(F(3), F(2)), price=F(9),
                value="dark", notes="n", print=Print(image="aGk=")),
        *demo.fabrics[1:],
    )  # fmt: skip
    motif = PrintMotif(
        size=(F(4), F(4)), left=F(1), right=F(3), top=F(1), bottom=F(2), finished=(F(5), F(5))
    )
    return dumps(
        replace(
            demo,
            fabrics=fabrics,
            blocks=(block, *demo.blocks[1:3]),
            quilt=quilt,
            rates=Rates(),
            seam_test=SeamTest(),
            pressing=Pressing(weights={"stacked": F(9)}),
            cutting=replace(
                demo.cutting,
                motif=motif,
                wash=True,
                rulers=((F(6), F(24)), (F(9), F(9))),
                mat=(F(18), F(24)),
                handled=F(30),
            ),
            log=(
                LogEntry(
                    what="row 1",
                    at="2026-11-30T19:05",
                    size=(F(7, 2), F(4)),
                    drawn="a1",
                    text="n",
                    number=3,
                ),
                LogEntry(did="unpicked", part="sew", minutes=5, photo="a.jpg"),
            ),
            made=(MadeUnit(drawn="a1", what="row 1", measured=(MeasuredSize(size=(F(3), F(4))),)),),
            bench=Bench(finish="2026-12-20", timer=Timer(since="2026-11-30T19:05", counted=3)),
        )
    )


LIMITS_BY_KEY = {
    field.encode_name: LIMITS[kind, field.name]
    for kind in {kind for kind, _ in LIMITS}
    for field in msgspec.structs.fields(kind)
    if (kind, field.name) in LIMITS
}
"""The table of limits, by the keys of files."""


def at_a_limit(chance: random.Random, key: object) -> object:
    """A value at a limit of a key, just within it or just past it; junk for keys that have none."""
    limits = [x for x in LIMITS_BY_KEY.get(str(key), ()) if isinstance(x, Range | MarkLimit)]
    if not limits:
        return junk(chance)
    (limit,) = limits
    low, high = F(limit.least), F(limit.most)
    value = chance.choice((low, high, low - F(1, 10**6), high + 1, low + F(1, 10**6), low / 2))
    value = chance.choice((value, F(round(value))))
    return int(value) if chance.random() < 0.3 and value.denominator == 1 else str(value)


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
    raw = copy.deepcopy(json.loads(_rich()))
    if chance.random() < 0.5:
        for key in chance.sample(sorted(raw.keys() - {"format", "version", "blocks"}), 4):
            del raw[key]
    for _ in range(chance.randint(1, 3)):
        where, key = chance.choice(_spots(raw, []))
        what = chance.random()
        if what < 0.35:
            where[key] = at_a_limit(chance, key)
        elif what < 0.65:
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


SLOW = 20
"""Seconds in which what a file asks for is planned, its quilt with it."""


def complaint(text: str, plan: bool = True) -> str | None:
    """What is wrong with how a text is read, in words; None where nothing is."""
    job = Job()
    timer = threading.Timer(SLOW, job.stop)
    timer.start()
    try:
        with under(job):
            return _complaint(text, plan)
    except Stopped:
        return f"it is not planned within {SLOW} s"
    finally:
        timer.cancel()


def _complaint(text: str, plan: bool) -> str | None:
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
        in_quilt(project, project.blocks[0].id if project.blocks else "")
        for block in project.blocks:
            if len(block.seams) <= MOST_SEAMS:
                draft(block)
                if plan:
                    plan_block(project, block)
        if plan and project.quilt is not None:
            quilt = plan_quilt(project)
            _ = quilt.quilted, quilt.rows, quilt.backings, quilt.cuts, quilt.fabric_plans.at_once
    except Stopped:
        raise
    except Exception as error:
        return f"using: {type(error).__name__}: {error}"[:300]
    return None
