"""Files of a few lines that ask for more than a machine holds, and large ones that are allowed."""

from __future__ import annotations

import json

BLOCK = {
    "id": "a",
    "finished": ["9", "9"],
    "seams": [{"line": [["0", "0"], ["1", "1"]]}],
    "fabric_at": [
        {"point": ["3/4", "1/4"], "fabric": "f"},
        {"point": ["1/4", "3/4"], "fabric": "f"},
    ],
}


def text(**parts: object) -> str:
    project = {"format": "inlet", "version": 1, "fabrics": [{"id": "f"}], "blocks": [BLOCK]}
    return json.dumps({**project, **parts})


def quilt(**parts: object) -> dict[str, object]:
    return {"columns": 4, "rows": 4, "block": "a", **parts}


def begun(number: int, segments: int, width: str, copies: int = 1) -> dict[str, object]:
    """A fabric being cut: so many strips of so many segments, all as wide."""
    piece = {"label": "A", "size": [width, width]}
    row = {"width": width, "pieces": [piece]}
    strip = {
        "width": width,
        "count": number,
        "segments": [{"width": width, "count": segments, "rows": [row]}],
    }
    fabric = {"kind": "new", "width": "42", "length": "900000", "strips": [strip]}
    return {"begun": [{"fabric": "f", "block": "a", "copies": copies, "cloth": fabric}]}


def small_block(size: str) -> list[object]:
    return [BLOCK, {"id": "t", "finished": [size, size], "fabric_at": [
        {"point": ["1/2", "1/2"], "fabric": "f"}]}]  # fmt: skip


PIECED = quilt(borders=[{"kind": "pieced", "block": "t", "fabric": "f"}])
EDGES = quilt(
    binding={"fabric": "f"}, borders=[{"width": "2", "fabric": "f"}], backing={"fabric": "f"}
)
HUGE_MOTIF = quilt(
    columns=100, rows=100, block="m",
    motifs=[{"id": "m", "columns": 50, "rows": 50, "block": "a"}],
)  # fmt: skip

HOSTILE = {
    "lines a millionth apart": (
        text(quilt=quilt(quilting=[{"kind": "grid", "distance": "1/1000000"}])),
        "quilt.quilting[0].distance: 1/1000000 must be from 1/1000",
    ),
    "lines that reach for ever": (
        text(quilt=quilt(quilting=[{"kind": "echo", "distance": "1" + "0" * 36}])),
        "quilt.quilting[0].distance",
    ),
    "copies": (text(cutting=begun(1, 1, "1", 10**18)), "cutting.begun[0].copies"),
    "blocks of motifs": (text(quilt=HUGE_MOTIF), "25000000 blocks; 20000 are the most"),
    "units too small": (text(blocks=small_block("1/1000000"), quilt=PIECED), "blocks[1].finished"),
    "units too large": (text(blocks=small_block("1" + "0" * 12), quilt=PIECED), "blocks[1].finish"),
    "fabric too narrow": (
        text(fabrics=[{"id": "f", "width": "1/1000000000000"}], quilt=EDGES),
        "fabrics[0].width: 1/1000000000000 must be from 1/1000",
    ),
    "segments": (text(cutting=begun(1, 10**6, "1/1000")), "count: 1000000 must be from 1 to 20000"),
    "strips": (text(cutting=begun(10**6, 1, "1/1000")), "count: 1000000 must be from 1 to 20000"),
    "pieces": (text(cutting=begun(2000, 40, "1")), "80000 pieces lie there; 50000 are the most"),
    "ruler": (text(measure={"ruler": "1/7919"}), "measure.ruler: 1/7919 must be a fraction from"),
    "seam": (text(measure={"seam": "1/1000000000000"}), "measure.seam"),
    "motifs": (
        text(quilt=quilt(motifs=[{"id": f"m{i}", "block": "a"} for i in range(3000)])),
        "quilt.motifs: more than 100 motifs",
    ),
    "borders": (text(quilt=quilt(borders=[{"width": "1"}] * 3000)), "more than 30 borders"),
    "fabrics": (text(fabrics=[{"id": f"f{i}"} for i in range(3000)]), "more than 500 fabrics"),
    "owned": (
        text(fabrics=[{"id": "f", "have": [{"kind": "fat-quarter", "count": 200}] * 200}]),
        "fabrics[0].have: 40000 pieces of fabric in all; 2000 are the most",
    ),
    "a long name": (text(name="x" * 10**6), "is longer than 1000 letters"),
    "a long number": (text(measure={"seam": "1/" + "3" * 60}), "is too long; 40 letters are"),
}
"""The text of a file, and what is said of it."""

LARGE = {
    "lines a thousandth apart": text(
        quilt=quilt(quilting=[{"kind": "grid", "distance": "1/1000"}])
    ),
    "echoes of every patch": text(
        quilt=quilt(columns=60, rows=60, quilting=[{"distance": "1/1000", "repeats": 20}])
    ),
    "units of a hundredth": text(blocks=small_block("1/100"), quilt=PIECED),
    "narrow fabric": text(fabrics=[{"id": "f", "width": "1/1000"}], quilt=EDGES),
    "a fine odd ruler": text(
        measure={"ruler": "1/999", "seam": "1/1000"},
        quilt=quilt(sashing={"width": "7919/7907", "fabric": "f"}),
    ),
    "places outside": text(
        quilt=quilt(places=[{"column": i, "row": 1000, "block": "a"} for i in range(1900)])
    ),
}
"""The text of files that are read; each took half a minute or gigabytes once."""
