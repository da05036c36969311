"""Cut lists laid out on what there is and on new cloth, followed on the mat from the JSON alone."""

from __future__ import annotations

import json
from collections import Counter

from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.cutting.cuts import Cut
from inlet.core.cutting.layout import ToCut, lay_out
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.project.cutting import Cutting, Have
from inlet.core.project.fabric import Fabric
from inlet.core.project.measure import Measure
from inlet.core.project.project import Project
from inlet.files.cutting_json import cutting_list
from tests.core.cutting.mat import follow

eighths = st.integers(8, 130).map(lambda n: F(n, 8))
sizes = st.lists(st.tuples(eighths, eighths, st.integers(1, 25)), min_size=1, max_size=6)
haves = st.lists(
    st.builds(
        lambda kind, w, h, n: Have(kind=kind, width=w, length=h, count=n),
        st.sampled_from(["bolt", "fat-quarter", "strips", "squares", "scrap", "panel"]),
        eighths, eighths, st.integers(1, 3),
    ),
    max_size=4,
)  # fmt: skip
rules = st.builds(
    Cutting,
    folds=st.sampled_from([0, 1, 2]),
    square_every=st.integers(0, 5),
    stack=st.sampled_from([1, 2, 4, 8]),
    goal=st.sampled_from(["balance", "cloth", "cuts", "widths"]),
    wash=st.booleans(),
    scraps_first=st.booleans(),
)


def cut_list(wanted) -> list[Cut]:
    return [
        Cut("a", "rectangle", (min(a, b), max(a, b)), "none", n, ("A",), label=f"A{i}")
        for i, (a, b, n) in enumerate(wanted)
    ]


def laid(project: Project, cuts: list[Cut], seconds: float = 0.0):
    """The plans, and the pieces that lie cut on the mat, by the label of their stack."""
    plans = lay_out(project, ToCut(tuple(cuts), {}), seconds)
    stack = (project.cutting or Cutting()).stack
    ready: Counter[str] = Counter()
    for cloth in json.loads(json.dumps(cutting_list(plans, project))):
        ready += follow(cloth, stack)
    return plans, ready


@given(sizes, haves, rules, st.sampled_from([F(0), F(1, 2)]), st.sampled_from([0, 0, 0.2]))
@settings(deadline=None)
def test_a_plan_followed_on_the_mat_gives_the_pieces_asked_for(
    wanted, have, cutting, squaring, seconds
):
    fabric = Fabric(id="a", width=F(42), have=tuple(have), shrink=(F(3), F(2)))
    project = Project(fabrics=(fabric,), measure=Measure(squaring=squaring), cutting=cutting)
    cuts = cut_list(wanted)
    (plan,), ready = laid(project, cuts, seconds)
    missing = {m.cut.label: m.number for m in plan.missing}
    for cut in cuts:
        more = ready[cut.label] - (cut.number - missing.get(cut.label, 0))
        # Folded twice, a strip has two halves alike: what one has too few the other has too many.
        assert more == 0 or (cutting.folds == 2 and more > 0)
    new = plan.new
    if new is not None:
        assert plan.bound <= plan.length <= new.length
        steps = plan.buy / F(9, 2)
        assert steps.denominator == 1
