"""A block as it is drawn and sewn, as JSON: its patches, the tree of its joins, what it is made of
where that is slices of others (docs/plan-format.md)."""

from __future__ import annotations

from typing import Any

from inlet.core.assembly import Join, Side, all_joins
from inlet.core.draft import Patch
from inlet.core.plan import BlockPlan, PreparedBlock, SewnBlock
from inlet.core.remake import Nesting, slice_parts
from inlet.files.text.exact_json import number, pair, places
from inlet.files.text.pressing_json import pressing_dict


def block_dict(block: PreparedBlock) -> dict[str, Any]:
    return {
        "id": block.block.id,
        "finished": pair(block.block.finished),
        "unfinished": pair(block.unfinished),
    }


def made_from_list(plan: BlockPlan) -> list[dict[str, Any]]:
    """The blocks that are sewn first, how each is cut apart, and how the slices are set."""
    sewn: tuple[SewnBlock, ...] = (plan, *plan.then_sewn)
    return [
        {
            "block": block_dict(each),
            "copies": each.copies,
            **slices_dict(each),
            "patches": [patch_dict(patch) for patch in each.draft.patches],
            "assembly": joins_dict(each),
            "seams": each.seams._asdict(),
            **pressing_dict(each),
            "resewn": each.resewn,
        }
        for each in sewn[:-1]
    ]


def slices_dict(block: PreparedBlock, nesting: Nesting | None = None) -> dict[str, Any]:
    """How a block is set of slices: cuts from the centre of each start block, the pieces by their
    number from 1 on, in reading order of their places, and where seams no longer meet."""
    sliced = block.sliced
    if sliced is None:
        return {}
    slices, cuts = sliced.how.slices, sliced.how.cuts
    nests = {}
    if nesting is not None:
        nests = {
            "junctions": [
                {"at": pair(sliced.how.in_block(each.at)), "state": each.state}
                for each in nesting.junctions
            ],
            "press_again": [place + 1 for place in nesting.press_again],
        }
    return {
        "slices": {
            "starts": [start.id for start in sliced.starts],
            "upright": [number(cut) for cut in cuts.upright],
            "level": [number(cut) for cut in cuts.level],
            **({"diagonal": True} if cuts.diagonal else {}),
            "pieces": [
                {
                    "piece": piece.piece + 1,
                    "turn": 90 * (piece.quarters % 4),
                    "start": piece.copy + 1,
                    "finished": pair(slices[piece.piece].size),
                }
                for piece in sliced.how.laid
            ],
            "missed": [
                {"at": pair(sliced.how.in_block(miss.at)), "off": number(miss.off)}
                for miss in sliced.how.set_again.missed
            ],
            **nests,
        }
    }


def patch_dict(patch: Patch) -> dict[str, Any]:
    return {
        "id": patch.id,
        "fabric": patch.fabric,
        "outline": places(patch.outline),
        "arcs": [{"edge": i, "centre": pair(centre)} for i, centre in patch.arcs],
        **({"holes": [places(h.corners) for h in patch.holes]} if patch.holes else {}),
    }


def joins_dict(plan: PreparedBlock) -> Any:
    """The tree of joins, each with those that made its sides in it; a slice by its number."""
    joins: dict[Side, Any] = {frozenset([p.face]): p.id for p in plan.draft.patches}
    if plan.sliced is not None:
        parts = slice_parts(plan.draft, plan.sliced.how)
        for part, piece in zip(parts, plan.sliced.how.laid, strict=True):
            joins[part.faces] = f"piece {piece.piece + 1}"
    for join in all_joins(plan.assembly):
        last = max((end.finished_by for end in join.left_open), default=None)
        joins[join] = {
            "id": join.id,
            "seam": join.kind,
            "pivots": len(join.pivots),
            **({"finished_by": f"j{last}"} if last else {}),
            **_path(join),
            "parts": [joins.pop(side) for side in join.sides],
        }
    return joins[plan.assembly] if plan.assembly is not None else None


def _path(join: Join) -> dict[str, Any]:
    """Where a seam runs, turns, stops at a dot or is left open."""
    marks = {
        "turns": [join.at(v) for v in join.pivots],
        "dots": [join.at(v) for v in join.dots],
        "left_open": [join.at(end.vertex) for end in join.left_open],
    }
    steps = {name: places(points) for name, points in marks.items() if points}
    return {"path": places(join.points), **steps}


def corners_dict(block: SewnBlock) -> dict[str, Any]:
    """The squares of an improvised block, each with its seams: which corner, clockwise from the top
    left from 1 on, how far from it along the level and the upright raw edge, in which fabric; and
    the scraps they take."""
    if not block.squares:
        return {}
    pool = block.scraps
    return {
        "improvised": {
            "corners": pool.corners,
            "squares": [
                [
                    {
                        "corner": seam.corner + 1,
                        "along": number(seam.along),
                        "down": number(seam.down),
                        "fabric": fabric,
                    }
                    for seam, fabric in zip(square.seams, square.fabrics, strict=True)
                ]
                for square in block.squares
            ],
            "scraps": [
                {"fabric": fabric, "size": pair((size.length, size.width)), "count": count}
                for (size, fabric), count in sorted(pool.scraps.items(), reverse=True)
            ],
            "offcuts": round(pool.behind, 4),
        }
    }
