"""A block sewn once by other means: outlines of fabric as polygons, stitch lines drawn on them, the
parts laid on one another by a search. Shares no code with what is tested."""

from __future__ import annotations

from itertools import pairwise
from math import cos, hypot, sin

import numpy as np
from scipy.optimize import least_squares
from shapely import LineString

from inlet.core.assembly import all_joins, faces_of
from inlet.core.draft import points_of


class Cloth:
    """One piece: the line of each of its edges, moved ``out`` from its finished edge, in the place
    the piece lies now."""

    def __init__(self, outline, out):
        self.outline = outline  # the edges round it: (edge, vertex, vertex, place, place, centre)
        self.out = dict(out)
        self.turned, self.by = 0.0, (0.0, 0.0)

    def sew(self, edge, takes):
        self.out[edge] -= takes

    def _line(self, edge):
        """An edge moved out, as a long line or a large arc of many chords."""
        _, _, _, p, q, centre = edge
        out = self.out[edge[0]]
        if centre is None:
            long = hypot(q[0] - p[0], q[1] - p[1])
            dx, dy = (q[0] - p[0]) / long, (q[1] - p[1]) / long
            x, y = p[0] + dy * out, p[1] - dx * out
            return LineString(
                [(x - 9 * dx, y - 9 * dy), (x + (long + 9) * dx, y + (long + 9) * dy)]
            )
        a, b = (np.arctan2(w[1] - centre[1], w[0] - centre[0]) for w in (p, q))
        turn = (b - a + np.pi) % (2 * np.pi) - np.pi
        far = hypot(p[0] - centre[0], p[1] - centre[1])
        radius = far + (out if turn > 0 else -out)
        angles = np.linspace(a - 0.2 * np.sign(turn), a + turn + 0.2 * np.sign(turn), 4000)
        return LineString(
            np.stack([centre[0] + radius * np.cos(angles), centre[1] + radius * np.sin(angles)], 1)
        )

    def corner(self, vertex):
        """Where its stitch lines meet at a vertex, as it lies now."""
        before = next(e for e in self.outline if e[2] == vertex)
        after = next(e for e in self.outline if e[1] == vertex)
        drawn = after[3]
        if self._needle(before, after):
            x, y = self._normal(before, 1), self._normal(after, 0)
            out = np.multiply(x, self.out[before[0]] / 2) + np.multiply(y, self.out[after[0]] / 2)
            at = np.add(drawn, out)
        else:
            met = self._line(before).intersection(self._line(after))
            spots = [g.coords[0] for g in getattr(met, "geoms", [met]) if not g.is_empty]
            at = min(spots, key=lambda s: hypot(s[0] - drawn[0], s[1] - drawn[1]))
        return self.placed(at)

    def _needle(self, before, after):
        one, other = self._normal(before, 1), self._normal(after, 0)
        return abs(one[0] * other[1] - one[1] * other[0]) < 0.08

    @staticmethod
    def _normal(edge, end):
        """Outward, to the left of the way round, at the start (0) or end (1) of an edge."""
        _, _, _, p, q, centre = edge
        if centre is None:
            return np.array([q[1] - p[1], p[0] - q[0]]) / hypot(q[0] - p[0], q[1] - p[1])
        at = np.subtract((p, q)[end], centre)
        turn = (p[0] - centre[0]) * (q[1] - centre[1]) - (p[1] - centre[1]) * (q[0] - centre[0])
        return at / hypot(*at) * np.sign(turn)

    def matched(self, edge, vertex, more):
        """The end of an edge as the raw edges are laid together, as far in as the seam takes."""
        along = next(e for e in self.outline if e[0] == edge)
        x, y = -more * self._normal(along, 0 if vertex == along[1] else 1)
        c, s = cos(self.turned), sin(self.turned)
        u, v = self.corner(vertex)
        return u + c * x - s * y, v + s * x + c * y

    def middle(self, edge, more):
        """The middle of an arc, as far in; None of a straight edge."""
        along = next(e for e in self.outline if e[0] == edge)
        _, _, _, p, q, centre = along
        if centre is None:
            return None
        a, b = (np.arctan2(w[1] - centre[1], w[0] - centre[0]) for w in (p, q))
        turn = (b - a + np.pi) % (2 * np.pi) - np.pi
        out = (self.out[edge] - more) * np.sign(turn)
        far = hypot(p[0] - centre[0], p[1] - centre[1]) + out
        angle = a + turn / 2
        return self.placed((centre[0] + far * cos(angle), centre[1] + far * sin(angle)))

    def placed(self, at):
        c, s = cos(self.turned), sin(self.turned)
        return (c * at[0] - s * at[1] + self.by[0], s * at[0] + c * at[1] + self.by[1])

    def move(self, turn, x, y):
        c, s = cos(turn), sin(turn)
        self.turned += turn
        self.by = (c * self.by[0] - s * self.by[1] + x, s * self.by[0] + c * self.by[1] + y)


def cloths_of(draft, out):
    """The pieces of a drawing; ``out`` by (piece, edge)."""
    arrangement, places = draft.arrangement, [p.floats() for p in points_of(draft)]
    sx, sy = map(float, draft.block.scale)
    cloths = []
    for face in range(len(draft.patches)):
        ring = arrangement.faces[face].ring
        outline = []
        for u, v in pairwise([*ring, ring[0]]):
            k = next(
                k
                for k in arrangement.edges_of[face]
                for edge in [arrangement.edges[k]]
                if edge[:2] == ((u, v) if edge.right == face else (v, u))
            )
            centre = getattr(arrangement.lines[arrangement.edges[k].line], "centre", None)
            if centre is not None:
                centre = tuple(np.multiply(centre.floats(), (sx, sy)))
            outline.append((k, u, v, places[u], places[v], centre))
        cloths.append(Cloth(outline, {e[0]: out[face, e[0]] for e in outline}))
    return cloths


def sew(draft, last, out, takes):
    """The pieces where they lie once all is sewn, each seam taking so much more than planned."""
    cloths = cloths_of(draft, out)
    edges, places = draft.arrangement.edges, [p.floats() for p in points_of(draft)]
    for join, more in zip(all_joins(last), takes, strict=True):
        here, there, weights = [], [], []
        for k in join.edges:
            one, other = edges[k].right, edges[k].left
            if one not in faces_of(join.sides[0]):
                one, other = other, one
            p, q = (places[v] for v in edges[k][:2])
            for vertex in edges[k][:2]:
                here.append(cloths[one].matched(k, vertex, more))
                there.append(cloths[other].matched(k, vertex, more))
                weights.append(hypot(p[0] - q[0], p[1] - q[1]))
            if cloths[one].middle(k, more) is not None:
                here.append(cloths[one].middle(k, more))
                there.append(cloths[other].middle(k, more))
                weights[-2:] = [weights[-1] / 3] * 2
                weights.append(weights[-1] * 4)
        for k in join.edges:
            cloths[edges[k].right].sew(k, more)
            cloths[edges[k].left].sew(k, more)
        turn, x, y = laid(np.array(here), np.array(there), np.array(weights))
        for face in faces_of(join.sides[1]):
            cloths[face].move(turn, x, y)
    return cloths


def laid(here, there, weights):
    """The motion under which places lie as near to others as can be, by a search."""

    def distances(motion):
        turn, x, y = motion
        c, s = cos(turn), sin(turn)
        moved = np.stack(
            [c * there[:, 0] - s * there[:, 1] + x, s * there[:, 0] + c * there[:, 1] + y], 1
        )
        return (np.sqrt(weights)[:, None] * (moved - here)).ravel()

    return least_squares(distances, (0, 0, 0), method="lm", xtol=1e-14, ftol=1e-14).x
