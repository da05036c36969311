"""A cutting plan followed on the mat, from its JSON alone: this shares no code with the planner."""

from __future__ import annotations

from collections import Counter
from fractions import Fraction as F
from itertools import pairwise
from typing import Any, NamedTuple

Box = tuple[F, F, F, F]


def box(texts: list[str]) -> Box:
    x, y, w, h = map(F, texts)
    return x, y, w, h


def opened(piece: Box, deep: int, layers: int) -> list[tuple[Box, int]]:
    """A piece still folded in all the layers that touches the fold, laid open."""
    x, y, w, h = piece
    return [((-w, y, 2 * w, h), deep // 2)] if x == 0 and deep == layers > 1 else []


class Hand(NamedTuple):
    """What a cutter has: rulers and mat by their sides, and layers the blade goes through."""

    rulers: tuple[tuple[F, F], ...]
    mat: tuple[F, F]
    blade: int


USUAL = Hand(((F(6), F(24)), (F(25, 2), F(25, 2))), (F(24), F(36)), 4)
METRIC_HAND = Hand(((F(15), F(60)), (F(30), F(30))), (F(60), F(90)), 4)


def follow(fabric: dict[str, Any], hand: Hand = USUAL) -> Counter[str]:
    """Make every cut in its order, of each stack of equal pieces of fabric; the pieces that lie
    there in the end, by their label. Fails where a cut does not go through a whole piece of fabric,
    edge to edge, where ruler, mat or blade do not do what is told, where an edge a piece keeps was
    not cut, or a place is not cut out."""
    cuts: list[list[dict[str, Any]]] = []
    for number, line in enumerate(fabric["cuts"], 1):
        assert line["number"] == number
        parts = [part for part in line["parts"] for _ in range(part["times"])]
        parts *= line.get("rounds", 1)
        assert line["count"] == len(parts)
        told = [s for s in line["strokes"] if s["what"] != "square" or s["way"] != "across"]
        assert len(told or line["strokes"]) == len(parts)
        for stroke, part in zip(told or line["strokes"], parts, strict=True):
            assert (stroke["what"], stroke["size"]) == (part["what"], part["size"])
            can_be_made(stroke, part, hand)
        assert sum((Counter(s["finishes"]) for s in line["strokes"]), Counter()) == line["finishes"]
        for stroke in line["strokes"]:
            if not cuts or (is_first(stroke, fabric) and cuts[-1][0] is not stroke):
                cuts.append([])
            cuts[-1].append(stroke)
    total: Counter[str] = Counter()
    done = 0
    for pile in cuts:
        copies = pile[0].get("copies", 1)
        total += follow_one(fabric, pile, hand._replace(blade=max(1, hand.blade // copies)))
        done += copies
    assert done in (0, fabric["count"])
    every_edge_is_cut(fabric)
    if not cuts:
        total += follow_one(fabric, [], hand)
    return total


def is_first(stroke: dict[str, Any], fabric: dict[str, Any]) -> bool:
    """Is the fabric as it is laid down cut by it?"""
    whole = (F(0), F(0), F(fabric["width"]) / fabric["layers"], F(fabric["length"]))
    return box(stroke["of"][0]) == whole


def can_be_made(stroke: dict[str, Any], part: dict[str, Any], hand: Hand) -> None:
    """Can a cut be measured and made as it is told?"""
    long = (F(stroke["to"]) - F(stroke["from"])) / 2 ** part.get("folds_again", 0)
    layers = stroke["layers"] << part.get("folds_again", 0)
    assert layers <= hand.blade or not part.get("folds_again")
    size = F(0) if stroke["what"] == "square" else F(stroke["size"])
    rulers = [tuple(map(F, part[name])) for name in ("ruler", "beside") if name in part]
    assert all(ruler in hand.rulers for ruler in rulers)
    shifts = part.get("moved_on", 0)
    ways = []
    for across, along in (rulers[0], rulers[0][::-1]):
        reach = min(along, max(hand.mat)) * (shifts + 1)
        measures = {
            "ruler": across, "rulers": across + max(rulers[-1]), "tape": F(10**6),
            "mat": max(hand.mat) if long <= min(hand.mat) else min(hand.mat),
        }[part["measured_by"]]  # fmt: skip
        ways.append(long <= reach and size <= measures)
    assert any(ways), (size, long, part)


def every_edge_is_cut(fabric: dict[str, Any]) -> None:
    """No piece keeps an edge of the fabric's own, nor the fold: but pieces that take a strip from
    selvage to selvage, and what was cut already."""
    width, length, layers = F(fabric["width"]), F(fabric["length"]), fabric["layers"]
    if not F(fabric["squaring"]) or fabric["from"] == "squares":
        return
    for place in fabric["places"]:
        x, y, w, h = box([place["x"], place["y"], place["width"], place["height"]])
        if fabric["from"] != "strips":
            assert y > 0, place
            assert y + h < length, place
        if w < width * 2 / max(2, layers) - 2 * F(fabric["squaring"]):
            assert x + w < width / layers, place
            assert x > 0 or place["layers"] < layers, place  # opened, it lies across the fold


def follow_one(fabric: dict[str, Any], cuts: list[dict[str, Any]], hand: Hand) -> Counter[str]:
    """The cuts of one stack of equal pieces of fabric."""
    width, length, layers = F(fabric["width"]), F(fabric["length"]), fabric["layers"]
    assert fabric["fold"] == (None if layers == 1 else "0")
    there: dict[Box, int] = {(F(0), F(0), width / layers, length): layers}
    ready: Counter[str] = Counter()
    wanted = {box([p["x"], p["y"], p["width"], p["height"]]): p for p in fabric["places"]}
    assert len(wanted) == len(fabric["places"])
    strips, squared = [], []
    copies = cuts[0].get("copies", 1) if cuts else fabric["count"]
    for number, cut in enumerate(cuts, 1):
        across = cut["way"] == "across"
        pile = [box(each) for each in cut["of"]]
        for piece in pile:
            if cut.get("opens"):
                x, y, w, h = piece
                assert x == -w / 2  # as far to either side of the fold
                there[piece] = there.pop((F(0), y, w / 2, h)) // 2
            assert piece in there, f"cut {number} is of fabric that does not lie there"
        assert len({there[piece] for piece in pile}) == 1
        assert cut["layers"] == there[pile[0]] * cut["stacked"] * copies
        assert cut["stacked"] == 1 or there[pile[0]] * cut["stacked"] <= hand.blade
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
                        number = deep * copies * wanted[lying].get("holds", 1)
                        done[wanted[lying]["label"]] += number
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
    if F(fabric["squaring"]) and fabric["places"] and fabric["from"] != "strips":
        every = fabric["square_every"]
        assert squared == [n for n in range(len(strips) + 1) if n in squared]
        assert squared[0] == 0
        if every:
            assert all(b - a == every for a, b in pairwise(squared))
            assert len(strips) - squared[-1] <= every
    found: Counter[str] = Counter()
    for place in fabric["places"]:
        found[place["label"]] += place["layers"] * place.get("holds", 1) * copies
    return found
