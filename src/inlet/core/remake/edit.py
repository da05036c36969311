"""Edits of a block that is set of slices: its cuts, and how its pieces lie."""

from __future__ import annotations

import random
from collections.abc import Sequence
from itertools import product

from inlet.core.draft import Draft
from inlet.core.geometry import at_origin, canonical, mirrored
from inlet.core.numbers import (
    Exact,
    Fraction,
    NumberError,
    System,
    nearest_mark,
    parse_length,
    show,
)
from inlet.core.project import Cuts, MadeFrom, Measure, StartBlock, replace
from inlet.core.remake.follow import Remade, laid_of, pieces_of
from inlet.core.remake.set_again import Laid, as_they_were, fills, slice_picture
from inlet.core.remake.slices import equal_parts, sliced


def cut_in(start: Draft, start_block: StartBlock, cuts: Cuts, measure: Measure) -> MadeFrom:
    """A block cut apart, every slice in its own place. Raises ``SliceError`` where it cannot be."""
    slices = sliced(start.block.finished, cuts, measure)
    return MadeFrom(starts=(start_block,), cuts=cuts, pieces=pieces_of(as_they_were(slices)))


def with_cuts(made_from: MadeFrom, cuts: Cuts, start: Draft, measure: Measure) -> MadeFrom:
    """The same blocks cut along other lines. Pieces lie as they did where there are as many each
    way and each still fits, else as they were before the cut. Raises ``SliceError``."""
    slices = sliced(start.block.finished, cuts, measure)
    laid = laid_of(made_from)
    before = made_from.cuts
    alike = _number(before) == _number(cuts)
    if not alike or not all(map(fills, laid, slices, [slices] * len(laid))):
        laid = as_they_were(slices)
    return replace(made_from, cuts=cuts, pieces=pieces_of(laid))


def _number(cuts: Cuts) -> tuple[int, int, bool]:
    """How many cuts there are each way, and whether they are diagonal."""
    return len(cuts.upright), len(cuts.level), cuts.diagonal


def turned_at(how: Remade, place: int, quarters: int = 1) -> tuple[Laid, ...]:
    """The pieces, that in a place turned clockwise: by so many quarters if it fits so, else on to
    the next turn in which it does."""
    piece = how.laid[place]
    for more in range(4):
        turned = piece._replace(quarters=(piece.quarters + quarters + more) % 4)
        if fills(turned, how.slices[place], how.slices):
            return (*how.laid[:place], turned, *how.laid[place + 1 :])
    return how.laid


def swapped(how: Remade, place: int, other_place: int) -> tuple[Laid, ...] | None:
    """The pieces of two places changed over, each turned a quarter where it must be; None where
    they do not fit."""
    laid = list(how.laid)
    for here, there in ((place, other_place), (other_place, place)):
        piece = how.laid[there]
        ways = [piece._replace(quarters=(piece.quarters + more) % 4) for more in range(4)]
        fitting = [way for way in ways if fills(way, how.slices[here], how.slices)]
        if not fitting:
            return None
        laid[here] = fitting[0]
    return tuple(laid)


def flipped(how: Remade, place: int) -> tuple[Laid, ...] | None:
    """A slice that is turned over shows the wrong side of its fabric, so it cannot be. What looks
    like its mirror image may lie there instead: itself in another turn, or the slice of another
    place, with which it changes places. None where no slice does."""
    piece = how.laid[place]

    def look(laid: Laid) -> frozenset[object]:
        start, of = how.starts[laid.copy], how.slices[laid.piece]
        return frozenset(canonical(at_origin(slice_picture(start, of, laid.quarters))))

    start, of = how.starts[piece.copy], how.slices[piece.piece]
    shown = mirrored(slice_picture(start, of, piece.quarters))
    wanted = frozenset(canonical(at_origin(shown)))
    for there, quarters in product((place, *range(len(how.laid))), range(4)):
        candidate = how.laid[there]._replace(quarters=quarters)
        if not fills(candidate, how.slices[place], how.slices) or look(candidate) != wanted:
            continue
        laid = how.laid if there == place else swapped(how, place, there)
        if laid is not None:
            return (*laid[:place], candidate, *laid[place + 1 :])
    return None


def by_chance(how: Remade, seed: int) -> tuple[Laid, ...]:
    """Every piece where it lies, turned by chance, always the same for a seed."""
    chance = random.Random(seed)
    laid = []
    for piece, place in zip(how.laid, how.slices, strict=True):
        ways = [piece._replace(quarters=quarters) for quarters in range(4)]
        laid.append(chance.choice([way for way in ways if fills(way, place, how.slices)]))
    return tuple(laid)


# --- cuts in words ------------------------------------------------------------------------------


def parts_at_marks(measured: Exact, parts: int, mark: Fraction) -> tuple[Exact, ...]:
    """Where to cut a block that measures so much into equal parts, each cut at the ruler's mark
    nearest to where it should be, as far from the centre on both sides."""
    cuts = equal_parts(measured, parts)
    return tuple(
        nearest_mark(abs(cut), mark) * (1 if cut > 0 else -1) if cut != 0 else cut for cut in cuts
    )


def cuts_text(cuts: Sequence[Exact], ways: tuple[str, str], system: System) -> str:
    """Cuts as a maker types them: ``1 7/8`` for both sides of the centre, ``left 2`` for one side,
    ``centre``."""
    words = []
    for distance in sorted({abs(cut) for cut in cuts}):
        length = show(distance, system=system, ruler=True)
        if distance == 0:
            words.append("centre")
        elif -distance in cuts and distance in cuts:
            words.append(length)
        else:
            words.append(f"{ways[distance in cuts]} {length}")
    return ", ".join(words)


def cuts_typed(text: str, ways: tuple[str, str], system: System, at: Exact) -> tuple[Exact, ...]:
    """What a maker typed, from a line ``at`` so far right of or below the centre. Raises
    ``NumberError``."""
    cuts: set[Exact] = set()
    for part in filter(None, (each.strip().lower() for each in text.split(","))):
        if part in ("centre", "center", "0"):
            cuts.add(at)
            continue
        side = next((word for word in ways if part.startswith(word)), "")
        distance = parse_length(part.removeprefix(side).strip(), system)
        if distance < 0:
            raise NumberError(f"say “{ways[0]} {part.lstrip('-')}” instead of “{part}”")
        if side != ways[1]:
            cuts.add(at - distance)
        if side != ways[0]:
            cuts.add(at + distance)
    return tuple(sorted(cuts))
