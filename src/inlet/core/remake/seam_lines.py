"""What a cut is measured from: a seam that runs through the whole block, or its centre."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from inlet.core.draft import Draft
from inlet.core.numbers import Exact
from inlet.core.project import Measure
from inlet.core.words import length_text


class ThroughSeams(NamedTuple):
    """Where straight seams run through a whole block, by how far right of its centre or below it
    they lie."""

    upright: tuple[Exact, ...]
    level: tuple[Exact, ...]


def through_seams(start: Draft) -> ThroughSeams:
    """The upright and level seams of a block that run from edge to edge."""
    (wide, high), (sx, sy) = start.block.finished, start.block.scale
    upright: dict[Exact, list[tuple[Exact, Exact]]] = {}
    level: dict[Exact, list[tuple[Exact, Exact]]] = {}
    for seam in start.block.seams:
        p, q = seam.ends
        if seam.arc is None and p.x == q.x:
            upright.setdefault(p.x * sx, []).append((p.y * sy, q.y * sy))
        elif seam.arc is None and p.y == q.y:
            level.setdefault(p.y * sy, []).append((p.x * sx, q.x * sx))
    return ThroughSeams(
        tuple(sorted(x - wide / 2 for x, parts in upright.items() if _covers(parts, high))),
        tuple(sorted(y - high / 2 for y, parts in level.items() if _covers(parts, wide))),
    )


def _covers(parts: Iterable[tuple[Exact, Exact]], length: Exact) -> bool:
    """Do stretches of a line leave no gap from 0 to ``length``?"""
    reached: Exact = length - length
    for low, high in sorted((min(part), max(part)) for part in parts):
        if low > reached:
            return False
        reached = max(reached, high)
    return reached >= length


def cut_words(
    cuts: Sequence[Exact], seams: Sequence[Exact], upright: bool, measure: Measure
) -> list[str]:
    """Where cuts lie, each measured from the seam that runs nearest to it, as what is sewn is
    rarely as large as drawn: ``upright, 1 7/8 in left and right of the centre seam``. From the
    centre where no seam runs through; it is folded there."""
    before, behind = ("left of", "right of") if upright else ("above", "below")
    way = "upright" if upright else "level"
    sides: dict[tuple[Exact | None, Exact], list[str]] = {}
    for cut in sorted(set(cuts)):
        seam = min(seams, key=lambda at: (abs(cut - at), abs(at)), default=None)
        off = cut - seam if seam is not None else cut
        sides.setdefault((seam, abs(off)), []).append(before if off < 0 else behind)
    words = []
    for (seam, distance), where in sides.items():
        name = _line_name(seam, seams, way)
        if distance == 0:
            words.append(f"{way}, along {name}" if seam is not None else f"{way}, through {name}")
        else:
            words.append(f"{way}, {length_text(distance, measure)} {' and '.join(where)} {name}")
    return words


def _line_name(seam: Exact | None, seams: Sequence[Exact], way: str) -> str:
    if seam is None:
        return "the centre, folded there"
    if seam == 0:
        return "the centre seam"
    place = sorted(seams).index(seam)
    return f"{way} seam {place + 1}" if len(seams) > 1 else f"the {way} seam"
