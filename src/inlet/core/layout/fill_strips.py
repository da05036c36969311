"""Strips that hold every piece: found in turn, then, with more work, by an integer program."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from inlet.core.layout.filling import AT_ONCE, fill_in_turn
from inlet.core.layout.patterns import Chosen, Kind, Pattern, Price, Room, without_surplus

TRIES = 1000
"""Orders tried before the integer program."""
FINEST = 20_000
"""Units across the fabric: of finer ones the strips found in turn are taken. A usual ruler's marks
make a thousand or two of them."""


def fill_strips(
    kinds: Sequence[Kind], room: Room, price: Price, work: int, most: int | None = None
) -> list[Chosen]:
    """Strips that hold all the kinds, as cheap as is found with so much ``work``: columns of the
    integer program times nodes of its search; with none, as they are found in turn. The best first,
    then others that may be cut in fewer strokes. With ``most`` of its length to be had, those that
    hold the most. Every kind must fit across one way.
    """
    if not any(kind.number for kind in kinds):
        return [[]]
    in_turn = fill_in_turn(kinds, room, price, AT_ONCE if work <= 0 else TRIES)
    if work <= 0 or room.across > FINEST or _cannot_be_less(in_turn, kinds, room):
        return [in_turn if most is None else _within(in_turn, most)]
    from inlet.core.layout.program import Pool  # loads SciPy's solvers

    pool = Pool(kinds, room, price, most)
    pool.add(pattern for pattern, _ in in_turn)
    wanted = pool.generate()
    solved = pool.finished(wanted, work)
    best = without_surplus(_better(in_turn, solved, price, kinds, most), kinds)
    if most is not None or solved is None:
        return [best]
    others = [without_surplus(chosen, kinds) for chosen in (solved, in_turn)]
    return [best, *(chosen for chosen in others if chosen != best)]


def _cannot_be_less(chosen: Chosen, kinds: Sequence[Kind], room: Room) -> bool:
    """Is it one strip, as narrow as its pieces are, or full?"""
    high = sum(pattern.high * number for pattern, number in chosen)
    widest = max(min(h for w, h, _ in k.ways() if w <= room.across) for k in kinds if k.number)
    area = sum(kind.area * kind.number for kind in kinds)
    return len(chosen) == 1 and high == max(widest, -(-area // room.across))


def cost_of(chosen: Iterable[tuple[Pattern, int]], price: Price) -> float:
    chosen = list(chosen)
    widths = len({pattern.high for pattern, _ in chosen})
    return sum(price.of(p) * n for p, n in chosen) + price.width * widths


def _better(
    in_turn: Chosen, solved: Chosen | None, price: Price, kinds: Sequence[Kind], most: int | None
) -> Chosen:
    if solved is None:
        return in_turn if most is None else _within(in_turn, most)
    if most is not None:
        in_turn = _within(in_turn, most)
        return max((solved, in_turn), key=lambda chosen: _area(chosen, kinds))
    return min((solved, in_turn), key=lambda chosen: cost_of(without_surplus(chosen, kinds), price))


def _within(chosen: Chosen, most: int) -> Chosen:
    """As many of the strips, widest first, as so much length gives."""
    kept: Chosen = []
    for pattern, times in sorted(chosen, key=lambda c: -c[0].high):
        number = min(times, most // pattern.high)
        if number:
            kept.append((pattern, number))
            most -= number * pattern.high
    return kept


def _area(chosen: Chosen, kinds: Sequence[Kind]) -> int:
    """The fabric in wanted pieces."""
    pieces = [0] * len(kinds)
    for pattern, times in chosen:
        for kind, number in pattern.counts().items():
            pieces[kind] += number * times
    return sum(min(n, kind.number) * kind.area for n, kind in zip(pieces, kinds, strict=True))
