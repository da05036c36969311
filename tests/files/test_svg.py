"""Blocks as drawings, and drawings as blocks."""

from __future__ import annotations

import re
import threading
import time
from functools import partial

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.cancellation import Job, Stopped, under
from inlet.core.draft.edit import add_seams
from inlet.core.draft.patches import draft
from inlet.core.draft.tray import Box, drop, tray_units
from inlet.core.geometry.curve import Curve
from inlet.core.geometry.outline import shape_key
from inlet.core.geometry.point import Point
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import CENTIMETRES
from inlet.core.project.block import MOST_SEAMS, Block, seam_along
from inlet.core.project.value import replace
from inlet.files.drawings import svg_import
from inlet.files.drawings.svg import block_svg
from inlet.files.drawings.svg_import import read_svg
from inlet.files.project.project_json import FileProblem
from tests.blocks import mixed_seams, point, project_of
from tests.fuzz.drawings import complaint
from tests.fuzz.drawings import drawing as random_drawing

read_here = partial(read_svg, apart=False)
"""The same as ``read_svg``, sooner: without a process for each drawing."""
EMPTY = Block(id="new", finished=(F(12), F(12)))


def shapes(block: Block) -> set:
    return {shape_key(p.shape) for p in draft(block).patches}


def board(n: int) -> Block:
    return Block(id="x", finished=(F(12), F(12)), columns=(F(1),) * n, rows=(F(1),) * n)


@given(mixed_seams(most=6))
@settings(max_examples=40, deadline=None)
def test_a_block_written_as_svg_reads_back_to_the_same_patches(drawn):
    block = add_seams(board(6), (seam_along(c) for c in drawn))
    if any(f.kind == "outside" for f in draft(block).arrangement.faults):
        return  # the drawing would be larger than the block
    back = read_here(block_svg(project_of(block), block), "x.svg", block=EMPTY)
    assert shapes(back.block) == shapes(block)


@given(st.sampled_from(tray_units()))
@settings(max_examples=22, deadline=None)
def test_units_read_back_from_their_picture_alone(tray_unit):
    k = 4 / max(tray_unit.size)
    box = Box(point(0, 0), Point(tray_unit.size[0] * k, tray_unit.size[1] * k))
    block = drop(board(4), tray_unit, box, ["a", "b", "c"])
    plain = re.sub(r' data-[a-z]+="[^"]*"', "", block_svg(project_of(block), block))
    back = read_here(plain, "x.svg", block=EMPTY).block
    assert {shape_key(p.shape) for p in draft(back).patches} == shapes(block)
    assert len(draft(back).patches) == len(draft(block).patches)


def drawing(inner: str) -> str:
    frame = '<rect width="40" height="40"/>'
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40">{frame}{inner}</svg>'


def read(inner: str) -> tuple[list[str], str]:
    made = read_here(drawing(inner), "x.svg", block=EMPTY, columns=4, rows=4)
    text = [" ".join(str(x) for p in s.curve if p is not None for x in p) for s in made.block.seams]
    return text, " ".join(made.report)


@pytest.mark.parametrize(
    ("inner", "seams"),
    [
        ('<line x1="0" y1="10.1" x2="40" y2="9.95"/>', ["0 1 4 1"]),
        ('<g transform="translate(10,0)"><path d="m0 0v40"/></g>', ["1 0 1 4"]),
        ('<path transform="matrix(0 1 1 0 0 0)" d="M0,10h40"/>', ["1 0 1 4"]),
        ('<path d="M10 0A10 10 0 0 1 0 10"/>', ["0 1 1 0 0 0"]),
        ('<path d="M10 0C10 5.523 5.523 10 0 10"/>', ["0 1 1 0 0 0"]),
        ('<path d="M0 10 C 13 10 27 10 40 10"/>', ["0 1 4 1"]),
        ('<circle cx="20" cy="20" r="10"/>',
         ["2 3 3 2 2 2", "1 2 2 3 2 2", "1 2 2 1 2 2", "2 1 3 2 2 2"]),
        ('<g display="none"><line x1="0" y1="10" x2="40" y2="10"/></g>'
         '<polyline points="0,20 40,20"/>', ["0 2 4 2"]),
    ],
)  # fmt: skip
def test_lines_and_arcs_as_programs_write_them(inner, seams):
    assert sorted(read(inner)[0]) == sorted(seams)


def test_a_drawing_that_lies_about_its_block_is_read_by_its_picture():
    block = drop(board(4), tray_units()[16], Box(point(0, 0), point(4, 4)), ["a", "b"])
    text = block_svg(project_of(block), block)
    for lie in (
        text.replace('data-finished="12 12"', 'data-finished="4000 4000"'),
        text.replace('data-columns="1 1 1 1"', 'data-columns="' + "1 " * 999 + '"'),
        re.sub('data-seam="[^"]*"', 'data-seam="0 0 4 4"', text),
        re.sub('data-seam="[^"]*"', 'data-seam="8/3 0 0 8/3 9 9"', text),
    ):
        back = read_here(lie, "x.svg", block=EMPTY).block
        assert back.finished == (12, 12)
        assert shapes(back) == shapes(block)


def test_a_drawing_in_inches_keeps_its_size_in_centimetres():
    block = replace(board(2), finished=(F(10), F(10)))
    block = add_seams(block, [seam_along(Curve(point(1, 0), point(1, 2)))])
    text = block_svg(project_of(block), block)
    assert read_here(text, "x", block=EMPTY, system=CENTIMETRES).block.finished[0] == F(254, 10)


def test_what_is_left_out_is_said():
    _, report = read(
        '<line x1="0" y1="10" x2="40" y2="10"/><ellipse cx="20" cy="20" rx="10" ry="4"/>'
        '<image href="x.png"/><path d="M0 0C0 40 9 0 31 22"/>'
        '<line x1="3.7" y1="0" x2="3.7" y2="40"/>'
    )
    for words in ("arc of an ellipse", "1 × curve that is no arc", "1 × image",
                  "2 ends lie off the grid"):  # fmt: skip
        assert words in report


@pytest.mark.parametrize(
    ("text", "why"),
    [
        ("", "not an SVG"), ("<svg", "not an SVG"), ("<html/>", "not an SVG"),
        ('<svg xmlns="http://www.w3.org/2000/svg"/>', "no lines or arcs"),
        ('<svg xmlns="http://www.w3.org/2000/svg"><line x2="4"/></svg>', "two directions"),
        ('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0L99 1L0 1Z"/></svg>', "thin"),
        ('<!DOCTYPE svg [<!ENTITY a "b">]><svg/>', "entities"),
        ('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0 Lx"/></svg>', "x.svg"),
    ],
)  # fmt: skip
def test_what_is_no_drawing_is_refused_with_a_sentence(text, why):
    with pytest.raises(FileProblem, match=why):
        read_here(text, "x.svg", block=EMPTY)


def bare(inner: str) -> str:
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">{inner}</svg>'


def nested(depth: int) -> str:
    twice = "".join(
        f'<g id="a{i}"><use href="#a{i + 1}"/><use href="#a{i + 1}"/></g>' for i in range(depth)
    )
    line = f'<g id="a{depth}"><line x1="0" y1="0" x2="9" y2="9"/></g>'
    return bare(f'<defs>{twice}{line}</defs><use href="#a0"/><line y1="50" x2="99" y2="50"/>')


@pytest.mark.parametrize(
    ("text", "why"),
    [
        (nested(20), "20000 are the most"),
        (bare('<g id="a"><use href="#a"/></g>'), "stands for itself"),
        (bare(f'<path d="M 0 0 {"L 9 8 " * 51_000}"/>'), "100000 are too many"),
        (bare('<path d="M 0 0 A 3 0 0 0 1 9 9"/><line x2="9"/>'), "damaged|two directions"),
    ],
)
def test_what_is_too_large_is_refused_before_it_is_drawn(text, why):
    with pytest.raises(FileProblem, match=why):
        read_here(text, "x.svg", block=EMPTY)


def test_lines_too_short_or_too_many_are_counted():
    _, report = read('<line x1="9" y1="0" x2="9" y2="40"/><line x1="5" y1="5" x2="5.01" y2="5"/>')
    assert "Left out: 1 × line too short or too many" in report
    many = "".join(
        f'<line x1="{i % 64}" y1="{i // 64}" x2="{i % 64 + 1}" y2="{i // 64 + 1}"/>'
        for i in range(MOST_SEAMS + 7)
    )
    made = read_here(bare(many), "x.svg", block=EMPTY, columns=64, rows=63)
    assert "7 × line too short or too many" in " ".join(made.report)
    assert len(made.block.seams) <= MOST_SEAMS


@pytest.mark.parametrize("n", [5, 7, 23, 47])
def test_a_drawings_proportions_become_a_short_fraction(n):
    lines = f'<line x2="24"/><line x1="12" x2="12" y2="{n}"/><line y1="{n}" x2="24" y2="{n}"/>'
    block = read_here(bare(lines), "x.svg", block=EMPTY).block
    assert block.finished[1] / block.finished[0] == F(n, 24)


def test_parts_used_a_few_times_are_read():
    made = read_here(nested(3), "x.svg", block=EMPTY)
    assert len(made.block.seams) == 1  # eight times the same, and one along the edge


def test_numbers_out_of_reach_are_left_out_and_counted():
    made = read_here(
        bare('<ellipse cx="9" cy="9" rx="5" ry="1e308"/><line x2="50" y2="50"/>'
             '<line x1="0" y1="1e12" x2="50" y2="50"/>'),
        "x.svg", block=EMPTY,
    )  # fmt: skip
    assert len(made.block.seams) == 1
    assert "too far away" in " ".join(made.report)


def test_sides_that_pieces_share_are_one_seam():
    grid = "".join(
        f'<rect x="{i % 40 * 2}" y="{i // 40 * 2}" width="2" height="2"/>' for i in range(900)
    )
    made = read_here(bare(grid), "x.svg", block=EMPTY, columns=40, rows=23)
    assert len({s.curve for s in made.block.seams}) == len(made.block.seams) < 2 * 900
    assert len(draft(made.block).patches) >= 880


def test_reading_can_be_stopped_and_tells_how_far_it_is():
    lines = bare("".join(f'<line x1="{i}" y1="0" x2="{i}" y2="99"/>' for i in range(99)))
    heard: list[float] = []
    with under(Job(heard.append)):
        read_here(lines, "x.svg", block=EMPTY)
    assert heard == sorted(heard)
    assert 0 <= heard[0] < heard[-1] <= 1
    job = Job()
    job.stop()
    with pytest.raises(Stopped), under(job):
        read_here(lines, "x.svg", block=EMPTY)


def test_a_drawing_is_read_apart_as_it_is_here():
    text = drawing('<path d="M0 0 h90 v90 a 30 30 0 0 1 -30 -30"/><text>Heron</text>')
    assert read_svg(text, "x.svg", block=EMPTY) == read_here(text, "x.svg", block=EMPTY)
    with pytest.raises(FileProblem, match=r"x\.svg: not an SVG drawing \(line 1"):
        read_svg("no drawing", "x.svg", block=EMPTY)


def used(depth: int) -> str:
    """Parts that stand for two of the one before, behind an attribute that stands for nothing."""
    use = '<use data-href="#none" href="#p{0}"/>'
    parts = [f'<g id="p{n + 1}">{use.format(n) * 2}</g>' for n in range(depth)]
    return bare(f'<g id="p0"><line x2="9"/></g>{"".join(parts)}{use.format(depth)}')


HOSTILE = {
    "use": used(30),
    "transform": bare(f'<line x2="9" transform="{"rotate(1) " * 34_000}"/>'),
    "style": bare(f'<style>{"a{" * 73_000}</style><line x2="9"/>'),
    "memory": bare(
        f'<g transform="scale({"9" * 400})">' * 2_000 + '<line x2="9"/>' + "</g>" * 2_000
    ),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_a_drawing_that_never_ends_is_given_up_with_a_sentence(name, monkeypatch):
    monkeypatch.setattr(svg_import, "MOST_SECONDS", 1.0)
    began = time.monotonic()
    said = "are the most" if name == "use" else "takes"
    with pytest.raises(FileProblem, match=rf"^x\.svg: .*{said}"):
        read_svg(HOSTILE[name], "x.svg", block=EMPTY)
    assert time.monotonic() - began < 15  # 1 s, on whatever machine


def test_a_drawing_that_never_ends_can_be_stopped():
    job = Job()
    threading.Timer(0.3, job.stop).start()
    began = time.monotonic()
    with pytest.raises(Stopped), under(job):
        read_svg(HOSTILE["transform"], "x.svg", block=EMPTY)
    assert time.monotonic() - began < 4


@pytest.mark.parametrize("seed", range(80))
def test_a_random_drawing_is_read_or_refused(seed):
    assert complaint(random_drawing(seed)) is None
