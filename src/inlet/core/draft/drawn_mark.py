"""The mark of a drawing: the same for the same patches in the same fabrics, in any turn."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from hashlib import sha256

from inlet.core.draft.patches import Draft, Patch
from inlet.core.geometry import Point
from inlet.core.numbers import Exact, write_exact
from inlet.core.project import Measure

LETTERS = 12
"""Of the mark. Two drawings of a project share one by chance less than once in 10^8 projects of
1,000 drawings: half of 10^6 pairs, of 16^12 marks."""


def drawn_mark(draft: Draft, faces: Iterable[int], measure: Measure) -> str:
    """The mark of the patches of some faces of a draft, sewn with a seam allowance: their outlines
    and fabrics in inches from the corner of all of them, in the quarter turn that is written first.
    A mirror image has another mark, as what is sewn cannot be turned into it."""
    wanted = set(faces)
    patches = [patch for patch in draft.patches if patch.face in wanted]
    per_inch = measure.system.per_inch
    texts = [_written(patches, turn, per_inch) for turn in range(4)]
    whole = f"{write_exact(measure.seam / per_inch)} {min(texts)}"
    return sha256(whole.encode()).hexdigest()[:LETTERS]


def _written(patches: Sequence[Patch], turn: int, per_inch: Exact) -> str:
    """The patches as text, turned by so many quarters, each from its first corner on, in order."""
    outlines = [[_turned(p, turn) for p in patch.outline] for patch in patches]
    left = min(p.x for outline in outlines for p in outline)
    top = min(p.y for outline in outlines for p in outline)

    def place(p: Point) -> str:
        x, y = (p.x - left) / per_inch, (p.y - top) / per_inch
        return f"{write_exact(x)},{write_exact(y)}"

    texts = []
    for patch, outline in zip(patches, outlines, strict=True):
        centres = {side: place(_turned(centre, turn)) for side, centre in patch.arcs}
        sides = [f"{place(p)}({centres.get(i, '')})" for i, p in enumerate(outline)]
        first = sides.index(min(sides))
        holes = sorted(
            " ".join(sorted(place(_turned(p, turn)) for p in hole.corners)) for hole in patch.holes
        )
        texts.append(" ".join((patch.fabric or "-", *sides[first:], *sides[:first], *holes)))
    return ";".join(sorted(texts))


def _turned(p: Point, turn: int) -> Point:
    """A point turned clockwise about (0, 0) by so many quarters."""
    for _ in range(turn):
        p = Point(-p.y, p.x)
    return p
