"""Rows of parts: neighbouring plain bands taken together as units of strips."""

from __future__ import annotations

from functools import cached_property

from inlet.core.assembly import Faces, part_shape
from inlet.core.draft import Draft
from inlet.core.geometry import Line, Point
from inlet.core.units.cost import BreakdownCost, Solved
from inlet.core.units.kinds import name_unit
from inlet.core.units.parts import Part, tiling


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
        parts: list[Part] = []
        i = len(solved)
        while i:
            j = best[i][1]
            parts.append(groups[j, i] if i - j > 1 else solved[j][0])
            i = j
        costs = [c for _, c in solved]
        different = {self.likeness(p.faces) for p, _ in solved}
        return tuple(reversed(parts)), BreakdownCost(
            sum(c.stuck for c in costs),
            sum(c.awkward for c in costs),
            sum(c.odd for c in costs),
            best[-1][0],
            len(different),
        )

    def units(self, part: Part) -> tuple[int, int]:
        """How many different units a part is made of, and how many in all."""
        units = list(tiling(part))
        return len({self._lie(unit.faces) for unit in units}), len(units)

    def _lie(self, faces: Faces) -> frozenset[tuple[float, float, int]]:
        """How patches lie to one another, fabric for fabric, in this turn."""
        left = min(self.boxes[f][0] for f in faces)
        top = min(self.boxes[f][1] for f in faces)
        return frozenset(
            (round(self.boxes[f][0] - left, 6), round(self.boxes[f][1] - top, 6), self.looks[f])
            for f in faces
        )

    def levels(self, part: Faces, line: int) -> frozenset[tuple[float, float]]:
        """Where the patches of a part begin and end, along a line."""
        form = self.draft.arrangement.lines[line]
        upright = isinstance(form, Line) and form.b == 0
        first, last = (1, 3) if upright else (0, 2)
        return frozenset(
            (round(self.boxes[f][first], 6), round(self.boxes[f][last], 6)) for f in part
        )

    def likeness(self, faces: Faces) -> tuple[object, ...]:
        """A quick key, the same for parts that are the same piece of work, fabric for fabric; for
        some that are not, too."""
        key = self._likeness.get(faces)
        if key is None:
            boxes = [self.boxes[f] for f in faces]
            lefts, tops, rights, bottoms = zip(*boxes, strict=True)
            wide, high = max(rights) - min(lefts), max(bottoms) - min(tops)
            looks = sorted(self.looks[f] for f in faces)
            key = (*sorted((round(wide, 6), round(high, 6))), *looks)
            self._likeness[faces] = key
        return key

    def pattern(self, faces: Faces, turned_only: bool = False) -> list[float]:
        """How patches lie to one another, the same in every turn and mirrored, or in every turn."""
        boxes = [self.boxes[f] for f in faces]
        lefts, tops, rights, bottoms = zip(*boxes, strict=True)
        left, top, right, bottom = min(lefts), min(tops), max(rights), max(bottoms)
        patches = [  # how far from the left or from the right; from above or from below; the look
            (
                ((round(x0 - left, 6), round(x1 - left, 6)),
                 (round(right - x1, 6), round(right - x0, 6))),
                ((round(y0 - top, 6), round(y1 - top, 6)),
                 (round(bottom - y1, 6), round(bottom - y0, 6))),
                float(self.looks[f]),
            )
            for f, (x0, y0, x1, y1) in zip(faces, boxes, strict=True)
        ]  # fmt: skip
        ways: list[list[tuple[float, ...]]] = []
        for flipped in (False, True):
            for down in (False, True):
                for across in (False, True):
                    if turned_only and (flipped + down + across) % 2:
                        continue  # an odd number of reflections mirrors it
                    way: list[tuple[float, ...]] = []
                    for from_sides, from_ends, look in patches:
                        x, u = from_sides[across]
                        y, v = from_ends[down]
                        way.append((y, x, v, u, look) if flipped else (x, y, u, v, look))
                    ways.append(sorted(way))
        least = min(ways)
        return [number for patch in least for number in patch]

    @cached_property
    def boxes(self) -> list[tuple[float, float, float, float]]:
        """Of each patch its left, top, right and bottom."""
        places = self.draft.arrangement.places
        sx, sy = (float(x) for x in self.draft.block.scale)
        boxes = []
        for face in self.draft.arrangement.faces:
            xs, ys = zip(*(places[v] for v in face.loop.corners), strict=True)
            boxes.append((min(xs) * sx, min(ys) * sy, max(xs) * sx, max(ys) * sy))
        return boxes

    @cached_property
    def is_box(self) -> list[bool]:
        """Whether each patch is a rectangle that lies square to the block."""
        faces, boxes = self.draft.arrangement.faces, self.boxes
        places = self.draft.arrangement.places
        sx, sy = (float(x) for x in self.draft.block.scale)
        flags = []
        for face, (left, top, right, bottom) in zip(faces, boxes, strict=True):
            corners = [places[v] for v in face.loop.corners]
            straight = not any(face.loop.centres) and not face.holes and len(corners) == 4
            flags.append(
                straight
                and all(
                    min(abs(x * sx - left), abs(x * sx - right)) < 1e-9
                    and min(abs(y * sy - top), abs(y * sy - bottom)) < 1e-9
                    for x, y in corners
                )
            )
        return flags

    @cached_property
    def looks(self) -> list[int]:
        """A number for each patch, the same for those of one fabric, as many corners and a box of
        one area; whichever way the block is turned."""
        looks = [
            (patch.fabric or "", len(patch.outline), round((right - left) * (bottom - top), 6))
            for patch, (left, top, right, bottom) in zip(
                self.draft.patches, self.boxes, strict=True
            )
        ]
        number = {look: i for i, look in enumerate(sorted(set(looks)))}
        return [number[look] for look in looks]

    def _strips(self, parts: list[Part], across: Point) -> Part | None:
        """Plain bands side by side as one unit of strips, if that is what they are."""
        faces = frozenset(f for p in parts for f in p.faces)
        outline = part_shape(self.draft, faces).corners
        outlines = [p.outline for p in parts]
        fabrics = [self.draft.patches[p.face].fabric for p in parts]
        if name_unit(outline, outlines, fabrics) != "strips":
            return None
        return Part(faces, outline, "strips", tuple(parts), across)
