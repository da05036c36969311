"""Exchanges of fabrics, counted a second way; what was seen is what is set."""

from __future__ import annotations

from itertools import permutations, product
from math import hypot

import pytest

from inlet.core.draft.patches import draft
from inlet.core.draft.symmetry import fits, turned
from inlet.core.draft.value import lost_edges
from inlet.core.geometry.motion import at_origin, canonical
from inlet.core.geometry.point import Point
from inlet.core.project.block import Block
from inlet.core.project.fabric import Fabric
from inlet.core.project.project import Project
from inlet.core.project.quilt import Quilt, QuiltPlace
from inlet.core.project.value import replace
from inlet.core.remake.choosing import in_other_fabrics, set_by
from inlet.core.remake.exchanges import exchanges, value_exchanges
from inlet.core.remake.repeats import images, looks_of, picture_of_repeat, repeats
from inlet.core.setting.colourways import in_fabrics as recoloured
from inlet.core.setting.places import placed
from tests.blocks import FABRICS, block_of, in_fabrics, project_of
from tests.core.remake.test_repeats import CORNERED, FLAG, HALF, OBLONG, PLAIN
from tests.core.remake.test_slices import PINWHEEL

TURNS = [(quarters, mirror) for mirror in (False, True) for quarters in range(4)]


def picture(block):
    return tuple((p.polygon, p.fabric) for p in draft(block).patches)


def looks(block: Block):
    """The block in every turn and mirror image that fits, drawn by the editor's own turning."""
    fitting = (turned(block, turn) for turn in TURNS if fits(turn, block))
    return {canonical(at_origin(picture(each))) for each in fitting}


@pytest.mark.parametrize("block", [HALF, CORNERED, FLAG, OBLONG, PINWHEEL])
@pytest.mark.parametrize("every", [False, True])
def test_every_exchange_is_there_once(block, every):
    """Every order of the fabrics drawn in every turn: orders that share a picture are one. There
    are at least as many as a block that looks different in all of its turns has."""
    project = replace(project_of(block), fabrics=FABRICS)
    used = list(dict.fromkeys(patch.fabric for patch in draft(block).patches))
    names = [f.id for f in FABRICS] if every else used
    orders = [dict(zip(used, new, strict=True)) for new in permutations(names, len(used))]
    classes = {frozenset(looks(recoloured(block, order))) for order in orders}
    listed = exchanges(draft(block), project, every)
    assert len(listed) == len(classes)
    taken = {frozenset(looks(recoloured(block, each.fabrics))) for each in listed}
    assert taken == classes
    assert len(listed) >= len(orders) / 8


def test_where_a_shape_is_lost_agrees_with_the_check_of_a_drawing():
    near = (*FABRICS, replace(FABRICS[0], id="g", name="G", colour="#eeeeee"))
    project = replace(project_of(FLAG), fabrics=near)
    listed = exchanges(draft(FLAG), project, True)
    assert listed[-1].lost > 0 == listed[0].lost
    for exchange in listed:
        drawn = draft(recoloured(FLAG, exchange.fabrics))
        places = drawn.arrangement.places
        sx, sy = map(float, drawn.block.scale)
        lost = 0.0
        for edge in (drawn.arrangement.edges[each.edge] for each in lost_edges(drawn, project)):
            (x, y), (u, v) = places[edge.start], places[edge.end]
            lost += hypot((u - x) * sx, (v - y) * sy)
        assert exchange.lost == pytest.approx(lost)


def test_there_is_nothing_to_exchange_in_one_fabric_or_among_too_many():
    assert exchanges(draft(PLAIN), replace(project_of(PLAIN), fabrics=FABRICS[:1])) == ()
    many = tuple(replace(FABRICS[0], id=letter) for letter in "abcdefghijkl")
    wide = in_fabrics(block_of("1 0 1 1 / 2 0 2 1 / 3 0 3 1", 4, 1), "abcd")
    assert exchanges(draft(wide), Project(fabrics=many, blocks=(wide,)), True) == ()


@pytest.mark.parametrize(("block", "partner"), [(HALF, CORNERED), (FLAG, HALF), (CORNERED, PLAIN)])
def test_every_repeat_with_a_partner_is_there_once(block, partner):
    """By its orbits, over the ways to look that leave the block in the block's places."""
    start, beside = draft(block), draft(partner)
    found = looks_of(start, beside)
    first = len(looks_of(start).turns)
    patterns = set(product(*found.places))
    assert all(p[0] < first <= p[1] and p[3] < first <= p[2] for p in patterns)
    orbits = {frozenset(set(images(pattern, found)) & patterns) for pattern in patterns}
    assert len(repeats(start, beside)) == len(orbits)


@pytest.mark.parametrize("partner", [None, HALF])
def test_the_quilt_that_is_set_is_the_picture_that_was_seen(partner):
    """Two by two, block by block as the quilt says, drawn by the editor's own turning."""
    partner = partner and replace(partner, id="partner")
    blocks = (FLAG, partner) if partner else (FLAG,)
    old = Quilt(setting="on-point", columns=2, rows=2, block=FLAG.id,
                places=(QuiltPlace(column=0, row=0, turn=90),))  # fmt: skip
    project = Project(fabrics=FABRICS, blocks=blocks, quilt=old)
    beside = draft(partner) if partner else None
    for repeat in repeats(draft(FLAG), beside)[::37]:
        shown = []
        for place in placed(set_by(project, FLAG, repeat, partner), True):
            block = turned(project.block(place.block), (place.turn, place.mirror))
            corner = Point(FLAG.finished[0] * place.column, FLAG.finished[1] * place.row)
            shown += [(tuple(p.plus(corner) for p in outline), f) for outline, f in picture(block)]
        seen = picture_of_repeat(draft(FLAG), repeat, beside)
        assert canonical(at_origin(tuple(shown))) == canonical(at_origin(seen))
    larger = replace(old, columns=1000, rows=1000)
    with pytest.raises(ValueError, match="too large"):
        set_by(replace(project, quilt=larger), FLAG, repeats(draft(FLAG))[0])


def test_an_exchange_becomes_a_colourway_once():
    project = replace(project_of(FLAG), fabrics=FABRICS)
    exchange = exchanges(draft(FLAG), project)[1]
    edited = in_other_fabrics(project, FLAG, exchange)
    (way,) = edited.quilt.colourways
    assert recoloured(FLAG, way.fabrics) == recoloured(FLAG, exchange.fabrics)
    assert in_other_fabrics(edited, FLAG, exchange) is edited


def dyed(name, level):
    return Fabric(id=name, name=name, colour=f"#{level:02x}{level:02x}{level:02x}")


VALUES = (dyed("a", 240), dyed("b", 128), dyed("c", 20), dyed("d", 30))
"""A light fabric, a medium one, two dark ones that read as one."""


def test_light_medium_and_dark_change_places():
    """FLAG in a light and a dark fabric: by hand, each goes to light, medium or dark and the other
    to another of them, 6 ways; those alike in another turn are one."""
    block = in_fabrics(FLAG, "ac" * 4)
    project = replace(project_of(block), fabrics=VALUES)
    listed = value_exchanges(draft(block), project)
    ways = {each.values for each in listed}
    assert () in ways
    assert len(listed) == len(ways)
    swapped = next(e for e in listed if e.values == (("light", "dark"), ("dark", "light")))
    assert swapped.fabrics == {"a": "c", "c": "a"}
    taken = {frozenset(looks(recoloured(block, each.fabrics))) for each in listed}
    assert len(taken) == len(listed)
    orders = [{"a": x, "c": y} for x, y in permutations("abc", 2)]
    assert taken == {frozenset(looks(recoloured(block, order))) for order in orders}


def test_fabrics_that_become_one_lose_their_seam():
    """Two dark fabrics become the one light fabric there is: the seam between them is lost."""
    block = in_fabrics(HALF, "cd")
    project = replace(project_of(block), fabrics=VALUES)
    listed = value_exchanges(draft(block), project)
    light = next(each for each in listed if each.values == (("dark", "light"),))
    assert set(light.fabrics.values()) == {"a"}
    (width, _), half = block.finished, light.lost
    assert half == pytest.approx(hypot(width, width)) or half == pytest.approx(float(width))
    assert listed[-1].lost > 0
