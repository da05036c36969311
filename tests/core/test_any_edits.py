"""Whatever is done to a block, in whatever order, it tiles, plans, saves and reads back."""

from __future__ import annotations

import random
from contextlib import suppress

from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.draft.compass import quarter_arc, swing, with_marks
from inlet.core.draft.edit import add_seams, erase_pieces, paint_all
from inlet.core.draft.patches import draft
from inlet.core.draft.regrid import has_square_unit, insert_band, remove_band, with_square_unit
from inlet.core.draft.snapping import grid_lines
from inlet.core.draft.symmetry import SYMMETRIES, group_of, repeated, turned
from inlet.core.draft.tray import Box, drop_repeated, tray_units, turned_unit
from inlet.core.geometry.curve import Curve
from inlet.core.geometry.outline import outline_area
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.project.block import Block, seam_along
from inlet.core.project.value import replace
from inlet.files.drawings.svg import block_svg
from inlet.files.drawings.svg_import import read_svg
from inlet.files.project.project_json import dumps, loads
from inlet.files.text.plan_json import plan_dict
from tests.blocks import project_of
from tests.sample import many

EDITS = ["seam", "arc", "drop", "erase", "turn", "insert", "remove", "swing", "paint"]


def one_edit(block: Block, chance: random.Random) -> Block:
    """Something a maker may do next: draw to any point there is, drop, turn, erase, carry, ..."""
    now = draft(block)
    n = len(block.columns)
    points = [*now.arrangement.points, *(Point(*m) for m in block.marks)]
    points += [Point(F(chance.randint(0, 2 * n), 2), F(chance.randint(0, 2 * n), 2))] * 2
    p, q = chance.choice(points), chance.choice(points)
    group = group_of(chance.sample([s.key for s in SYMMETRIES], chance.randint(0, 2)))
    what = chance.choice(["seam", "arc", *EDITS])  # drawing twice as often
    if what in ("seam", "arc") and p != q:
        if what == "arc":
            block = with_square_unit(block)
            p, q = chance.sample(draft(block).arrangement.points, 2)
        if what == "seam" or (has_square_unit(block) and p != q):
            curve = Curve(p, q) if what == "seam" else quarter_arc(p, q, chance.random() < 0.5)
            block = add_seams(block, (seam_along(c) for c in repeated(block, group, [curve])))
    elif what == "drop":
        tray_unit = turned_unit(
            chance.choice(tray_units()), (chance.randint(0, 3), chance.random() < 0.5)
        )
        xs, ys = grid_lines(block.columns), grid_lines(block.rows)
        i, j = chance.randrange(len(xs) - 1), chance.randrange(len(ys) - 1)
        box = Box(Point(xs[i], ys[j]), Point(xs[i + 1], ys[j + 1]))
        if not tray_unit.curved or has_square_unit(block) or not block.curves:
            with suppress(ValueError):  # a curved unit in an oblong box
                block = drop_repeated(block, group, tray_unit, box, ["a", "b", "c"])
    elif what == "erase":
        inner = [e for e in now.arrangement.edges if e.right >= 0 and e.left >= 0]
        pieces = [now.arrangement.curve(e) for e in inner[:1]]
        block = erase_pieces(block, repeated(block, group, pieces))
    elif what == "turn":
        block = turned(block, (chance.randint(0, 3), chance.random() < 0.5))
    elif what == "insert":
        block = insert_band(block, chance.randint(0, 1), chance.randint(0, 1), F(1)).block
    elif what == "remove":
        block = remove_band(block, chance.randint(0, 1), 0).block
    elif what == "swing" and p != q:
        block = with_marks(block, group, swing(now, p, q, chance.choice(points)))
    else:
        block = paint_all(block, [(F(1, 3), F(1, 5))], chance.choice("abc"))
    return block


def holds(seed: int) -> None:
    chance = random.Random(seed)
    n = chance.randint(1, 4)
    size = F(chance.randint(2, 20))
    block = Block(id="b", finished=(size, size), columns=(F(1),) * n, rows=(F(1),) * n)
    for _ in range(chance.randint(1, 8)):
        block = one_edit(block, chance)
        now = draft(block)
        if has_square_unit(block):
            whole = sum(outline_area(p.shape) for p in now.patches)
            whole += sum(outline_area(hole) for p in now.patches for hole in p.holes)
            assert abs(whole - float(block.finished[0] * block.finished[1])) < 1e-5
        if not any(face.holes for face in now.arrangement.faces):
            fresh = replace(block, fabric_at=tuple(replace(f) for f in block.fabric_at))
            assert draft(fresh).homes == now.homes
    project = project_of(block)
    assert loads(dumps(project)) == project
    plan_dict(plan_block(project, block))
    inside = not any(f.kind == "outside" for f in draft(block).arrangement.faults)
    if inside and block.seams and has_square_unit(block):
        back = read_svg(block_svg(project, block), "x.svg", block=Block(id="n"), apart=False)
        assert len(draft(back.block).patches) == len(draft(block).patches)


@given(st.integers(0, 10**9))
@settings(max_examples=many(15, 30), deadline=None)
def test_whatever_is_done_to_a_block_it_holds(seed):
    holds(seed)
