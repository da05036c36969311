"""Blocks sewn with errors: against the drawing, linear theory, and a replay with polygons."""

from __future__ import annotations

import dataclasses
import random
from math import sqrt

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.assembly.tree import all_joins
from inlet.core.draft.symmetry import turned
from inlet.core.hand.crossings import TYPES as SEAM_TYPES
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.block import plan_block
from inlet.core.tolerance.forecast import Watched, forecast, sewings
from inlet.core.tolerance.sewing_hand import BEGINNER, PERFECT, USUAL, SewingHand
from inlet.core.tolerance.sources import block_model
from tests.blocks import block_of, project_of, split_block, through_blocks, turns
from tests.core.assembly.corpus import corpus
from tests.core.tolerance.replay import sew
from tests.sample import many, sampled


def model_of(block):
    """A block's model, its pieces cut exactly as they are drawn and nothing trimmed."""
    project = project_of(block, style="exact")
    model = block_model(plan_block(project, project.blocks[0]))
    if model is None:
        return None
    return dataclasses.replace(model, drawn=model.drawn * 0, drawn_units=model.drawn_units * 0)


def strips(number, height=6):
    """So many strips, 1 1/2 in wide, side by side."""
    drawn = " / ".join(f"{i} 0 {i} {height}" for i in range(1, number))
    return block_of(drawn, number, height, (F(3, 2) * number, height), "ab")


def all_corners(sewn):
    return sewn.corners(np.arange(sewn.pieces.halves))


@given(through_blocks(20))
@settings(max_examples=many(25, 400))
def test_without_errors_the_block_comes_out_as_it_is_drawn(block):
    model = model_of(block)
    if model is None:
        return
    sewn = model.sewn(PERFECT, np.zeros((model.sources, 2)))
    off = all_corners(sewn) - sewn.pieces.at.T[:, :, None]
    assert np.abs(off).max() < 1e-12


CORPUS = {name: block for name, block, _, _ in corpus()}


@pytest.mark.parametrize("name", sampled(sorted(CORPUS), 6))
def test_every_kind_of_seam_lies_where_it_is_drawn(name):
    """Set-ins, partial seams, stars, curves."""
    model = model_of(CORPUS[name])
    if model is None:
        return
    sewn = model.sewn(PERFECT, np.zeros((model.sources, 1)))
    assert np.abs(all_corners(sewn)[:, :, 0] - sewn.pieces.at.T).max() < 1e-12


STAR = block_of(
    "0 1 4 1 / 0 3 4 3 / 1 0 1 4 / 3 0 3 4 / 1 1 2 0 / 2 0 3 1 / 3 1 4 2 / 4 2 3 3 / 3 3 2 4 / "
    "2 4 1 3 / 1 3 0 2 / 0 2 1 1", 4, 4, (9, 11), "abcd",
)  # fmt: skip
RANDOM = [f"random {seed}" for seed in range(40)]


CURVED = ("Quarter circle", "Petal", "rainbow", "circle and bar")


@pytest.mark.parametrize("name", [*sampled([*RANDOM, *sorted(CORPUS)], 9), *CURVED])
def test_a_replay_with_polygons_gives_the_same_places(name):
    """Random blocks of through seams, and those with set-ins, partial seams and curves: every
    corner where polygons, laid on one another by a search, put it; arcs to a thousandth, as their
    ends are moved along their tangents."""
    seed = len(name) + sum(map(ord, name))
    if name in CORPUS:
        block = CORPUS[name]
    else:
        block = split_block(random.Random(seed).randint, 9)
    model = model_of(block)
    if model is None or model.units:
        return
    hand = SewingHand(spread=0.01, cut_spread=0.01)
    rng = np.random.default_rng(seed)
    errors = rng.normal(size=(model.sources, 1)) * model.spreads(hand)[:, None]
    sewn = model.sewn(hand, errors)
    pieces = sewn.pieces
    out = {
        (int(p), int(k)): float(errors[model.cut[h], 0])
        for h, (p, k) in enumerate(zip(pieces.piece, pieces.edge, strict=True))
    }
    takes = errors[model.cuts + model.sewing, 0]
    cloths = sew(model.block.draft, model.block.assembly, out, takes)
    mine = all_corners(sewn)[:, :, 0].T
    corners = zip(pieces.piece, pieces.vertex, strict=True)
    theirs = np.array([cloths[int(p)].corner(int(v)) for p, v in corners])
    curved = any(patch.arcs for patch in model.block.draft.patches)
    assert np.abs(level(mine) - level(theirs)).max() < (1e-3 if curved else 1e-7)


def level(places):
    """Places turned so that the first two lie on a level line, from the first on."""
    centred = places - places.mean(axis=0)
    far = centred[np.argmax(np.hypot(*centred.T).round(6))]
    turn = np.arctan2(far[1], far[0])
    c, s = np.cos(turn), np.sin(turn)
    return centred @ np.array([[c, -s], [s, c]])


@pytest.mark.parametrize("number", [2, 5, 9])
def test_rows_of_strips_are_as_linear_theory_says(number):
    """n strips: wider by n cuts, narrower by 2 (n - 1) seams: of variance n τ² + 4 (n - 1) σ²."""
    model = model_of(strips(number))
    watched = Watched(model)
    hand = SewingHand({"straight": 0.01}, 0.012, 0.004, 0.01)
    sizes = np.concatenate(
        [watched.outcomes(hand, e).sizes[0, 0] for e in sewings(model, hand, 8000, 3)]
    )
    planned = 1.5 * number + 0.5
    assert sizes.mean() == pytest.approx(
        planned + number * 0.004 - 2 * (number - 1) * 0.01, abs=0.002
    )
    spread = sqrt(number * 0.01**2 + 4 * (number - 1) * 0.012**2)
    assert sizes.std() == pytest.approx(spread, rel=0.04)


def test_a_row_of_patches_too_varies_as_its_cuts_and_seams():
    """Squares in a row, each cut by itself, at a size off the grid and in centimetres."""
    model = model_of(block_of("1 0 1 1 / 2 0 2 1 / 3 0 3 1", 4, 1, (F(37, 4), F(7, 3)), "ab"))
    errors = next(sewings(model, USUAL, 500, 5))
    sizes = Watched(model).outcomes(USUAL, errors).sizes[0, 0]
    spread = sqrt(4 * USUAL.cut_spread**2 + 12 * USUAL.spread**2)
    assert sizes.std() == pytest.approx(spread, rel=0.15)


@pytest.mark.parametrize("more", [0.05, -0.04])
def test_a_wide_seam_cuts_a_nose_off_and_a_narrow_one_lets_it_float(more):
    """The nose moves as far in as the edges beside it, √2 times what the seams take more; so it
    lies beyond the seam over it by what that takes more."""
    goose = block_of("0 0 1 1 / 1 1 2 0 / 0 1 2 1", 2, 2, (6, 6), "abac")
    points = forecast(
        Watched(model_of(goose)), SewingHand(dict.fromkeys(SEAM_TYPES, more)), 1
    ).points
    (nose,) = [point for point in points if point.at == (3, 3)]
    assert nose.middle == pytest.approx(more, abs=1e-4)
    assert (nose.cut_off, nose.floats) == ((1, 0) if more > 0 else (0, 1))


@given(st.sampled_from(sorted(CORPUS)), turns)
@settings(max_examples=many(8, 60), deadline=None)
def test_turning_or_mirroring_changes_no_chance(name, turn):
    block = CORPUS[name]
    models = [model_of(each) for each in (block, turned(block, turn))]
    if None in models or len(models[0].pieces.seams) > 40:
        return
    joins = [join for model in models for join in all_joins(model.block.assembly)]
    if any(join.kind in ("partial", "set-in") for join in joins):
        return  # these are sewn in another order where that is as good
    chances = [
        sorted(p.off for p in forecast(Watched(m), BEGINNER, 2000, 2).points) for m in models
    ]
    assert len(chances[0]) == len(chances[1])
    assert np.abs(np.subtract(*chances)).max(initial=0) < 0.1
