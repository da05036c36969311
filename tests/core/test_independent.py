"""Plans checked by another way than they were made: by polygons of floats."""

from __future__ import annotations

import inspect
import json
import math
import sys
from itertools import pairwise

import pytest
import shapely
import shapely.affinity
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from inlet.core.cutlist.strip_sets import project_sets
from inlet.core.draft.symmetry import turned
from inlet.core.methods.catalogue import methods_for
from inlet.core.methods.method import every_piece
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block, straight
from inlet.files.project.project_json import load
from inlet.files.text.json_text import json_text
from inlet.files.text.plan_json import plan_dict
from inlet.ui.shell.app import DEMO
from tests.blocks import (
    allowances,
    block_of,
    in_fabrics,
    lengths,
    project_of,
    through_blocks,
    turns,
    unit_blocks,
)
from tests.core.assembly.corpus import corpus
from tests.core.methods.test_catalogue import TRAY, unit_of
from tests.sample import many, sampled

CORPUS = corpus()
LARGEST = 2**45
"""Integers up to here are exact in the floats of polygons, with room for products' signs."""


def value(text: str) -> float:
    """A number of a plan, read by hand: ``7/2+1/4√2``."""
    if "√2" not in text:
        return float(F(text))
    head = text[: -len("√2")]
    cut = max(head.rfind("+"), head.rfind("-"))
    factor = head[cut:] if cut >= 0 else head
    rest = head[:cut] if cut > 0 else ""
    factor = {"": "1", "+": "1", "-": "-1"}.get(factor, factor)
    return (value(rest) if rest else 0.0) + value(factor.removeprefix("+")) * math.sqrt(2)


def polygons(plan: dict) -> tuple[dict[str, shapely.Polygon], int]:
    """The patches, enlarged until every coordinate is an integer, and by how much; as they are
    where arcs are about, those in chords."""
    texts = [n for p in plan["patches"] for corner in p["outline"] for n in corner]
    if any(p["arcs"] for p in plan["patches"]) or any("√" in n for n in texts):
        met = {(value(x), value(y)) for p in plan["patches"] for x, y in p["outline"]}
        return {p["id"]: chorded(p, met) for p in plan["patches"]}, 1
    numbers = [F(n) for n in texts]
    scale = math.lcm(*(n.denominator for n in numbers))
    if max(numbers) * scale >= LARGEST:
        assume(False)
    return {
        p["id"]: shapely.Polygon([(int(F(x) * scale), int(F(y) * scale)) for x, y in p["outline"]])
        for p in plan["patches"]
    }, scale


def chorded(patch: dict, met) -> shapely.Polygon:
    """A patch with its arcs in chords, cut at whole degrees and where seams meet, so that both
    sides of a seam have the same ones."""
    corners = [(value(x), value(y)) for x, y in patch["outline"]]
    arcs = {a["edge"]: tuple(map(value, a["centre"])) for a in patch["arcs"]}
    out = []
    for i, p in enumerate(corners):
        out.append(p)
        if i in arcs:
            out += between(p, corners[(i + 1) % len(corners)], arcs[i], met)
    return shapely.set_precision(shapely.Polygon(out), GRID)


GRID = 1e-7
STEP = math.pi / 180


def between(p, q, c, met):
    """Places on the short arc from p to q about c."""
    begin, end = (math.atan2(y - c[1], x - c[0]) for x, y in (p, q))
    turn = (end - begin + math.pi) % (2 * math.pi) - math.pi
    radius = math.dist(p, c)
    first, last = sorted((begin, begin + turn))
    angles = [k * STEP for k in range(math.ceil(first / STEP), math.floor(last / STEP) + 1)]
    for x, y in met:
        if abs(math.dist((x, y), c) - radius) < 1e-9:
            at = math.atan2(y - c[1], x - c[0])
            angles += [at + k * 2 * math.pi for k in (-1, 0, 1)]
    angles = sorted(a for a in angles if min(a - first, last - a) > 1e-4)
    if turn < 0:
        angles.reverse()
    return [(c[0] + radius * math.cos(a), c[1] + radius * math.sin(a)) for a in angles]


def bends(line: shapely.LineString, rough: bool) -> list[tuple[float, float]]:
    """Where a line turns a corner; of a chorded arc, by more than its chords do."""
    out = []
    coords = list(line.coords)
    for p, q, r in zip(coords, coords[1:], coords[2:], strict=False):
        one = math.atan2(q[1] - p[1], q[0] - p[0])
        two = math.atan2(r[1] - q[1], r[0] - q[0])
        turn = abs((two - one + math.pi) % (2 * math.pi) - math.pi)
        if turn > (2.5 * STEP if rough else 1e-9):
            out.append(q)
    return out


def replay(node, patches, rough=False, open_ends=None) -> shapely.Polygon:
    """Sew a tree of joins: each time two pieces of fabric that share one stretch of edge, all of
    it, and leave one piece without a hole. Where the stretch turns a corner, that is a pivot, or
    the end of a seam that was left open before and goes straight on here."""
    open_ends = {} if open_ends is None else open_ends
    if isinstance(node, str):
        return patches[node]
    one, two = (replay(part, patches, rough, open_ends) for part in node["parts"])
    shared = one.intersection(two, grid_size=GRID) if rough else one.intersection(two)
    assert shared.area < (1e-6 if rough else 1e-300)
    if shared.geom_type == "GeometryCollection":
        shared = shapely.MultiLineString([g for g in shared.geoms if g.length])
    seam = shapely.line_merge(shared) if shared.geom_type == "MultiLineString" else shared
    assert seam.geom_type == "LineString"
    corners = bends(seam, rough)
    finished = open_ends.pop(node["id"], [])
    for end, before in finished:
        near = [c for c in corners if math.dist(c, end) < 1e-5]
        assert len(near) == 1
        corners.remove(near[0])
        assert any(abs(cross(before, end, far)) < 1e-4 for far in beside(seam, near[0])) or rough
    assert len(corners) == node["pivots"]
    if node["seam"] in ("straight", "partial"):
        assert not corners
    ends = [seam.coords[0], seam.coords[-1]]
    if "finished_by" in node:
        for x, y in node["left_open"]:
            left = min(
                ends,
                key=lambda e: math.dist(
                    e, (value(x) * patches["scale"], value(y) * patches["scale"])
                ),
            )
            before = seam.coords[1] if left == ends[0] else seam.coords[-2]
            for_ = node["finished_by"]
            open_ends.setdefault(for_, []).append((left, before))
    sewn = one.union(two, grid_size=GRID) if rough else one.union(two)
    assert sewn.geom_type == "Polygon"
    # A notch whose two sides come to one point is open there, as nothing is sewn at it.
    assert all(ring.distance(sewn.exterior) < 1e-5 for ring in sewn.interiors)
    return sewn


def beside(seam, corner):
    coords = list(seam.coords)
    i = coords.index(corner)
    return [coords[i - 1], coords[i + 1]]


def cross(a, b, c):
    u, v = (b[0] - a[0], b[1] - a[1]), (c[0] - b[0], c[1] - b[1])
    return (u[0] * v[1] - u[1] * v[0]) / (math.hypot(*u) * math.hypot(*v))


def joins(node) -> list[str]:
    """Ids of the joins, inner ones first."""
    if isinstance(node, str):
        return []
    return [*(j for part in node["parts"] for j in joins(part)), node["id"]]


def nodes(node):
    if isinstance(node, dict):
        for part in node["parts"]:
            yield from nodes(part)
        yield node


def verify(plan: dict) -> None:
    patches, scale = polygons(plan)
    width, height = (value(n) for n in plan["block"]["finished"])
    total = sum(p.area for p in patches.values())
    assert total == pytest.approx(width * height * scale * scale, rel=1e-3)
    if plan["assembly"] is not None:
        rough = any(p["arcs"] for p in plan["patches"]) or "√" in json.dumps(plan["patches"])
        open_ends: dict = {}
        sewn = replay(plan["assembly"], {**patches, "scale": scale}, rough, open_ends)
        assert not open_ends
        whole = shapely.box(0, 0, width * scale, height * scale)
        assert sewn.symmetric_difference(whole).area < (1e-3 if rough else 1e-300)
        count = plan["seams"]
        kinds = [node["seam"] for node in nodes(plan["assembly"])]
        for kind in ("straight", "partial", "set-in", "curve"):
            assert kinds.count(kind) == count[kind.replace("-", "_")]
        ids = joins(plan["assembly"])
        assert ids == [f"j{i + 1}" for i in range(len(patches) - 1)]
    copies = plan["copies"]
    in_units = 0.0
    for unit in plan["units"]:
        a, b = (value(n) for n in unit["finished"])
        if unit["kind"] != "other":
            in_units += a * b * unit["count"]
        for n, u in zip(unit["finished"], unit["unfinished"], strict=True):
            assert value(u) == pytest.approx(value(n) + 0.5)
        for method in unit["methods"]:
            assert method["surplus"] == method["runs"] * method["makes"] - unit["count"] >= 0
            verify_fabric(unit, method, a * b)
    if all(unit["kind"] != "other" for unit in plan["units"]):
        assert in_units == pytest.approx(width * height * copies)
    for fabric in plan["fabric"]:
        strips = sum(value(s) for s in fabric["strips"])
        squared = value(fabric["length"]) - strips  # of each length, every four strips
        lengths = [
            sum(stroke["what"] == "strip" for line in laid["cuts"] for stroke in line["strokes"])
            for laid in plan["cutting"]
            if (laid["fabric"], laid["from"]) == (fabric["fabric"], "new")
        ]
        assert sum(lengths) == len(fabric["strips"])
        assert squared == pytest.approx(0.5 * sum(-(-number // 4) for number in lengths))
        assert value(fabric["yards"]) * 36 >= strips - 1e-9
        assert 0 < fabric["used"] <= 1


def verify_fabric(unit: dict, method: dict, finished: float) -> None:
    """No method makes units of less fabric than shows in them, what is nested in them aside: that
    is cut for itself."""
    for inner in unit["inside"]:
        a, b = (value(n) for n in inner["finished"])
        finished -= a * b * inner["count"] / unit["count"]
    if method["made_with"]:
        assert method["pieces"] == []
        return
    area = 0.0
    for piece in method["pieces"]:
        w, h = (value(n) for n in piece["exact"])
        taken = piece.get("spare", 0) / {"once": 2, "twice": 4}.get(piece["crosscut"], 1)
        area += w * h * (piece["count"] + taken)  # triangles of squares cut for others
    if unit["kind"] != "other":
        assert area > finished * unit["count"]


@given(through_blocks(most=9), st.integers(1, 4))
@settings(max_examples=many(15, 100))
def test_joins_replayed_by_polygons_give_the_block(block, copies):
    plan = plan_block(project_of(block), block, copies)
    verify(json.loads(json.dumps(plan_dict(plan))))


@given(unit_blocks(), turns)
@settings(max_examples=many(8, 100))
def test_blocks_of_units_too_in_any_turn(block, turn):
    block = turned(block, turn)
    verify(json.loads(json.dumps(plan_dict(plan_block(project_of(block), block)))))


@pytest.mark.parametrize("name", sampled([name for name, *_ in CORPUS], 2))
def test_awkward_seams_replayed_by_polygons(name):
    block = next(block for known, block, *_ in CORPUS if known == name)
    plan = plan_block(project_of(block), block)
    verify(json.loads(json.dumps(plan_dict(plan))))


@pytest.mark.parametrize("name", sampled([b.id for b in load(DEMO).blocks], 2))
def test_the_demo(name):
    project = load(DEMO)
    plan = plan_dict(plan_block(project, project.block(name), 30))
    assert plan["resewn"]
    told = json.loads(json.dumps(plan))
    if "made_from" not in told:
        verify(told)
        return
    (start,) = told["made_from"]
    verify({**told, **start, "units": told["units"]})
    verify_slices(told, start)


def verify_slices(plan: dict, start: dict) -> None:
    """Each slice clipped from its start block's patches, turned and laid in its place, is what the
    plan says it shows; sewn by its joins the slices are the block."""
    slices, seam = plan["slices"], 0.25
    sides = []
    for axis, cuts in enumerate((slices["upright"], slices["level"])):
        whole = value(start["block"]["unfinished"][axis])
        at = [0.0, *(whole / 2 + value(cut) for cut in cuts), whole]
        sides.append([(low, high - 2 * seam) for low, high in pairwise(at)])
    fabric_of = {p["id"]: p["fabric"] for p in start["patches"]}
    patches, _ = polygons({**start, "scale": 1})
    big = polygons(start)[1]
    boxes, laid, tops = {}, {}, 0.0
    for row in range(len(sides[1])):
        lefts, high = 0.0, 0.0
        for column in range(len(sides[0])):
            piece = slices["pieces"][row * len(sides[0]) + column]
            wide, high = (value(n) for n in piece["finished"])
            if piece["turn"] % 180:
                wide, high = high, wide
            k = piece["piece"] - 1
            (x0, x1), (y0, y1) = sides[0][k % len(sides[0])], sides[1][k // len(sides[0])]
            kept = shapely.box(x0 * big, y0 * big, x1 * big, y1 * big)
            place = shapely.box(lefts, tops, lefts + wide, tops + high)
            boxes[f"piece {piece['piece']}"] = place
            for name, patch in patches.items():
                part = shapely.affinity.scale(patch.intersection(kept), 1 / big, 1 / big,
                                              origin=(0, 0))  # fmt: skip
                middle = (x0 + x1) / 2, (y0 + y1) / 2
                part = shapely.affinity.rotate(part, piece["turn"], middle)
                part = shapely.affinity.translate(
                    part, lefts + wide / 2 - middle[0], tops + high / 2 - middle[1]
                )
                laid.setdefault(fabric_of[name], []).append(part)
            lefts += wide
        tops += high
    shown, scale = polygons(plan)
    fabrics = {p["id"]: p["fabric"] for p in plan["patches"]}
    for fabric, parts in laid.items():
        seen = [shapely.affinity.scale(p, 1 / scale, 1 / scale, origin=(0, 0))
                for name, p in shown.items() if fabrics[name] == fabric]  # fmt: skip
        difference = shapely.unary_union(parts).symmetric_difference(shapely.unary_union(seen))
        assert difference.area < 1e-6
    sewn = replay(plan["assembly"], {**boxes, "scale": 1}, True)
    width, height = (value(n) for n in plan["block"]["finished"])
    assert sewn.symmetric_difference(shapely.box(0, 0, width, height)).area < 1e-6
    assert sum(plan["seams"][kind] for kind in ("straight", "partial", "set_in", "curve")) == (
        len(slices["pieces"]) - 1
    )


def test_rounds_nest_as_deep_as_they_like():
    """Strips round a centre: each join inside the next, deeper than Python usually goes."""
    rounds, low, high, drawn = 110, 0, 280, []
    left, top, right, bottom = F(low), F(low), F(high), F(high)
    for k in range(rounds):
        if k % 4 == 0:
            top += 1
            drawn.append(straight((left, top), (right, top)))
        elif k % 4 == 1:
            right -= 1
            drawn.append(straight((right, top), (right, bottom)))
        elif k % 4 == 2:
            bottom -= 1
            drawn.append(straight((left, bottom), (right, bottom)))
        else:
            left += 1
            drawn.append(straight((left, top), (left, bottom)))
    block = Block(
        id="cabin", finished=(F(70), F(70)), columns=(F(280),), rows=(F(280),), seams=tuple(drawn)
    )
    block = in_fabrics(block, "ab")
    usual = sys.getrecursionlimit()
    sys.setrecursionlimit(len(inspect.stack(0)) + 150)
    try:
        plan = plan_block(project_of(block), block)
    finally:
        sys.setrecursionlimit(usual)
    assert plan.resewn
    text = json_text(plan_dict(plan))
    assert text.count('"seam": "straight"') == rounds
    assert '"parts": [{"id"' in text
    assert project_sets(project_of(block), 1) == ()


def shapes_of(sheet) -> list[shapely.Polygon]:
    return [shapely.Polygon([p.floats() for p in outline]) for outline, _ in sheet]


@given(
    st.sampled_from(["half-square-triangle", "quarter-square-triangle", "three-triangle",
                     "flying-geese", "square-in-square", "corner-triangle", "four-patch",
                     "nine-patch"]),
    lengths, allowances, turns,
)  # fmt: skip
@settings(max_examples=40, deadline=None)
def test_units_come_off_the_table_whole(kind, size, seam, turn):
    """Products as floats: patches that fill a square or rectangle of the unfinished size, none over
    another, and together no more fabric than was cut."""
    tray_unit = TRAY[kind]
    unit = unit_of(kind, [size * tray_unit.size[0] / tray_unit.size[1], size], "abca", turn)
    for method in methods_for(unit, seam):
        cut = sum(
            float(p.exact[0] * p.exact[1]) * p.quantity / p.runs
            / {"once": 2, "twice": 4}.get(p.crosscut, 1)
            for p in every_piece(method, seam)
        )  # fmt: skip
        made = 0.0
        for sheet in method.products:
            patches = shapes_of(sheet)
            whole = shapely.unary_union(patches)
            area = sum(p.area for p in patches)
            a, b = (float(x + 2 * seam) for x in unit.size)
            assert area == pytest.approx(a * b)
            assert whole.area == pytest.approx(area)
            assert shapely.minimum_rotated_rectangle(whole).area == pytest.approx(area)
            made += area
        # seams take fabric too, so what is made shows less than was cut
        assert made < cut or not method.products


@given(
    st.sampled_from(["half-square-triangle", "quarter-square-triangle", "flying-geese"]), lengths
)
@settings(max_examples=20, deadline=None)
def test_every_line_of_a_move_lies_on_its_fabric(kind, size):
    """Nothing is marked, sewn or cut beside the fabric of its picture."""
    tray_unit = TRAY[kind]
    unit = unit_of(kind, [size * tray_unit.size[0] / tray_unit.size[1], size], "abca")
    for method in methods_for(unit, F(1, 4)):
        for move in method.moves:
            fabric = shapely.unary_union(shapes_of((*move.lower, *move.upper))).buffer(1e-9)
            for line in move.lines:
                drawn = shapely.LineString([line.start.floats(), line.end.floats()])
                assert fabric.contains(drawn), (method.name, move.text)


def test_methods_compared_and_units_nested_in_the_plan():
    on_point = "1/2 0 1 1/2 / 1 1/2 1/2 1 / 1/2 1 0 1/2 / 0 1/2 1/2 0"
    block = block_of(f"{on_point} / 3/4 1/4 1/4 3/4 / 1/4 1/4 3/4 3/4", size=(8, 8), fabrics="abc")
    plan = json.loads(json.dumps(plan_dict(plan_block(project_of(block), block, 3))))
    (unit,) = plan["units"]
    assert (unit["kind"], unit["count"]) == ("square-in-square", 3)
    (inner,) = unit["inside"]
    assert (inner["kind"], inner["count"]) == ("four-patch", 3)
    assert {m["name"] for m in inner["methods"]} == {"plain", "strip-set"}
    for found in (unit, inner):
        assert found["recommended"]["name"] in {m["name"] for m in found["methods"]}
        for method in found["methods"]:
            told = method["compare"]
            assert told["minutes"] > 0
            assert 0 <= told["wasted"] <= told["cloth"]
            assert method["surplus"] == method["runs"] * method["makes"] - found["count"]
    labels = [c["label"] for c in plan["cuts"]]
    assert len(labels) == len(set(labels))
    assert inner["method"] == "strip-set"  # as advised
    assert [{*one["for"]} for one in plan["strip_sets"]] == [{inner["label"]}]
