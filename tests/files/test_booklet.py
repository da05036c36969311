"""The guide as a booklet: contents that lead, pages counted, moves large with their words, rows."""

from __future__ import annotations

import math

import pytest
from pypdf import PdfReader

from inlet.core.figures.row import row_of_top
from inlet.core.figures.top import top_figure
from inlet.core.piecing import step_moves
from inlet.core.plan.block import plan_block
from inlet.core.plan.quilt import plan_quilt
from inlet.core.project.quilt import Quilt
from inlet.core.project.value import replace
from inlet.core.table.moves import Repeated
from inlet.files.pdf.booklet import HIGHEST, LEAST_WIDE, CellPicture
from inlet.files.pdf.guide_blocks import Fabrics
from inlet.files.pdf.guide_pdf import write_guide
from inlet.files.pdf.quilt_pdf import write_quilt
from inlet.files.project.project_json import load
from inlet.ui.shell.app import DEMO
from tests.sample import sampled

MM = 72 / 25.4
BLOCKS = [block.id for block in load(DEMO).blocks if block.seams and not block.made_from]


def guide(tmp_path, block_id: str, **more):
    demo = load(DEMO)
    path = tmp_path / "guide.pdf"
    write_guide(plan_block(demo, demo.block(block_id)), path, **more)
    return PdfReader(path)


def sizes_of(page) -> dict[str, set[float]]:
    """The sizes of the letters of a page, by their typeface."""
    found: dict[str, set[float]] = {}

    def seen(text, _moved, _matrix, font, size):
        if text.strip() and font:
            found.setdefault(font["/BaseFont"].rpartition("-")[2], set()).add(round(size, 2))

    page.extract_text(visitor_text=seen)
    return found


def check_booklet(reader) -> list[str]:
    """Pages counted, contents that tell the truth, letters large enough; the chapters."""
    total = len(reader.pages)
    for number, page in enumerate(reader.pages, 1):
        text = page.extract_text()
        assert f"{number} of {total}" in text
        assert min(sizes_of(page).get("Regular", {10.0})) >= 10
        words = [line for line in text.splitlines() if len(line.strip()) > 1]
        assert len(words) > 5, (number, words)
    chapters = [(entry["/Title"], reader.get_destination_page_number(entry) + 1)
                for entry in reader.outline]  # fmt: skip
    assert len(chapters) >= 4
    lists = [p.extract_text() for p in reader.pages if "In this booklet" in p.extract_text()]
    assert len(lists) == 1
    contents = " ".join(lists[0].split())
    for title, number in chapters:
        assert f"{title} {number}" in contents or f"{title} . {number}" in contents, title
        assert title.split()[0].lower() in reader.pages[number - 1].extract_text().lower()
    assert [number for _, number in chapters] == sorted(number for _, number in chapters)
    return [title for title, _ in chapters]


@pytest.mark.parametrize("block_id", sampled(BLOCKS, 3))
@pytest.mark.parametrize("paper", ["letter", "a4"])
def test_a_block_has_a_booklet(tmp_path, block_id, paper):
    reader = guide(tmp_path, block_id, paper=paper)
    chapters = check_booklet(reader)
    assert chapters[0] == "The block and its units"
    assert {"Cut list", "Cutting", "Sittings"} <= set(chapters)
    text = " ".join(page.extract_text() for page in reader.pages)
    assert "To buy" in text
    assert "To have" in text


def test_sizes_are_charted_when_asked_for(tmp_path):
    chapters = check_booklet(guide(tmp_path, "sluice", sizes="6, 12"))
    assert chapters[-1] == "Sizes"
    assert "Sizes" not in check_booklet(guide(tmp_path, "sluice"))


@pytest.mark.parametrize("block_id", BLOCKS)
def test_every_move_is_thirty_millimetres_wide_or_as_high_as_can_be(block_id):
    demo = load(DEMO)
    plan = plan_block(demo, demo.block(block_id))
    fabrics, shown = Fabrics(demo, {}), 0
    for step in plan.steps:
        for move in step_moves(plan.draft, step, plan.measure.seam):
            picture = CellPicture(Repeated(move, 1), fabrics)
            for cell in (112.0, 121.0, 249.0):
                across, down = picture.box(cell)
                if across:
                    shown += 1
                    assert across <= cell + 1e-6
                    assert across >= 30 * MM - 0.01 or math.isclose(down, HIGHEST)
    assert shown
    assert LEAST_WIDE >= 30 * MM


@pytest.mark.parametrize("setting", ["straight", "on-point"])
def test_a_row_alone_is_level_and_whole(setting):
    """Its pieces fill the box of a straight row; each block has its mark."""
    demo = load(DEMO)
    quilt = replace(demo.quilt or Quilt(), setting=setting)
    plan = plan_quilt(replace(demo, quilt=quilt))
    drawn, blocks = top_figure(plan.top, plan.project), 0
    for row in plan.top.rows:
        figure = row_of_top(row, drawn)
        blocks += len(figure.marks)
        for area in figure.areas:
            for x, y in area.outline:
                assert -1e-6 <= x <= figure.width + 1e-6
                assert -1e-6 <= y <= figure.height + 1e-6
        if setting == "straight":
            area = sum(abs(shoelace(area.outline)) for area in figure.areas)
            assert area >= figure.width * figure.height * (1 - 1e-6)
        else:
            assert figure.height <= figure.width + 1e-6
    assert blocks == len(drawn.blocks)


def shoelace(corners) -> float:
    twice = sum(
        x0 * y1 - x1 * y0
        for (x0, y0), (x1, y1) in zip(corners, (*corners[1:], corners[0]), strict=True)
    )
    return twice / 2


def test_a_mark_turns_with_its_block():
    """A block turned a quarter clockwise has its top, and the mark there, at the right. A straight
    row is only moved."""
    demo = load(DEMO)
    plan = plan_quilt(replace(demo, quilt=replace(demo.quilt, setting="straight")))
    drawn, turns = top_figure(plan.top, plan.project), set()
    for row in plan.top.rows:
        lying = [piece.lying for piece in row.pieces if piece.lying is not None]
        blocks = [block for block in drawn.blocks if block.on_top.lying in lying]
        corners = [p.floats() for piece in row.pieces for p in piece.outline]
        left, top = (min(spots) for spots in zip(*corners, strict=True))
        for block, mark in zip(blocks, row_of_top(row, drawn).marks, strict=True):
            x, y = block.on_top.lying.middle.floats()
            across = sum(spot[0] for spot in mark) / 3 - (x - left)
            down = sum(spot[1] for spot in mark) / 3 - (y - top)
            eighths = block.on_top.lying.eighths
            angle = math.degrees(math.atan2(down, across))
            assert round((angle + 90 - eighths * 45) % 360) in (0, 360)
            turns.add(eighths % 8)
    assert len(turns) > 1


def test_a_quilt_has_a_booklet(tmp_path):
    path = tmp_path / "quilt.pdf"
    plan = plan_quilt(load(DEMO))
    write_quilt(plan, path)
    reader = PdfReader(path)
    chapters = check_booklet(reader)
    for title in ("What to buy and to have", "Cutting", "Rows", "Layers, quilting, binding"):
        assert title in chapters
    text = " ".join(" ".join(page.extract_text() for page in reader.pages).split())
    for words in ("The dark mark lies at the top of each block", "dashed: seams", "Square up",
                  "turn it over the edge and sew it down"):  # fmt: skip
        assert words in text
