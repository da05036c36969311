"""What is cut: pieces and their stacks, strip sets, sizes that land on the ruler's marks.

Promise: the list holds every piece of every unit once, with the number that is needed.
"""

from inlet.core.cutlist.cuts import Cut, Stacks, cut_list, rises, stacks_of
from inlet.core.cutlist.growth import growths, landing_sizes
from inlet.core.cutlist.ruler_friendly import RulerFriendly, ruler_friendly
from inlet.core.cutlist.standing import Standing, standing, turned_prints
from inlet.core.cutlist.stash_sizes import StockSize, sizes_from
from inlet.core.cutlist.strip_sets import (
    PlannedSet,
    four_patches,
    plan_sets,
    project_sets,
    with_elsewhere,
)

__all__ = [
    "Cut",
    "PlannedSet",
    "RulerFriendly",
    "Stacks",
    "Standing",
    "StockSize",
    "cut_list",
    "four_patches",
    "growths",
    "landing_sizes",
    "plan_sets",
    "project_sets",
    "rises",
    "ruler_friendly",
    "sizes_from",
    "stacks_of",
    "standing",
    "turned_prints",
    "with_elsewhere",
]
