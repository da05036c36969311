"""Where a part is split: along seams that run through it from edge to edge, parallel ones
together."""

from __future__ import annotations

from bisect import bisect_left
from collections import defaultdict
from collections.abc import Collection, Sequence

from inlet.core.assembly import Faces
from inlet.core.geometry import Line, Point, inside_point
from inlet.core.units.part_seams import PartSeams

ALL_WAYS = 12
"""Parts of up to this many patches have every direction of split tried, larger ones only the
straight-grain ones; keeps the search small where many seams cross."""


NEAR = 1e-7
"""Grid units: middles of patches nearer to a line than this are looked at twice."""


class Splitter:
    """The ways to split parts of one draft."""

    def __init__(self, seams: PartSeams) -> None:
        self.seams = seams
        self.sx, self.sy = seams.draft.block.scale
        arrangement, (sx, sy) = seams.draft.arrangement, (float(self.sx), float(self.sy))
        places = [(x * sx, y * sy) for x, y in arrangement.places]
        self.middle = [
            # Arcs are round in grid units; at finished size bands may make ellipses of them.
            inside_point(arrangement.outlines[patch.face]).scaled(self.sx, self.sy).floats()
            if patch.arcs
            else _mean([places[v] for v in arrangement.faces[patch.face].loop.corners])
            for patch in seams.draft.patches
        ]

    def ways(self, faces: Faces) -> list[list[int]]:
        """Sets of parallel seams to split a part along together, by their lines, best guess
        first."""
        by_slope: dict[object, list[int]] = defaultdict(list)
        for line in self.seams.chords(faces):
            by_slope[self.seams.slope[line]].append(line)
        ways = []
        for lines in by_slope.values():
            on_band = [line for line in lines if self.seams.on_band[line]]
            ways.append(on_band or lines)
        straight = [w for w in ways if self.seams.slope[w[0]] in (None, 0)]
        if straight:
            return sorted(straight, key=lambda w: self.seams.slope[w[0]] is None)
        ways.sort(key=lambda w: (-len(w), min(w)))
        return ways if len(faces) <= ALL_WAYS else ways[:1]

    def coarser(self, lines: Sequence[int], widths: Collection[int]) -> list[list[int]]:
        """Of parallel seams on lines of equal bands those that would be lines of coarser ones, of
        so many bands each, the coarsest first; none of those that leave no line out."""
        on = [band_line for line in lines if (band_line := self.seams.band_line[line]) is not None]
        if len(on) < max(2, len(lines)):
            return []
        bands = self.seams.bands[on[0].axis]
        if any(band != bands[0] for band in bands):
            return []
        groups: list[list[int]] = []
        for wide in sorted(widths, reverse=True):
            kept = [
                k for k, band_line in zip(lines, on, strict=True) if band_line.after % wide == 0
            ]
            if len(bands) % wide == 0 and 0 < len(kept) < len(lines) and kept not in groups:
                groups.append(kept)
        return groups

    def split(self, faces: Faces, lines: Sequence[int], curved: bool) -> list[Faces]:
        """The parts between parallel through seams, in order along ``across``; fewer than two
        where the part cannot be split there: seams a hair apart with no patch's middle between
        them, a patch so thin that floats do not tell on which side it lies, or a part ``curved`` at
        its edge, so that what lies beyond a line falls apart."""
        parts, sure = self._between(faces, lines)
        if len(parts) > 1 and (curved or not sure):
            inner, _ = self.seams.of(faces)
            kept = [k for k in inner if self.seams.edges[k].line not in lines]
            if set(self.seams.components(faces, kept)) != set(parts):
                return []
        return parts

    def across(self, line: int) -> Point:
        """A step square to a line at finished size, pointing down, or right for upright lines.
        a·x + b·y = c in grid units is (a/sx)·X + (b/sy)·Y = c in finished ones."""
        form = self._form(line)
        a, b = form.a / self.sx, form.b / self.sy
        return Point(a, b) if b > 0 or (b == 0 and a > 0) else Point(-a, -b)

    def _form(self, line: int) -> Line:
        form = self.seams.draft.arrangement.lines[line]
        assert isinstance(form, Line)  # circles run through nothing here
        return form

    def _between(self, faces: Faces, lines: Sequence[int]) -> tuple[list[Faces], bool]:
        """Each patch lies wholly between two of the lines, so its middle tells which; and whether
        no middle is too near to a line to tell."""
        across = self.across(lines[0]).floats()
        sx, sy = float(self.sx), float(self.sy)
        levels = []
        for line in lines:
            form = self._form(line)
            a, b, c = float(form.a) / sx, float(form.b) / sy, float(form.c)
            levels.append(c * (across[0] * a + across[1] * b) / (a * a + b * b))
        levels.sort()
        hair = NEAR * (abs(across[0]) + abs(across[1])) * float(max(self.sx, self.sy))
        bins: dict[int, set[int]] = defaultdict(set)
        sure = True
        for f in faces:
            x, y = self.middle[f]
            at = across[0] * x + across[1] * y
            i = bisect_left(levels, at)
            if (i and at - levels[i - 1] < hair) or (i < len(levels) and levels[i] - at < hair):
                sure = False
            bins[i].add(f)
        return [frozenset(bins[i]) for i in sorted(bins)], sure


def _mean(points: Sequence[tuple[float, float]]) -> tuple[float, float]:
    return (sum(x for x, _ in points) / len(points), sum(y for _, y in points) / len(points))
