"""Cutting: fabric and cuts beside a general rectangle packer's best and the area, on 20 cut lists.

The lists are made by rule: three to nine sizes with sides from 1 1/2 to 10 in, in eighths, 4 to 64
of each, 36 to 330 pieces. Nothing to square and a single layer, so that the comparison is fair.
Each row tells median, mean, worst and aim.
"""

from __future__ import annotations

import random
import statistics
import time
from collections.abc import Iterator, Sequence
from typing import NamedTuple

import rectpack
from rectpack import guillotine

from inlet.core.cutlist.cuts import Cut
from inlet.core.layout.fabric_plan import FabricPlan, ToCut
from inlet.core.layout.laid_places import Rect, places_of
from inlet.core.layout.layout import BEST, lay_out
from inlet.core.layout.strokes import strokes_of
from inlet.core.layout.tools import Tools, tools_of
from inlet.core.memo import forget_all
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.cutting import Cutting
from inlet.core.project.measure import Measure
from inlet.core.project.project import Project
from inlet.core.project.value import replace

WIDTH = 336
"""42 in, in eighths."""
NOTHING = F(0)
WITHOUT_LIMITS = Tools(((F(24), F(24)),), (F(10**5), F(10**5)), 1)
FREE = Cutting(
    folds=0, square_every=0, goal="cloth", rulers=WITHOUT_LIMITS.rulers, mat=WITHOUT_LIMITS.mat,
    blade=1, handled=F(10**4),
)  # fmt: skip
"""The packer's cuts are of any length and width; ours beside them, too."""
Sizes = list[tuple[int, int, int]]


def cut_lists() -> Iterator[Sizes]:
    """20 lists of (shorter side, longer side, number), in eighths of an inch."""
    for seed in range(20):
        chance = random.Random(seed)
        number = 0
        while not 36 <= number <= 330:
            sizes = []
            for _ in range(chance.randint(3, 9)):
                a = chance.randint(12, 60)
                b = a if chance.random() < 0.5 else chance.randint(12, 80)
                sizes.append(
                    (min(a, b), max(a, b), chance.choice((4, 8, 12, 16, 20, 24, 36, 48, 64)))
                )
            number = sum(n for _, _, n in sizes)
        yield sizes


def many_pieces() -> Sizes:
    """2,000 pieces of 25 sizes."""
    chance = random.Random(2000)
    return [(*sorted((chance.randint(12, 60), chance.randint(12, 80))), 80) for _ in range(25)]


def as_cuts(sizes: Sizes) -> list[Cut]:
    return [
        Cut("a", "rectangle", (F(a, 8), F(b, 8)), "none", n, ("A",), label=f"A{i}")
        for i, (a, b, n) in enumerate(sizes)
    ]


def ours(sizes: Sizes, work: int, cutting: Cutting, squaring: F = NOTHING) -> FabricPlan:
    return timed(sizes, work, cutting, squaring)[0]


def timed(
    sizes: Sizes, work: int, cutting: Cutting, squaring: F = NOTHING
) -> tuple[FabricPlan, float]:
    """Ours, laid out as for the first time, and how many seconds that took. To forget what other
    figures have left takes longer than a first layout, and is not counted."""
    project = Project(measure=Measure(squaring=squaring), cutting=cutting)
    forget_all()
    start = time.perf_counter()
    (plan,) = lay_out(project, ToCut(tuple(as_cuts(sizes)), {}), work)
    return plan, time.perf_counter() - start


SELECTIONS, SPLITS = ("Baf", "Blsf", "Bssf"), ("Sas", "Las", "Slas", "Llas", "Maxas", "Minas")
ORDERS = [getattr(rectpack, f"SORT_{n}") for n in
          ("AREA", "PERI", "DIFF", "SSIDE", "LSIDE", "RATIO", "NONE")]  # fmt: skip


def theirs(sizes: Sizes) -> list[Rect]:
    """rectpack's shortest layout over its guillotine modes and orders, in eighths."""
    best: tuple[int, list[Rect]] | None = None
    for selection in SELECTIONS:
        for split in SPLITS:
            for order in ORDERS:
                packer = rectpack.newPacker(
                    mode=rectpack.PackingMode.Offline,
                    pack_algo=getattr(guillotine, f"Guillotine{selection}{split}"),
                    sort_algo=order,
                    rotation=True,
                )
                for a, b, n in sizes:
                    for _ in range(n):
                        packer.add_rect(a, b)
                packer.add_bin(WIDTH, 10**6)
                packer.pack()
                found = [Rect(F(x), F(y), F(w), F(h), 1) for _, x, y, w, h, _ in packer.rect_list()]
                length = max(int(r.bottom) for r in found)
                if best is None or length < best[0]:
                    best = length, found
    assert best is not None
    return best[1]


def cuts_for(rects: tuple[Rect, ...], region: Rect) -> int:
    """Cuts from edge to edge that release every piece, each through one piece of fabric, in the way
    that takes fewest. Of a layout that cannot be cut so (the packer joins what is free), one a
    piece, which is in its favour."""
    if len(rects) == 1 and rects[0] == region:
        return 0
    ways = []
    for along in (False, True):
        slabs = _slabs(rects, along)
        low, high = (region.x, region.right) if along else (region.y, region.bottom)
        if len(slabs) == 1 and slabs[0][:2] == (low, high):
            continue
        cuts = len({at for start, end, _ in slabs for at in (start, end)} - {low, high})
        for start, end, own in slabs:
            inner = (
                region._replace(x=start, width=end - start)
                if along
                else region._replace(y=start, height=end - start)
            )
            cuts += cuts_for(tuple(own), inner)
        ways.append(cuts)
    return min(ways, default=len(rects))


def _slabs(rects: Sequence[Rect], along: bool) -> list[tuple[F, F, list[Rect]]]:
    """The layout between its lines that no piece crosses."""
    slabs: list[tuple[F, F, list[Rect]]] = []
    for rect in sorted(rects, key=lambda r: r.x if along else r.y):
        start, end = (rect.x, rect.right) if along else (rect.y, rect.bottom)
        if slabs and start < slabs[-1][1]:
            first, last, own = slabs[-1]
            slabs[-1] = (first, max(last, end), [*own, rect])
        else:
            slabs.append((start, end, [rect]))
    return slabs


class Compared(NamedTuple):
    """One list: lengths in inches, cuts, seconds; ``weighed``: fabric and cuts balanced."""

    length: float
    theirs: float
    area: float
    cuts: int
    one_by_one: int
    their_cuts: int
    weighed_length: float
    weighed_cuts: int
    first: float
    last: float


def compared(sizes: Sizes) -> Compared:
    cutting = FREE
    _, first = timed(sizes, 0, cutting)
    plan, last = timed(sizes, BEST, cutting)
    weighed = ours(sizes, BEST, replace(cutting, goal="balance"))
    packed = theirs(sizes)
    length = max(r.bottom for r in packed)
    (laid,), (weighed_laid,) = plan.lengths, weighed.lengths
    placed = tuple(place.at for place in places_of(laid))
    return Compared(
        float(plan.length),
        float(length) / 8,
        sum(a * b * n for a, b, n in sizes) / WIDTH / 8,
        len(strokes_of(laid, WITHOUT_LIMITS)),
        cuts_for(placed, Rect(F(0), F(0), F(42), plan.length, 1)),
        cuts_for(tuple(packed), Rect(F(0), F(0), F(WIDTH), length, 1)),
        float(weighed.length),
        len(strokes_of(weighed_laid, WITHOUT_LIMITS)),
        first,
        last,
    )


def told(name: str, values: Sequence[float], aim: str) -> str:
    figures = statistics.median(values), statistics.mean(values), max(values)
    return f"{name:58}" + "".join(f" {figure:8.3f}" for figure in figures) + f"   {aim}"


def rows() -> Iterator[str]:
    """The table's rows: median, mean and worst of the 20 lists."""
    found = [compared(sizes) for sizes in cut_lists()]
    yield told("fabric ours / rectpack's best", [c.length / c.theirs for c in found], "1.00, 1.02")
    yield told("fabric rectpack's best / area", [c.theirs / c.area for c in found], "")
    yield told("fabric ours / area", [c.length / c.area for c in found], "1.03")
    one, side = "one piece of fabric a cut", "equal strips side by side"
    yield told(f"cuts ours / theirs, {one}", [c.one_by_one / c.their_cuts for c in found], "")
    yield told(f"cuts ours, {side} / theirs", [c.cuts / c.their_cuts for c in found], "0.7")
    weighed = [c.weighed_length / c.theirs for c in found]
    yield told("fabric and cuts weighed: fabric / theirs", weighed, "")
    weighed = [c.weighed_cuts / c.their_cuts for c in found]
    yield told(f"fabric and cuts weighed: cuts, {side} / theirs", weighed, "0.7")
    yield told("first layout, ms", [c.first * 1000 for c in found], "20")
    yield told("final layout, ms", [c.last * 1000 for c in found], "1000")
    _, took = timed(many_pieces(), BEST, FREE)
    yield told("2,000 pieces, ms", [took * 1000], "3000")
    for name, cutting in (("folded, squared", Cutting()), ("folded twice", Cutting(folds=2))):
        at_once = [ours(sizes, 0, cutting, F(1, 2)) for sizes in cut_lists()]
        best = [ours(sizes, BEST, cutting, F(1, 2)) for sizes in cut_lists()]
        for words, plans in (("at once", at_once), ("best", best)):
            lengths = [float(p.length / p.bound) for p in plans]
            yield told(f"{name}, {words}: fabric / area", lengths, "")
            cuts = [_cuts_a_piece(p, cutting) for p in plans]
            yield told(f"{name}, {words}: cuts a piece", cuts, "")


def _cuts_a_piece(plan: FabricPlan, cutting: Cutting) -> float:
    tools = tools_of(Project(cutting=cutting))
    pieces = sum(place.number for laid in plan.lengths for place in places_of(laid))
    return sum(len(strokes_of(laid, tools)) for laid in plan.lengths) / pieces


if __name__ == "__main__":
    for line in rows():
        print(line, flush=True)
