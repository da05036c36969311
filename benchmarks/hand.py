"""The hand: learnt from thousands of sizes, and minutes from a year of timings."""

from __future__ import annotations

import random

from benchmarks.remake import Row, timed
from inlet.core.bench import Timing
from inlet.core.hand import HandMeasure
from inlet.core.hand.estimate import learnt
from inlet.core.hand.minutes import times_learnt

MEASURED = 2000
TIMED = 500
MARK = 1 / 16


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
    ]  # fmt: skip
