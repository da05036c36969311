"""Blocks of our own for the assembler: each with the pivots and the partial seams it takes.

A drawing is seams as ``blocks.seams`` reads them, ``"x y x y @ x y"`` an arc with its centre, or a
map with a letter a patch, rows parted by ``|``.
"""

from __future__ import annotations

from collections.abc import Callable

from inlet.core.draft.edit import add_seams
from inlet.core.draft.tray import tray_units
from inlet.core.geometry.curve import Curve
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.block import Block, seam_along
from tests.blocks import in_fabrics, point, seams, tray_block


def mapped(text: str) -> Block:
    """A block from a map: one patch for each letter, a row of cells for each part."""
    rows = text.split("|")
    return labelled(lambda x, y: rows[y][x], len(rows[0]), len(rows))


def labelled(label: Callable[[int, int], object], width: int, height: int) -> Block:
    """A block whose patches are the cells of one label each, two inches a cell."""
    drawn = []
    for y in range(height):
        for x in range(width):
            if x + 1 < width and label(x, y) != label(x + 1, y):
                drawn.append(f"{x + 1} {y} {x + 1} {y + 1}")
            if y + 1 < height and label(x, y) != label(x, y + 1):
                drawn.append(f"{x} {y + 1} {x + 1} {y + 1}")
    return drawing(" / ".join(drawn), width, height)


def drawing(text: str, width: int, height: int, fabrics: str = "abcdef") -> Block:
    block = Block(
        id="test",
        finished=(F(2) * width, F(2) * height),
        columns=(F(1),) * width,
        rows=(F(1),) * height,
    )
    found = []
    for part in filter(None, text.split(" / ")):
        chord, _, centre = part.partition(" @ ")
        (ends,) = seams(chord)
        about = point(*(F(n) for n in centre.split())) if centre else None
        found.append(seam_along(Curve(*ends, about)))
    return in_fabrics(add_seams(block, found), fabrics)


def herringbone(width: int, height: int) -> Block:
    """Bricks of two cells, lying and standing in turn."""

    def brick(x: int, y: int) -> tuple[int, int]:
        k = (x - y) % 4
        return (x - 1, y) if k == 1 else (x, y - 1) if k == 2 else (x, y)

    return labelled(brick, width, height)


def shifted(text: str, x: int, y: int) -> str:
    out = []
    for part in text.split(" / "):
        numbers = [F(n) for n in part.replace(" @", "").split()]
        moved = [str(n + (x, y)[i % 2]) for i, n in enumerate(numbers)]
        out.append(" ".join(moved[:4]) + (f" @ {moved[4]} {moved[5]}" if moved[4:] else ""))
    return " / ".join(out)


RING = "2 0 2 2 / 3 2 1 2 / 1 3 1 1 / 0 1 2 1"
SET_IN = "0 0 3/2 3/2 / 3/2 3/2 3 3/2 / 3/2 3/2 3/2 3"
MAPS: dict[str, tuple[str, int, int]] = {
    # rings, of both hands, uneven, with a pieced centre, nested, sharing a member
    "ring": ("aab|dcb|dee", 0, 1),
    "ring, other hand": ("baa|bcd|eed", 0, 1),
    "ring, thin": ("aaaab|dcccb|dcccb|deeee", 0, 1),
    "ring, uneven": ("aaaabb|ddccbb|ddccbb|ddeeee", 0, 1),
    "ring about four": ("aaab|dxyb|dzwb|deee", 0, 1),
    "ring about strips": ("aaab|dxxb|dyyb|deee", 0, 1),
    "ring about a tee": ("aaab|dxyb|dxzb|deee", 0, 1),
    "rings nested": ("aaaab|dffgb|dhxgb|dhiib|deeee", 0, 2),
    "rings nested, other hand within": ("aaaab|dgffb|dgxhb|diihb|deeee", 0, 2),
    "rings nested three deep": (
        "aaaaaab|dffffgb|dhjjkgb|dhlxkgb|dhlmmgb|dhiiiib|deeeeee", 0, 3),
    "rings side by side": ("aabppq|dcbsrq|deestt", 0, 2),
    "rings that share an arm": ("aabcc|dxbyf|deegf", 0, 1),
    "four rings": ("aabmmn|dcbpon|deepqq|rrsvvw|utsyxw|ueeyzz", 0, 4),
    "ring in a frame": ("fffff|gaabh|gdcbh|gdeeh|iiiii", 0, 1),
    "ring with long arms": ("aaaaab|dccccb|dccccb|deeeee", 0, 1),
    "ring with a split arm": ("aafb|dccb|dccb|deee", 0, 1),
    "ring of ells and bars": ("aabb|cxxb|cxxd|eedd", 2, 0),
    # L pieces, U pieces, steps
    "ell": ("ab|aa", 1, 0),
    "ell round two": ("aab|acb|dcc", 2, 0),
    "ells nested": ("abc|bbc|ccc", 2, 0),
    "ells turned": ("aab|cbb|cdd", 1, 0),
    "u": ("aba|aba|aaa", 2, 0),
    "u upside down": ("aaa|aba|aba", 2, 0),
    "step": ("aab|abb|bbb", 3, 0),
    "stair of ells": ("abcd|bbcd|cccd|dddd", 3, 0),
    "tee piece": ("aaa|bac|bac", 2, 0),
    "cross": ("bac|aaa|dae", 4, 0),
    "zigzag": ("aabb|abbb|aabb", 4, 0),
    "hook": ("aaa|baa|bba", 3, 0),
    "two ells": ("aac|acc|bbb", 2, 0),
    "spiral": ("aaaa|bbba|bcba|ccca", 5, 0),
    # rows, rounds, bricks: nothing awkward
    "nine": ("abc|def|ghi", 0, 0),
    "bricks": ("aabb|cdde|ffgg", 0, 0),
    "rounds": ("aaaa|bcce|bffe|gggg", 0, 0),
    "steps of bars": ("aaaa|bbbc|bbbc|eeec", 0, 0),
    "bars and rounds": ("aaaaa|bffgd|bhxgd|biiid|eeeee", 0, 0),
}  # fmt: skip

# ruff: noqa: E501
LINES: dict[str, tuple[str, int, int, int, int]] = {
    # drawing, width, height, pivots, partial seams
    # set-in squares and diamonds, mitres, Y's
    "mitred corner": (SET_IN, 3, 3, 1, 0),
    "mitre and frame": (SET_IN + " / 0 3 4 3 / 3 0 3 3", 4, 4, 1, 0),
    "three diamonds": ("0 1 2 2 / 2 2 4 1 / 2 2 2 4 / 0 1 2 0 / 2 0 4 1 / 0 3 2 4 / 2 4 4 3", 4, 4, 1, 0),
    "two mitres": ("0 0 1 1 / 1 1 3 1 / 3 1 4 0 / 1 1 1 2 / 3 1 3 2", 4, 2, 2, 0),
    "four mitres": ("0 0 1 1 / 4 0 3 1 / 0 4 1 3 / 4 4 3 3 / 1 1 3 1 / 3 1 3 3 / 3 3 1 3 / 1 3 1 1",
                    4, 4, 4, 0),
    "four mitres about a cross": (
        "0 0 1 1 / 4 0 3 1 / 0 4 1 3 / 4 4 3 3 / 1 1 3 1 / 3 1 3 3 / 3 3 1 3 / 1 3 1 1 / 1 1 3 3 / "
        "1 3 3 1", 4, 4, 0, 0),
    "diamond set in": ("2 0 3 2 / 3 2 2 4 / 2 4 1 2 / 1 2 2 0 / 0 2 1 2 / 3 2 4 2", 4, 4, 2, 0),
    "two diamonds set in": (
        "2 0 3 2 / 3 2 2 4 / 2 4 1 2 / 1 2 2 0 / 0 2 1 2 / 3 2 5 2 / 6 0 7 2 / 7 2 6 4 / 6 4 5 2 / "
        "5 2 6 0 / 7 2 8 2", 8, 4, 4, 0),
    "wye": ("0 0 2 2 / 4 0 2 2 / 2 2 2 4", 4, 4, 1, 0),
    "wye of five": ("0 0 2 2 / 2 0 2 2 / 4 2 2 2 / 3 4 2 2 / 0 3 2 2", 4, 4, 1, 0),
    "kite": ("0 0 3 2 / 0 0 2 3 / 3 2 3 3 / 2 3 3 3 / 3 2 4 2 / 2 3 2 4 / 3 3 4 4", 4, 4, 3, 0),
    "arrow": ("0 4 2 1 / 2 1 4 4 / 0 4 2 3 / 2 3 4 4", 4, 4, 2, 0),
    "bent band": ("0 1 2 2 / 2 2 4 1 / 0 3 2 4 / 2 4 4 3", 4, 4, 1, 0),
    "pinwheel of blades": ("2 2 1 0 / 2 2 4 1 / 2 2 3 4 / 2 2 0 3", 4, 4, 0, 0),
    "blades round a square": (
        "1 1 3 1 / 3 1 3 3 / 3 3 1 3 / 1 3 1 1 / 1 1 0 2 / 3 1 2 0 / 3 3 4 2 / 1 3 2 4", 4, 4, 4, 0),
    # arcs
    "quarter circle": ("2 0 0 2 @ 0 0", 3, 3, 0, 0),
    "petal": ("0 2 2 0 @ 2 2 / 0 2 2 0 @ 0 0", 2, 2, 0, 0),
    "rainbow": ("1 0 0 1 @ 0 0 / 2 0 0 2 @ 0 0 / 3 0 0 3 @ 0 0", 4, 4, 0, 0),
    "four quarters": ("1 0 0 1 @ 0 0 / 3 0 4 1 @ 4 0 / 0 3 1 4 @ 0 4 / 4 3 3 4 @ 4 4", 4, 4, 0, 0),
    "meeting quarters": ("2 0 0 2 @ 0 0 / 2 0 4 2 @ 4 0 / 2 4 0 2 @ 0 4 / 2 4 4 2 @ 4 4", 4, 4, 0, 0),
    "circle and cross": (
        "2 1 1 2 @ 2 2 / 1 2 2 3 @ 2 2 / 2 3 3 2 @ 2 2 / 3 2 2 1 @ 2 2 / 2 0 2 4 / 0 2 4 2", 4, 4, 0, 0),
    "circle and bar": ("2 1 1 2 @ 2 2 / 1 2 2 3 @ 2 2 / 2 3 3 2 @ 2 2 / 3 2 2 1 @ 2 2 / 0 2 4 2",
                       4, 4, 0, 0),
    "circle and spokes": (
        "2 1 1 2 @ 2 2 / 1 2 2 3 @ 2 2 / 2 3 3 2 @ 2 2 / 3 2 2 1 @ 2 2 / 0 2 1 2 / 3 2 4 2", 4, 4, 0, 1),
    "two waves": ("0 2 2 2 @ 1 3 / 2 2 4 2 @ 3 1", 4, 4, 0, 0),
    "wave with a flat": ("0 2 1 1 @ 1 2 / 1 1 3 1 / 3 1 4 2 @ 3 2", 4, 4, 0, 0),
    "leaf": ("1 2 3 2 @ 2 1 / 1 2 3 2 @ 2 3 / 0 2 1 2 / 3 2 4 2", 4, 4, 2, 0),
    "leaf on a stem": ("1 2 3 2 @ 2 1 / 1 2 3 2 @ 2 3 / 3 2 4 2 / 0 0 1 2 / 0 4 1 2", 4, 4, 2, 0),
    "pointed arch": ("0 4 2 1 @ 13/4 4 / 4 4 2 1 @ 3/4 4 / 2 1 2 0", 4, 4, 1, 0),
    "spoke between arcs": ("2 0 0 2 @ 0 0 / 4 0 0 4 @ 0 0 / 8/5 6/5 16/5 12/5", 6, 6, 0, 0),
    "fan": ("0 4 4 0 @ 0 0 / 0 1 1 0 @ 0 0 / 0 0 4 2 / 0 0 2 4", 4, 4, 0, 0),
    "quarter and corner": ("0 2 2 0 @ 0 0 / 2 0 2 2 / 2 2 0 2", 4, 4, 1, 0),
    # mixtures
    "ring and mitre": (RING + " / " + "3 0 3 3 / 3 0 9/2 3/2 / 9/2 3/2 6 3/2 / 9/2 3/2 9/2 3", 6, 3, 1, 1),
    "ring and quarter": (RING + " / 3 0 3 3 / 5 0 3 2 @ 3 0", 6, 3, 0, 1),
    "ring about a quarter": ("3 0 3 3 / 4 3 1 3 / 1 4 1 1 / 0 1 3 1 / 2 1 1 2 @ 1 1", 4, 4, 0, 1),
    "ring about a mitre": ("3 0 3 3 / 4 3 1 3 / 1 4 1 1 / 0 1 3 1 / 1 1 2 2 / 2 2 3 2 / 2 2 2 3",
                           4, 4, 1, 1),
    "ring of triangles": (RING + " / 0 0 2 1 / 3 0 2 2 / 3 3 1 2 / 0 3 1 1", 3, 3, 0, 1),
    "ring with a pieced arm": (RING + " / 1/2 0 1/2 1 / 1/2 1 2 0", 3, 3, 0, 1),
    "slanted ring": ("1 0 3 2 / 4 1 2 3 / 3 4 1 2 / 0 3 2 1", 4, 4, 0, 1),
    "ell and quarter": ("0 2 2 2 / 2 2 2 0 / 1 0 0 1 @ 0 0", 3, 3, 1, 0),
    "sliced ring": ("0 2 4 2 / 1 0 1 2 / 2 2 2 4", 4, 4, 0, 0),
}  # fmt: skip


def corpus() -> list[tuple[str, Block, int, int]]:
    """Every block with the pivots and the partial seams it takes."""
    out = [(name, mapped(text), *cost) for name, (text, *cost) in MAPS.items()]
    out += [(name, drawing(text, w, h), *cost) for name, (text, w, h, *cost) in LINES.items()]
    awkward = {"ring": (0, 1), "set-in": (1, 0), "eight-point-star": (8, 0)}
    out += [
        (tray_unit.words, tray_block(tray_unit), *awkward.get(tray_unit.kind, (0, 0)))
        for tray_unit in tray_units()
    ]
    sizes = {(4, 4): 1, (6, 6): 3, (4, 8): 2}
    out += [(f"herringbone {w} x {h}", herringbone(w, h), 0, n) for (w, h), n in sizes.items()]
    return out
