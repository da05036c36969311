"""The hand: learnt from thousands of sizes, and minutes from a year of timings; what it will do to
thousands of blocks, and to a quilt."""

from __future__ import annotations

import random

from tests.blocks import FABRICS, in_fabrics, split_block

from benchmarks.remake import Row, timed
from inlet.core.bench import Timing
from inlet.core.hand import HandMeasure
from inlet.core.hand.estimate import learnt
from inlet.core.hand.minutes import times_learnt
from inlet.core.plan import plan_block, plan_quilt
from inlet.core.project import Block, Project, Quilt, replace
from inlet.core.tolerance import Watched, advised, block_model, quilt_forecast
from inlet.core.tolerance.forecast import all_outcomes
from inlet.core.tolerance.sewing_hand import BEGINNER

MEASURED = 2000
TIMED = 500
MARK = 1 / 16


SEWN = 10_000
SPLITS = 72
ACROSS, DOWN = 5, 6


def a_block() -> Block:
    """A block of 60 seams, sewn row by row."""
    return in_fabrics(split_block(random.Random(3).randint, SPLITS), "abc")


def forecast_rows() -> list[Row]:
    """The block and the quilt of it."""
    block = a_block()
    project = Project(fabrics=FABRICS, blocks=(block,))
    watched = Watched(block_model(plan_block(project, block)))
    quilt = replace(project, quilt=Quilt(block=block.id, columns=ACROSS, rows=DOWN))
    plan = plan_quilt(quilt)
    _ = plan.sewn
    seams = len(watched.model.pieces.seams)
    return [
        (f"{SEWN} blocks of {seams} seams sewn by a hand",
         timed(lambda: all_outcomes(watched, BEGINNER, SEWN, 1), 3, str), "1000"),
        (f"rows of a quilt of {ACROSS * DOWN} blocks",
         timed(lambda: quilt_forecast(plan, BEGINNER), 3, str), "2000"),
        (f"what would help a block of {seams} seams",
         timed(lambda: advised(watched.model.block, BEGINNER), 1, str), ""),
    ]  # fmt: skip


def hand_rows() -> list[Row]:
    chance = random.Random(7)
    measures = []
    for _ in range(MEASURED):
        seams, leaning = chance.randint(1, 4), chance.randint(0, 2)
        off = sum(chance.gauss(-0.02, 0.03) for _ in range(seams + leaning))
        takes = {"straight": 2.0 * seams, "bias": 2**0.5 * leaning}
        squares, pieces = 4.0 * seams + 2 * leaning, seams + leaning + 1
        measures.append(HandMeasure(round(off / MARK) * MARK, takes, squares, pieces))
    timings = []
    for _ in range(TIMED):
        cut, sew, press = (chance.uniform(0, 30) for _ in range(3))
        taken = round((1.4 * cut + sew + 0.8 * press) * chance.gauss(1, 0.1)) + 1
        timings.append(Timing(taken, {"cut": cut, "sew": sew, "press": press}))
    learnt(measures[:9], MARK)  # SciPy is loaded
    return [
        (f"hand learnt from {MEASURED} measured sizes",
         timed(lambda: learnt(measures, MARK), 5, str), "200"),
        (f"minutes learnt from {TIMED} timings",
         timed(lambda: times_learnt(timings), 5, str), "200"),
        *forecast_rows(),
    ]  # fmt: skip
