"""The block that lies otherwise than the others: found by the pattern that most of them keep."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import NamedTuple, get_args

from inlet.core.cancellation import check
from inlet.core.draft import Patch, draft, turner
from inlet.core.geometry import Point, Turn
from inlet.core.memo import Latest, memo
from inlet.core.project import Block, Project, Turning, replace
from inlet.core.setting.block_sizes import block_sizes
from inlet.core.setting.places import Placed, placed
from inlet.core.setting.top import is_square

FEW = 8
"""At most one block in so many is odd; more of them are a pattern of their own."""


class Odd(NamedTuple):
    """A place that breaks the pattern, how it should lie, and in words how it does."""

    place: Placed
    usual: Placed
    words: str


Looks = Mapping[Turn, Turn]
"""For each way a block may lie, the first way in which it looks the same."""


_LOOKS: Latest[Block, Looks] = Latest(100)


def looks_of(block: Block) -> Looks:
    """Which ways a block looks alike, fabric for fabric; a block that is not square lies in half
    turns only. Those of the latest blocks are known."""
    return _LOOKS.of(block, _looks_of)


def _looks_of(block: Block) -> Looks:
    width, height = block.finished
    drawn = draft(block)
    seen: dict[frozenset[object], Turn] = {}
    looks: dict[Turn, Turn] = {}
    for mirror in (False, True):
        for quarters in range(4):
            check()
            way = (quarters, mirror)
            if quarters % 2 and width != height:
                looks[way] = way
                continue
            move = turner(way, width, height)
            picture = frozenset(_as_seen(patch, move) for patch in drawn.patches)
            looks[way] = seen.setdefault(picture, way)
    return looks


def _as_seen(patch: Patch, move: Callable[[Point], Point]) -> tuple[object, ...]:
    """A patch by what is seen of it: its fabric, its corners, its curved sides by their centres."""
    outline = patch.outline
    curved = frozenset(
        (frozenset((move(outline[i]), move(outline[(i + 1) % len(outline)]))), move(centre))
        for i, centre in patch.arcs
    )
    return patch.fabric, frozenset(move(p) for p in outline), curved


@memo(None)
def _ways() -> tuple[tuple[Turning, int], ...]:
    """Patterns of turning, each begun in four ways; the plain one first."""
    return tuple((turning, begin) for turning in get_args(Turning)[1:] for begin in range(4))


def odd_ones(project: Project) -> tuple[Odd, ...]:
    """Places whose turn, mirror or block breaks the pattern that fits best, as long as they are
    few; a turn that looks no different is none."""
    quilt = project.quilt
    if quilt is None or not quilt.places:
        return ()
    square = is_square(quilt, block_sizes(project))
    places = placed(quilt, square)
    laid = {place.block for place in places}
    looks = {block.id: looks_of(block) for block in project.blocks if block.id in laid}

    def lying(place: Placed) -> tuple[str, str, Turn]:
        way = place.turn, place.mirror
        same = looks.get(place.block)
        return place.block, place.fabric, same[way] if same is not None else way

    best: list[tuple[Placed, Placed]] | None = None
    own_look = quilt.turning or "one-way"
    ordered = sorted(_ways(), key=lambda way: (way[0] != own_look, way[1] != 0))
    for turning, begin in ordered:
        check()
        usual = placed(replace(quilt, places=(), turning=turning), square)
        expected = [p._replace(turn=(p.turn + begin) % 4) for p in usual]
        broken = [
            (place, other_place)
            for place, other_place in zip(places, expected, strict=True)
            if lying(place) != lying(other_place)
        ]
        if best is None or len(broken) < len(best):
            best = broken
    if not best or len(best) > max(1, len(places) // FEW):
        return ()
    return tuple(Odd(place, other_place, _words(place, other_place)) for place, other_place in best)


def _words(place: Placed, usual: Placed) -> str:
    where = f"Row {place.row + 1}, block {place.column + 1}"
    if (place.block, place.fabric) != (usual.block, usual.fabric):
        return f"{where} holds another block than the pattern has there."
    if place.mirror != usual.mirror:
        return f"{where} is mirrored; its neighbours are not."
    turns = (place.turn - usual.turn) % 4
    how = {1: "a quarter turn too far right", 2: "upside down", 3: "a quarter turn too far left"}
    return f"{where} lies {how.get(turns, 'otherwise')}."
