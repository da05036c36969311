"""A picture for each word of the craft, drawn from the same parts as those of a plan.

Pictures lie in a box of ``SIDE`` by ``SIDE`` lengths or less; their fabrics are the three of a new
project.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from math import cos, radians, sin
from typing import NamedTuple

from inlet.core.draft import ReadyUnit, ready_units
from inlet.core.figures.display import (
    Area,
    Corners,
    Disc,
    FabricArea,
    Figure,
    Frame,
    Item,
    Kind,
    Polyline,
    Side,
    Tag,
)
from inlet.core.memo import memo

SIDE = 120.0
LIGHT, MEDIUM, DARK = "light", "medium", "dark"
"""Fabrics of a new project."""
Made = Iterable[Item]


class CraftPicture(NamedTuple):
    """A figure with how wide and high it is."""

    figure: Figure
    width: float
    height: float


def craft_pictures() -> tuple[str, ...]:
    """The names of all pictures."""
    return (*_unit_pictures(), *_PICTURES)


@memo(100)
def craft_picture(name: str) -> CraftPicture | None:
    """The picture of a word: of a unit by its words with hyphens, as ``flying-geese``; None of a
    word that has none."""
    if name in _unit_pictures():
        return _unit(_unit_pictures()[name])
    if name not in _PICTURES:
        return None
    width, height, draw = _PICTURES[name]
    return CraftPicture(tuple(draw()), width, height)


def _unit_pictures() -> dict[str, ReadyUnit]:
    return {_hyphened(unit.tray_unit.words): unit for unit in ready_units()}


def _hyphened(words: str) -> str:
    return words.casefold().replace(" ", "-")


def _unit(unit: ReadyUnit) -> CraftPicture:
    """A unit of the tray, its parts in dark, light and medium fabric."""
    wide, high = (float(side) for side in unit.turned.size)
    k = SIDE / max(wide, high) * 0.75
    frame = Frame(0, 0, k)
    fabrics = (DARK, LIGHT, MEDIUM)
    figure = tuple(
        FabricArea(frame.outline(outline), fabrics[part] if isinstance(part, int) else None)
        for outline, part in unit.patches
    )
    return CraftPicture(figure, wide * k, high * k)


# --- parts of pictures ----------------------------------------------------------------------------


def _box(x: float, y: float, width: float, height: float) -> Corners:
    return (x, y), (x + width, y), (x + width, y + height), (x, y + height)


def _patch(
    x: float, y: float, width: float, height: float, fabric: str, side: Side = "right"
) -> FabricArea:
    return FabricArea(_box(x, y, width, height), fabric, side)


def _piece(fabric: str, *corners: tuple[float, float], side: Side = "right") -> FabricArea:
    return FabricArea(corners, fabric, side)


def _line(kind: Kind, *points: tuple[float, float]) -> Polyline:
    return Polyline(points, kind)


def _closed(kind: Kind, corners: Corners) -> Polyline:
    return Polyline((*corners, corners[0]), kind)


def _four(fabrics: str, x: float, y: float, side: float) -> Made:
    """Four patches, in reading order: d, m, l for dark, medium, light."""
    named = {"d": DARK, "m": MEDIUM, "l": LIGHT}
    half = side / 2
    for i, letter in enumerate(fabrics):
        yield _patch(x + i % 2 * half, y + i // 2 * half, half, half, named[letter])


def _pressed(x: float, y: float, toward: str) -> Made:
    """Two patches from the back, their seam upright, its allowances as they are pressed."""
    yield _patch(x, y, 40, 40, LIGHT, "back")
    yield _patch(x + 40, y, 40, 40, DARK, "back")
    if toward in ("left", "open"):
        yield _patch(x + 30, y, 10, 40, DARK, "allowance")
    if toward in ("right", "open"):
        yield _patch(x + 40, y, 10, 40, LIGHT, "allowance")


# --- the pictures ---------------------------------------------------------------------------------


def _seam_allowance() -> Made:
    yield _patch(10, 10, 80, 80, MEDIUM, "wrong")
    yield _closed("seam", _box(20, 20, 60, 60))


def _finished_size() -> Made:
    yield from _seam_allowance()
    yield Tag((50, 50), "3", 13, "strong")
    yield Tag((50, 97), "3 ½", 13, "size")


def _ruler_friendly() -> Made:
    yield _patch(0, 10, 78, 50, MEDIUM)
    yield Area(_box(0, 10, 110, 50), "next-ruler", 0.6)
    for i in range(12):
        yield _line("ruler-mark", (i * 9 + 6, 10), (i * 9 + 6, 34 if i % 4 == 0 else 22))
    yield _line("next-cut", (78, 6), (78, 64))


def _fabric() -> Made:
    """Folded fabric with its selvages at the top, the fold at the bottom."""
    yield _patch(0, 12, 110, 60, MEDIUM, "uncut")
    yield Area(_box(0, 6, 110, 6), "selvage")
    yield _line("fold", (0, 72), (110, 72))


def _strip() -> Made:
    yield from _fabric()
    yield _patch(20, 12, 24, 60, DARK)
    yield _line("next-cut", (44, 4), (44, 78))


def _segment() -> Made:
    for i in range(3):
        yield _patch(i * 30 + (8 if i == 2 else 0), 20, 30, 30, DARK)
    yield _line("cut", (30, 12), (30, 58))
    yield _line("next-cut", (64, 12), (64, 58))


def _strip_set() -> Made:
    for i, fabric in enumerate((DARK, LIGHT, DARK)):
        yield _patch(0, 10 + i * 18, 110, 18, fabric)
    for x in (28, 56, 84):
        yield _line("cut", (x, 4), (x, 70))


def _grain() -> Made:
    yield from _fabric()
    yield _line("ruler", (12, 60), (12, 20))
    yield Tag((48, 28), "lengthwise", 8)
    yield _line("ruler", (30, 62), (100, 62))
    yield Tag((66, 50), "crosswise", 8)


def _bias() -> Made:
    yield _piece(LIGHT, (10, 10), (90, 10), (10, 90))
    yield _line("cut", (90, 10), (10, 90))
    yield Tag((64, 66), "bias", 9)


def _nest() -> Made:
    yield from _pressed(10, 4, "left")
    yield from _pressed(10, 60, "right")
    yield _line("seam", (10, 52), (90, 52))


def _press_to_one_side() -> Made:
    yield from _pressed(10, 10, "right")


def _press_open() -> Made:
    yield from _pressed(10, 10, "open")


def _spin() -> Made:
    for x, y, fabric in ((0, 0, LIGHT), (45, 0, DARK), (0, 45, DARK), (45, 45, LIGHT)):
        yield _patch(x, y, 45, 45, fabric, "back")
    yield _patch(35, 0, 10, 45, DARK, "allowance")
    yield _patch(45, 35, 45, 10, LIGHT, "allowance")
    yield _patch(45, 45, 10, 45, DARK, "allowance")
    yield _patch(0, 45, 45, 10, LIGHT, "allowance")


def _set_in() -> Made:
    yield _patch(50, 50, 45, 45, DARK)
    yield _piece(MEDIUM, (5, 5), (95, 5), (95, 50), (50, 50))
    yield _piece(LIGHT, (5, 5), (50, 50), (50, 95), (5, 95))
    yield Disc((50, 50), 5, "stop")


def _partial_seam() -> Made:
    yield _patch(35, 35, 30, 30, DARK)
    yield _patch(5, 5, 60, 30, LIGHT)
    yield _patch(65, 5, 30, 60, MEDIUM)
    yield _patch(35, 65, 60, 30, LIGHT)
    yield _patch(5, 35, 30, 60, MEDIUM)
    yield _line("new-seam", (35, 35), (50, 35))
    yield Disc((50, 35), 4, "stop")


def _ease() -> Made:
    yield _patch(8, 10, 94, 30, LIGHT, "wrong")
    yield _patch(4, 44, 102, 30, MEDIUM, "wrong")
    for x in (14, 35, 55, 75, 96):
        yield Disc((x, 42), 3, "pin")


def _trim() -> Made:
    yield _patch(6, 6, 90, 90, LIGHT)
    yield _piece(DARK, (6, 6), (96, 6), (6, 96))
    for corners in (_box(6, 6, 90, 8), _box(6, 88, 90, 8), _box(6, 14, 8, 74), _box(88, 14, 8, 74)):
        yield Area(corners, "square-off", 0.8)
    yield _closed("cut", _box(14, 14, 74, 74))


def _template() -> Made:
    outer = [(10 + 80 * c, 90 - 80 * s) for c, s in _QUARTER]
    inner = [(18 + 64 * c, 82 - 64 * s) for c, s in _QUARTER]
    yield FabricArea(((10, 90), *outer), LIGHT)
    yield Polyline(((10, 90), *outer, (10, 90)), "template")
    yield Polyline(((18, 82), *inner, (18, 82)), "seam")
    middle = inner[len(inner) // 2]
    yield _line("mark", middle, outer[len(outer) // 2])


_QUARTER = [(cos(radians(15 * i)), sin(radians(15 * i))) for i in range(7)]


def _straight() -> Made:
    for i in range(9):
        x, y = i % 3 * 32, i // 3 * 32
        yield from _four("dlld", x, y, 32)
        yield _closed("square-edge", _box(x, y, 32, 32))


def _on_point(triangles: str = LIGHT) -> Made:
    yield _patch(0, 0, 96, 96, triangles)
    for x, y in ((48, 24), (24, 48), (72, 48), (48, 72)):
        yield _piece(DARK, (x, y - 24), (x + 24, y), (x, y + 24), (x - 24, y))
        yield _piece(MEDIUM, (x, y - 10), (x + 10, y), (x, y + 10), (x - 10, y))


def _setting_triangles() -> Made:
    yield from _on_point(MEDIUM)
    for corners in (((24, 0), (72, 0), (48, 24)), ((0, 24), (24, 48), (0, 72))):
        yield Area(corners, "taken")


def _sashing() -> Made:
    yield _patch(0, 0, 100, 100, LIGHT)
    for i in range(4):
        yield from _four("dmmd", 6 + i % 2 * 50, 6 + i // 2 * 50, 38)
    for i in range(9):
        yield _patch(i % 3 * 47, i // 3 * 47, 6, 6, DARK)


def _border(mitred: bool) -> Made:
    yield _patch(18, 18, 74, 74, MEDIUM)
    if mitred:
        yield _piece(DARK, (0, 0), (110, 0), (92, 18), (18, 18))
        yield _piece(DARK, (0, 110), (18, 92), (92, 92), (110, 110))
        yield _piece(LIGHT, (0, 0), (18, 18), (18, 92), (0, 110))
        yield _piece(LIGHT, (110, 0), (110, 110), (92, 92), (92, 18))
        return
    yield _patch(0, 0, 110, 18, DARK)
    yield _patch(0, 92, 110, 18, DARK)
    yield _patch(0, 18, 18, 74, LIGHT)
    yield _patch(92, 18, 18, 74, LIGHT)


def _binding() -> Made:
    yield _patch(0, 8, 110, 52, LIGHT)
    yield _patch(0, 60, 110, 12, DARK)
    yield _line("seam", (0, 60), (110, 60))


def _backing() -> Made:
    yield _patch(0, 0, 110, 90, LIGHT, "wrong")
    yield _line("new-seam", (55, 0), (55, 90))
    yield _patch(12, 12, 86, 66, MEDIUM)
    yield Tag((55, 45), "top", 10)


def _row() -> Made:
    for i in range(3):
        yield from _four("dlld" if i % 2 == 0 else "lddl", i * 37, 20, 34)


def _directional() -> Made:
    yield _piece(LIGHT, (0, 10), (50, 10), (50, 60))
    yield _piece(DARK, (0, 10), (50, 60), (0, 60))
    yield _piece(LIGHT, (110, 10), (60, 10), (60, 60))
    yield _piece(DARK, (110, 10), (110, 60), (60, 60))
    yield _line("ruler", (55, 2), (55, 68))


def _stitch_and_flip() -> Made:
    yield _patch(5, 5, 85, 85, LIGHT)
    yield _patch(50, 5, 40, 40, DARK, "wrong")
    yield _line("seam", (50, 5), (90, 45))


def _two_at_a_time() -> Made:
    yield _patch(5, 5, 85, 85, DARK)
    yield _patch(5, 5, 85, 85, LIGHT, "wrong")
    yield _line("cut", (5, 90), (90, 5))
    yield _line("seam", (5, 78), (78, 5))
    yield _line("seam", (17, 90), (90, 17))


def _colourway() -> Made:
    yield from _four("dlld", 0, 10, 50)
    yield from _four("mllm", 60, 10, 50)


def _slices() -> Made:
    yield from _four("dmld", 5, 5, 90)
    for at in (35, 65):
        yield _line("cut", (at, 0), (at, 100))
        yield _line("cut", (0, at), (100, at))


def _motif() -> Made:
    yield _patch(0, 0, 100, 80, MEDIUM)
    yield _closed("motif", _box(14, 30, 44, 34))
    yield _closed("scrap", _box(4, 16, 64, 60))


def _leftover() -> Made:
    yield from _fabric()
    yield _patch(0, 12, 74, 60, DARK)
    yield Area(_box(74, 12, 36, 60), "taken")


def _stack() -> Made:
    for i in range(4):
        yield _patch(20 + i * 5, 30 - i * 5, 60, 60, (DARK, LIGHT, MEDIUM, DARK)[i])


def _pins() -> Made:
    yield _patch(5, 15, 100, 45, LIGHT, "wrong")
    yield _line("seam", (5, 24), (105, 24))
    for x in (15, 55, 95):
        yield Disc((x, 24), 4, "pin")


_PICTURES: dict[str, tuple[float, float, Callable[[], Made]]] = {
    "seam-allowance": (100, 100, _seam_allowance),
    "finished-size": (100, 110, _finished_size),
    "ruler-friendly": (112, 70, _ruler_friendly),
    "selvage": (112, 78, _fabric),
    "strip": (112, 82, _strip),
    "segment": (100, 66, _segment),
    "strip-set": (112, 74, _strip_set),
    "grain": (112, 78, _grain),
    "bias": (96, 96, _bias),
    "nest": (100, 106, _nest),
    "press-to-one-side": (100, 60, _press_to_one_side),
    "press-open": (100, 60, _press_open),
    "spin": (92, 92, _spin),
    "set-in": (100, 100, _set_in),
    "partial-seam": (100, 100, _partial_seam),
    "ease": (112, 80, _ease),
    "trim": (102, 102, _trim),
    "template": (100, 100, _template),
    "straight": (98, 98, _straight),
    "on-point": (98, 98, _on_point),
    "setting-triangles": (98, 98, _setting_triangles),
    "sashing": (102, 102, _sashing),
    "butted-border": (112, 112, lambda: _border(False)),
    "mitred-border": (112, 112, lambda: _border(True)),
    "binding": (112, 76, _binding),
    "backing": (112, 92, _backing),
    "row": (112, 60, _row),
    "directional": (112, 72, _directional),
    "stitch-and-flip": (96, 96, _stitch_and_flip),
    "two-at-a-time": (96, 96, _two_at_a_time),
    "colourway": (112, 64, _colourway),
    "slices": (102, 102, _slices),
    "motif": (102, 84, _motif),
    "leftover": (112, 78, _leftover),
    "stack": (100, 96, _stack),
    "pins": (112, 66, _pins),
}
"""Width, height, and what draws it."""
