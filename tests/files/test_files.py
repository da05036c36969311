"""Project files, plans and guides on disk."""

from __future__ import annotations

import json
import os
from pathlib import Path
from typing import get_args

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from pypdf import PdfReader
from reportlab.pdfbase.pdfmetrics import stringWidth

from inlet.core.draft.compass import quarter_arc
from inlet.core.geometry.curve import Curve
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.text import parse_exact
from inlet.core.piecing.cards import cards, fabric_rows
from inlet.core.plan.block import plan_block
from inlet.core.project.bench import Bench, Timer
from inlet.core.project.block import Block, FabricAt, curved, seam_along, straight
from inlet.core.project.fabric import Fabric, Print
from inlet.core.project.log import Deed, LogEntry
from inlet.core.project.made import MadeAnswer, MadeUnit, MeasuredSize
from inlet.core.project.measure import METRIC, Measure
from inlet.core.project.pressing import BlockPressing
from inlet.core.project.project import Project
from inlet.core.project.quilt import (
    Alternate,
    Backing,
    Batting,
    Binding,
    Border,
    BorderKind,
    BorderOrder,
    Colourway,
    Motif,
    Quilt,
    QuiltingKind,
    QuiltingLines,
    QuiltPlace,
    Sashing,
    Scatter,
    Triangles,
    Turning,
)  # fmt: skip
from inlet.core.project.value import replace
from inlet.core.schedule.thread import thread_for
from inlet.core.schedule.words import thread_text
from inlet.core.table.moves import like_ones_together
from inlet.core.words import fabric_name
from inlet.files.pdf.guide_pdf import write_guide
from inlet.files.pdf.labels_pdf import labels
from inlet.files.project.project_json import (
    FileProblem,
    dumps,
    dumps_compact,
    load,
    loads,
    save,
    why_not_kept,
)
from inlet.files.text.plan_json import plan_dict
from inlet.files.text.tables import write_csv
from inlet.files.whole import previous_version
from tests.blocks import GOOSE, block_of, exacts, lengths, project_of, unit_blocks
from tests.core.pressing.drawn import NAMED
from tests.sample import many

names = st.text(min_size=1, max_size=12)
more = st.dictionaries(
    st.sampled_from(["note", "pinned", "x-colour"]),
    st.one_of(st.integers(), st.booleans(), names, st.lists(names, max_size=2)),
)
points = st.tuples(exacts, exacts)


@st.composite
def quilts(draw, fabrics, blocks):
    """A quilt of these fabrics and blocks, much of it left open."""
    fabric, block = st.sampled_from(["", *fabrics]), st.sampled_from(["", *blocks])
    width = st.none() | lengths
    place = st.builds(
        QuiltPlace, column=st.integers(0, 9), row=st.integers(0, 9), block=block,
        turn=st.sampled_from([None, 0, 90, 180, 270]), mirror=st.sampled_from([None, False, True]),
    )  # fmt: skip
    borders = st.lists(
        st.builds(
            Border, width=width, fabric=fabric, extra=more,
            kind=st.sampled_from(get_args(BorderKind)),
            order=st.sampled_from(get_args(BorderOrder)),
            measured=st.none() | st.tuples(lengths, lengths),
        ),
        max_size=2,
    )  # fmt: skip
    motif = st.builds(
        Motif,
        id=st.just("of four"),
        block=block,
        turning=st.sampled_from(get_args(Turning)),
        columns=st.just(2),
    )
    way = st.builds(
        Colourway, id=st.just("dusk"), block=block,
        fabrics=st.dictionaries(st.sampled_from(fabrics), st.sampled_from(fabrics), max_size=2),
    )  # fmt: skip
    ways = tuple(draw(st.lists(way, max_size=1)))
    return Quilt(
        setting=draw(st.sampled_from(["", "straight", "on-point"])),
        columns=draw(st.none() | st.integers(0, 30)),
        block=draw(block),
        alternate=draw(st.none() | st.builds(Alternate, block=block, fabric=fabric)),
        turning=draw(st.sampled_from(get_args(Turning))),
        row_lengths=tuple(draw(st.lists(st.integers(0, 9), max_size=3))),
        places=tuple(draw(st.lists(place, max_size=2))),
        motifs=tuple(draw(st.lists(motif, max_size=1))),
        colourways=ways,
        scatter=draw(st.none() | st.builds(Scatter, colourways=st.just(tuple(w.id for w in ways)))),
        sashing=draw(st.none() | st.builds(Sashing, width=width, down=width, corner_fabric=fabric)),
        triangles=draw(st.none() | st.builds(Triangles, fabric=fabric, float_by=width)),
        borders=tuple(draw(borders)),
        binding=draw(st.none() | st.builds(Binding, width=width, fabric=fabric)),
        backing=draw(st.none() | st.builds(Backing, overage=width, fabric=fabric)),
        batting=draw(st.none() | st.builds(Batting, overage=width)),
        quilting=tuple(
            draw(
                st.lists(
                    st.builds(
                        QuiltingLines,
                        kind=st.sampled_from(get_args(QuiltingKind)),
                        fabric=fabric,
                        distance=width,
                        repeats=st.integers(1, 3),
                        diagonal=st.booleans(),
                    ),
                    max_size=2,
                )
            )
        ),
        made={name: draw(st.tuples(lengths, lengths)) for name in draw(block) and blocks[:1]},
        extra=draw(more),
    )


@st.composite
def projects(draw):
    ids = draw(st.lists(names, min_size=1, max_size=3, unique=True))
    fabrics = tuple(
        Fabric(
            id=i,
            name=draw(names),
            width=draw(st.none() | lengths),
            value=draw(st.sampled_from(["", "light", "dark"])),
            print=draw(st.none() | st.just(Print(image="aGVyb24=", width=F(3)))),
            notes=draw(st.text(max_size=5)),
            extra=draw(more),
        )
        for i in ids
    )
    blocks = tuple(
        Block(
            id=i,
            name=draw(st.text(max_size=5)),
            finished=(draw(lengths), draw(lengths)),
            columns=tuple(draw(st.lists(lengths, min_size=1, max_size=4))),
            rows=tuple(draw(st.lists(lengths, min_size=1, max_size=4))),
            seams=tuple(
                seam_along(
                    quarter_arc(Point(*p), Point(*q)) if bent else Curve(Point(*p), Point(*q))
                )
                for p, q, bent in draw(
                    st.lists(st.tuples(points, points, st.booleans()), max_size=3)
                )
                if p != q
            ),
            marks=tuple(draw(st.lists(points, max_size=2))),
            fabric_at=tuple(
                FabricAt(point=p, fabric=draw(st.sampled_from(ids)))
                for p in draw(st.lists(points, max_size=2))
            ),
            methods=draw(st.dictionaries(names, names, max_size=2)),
            extra=draw(more),
        )
        for i in draw(st.lists(names, max_size=2, unique=True))
    )
    measure = draw(st.sampled_from([Measure(), METRIC, Measure(style="trim", ruler=F(1, 16))]))
    quilt = draw(st.none() | quilts(ids, [b.id for b in blocks]))
    return Project(
        name=draw(names), measure=measure, fabrics=fabrics, blocks=blocks, quilt=quilt,
        log=draw(logs), made=draw(made), bench=draw(benches), extra=draw(more),
    )  # fmt: skip


made = st.lists(
    st.builds(
        MadeUnit, drawn=names, what=names, answer=st.sampled_from(get_args(MadeAnswer)),
        measured=st.lists(
            st.builds(MeasuredSize, size=st.tuples(lengths, lengths), number=st.integers(1, 9)),
            min_size=1, max_size=3,
        ).map(tuple),
    ),
    max_size=2,
).map(tuple)  # fmt: skip
benches = st.none() | st.builds(
    Bench, finish=names, sittings_a_week=st.integers(1, 21),
    timer=st.none() | st.builds(Timer, since=names, counted=st.integers(0, 90)),
)  # fmt: skip
logs = st.lists(
    st.builds(
        LogEntry, what=names, did=st.sampled_from(get_args(Deed)), at=names,
        part=names, photo=names, minutes=st.none() | st.integers(1, 600),
        number=st.integers(1, 9), size=st.none() | st.tuples(lengths, lengths), drawn=names,
        text=st.text(max_size=5),
    ),
    max_size=3,
).map(tuple)  # fmt: skip

long_ratios = st.builds(F, st.integers(0, 10**19), st.integers(10**15, 10**19))


@given(st.lists(long_ratios, min_size=4, max_size=4, unique=True))
def test_a_seam_made_of_long_fractions_is_one_that_a_file_holds(numbers):
    x, y, h, k = numbers
    p, q = (x + 1, y), (h - y + k, k + x + 1 - h)
    assume(abs(x + 1 - h) > 1)
    long = replace(block_of(), seams=(straight(p, q), curved(p, q, (h, k))))
    assert loads(dumps(project_of(long))) == project_of(long)


@given(projects())
@settings(max_examples=many(40, 500))
def test_a_saved_project_is_read_back_equal(project):
    text = dumps(project)
    assert loads(text) == project
    assert dumps(loads(text)) == text
    assert loads(dumps_compact(project)) == project
    bare = replace(project, blocks=project.blocks[:0])
    assert why_not_kept(project, bare) == ""


SAMPLE = {
    "format": "inlet",
    "version": 1,
    "name": "Reed Channel",
    "measure": {
        "system": "inch",
        "seam": "1/4",
        "ruler": "1/8",
        "school": "exact",
        "awkward": "best",
    },
    "fabrics": [{"id": "fog", "name": "Fog", "colour": "#d9dcd6", "width": "42"}],
    "blocks": [
        {
            "id": "sluice",
            "finished": ["9", "9"],
            "columns": ["1", "1", "1"],
            "rows": ["1", "1", "1"],
            "seams": [{"line": [["1", "0"], ["1", "3"]]}],
            "fabric_at": [{"point": ["1/2", "1/2"], "fabric": "fog"}],
        }
    ],
}


def changed(path: str, value: object) -> str:
    """The sample with one place changed: ``blocks.0.id``; None takes the key away."""
    raw = json.loads(json.dumps(SAMPLE))
    *steps, last = path.split(".")
    at = raw
    for step in steps:
        at = at[int(step) if step.isdigit() else step]
    key = int(last) if last.isdigit() else last
    if value is None:
        del at[key]
    else:
        at[key] = value
    return json.dumps(raw)


@pytest.mark.parametrize(
    ("path", "value", "place"),
    [
        ("format", "other", "not an Inlet project"),
        ("version", 2, "version: 2"),
        ("version", True, "version"),
        ("blocks", None, "blocks: missing"),
        ("blocks", {}, "blocks"),
        ("blocks.0.id", None, "blocks[0]: “id” is missing"),
        ("blocks.0.finished.1", "nine", "blocks[0].finished[1]: “nine” is not a number"),
        ("blocks.0.finished.1", "0", "blocks[0].finished[1]: 0 must be from"),
        ("blocks.0.finished.0", "-9", "blocks[0].finished[0]"),
        ("blocks.0.finished.0", "400", "larger than a block can be"),
        ("blocks.0.finished.0", "inf", "blocks[0].finished[0]"),
        ("blocks.0.finished.0", float("nan"), "NaN"),
        ("blocks.0.finished.0", "1/0", "divides by zero"),
        ("blocks.0.finished.0", [], "blocks[0].finished[0]"),
        ("blocks.0.columns", [], "blocks[0].columns"),
        ("blocks.0.columns.1", "0", "blocks[0].columns[1]"),
        ("blocks.0.seams.0.line.1", None, "blocks[0].seams[0].line"),
        ("blocks.0.seams.0.line.1", ["1", "0"], "both ends are the same point"),
        ("blocks.0.seams.0", {}, "either a"),
        ("blocks.0.seams.0", {"arc": {"centre": ["0", "0"], "from": ["1", "0"],
                                      "to": ["0", "2"]}}, "seams[0].arc: its ends are not equally"),
        ("blocks.0.seams.0", {"arc": {"centre": ["1", "0"], "from": ["0", "0"],
                                      "to": ["2", "0"]}}, "opposite one another"),
        ("blocks.0.fabric_at.0.fabric", "mud", "no fabric has the id “mud”"),
        ("fabrics.0.colour", "blue", "fabrics[0].colour"),
        ("fabrics.0.width", "-1", "fabrics[0].width"),
        ("fabrics.0.value", "bright", "fabrics[0].value"),
        ("fabrics.0.print", {"image": "not a picture!"}, "fabrics[0].print.image"),
        ("fabrics.0.print", {"image": "aGk=", "width": "0"}, "fabrics[0].print.width"),
        ("measure.system", "furlong", "measure.system"),
        ("measure.seam", "√2", "measure.seam"),
        ("measure.ruler", "0", "measure.ruler"),
        ("fabrics.0.have", [{"kind": "rug"}], "fabrics[0].have[0].kind: “rug” is not \"bolt\""),
        ("fabrics.0.have", [{"kind": "bolt"}], "fabrics[0].have[0].length: missing"),
        ("fabrics.0.have", [{"kind": "scrap", "width": "5", "length": "0"}], "have[0].length"),
        ("fabrics.0.have", [{"kind": "fat-quarter", "count": 0}], "have[0].count"),
        ("fabrics.0.have", [{"kind": "bolt", "width": "4", "length": "9", "selvage": "2"}],
         "leaves no fabric between the selvages"),
        ("fabrics.0.shrink", ["60", "0"], "fabrics[0].shrink[0]: 60 must be from 0"),
        ("fabrics.0.price", "a lot", "fabrics[0].price: “a lot” is not a number"),
        ("fabrics.0.direction", "up", "fabrics[0].direction: “up” is not \"one-way\""),
        ("cutting", {"folds": 3}, "cutting.folds: 3 is not 0, 1 or 2"),
        ("cutting", {"goal": "speed"}, "cutting.goal: “speed”"),
        ("cutting", {"begun": [{"fabric": "fog", "block": "sluice", "copies": 1, "cloth": {
            "kind": "new", "width": "42", "length": "9", "strips": [{"width": "10",
            "segments": [{"width": "5", "rows": [{"width": "10", "pieces": [
                {"label": "A", "size": ["5", "10"]}]}]}]}]}}]}, "its pieces do not lie on it"),
    ],
)  # fmt: skip
def test_what_breaks_the_format_is_refused_with_its_place(path, value, place):
    with pytest.raises(FileProblem) as why:
        loads(changed(path, value), "reed.json")
    assert place in str(why.value)
    assert str(why.value).startswith("reed.json: ")
    assert "\n" not in str(why.value)


def test_ids_used_twice_are_refused():
    for key in ("fabrics", "blocks"):
        raw = json.loads(json.dumps(SAMPLE))
        raw[key] *= 2
        with pytest.raises(FileProblem, match=rf"{key}\[1\].id: .* used twice"):
            loads(json.dumps(raw))


@pytest.mark.parametrize(
    "text", ["", "{", "[]", "null", "\x00\x01", '{"format": "inlet", "format": 1}', "[" * 99999]
)
def test_damaged_text_is_refused(text):
    with pytest.raises(FileProblem):
        loads(text)


def test_left_out_parts_have_usual_values_and_numbers_may_be_plain():
    project = loads(
        '{"format": "inlet", "version": 1, "blocks": [{"id": "x", "finished": [9, 8.5]}]}'
    )
    assert project.measure == Measure()
    assert project.blocks[0].finished == (F(9), F(17, 2))


def test_unknown_keys_and_the_quilt_are_kept_where_they_were():
    raw = json.loads(json.dumps(SAMPLE))
    raw["quilt"] = {"setting": "on-point", "columns": 6, "borders": [{"width": "2"}]}
    raw["mood"] = 1.5
    raw["blocks"][0]["seams"][0]["pencil"] = {"hard": True}
    again = json.loads(dumps(loads(json.dumps(raw))))
    assert again == raw


def test_saving_is_whole_and_keeps_the_version_before(tmp_path):
    path = tmp_path / "reed.inlet"
    first = loads(json.dumps(SAMPLE))
    save(first, path)
    second = replace(first, name="Second")
    save(second, path)
    assert load(path) == second
    assert load(previous_version(path)) == first
    assert sorted(p.name for p in tmp_path.iterdir()) == ["reed.inlet", "reed.inlet~"]


def test_a_failed_save_leaves_the_file_as_it_was(tmp_path, monkeypatch):
    path = tmp_path / "reed.inlet"
    project = loads(json.dumps(SAMPLE))
    save(project, path)
    before = path.read_bytes()

    def full(*_args):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(os, "fsync", full)
    with pytest.raises(FileProblem, match="no space left"):
        save(replace(project, name="Other"), path)
    assert path.read_bytes() == before
    assert [p.name for p in tmp_path.iterdir()] == ["reed.inlet"]


def test_places_that_cannot_be_read_or_written(tmp_path):
    project = loads(json.dumps(SAMPLE))
    for path in (tmp_path, tmp_path / "none.json", tmp_path / "none" / "x.json"):
        with pytest.raises(FileProblem, match=path.name):
            load(path)
    for path in (tmp_path, tmp_path / "none" / "x.json"):
        with pytest.raises(FileProblem):
            save(project, path)
        with pytest.raises(FileProblem):
            write_guide(plan_block(project, project.blocks[0]), path)
    damaged = tmp_path / "damaged.json"
    damaged.write_bytes(b"\xff\xfe{")
    with pytest.raises(FileProblem, match="not a text file"):
        load(damaged)
    assert damaged.read_bytes() == b"\xff\xfe{"


# --- plans --------------------------------------------------------------------------------------


def joins_in(node) -> int:
    return 1 + sum(joins_in(p) for p in node["parts"]) if isinstance(node, dict) else 0


@given(unit_blocks(), st.integers(1, 5))
@settings(max_examples=many(6, 12))
def test_a_plan_says_what_the_plan_format_promises(block, copies):
    plan = json.loads(json.dumps(plan_dict(plan_block(project_of(block), block, copies))))
    assert (plan["format"], plan["version"]) == ("inlet-plan", 1)
    assert plan["resewn"] is True
    assert joins_in(plan["assembly"]) == plan["seams"]["straight"] == len(plan["patches"]) - 1
    width, height = (parse_exact(n) for n in plan["block"]["finished"])
    corners = {(parse_exact(x), parse_exact(y)) for p in plan["patches"] for x, y in p["outline"]}
    assert {(F(0), F(0)), (width, F(0)), (width, height), (F(0), height)} <= corners
    for unit in plan["units"]:
        assert unit["method"] in [m["name"] for m in unit["methods"]]
        for method in unit["methods"]:
            assert method["runs"] * method["makes"] - unit["count"] == method["surplus"]
            for piece in method["pieces"]:
                for cut, exact in zip(piece["cut"], piece["exact"], strict=True):
                    off = parse_exact(cut) - parse_exact(exact)
                    assert -F(1, 8) < off < F(1, 8)  # fitted to its neighbours, at most
    wanted = sum(
        piece["count"]
        for unit in plan["units"]
        for method in unit["methods"]
        if method["name"] == unit["method"]
        for piece in method["pieces"]
        if piece["shape"] != "strip"  # units share sets of strips
    )
    assert sum(c["count"] for c in plan["cuts"] if c["shape"] != "strip") == wanted


# --- guides -------------------------------------------------------------------------------------


def text_of(path: Path) -> str:
    return " ".join(" ".join(page.extract_text() for page in PdfReader(path).pages).split())


def words_on(page):
    """The words of a page, letters in pictures aside, with the boxes they take."""
    found = []

    def seen(text, moved, matrix, font, size):
        if len(text.strip()) > 3:
            name = font["/BaseFont"].rpartition("+")[2]
            wide = stringWidth(text.strip(), name, size)
            a, b, c, d, e, f = moved
            u, v = matrix[4:]
            x, y = a * u + c * v + e, b * u + d * v + f
            found.append((x, y, x + wide, y + 0.7 * size, text))

    page.extract_text(visitor_text=seen)
    return found


SIXTHS = " / ".join(f"{i} 0 {i} 6 / 0 {i} 6 {i}" for i in range(1, 6))
THIRDS = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2"
MANY = THIRDS + (" / 0 0 1 1 / 2 1 3 0 / 0 2 1 3 / 1 0 2 1 / 1 1 2 0 / 0 3/2 1 3/2 / 5/2 1 5/2 2 "
                 "/ 1 5/2 2 5/2 / 3/2 2 3/2 3 / 2 2 3 3")  # fmt: skip
SCRAPS = THIRDS + "".join(f" / {x} {y} {x + 1} {y + 1}" for x in range(3) for y in range(3))
AWKWARD = "1 0 1 3 / 0 1 3 1 / 1 1 2 2 / 2 2 3 2 / 2 2 2 3"


@pytest.mark.parametrize(
    ("drawn", "grid", "fabrics", "pages"),
    [(SIXTHS, 6, "abababbababa", 4), (MANY, 3, "abcde", 11), (SCRAPS, 3, "abcdefedcbafbecdaf", 8),
     (AWKWARD, 3, "abc", 6), ("1 0 1 2 / 0 1 2 1 / 0 0 1 1", 2, "abc", 5)],
    ids=["checkerboard", "many units", "scraps", "awkward seams", "small"],
)  # fmt: skip
def test_a_guide_saves_paper_and_its_words_never_collide(tmp_path, drawn, grid, fabrics, pages):
    """In inches and centimetres; no page has but a line or two."""
    block = block_of(drawn, grid, grid, (F(9), F(9)), fabrics)
    for measure in (Measure(), replace(METRIC, awkward="trim")):
        path = tmp_path / "guide.pdf"
        write_guide(plan_block(replace(project_of(block), measure=measure), block, 2), path)
        found = PdfReader(path).pages
        assert len(found) <= pages
        for page in found:
            words = words_on(page)
            assert len({round(y) for _, y, *_ in words}) > 5
            right = float(page.mediabox.width) - 40
            for i, (x0, y0, x1, y1, text) in enumerate(words):
                assert x1 < right, text
                for u0, v0, u1, v1, other in words[i + 1 :]:
                    clear = x1 <= u0 + 1 or u1 <= x0 + 1 or y1 <= v0 or v1 <= y0
                    assert clear, (text, other)


@pytest.mark.parametrize("versions", [1, 2])
def test_a_guide_shows_the_back_of_every_version(tmp_path, versions):
    """Who presses at the end has each on a sheet of its own, and is told to fold until then."""
    wishes = BlockPressing(method="end", setting="one-way", versions=versions)
    block = replace(NAMED["dash"], pressing=wishes)
    path = tmp_path / "guide.pdf"
    write_guide(plan_block(project_of(block), block), path)
    found = [page.extract_text() for page in PdfReader(path).pages]
    backs = [text for text in found if "The back, " in text]
    assert len(backs) == versions
    assert ("version 2" in backs[-1]) == (versions == 2)
    assert sum(text.count("Fold ") for text in found) >= 4
    assert all("Fold " not in text for text in backs)


def test_units_of_one_shape_are_one_card_with_a_table_of_fabrics(tmp_path):
    """Nine triangle squares of other fabrics each, as many of one sort as another."""
    block = block_of(SCRAPS, 3, 3, (9, 9), "abcdefedcbafbecdaf")
    plan = plan_block(project_of(block), block)
    units = [step for step in plan.steps if step.unit]
    found = [card for card in cards(plan.steps) if card.first.unit]
    assert sorted(s.makes for card in found for s in card.steps) == sorted(s.makes for s in units)
    assert len(found) == len({step.unit.in_use.name for step in units}) < len(units)
    for card in found:
        rows = fabric_rows(card, plan.stacks, plan.project)
        assert [row[0] for row in rows] == [step.makes for step in card.steps]
        for step, row in zip(card.steps, rows, strict=True):
            told = [fabric_name(plan.project, p.piece.fabric) for p in step.unit.in_use.pieces]
            assert [text.split()[1] for text in row[2:-1]] == told
            surplus = step.unit.in_use.surplus
            assert row[-1] == (f"{surplus} will be over." if surplus else "")
    path = tmp_path / "guide.pdf"
    write_guide(plan, path)
    assert text_of(path).count("Draw a ") == len(found)


def test_a_guide_shows_equal_moves_once_with_their_number(tmp_path):
    """A checkerboard of 36 squares: six rows, the second like the first turned round, then the rows
    together. Two pictures of sewing, in words as a person says them."""
    block = block_of(SIXTHS, 6, 6, (12, 12), "abababbababa")
    block = replace(block, methods={"checkerboard": "plain"})
    plan = plan_block(project_of(block), block)
    (unit,) = plan.units
    shown = like_ones_together(unit.in_use.moves)
    assert sum(each.times for each in shown) == len(unit.in_use.moves)
    assert [each.times for each in shown if each.move.do == "sew"] == [6, 1]
    assert "Sew 6 rows of 6, right sides together: A1 and A2 in turn; press." in plan.steps[0].text
    assert "together, seams meeting, every second one beginning with A2" in plan.steps[0].text
    assert [task.verb for b in plan.batches for task in b.tasks] == [
        "cut", "sew", "press", "sew", "press"
    ]  # fmt: skip
    path = tmp_path / "guide.pdf"
    write_guide(plan, path)
    assert "6 times: Sew" not in text_of(path)


def test_a_guide_carries_every_size_and_step(tmp_path):
    drawn = "1 0 1 3 / 2 0 2 3 / 0 1 3 1 / 0 2 3 2 / 0 0 1 1 / 2 2 3 3"
    block = replace(block_of(drawn, 3, 3, (F(43, 4), F(43, 4)), "ab"), name="Tide Gate")
    project = project_of(block)
    plan = plan_block(project, block, 3)
    path = tmp_path / "guide.pdf"
    write_guide(plan, path)
    text = text_of(path)
    for words in (
        "Tide Gate", "finished 10¾ in", "unfinished 11¼ in", "seam ¼ in", "Cut list",
        "4¹⁄₁₆ in", "4⁷⁄₁₆ in", "half-square triangle", "make 6", "Row 1", "The block",
        "Cut on the drawn line", "measures 11³⁄₁₆ in", "manuals",
    ):  # fmt: skip
        assert words in text, words
    # Three blocks of two triangles, three plain squares of A and four of B, each once: counted by
    # hand in the drawing.
    for line in (
        "A: 6 × half-square triangle", "B: 12 × square", "C: 9 × square", "3 ×", "12 ×", "9 ×",
    ):  # fmt: skip
        assert line in text, line
    assert text.count("make 3") >= 4  # three rows and the block
    assert thread_text(thread_for(plan.batches, 60, plan.measure), plan.measure)[:20] in text
    assert "{" not in text
    assert sorted(p.name for p in tmp_path.iterdir()) == ["guide.pdf"]


def test_a_label_says_what_comes_out_of_the_cuts():
    """Triangle squares of 2 11/16 cut 3 5/8: 3 1/4 by the drawing, 3.271 as they are cut."""
    block = block_of("0 0 1 1", 1, 1, (F(43, 16), F(43, 16)), "ab")
    block = replace(block, methods={"half-square-triangle": "two-at-a-time"})
    left = replace(project_of(block), measure=Measure(awkward="leave"))
    *_, sewn = labels(plan_block(left, block))
    assert "sewn, measures 3 1/4 in, generous by 1/64 in" in sewn.lines


@pytest.mark.parametrize(("paper", "width"), [("letter", 612), ("a4", 595)])
def test_paper(tmp_path, paper, width):
    block = block_of(GOOSE, 2, 1, (16, 8), "aba")
    project = replace(project_of(block), measure=METRIC)
    path = tmp_path / "guide.pdf"
    write_guide(plan_block(project, block), path, paper)
    assert round(PdfReader(path).pages[0].mediabox.width) == width
    write_guide(plan_block(project, block), path)
    assert round(PdfReader(path).pages[0].mediabox.width) == 595
    assert "seam 0.75 cm" in text_of(path)


def test_a_guide_of_awkward_seams_and_of_what_cannot_be_sewn(tmp_path):
    path = tmp_path / "guide.pdf"
    block = block_of(AWKWARD, 3, 3)
    write_guide(plan_block(project_of(block), block), path)
    text = text_of(path)
    assert "swing the piece" in text
    assert "Sittings" in text
    assert "One more seam" in text
    block = block_of("1 1 2 1 / 2 1 2 2 / 2 2 1 2 / 1 2 1 1", 3, 3)
    write_guide(plan_block(project_of(block), block), path)
    assert "island" in text_of(path) or "touch" in text_of(path)


def test_a_file_that_says_only_its_system_gets_what_is_usual_there():
    """And how many layers a blade cuts is read under the key that files had for it before."""
    raw = {"format": "inlet", "version": 1, "blocks": [], "measure": {"system": "cm"},
           "cutting": {"stack": 6}}  # fmt: skip
    project = loads(json.dumps(raw))
    assert project.measure == METRIC
    assert project.cutting.blade == 6
    assert loads(dumps(project)) == project
    raw["measure"]["seam"] = "1"
    assert loads(json.dumps(raw)).measure == replace(METRIC, seam=F(1))
    raw["measure"] = {"system": "ell"}
    with pytest.raises(FileProblem, match="system"):
        loads(json.dumps(raw))


def test_a_fraction_in_a_table_is_no_day(tmp_path):
    """A spreadsheet takes 5/2 for the fifth of February; with a unit it is text as it is."""
    path = tmp_path / "cells.csv"
    write_csv([["5/2", "1 1/2", "3-1/2", "2 1/2 in", "2.5", "A 1/2", "12"]], path)
    text = path.read_text(encoding="utf-8-sig").strip()
    assert text == "'5/2,'1 1/2,'3-1/2,2 1/2 in,2.5,A 1/2,12"
