"""Rows of parts: neighbouring plain bands taken together as units of strips."""

from __future__ import annotations

from functools import cached_property

from inlet.core.assembly.net import Faces
from inlet.core.assembly.shape import part_shape
from inlet.core.draft.patches import Draft
from inlet.core.geometry.point import Point
from inlet.core.units.cost import BreakdownCost, Solved
from inlet.core.units.kinds import name_unit
from inlet.core.units.parts import Part


class Rows:
    """The rows of one draft."""

    def __init__(self, draft: Draft) -> None:
        self.draft = draft
        self._likeness: dict[Faces, tuple[object, ...]] = {}

    def grouped(
        self, solved: list[Solved], across: Point
    ) -> tuple[tuple[Part, ...], BreakdownCost]:
        """Neighbouring bands in a row taken together as units of strips, fewest units in all.

        ``best[i]`` is the cheapest way to have the first i parts: the last unit of it is part i on
        its own, or a run of plain bands that ends with it.
        """
        band = [len(p.faces) == 1 and p.kind == "rectangle" for p, _ in solved]
        best: list[tuple[int, int]] = [(0, 0)]  # (units, where the last group starts)
        groups: dict[tuple[int, int], Part] = {}
        for i in range(1, len(solved) + 1):
            choice = (best[i - 1][0] + solved[i - 1][1].units, i - 1)
            j = i - 1
            while j > 0 and band[i - 1] and band[j - 1] and i - j < len(solved):
                j -= 1
                group = self._strips([p for p, _ in solved[j:i]], across)
                if group is None:
                    break
                groups[j, i] = group
                choice = min(choice, (best[j][0] + 1, j))
            best.append(choice)
        out: list[Part] = []
        i = len(solved)
        while i:
            j = best[i][1]
            out.append(groups[j, i] if i - j > 1 else solved[j][0])
            i = j
        costs = [c for _, c in solved]
        different = {self.likeness(p) for p, _ in solved}
        return tuple(reversed(out)), BreakdownCost(
            sum(c.stuck for c in costs),
            sum(c.awkward for c in costs),
            sum(c.odd for c in costs),
            best[-1][0],
            len(different),
        )

    def likeness(self, part: Part) -> tuple[object, ...]:
        """A quick key, the same for parts that are the same piece of work, cloth for cloth; for
        some that are not, too."""
        found = self._likeness.get(part.faces)
        if found is None:
            boxes = [self.boxes[f] for f in part.faces]
            lefts, tops, rights, bottoms = zip(*boxes, strict=True)
            wide, high = max(rights) - min(lefts), max(bottoms) - min(tops)
            looks = sorted(self.looks[f] for f in part.faces)
            found = (*sorted((round(wide, 6), round(high, 6))), *looks)
            self._likeness[part.faces] = found
        return found

    @cached_property
    def boxes(self) -> list[tuple[float, float, float, float]]:
        """Of each patch its left, top, right and bottom."""
        places = self.draft.arrangement.places
        sx, sy = (float(x) for x in self.draft.block.scale)
        out = []
        for face in self.draft.arrangement.faces:
            xs, ys = zip(*(places[v] for v in face.loop.corners), strict=True)
            out.append((min(xs) * sx, min(ys) * sy, max(xs) * sx, max(ys) * sy))
        return out

    @cached_property
    def looks(self) -> list[int]:
        """A number for each patch, the same for those of one cloth, as many corners and a box of
        one area."""
        known: dict[tuple[str | None, int, float], int] = {}
        out = []
        for patch, (left, top, right, bottom) in zip(self.draft.patches, self.boxes, strict=True):
            area = round((right - left) * (bottom - top), 6)
            look = patch.fabric, len(patch.outline), area
            out.append(known.setdefault(look, len(known)))
        return out

    def _strips(self, parts: list[Part], across: Point) -> Part | None:
        """Plain bands side by side as one unit of strips, if that is what they are."""
        faces = frozenset(f for p in parts for f in p.faces)
        outline = part_shape(self.draft, faces).corners
        outlines = [p.outline for p in parts]
        cloths = [self.draft.patches[p.face].fabric for p in parts]
        if name_unit(outline, outlines, cloths) != "strips":
            return None
        return Part(faces, outline, "strips", tuple(parts), across)
