"""A cutting plan followed on the mat, from its JSON alone: this shares no code with the planner."""

from __future__ import annotations

from collections import Counter
from fractions import Fraction as F
from itertools import pairwise
from typing import Any

Box = tuple[F, F, F, F]


def box(texts: list[str]) -> Box:
    x, y, w, h = map(F, texts)
    return x, y, w, h


def opened(piece: Box, deep: int, layers: int) -> list[tuple[Box, int]]:
    """A piece still folded in all the layers that touches the fold, laid open."""
    x, y, w, h = piece
    return [((-w, y, 2 * w, h), deep // 2)] if x == 0 and deep == layers > 1 else []


def follow(fabric: dict[str, Any], stack: int) -> Counter[str]:
    """Make every cut in its order; the pieces that lie there in the end, by their label. Fails
    where a cut does not go through a whole piece of fabric, edge to edge, or a place is not cut
    out."""
    width, length, layers = F(fabric["width"]), F(fabric["length"]), fabric["layers"]
    assert fabric["fold"] == (None if layers == 1 else "0")
    there: dict[Box, int] = {(F(0), F(0), width / layers, length): layers}
    ready: Counter[str] = Counter()
    wanted = {box([p["x"], p["y"], p["width"], p["height"]]): p for p in fabric["places"]}
    assert len(wanted) == len(fabric["places"])
    strips, squared = [], []
    for number, cut in enumerate(fabric["cuts"], 1):
        assert cut["number"] == number
        across = cut["way"] == "across"
        pile = [box(each) for each in cut["of"]]
        for piece in pile:
            if cut.get("opens"):
                x, y, w, h = piece
                assert x == -w / 2  # as far to either side of the fold
                there[piece] = there.pop((F(0), y, w / 2, h)) // 2
            assert piece in there, f"cut {number} is of fabric that does not lie there"
        assert len({there[piece] for piece in pile}) == 1
        assert cut["layers"] == there[pile[0]] * cut["stacked"]
        assert cut["stacked"] == 1 or cut["layers"] <= stack
        assert len(pile) % cut["stacked"] == 0
        low = 1 if across else 0
        off = F(cut["at"]) - pile[0][low]
        spans = sorted((p[1 - low], p[1 - low] + p[3 - low]) for p in pile)
        if cut["stacked"] == 1:  # side by side, one stroke through all of them
            assert all(a[1] == b[0] for a, b in pairwise(spans))
            assert len({p[low] for p in pile}) == 1
            assert (F(cut["from"]), F(cut["to"])) == (spans[0][0], spans[-1][1])
        else:
            assert (F(cut["from"]), F(cut["to"])) == (pile[0][1 - low], sum(pile[0][1 - low :: 2]))
        done: Counter[str] = Counter()
        sides = set()
        for piece in pile:
            assert 0 < off < piece[2 + low]
            n = there.pop(piece)
            x, y, w, h = piece
            parts = (
                [(x, y, w, off), (x, y + off, w, h - off)] if across
                else [(x, y, off, h), (x + off, y, w - off, h)]
            )  # fmt: skip
            sides |= {part[2 + low] for part in parts}
            for part in parts:
                there[part] = n
                for lying, deep in ((part, n), *opened(part, n, layers)):
                    if lying in wanted and wanted[lying]["layers"] == deep:
                        done[wanted[lying]["label"]] += deep * wanted[lying].get("holds", 1)
        assert F(cut["size"]) in sides
        assert dict(done) == cut["finishes"]
        ready += done
        if cut["what"] == "strip":
            strips.append(F(cut["size"]))
        if cut["what"] == "square" and across:
            squared.append(len(strips))
            assert F(cut["size"]) == F(fabric["squaring"])
    # What is left when the last cut is made may be a piece too.
    for piece, deep in list(there.items()):
        for lying, n in opened(piece, deep, layers):
            if lying in wanted and wanted[lying]["layers"] == n:
                there[lying] = n
    for place in set(wanted) & set(there):
        assert there[place] == wanted[place]["layers"]
    missing = set(wanted) - set(there)
    assert not missing, f"not cut out: {missing}"
    assert strips == sorted(strips, reverse=True)
    if F(fabric["squaring"]) and fabric["places"]:
        every = fabric["square_every"]
        assert squared == [n for n in range(len(strips) + 1) if n in squared]
        assert squared[0] == 0
        if every:
            assert all(b - a == every for a, b in pairwise(squared))
            assert len(strips) - squared[-1] <= every
    found: Counter[str] = Counter()
    for place in fabric["places"]:
        found[place["label"]] += place["layers"] * place.get("holds", 1)
    return found
