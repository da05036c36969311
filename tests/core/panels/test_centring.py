"""A motif in the middle of its piece: fabric cut, sewn and trimmed on a line, by positions
alone."""

from __future__ import annotations

from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.panels.centring import centred, centring_lines
from inlet.core.project.cutting import PrintMotif
from inlet.core.project.measure import INCH, METRIC

eighths = st.integers(0, 80).map(lambda n: F(n, 8))


def sewn(fabric, strip, at_left, seam):
    """A strip joined to one end of a line of fabric; both are (label, from, to) spans."""
    (low, high), wide = fabric, strip
    return (low - (wide - 2 * seam), high) if at_left else (low, high + wide - 2 * seam)


@given(eighths, eighths, eighths, st.integers(8, 60), st.sampled_from([INCH, METRIC]))
@settings(max_examples=300, deadline=None)
def test_the_motif_ends_in_the_middle_of_enough_fabric(size, left, right, finished, measure):
    """The motif lies from 0 to its size. After the steps half the piece lies on either side of its
    middle, and where it is left off the middle, the piece still finds its fabric."""
    size, finished, seam = size + 1, F(finished, 2), measure.seam
    motif = PrintMotif(
        size=(size, F(1)),
        left=left,
        right=right,
        top=F(20),
        bottom=F(20),
        finished=(finished, F(4)),
    )
    way, up = centred(motif, measure)
    assert up.verdict == "centred"
    cut = finished + 2 * seam
    fabric, middle = (-left, size + right), size / 2
    if way.verdict == "large":
        assert size > finished
        return
    if way.verdict == "touches":
        assert min(left, right) < seam
        return
    if way.verdict == "leave":
        toward = way.off if way.short == "left" else -way.off
        assert fabric[0] <= middle + toward - cut / 2
        assert middle + toward + cut / 2 <= fabric[1]
        assert way.off <= max(seam, cut / 32)
        return
    if way.verdict == "move":
        strip = way.strip
        if way.plenty == "right":
            fabric = sewn((fabric[0], fabric[1] - strip), strip, True, seam)
        else:
            fabric = sewn((fabric[0] + strip, fabric[1]), strip, False, seam)
        reach = way.spare
    elif way.verdict in ("add", "both"):
        fabric = sewn(fabric, way.strip, way.short == "left", seam)
        if way.verdict == "both":
            fabric = sewn(fabric, way.other, way.plenty == "left", seam)
        else:  # it could not give the strip: less than what it keeps would be left
            assert max(left, right) - way.strip < (cut - size) / 2
        reach = 0
    else:
        reach = 0
    assert fabric[0] + reach <= middle - cut / 2
    assert middle + cut / 2 <= fabric[1] - reach
    if way.verdict != "centred":  # the join stays off the motif
        assert min(left, right) >= seam


def test_a_pocket_by_hand():
    """A motif 5 in wide, 1 in from the left edge, for 10 in finished: 2 3/4 in are needed, 1 3/4
    are missing, 1 3/4 + 1/2 + 1/2 to wander make 2 3/4."""
    motif = PrintMotif(
        size=(F(5), F(6)), left=F(1), right=F(9), top=F(17, 8), bottom=F(6), finished=(F(10), F(10))
    )
    way, up = centred(motif, INCH)
    assert (way.verdict, way.short, way.off, way.strip) == ("move", "left", F(7, 4), F(11, 4))
    assert (up.verdict, up.off) == ("leave", F(1, 8))
    text = " ".join(centring_lines(motif, INCH))
    assert "iron a square 11 1/2 in to its back" in text
    assert "Cut a strip 2 3/4 in wide off the right" in text
    assert "Leave the motif 1/8 in off the middle, toward the top" in text
    assert text.endswith("Trim to 10 1/2 in: this is the last cut.")
