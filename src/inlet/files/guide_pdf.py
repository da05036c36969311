"""The printed guide of a block: what the maker takes to the table. Letter or A4, readable without
colour: cloths are lettered, wrong sides hatched, seams dashed, cuts solid."""

from __future__ import annotations

import os
from collections.abc import Sequence
from typing import Any, BinaryIO

from reportlab.lib.colors import Color, HexColor, black, white
from reportlab.lib.utils import simpleSplit
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfgen.canvas import Canvas

from inlet import __version__
from inlet.core.cutting.cuts import Cut
from inlet.core.cutting.words import buying_text, strips_text
from inlet.core.piecing.advice import advice_lines
from inlet.core.piecing.assembling import run_lengths
from inlet.core.piecing.needle import effect_text, needle_text
from inlet.core.piecing.pictures import step_moves
from inlet.core.piecing.step import Step
from inlet.core.piecing.words import seams_text, sitting_lines, thread_text
from inlet.core.plan import BlockPlan
from inlet.core.planning.unit_plan import UnitPlan
from inlet.core.planning.words import kind_words, method_words, move_text, over_text
from inlet.core.table.moves import DrawnLine, Move, like_ones_together
from inlet.core.table.piece_words import diagonal_text, over_triangles
from inlet.core.table.sheets import Sheet
from inlet.core.units.units import label_place, letters
from inlet.core.words import CAUTIONS, cloth_name, length_text, measured_text, size_text
from inlet.files.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, write_pages


def write_guide(plan: BlockPlan, path: str | os.PathLike[str], paper: str | None = None) -> None:
    """Write the guide of a plan as PDF, see ``write_pages``."""
    write_pages(path, plan.measure, paper, lambda to, size: _Guide(plan, to, size).write())


class _Guide:
    """The pages, written top down; ``y`` is how far down the current one is written, in points."""

    def __init__(self, plan: BlockPlan, to: BinaryIO, size: tuple[float, float]) -> None:
        self.plan = plan
        self.project = plan.project
        self.width, self.height = size
        self.canvas: Any = Canvas(to, pagesize=size)
        self.canvas.setTitle(f"{plan.block.title}, {size_text(plan.block.finished, plan.measure)}")
        self.canvas.setCreator(f"Inlet {__version__}")
        self.page = 0
        self.y = 0.0
        used = dict.fromkeys(p.fabric for p in plan.draft.patches)
        self.cloth_letter = {fabric: letters(i).lower() for i, fabric in enumerate(used)}

    def write(self) -> None:
        self._cover()
        self._cut_list()
        for step in self.plan.steps:
            self._step(step)
        self._sittings()
        self._needle()
        self._foot()
        self.canvas.save()

    # --- pages --------------------------------------------------------------------------------

    def _new_page(self) -> None:
        if self.page:
            self._foot()
            self.canvas.showPage()
        self.page += 1
        plan, c = self.plan, self.canvas
        c.setFillColor(INK)
        c.setFont(BOLD, 15)
        c.drawString(MARGIN, self.height - 38, plan.block.title)
        c.setFont(MEDIUM, 10.5)
        sizes = (
            f"finished {size_text(plan.block.finished, plan.measure)}    "
            f"unfinished {size_text(plan.unfinished, plan.measure)}    "
            f"seam {length_text(plan.measure.seam, plan.measure)}"
        )
        c.drawRightString(self.width - MARGIN, self.height - 38, sizes)
        c.setStrokeColor(INK)
        c.setLineWidth(1.2)
        c.line(MARGIN, self.height - 46, self.width - MARGIN, self.height - 46)
        self.y = 66.0

    def _foot(self) -> None:
        c = self.canvas
        c.setFillColor(FAINT)
        c.setFont(REGULAR, 8.5)
        copies = f", {self.plan.copies} blocks" if self.plan.copies > 1 else ""
        c.drawString(MARGIN, 24, f"{self.project.name or 'Untitled project'}{copies}")
        c.drawRightString(self.width - MARGIN, 24, f"page {self.page}")

    def _room(self, height: float) -> None:
        """Go to a new page unless ``height`` still fits on this one."""
        if self.y + height > self.height - 40:
            self._new_page()

    def _text(self, text: str, size: float = 10.5, font: str = REGULAR, gap: float = 3.0) -> None:
        lines = simpleSplit(text, font, size, self.width - 2 * MARGIN)
        self._room(len(lines) * size * 1.3)
        self.canvas.setFillColor(black)
        self.canvas.setFont(font, size)
        for line in lines:
            self.y += size * 1.3
            self.canvas.drawString(MARGIN, self.height - self.y, line)
        self.y += gap

    def _heading(self, text: str, keep: float = 60.0) -> None:
        self._room(keep + 30)
        self.y += 12
        self.canvas.setFillColor(INK)
        self.canvas.setFont(BOLD, 14)
        self.y += 14
        self.canvas.drawString(MARGIN, self.height - self.y, text)
        self.y += 8

    def _cover(self) -> None:
        plan = self.plan
        self._new_page()
        side = min(self.width - 2 * MARGIN, 330.0)
        w, h = (float(x) for x in plan.block.finished)
        scale = side / max(w, h)
        left = (self.width - w * scale) / 2
        picture = tuple((p.polygon, p.fabric) for p in plan.draft.patches)
        place = (left, self.height - self.y, scale)
        self._sheet(picture, place, letters_too=False)
        self.canvas.setFillColor(black)
        for unit in plan.units:
            for spot in unit.unit.places:
                xs, ys = zip(*(p.floats() for p in spot.part.outline), strict=True)
                x, y = label_place(plan.draft, spot.part)
                size = max(6.0, min(16.0, (min(max(xs) - min(xs), max(ys) - min(ys))) * scale / 3))
                self._tag(unit.unit.label, left + x * scale, self.height - self.y - y * scale, size)
        self.y += h * scale + 14
        key = ",   ".join(
            f"{letter} {cloth_name(self.project, fabric)}"
            for fabric, letter in self.cloth_letter.items()
        )
        self._text(f"Cloths: {key}", 11, MEDIUM, 8)
        for problem in plan.problems:
            self._text(problem.text, 10.5, MEDIUM)
        for unit in plan.units:
            kind = kind_words(unit.unit.kind)
            self._text(
                f"{unit.unit.label}:  {unit.count} × {kind}, unfinished "
                f"{size_text(unit.unfinished, plan.measure)}"
                + ("" if unit.in_use.name == "plain" else f", {method_words(unit.in_use.name)}")
                + (f" (mirror image of {unit.unit.mirror_of})" if unit.unit.mirror_of else ""),
                11,
            )
        self.y += 4
        self._text(CAUTIONS, 8.5)

    def _cut_list(self) -> None:
        plan = self.plan
        self._heading("Cut list", 130)
        for cloth in plan.cloth:
            letter_ = self.cloth_letter.get(cloth.fabric, "")
            self._room(60)
            self.y += 8
            self._text(f"{letter_}   {cloth_name(self.project, cloth.fabric)}", 12.5, BOLD, 0)
            self._text(buying_text(cloth, plan.measure), 9.5)
            if strips := strips_text(cloth, plan.measure):
                self._text(strips, 10.5)
            for cut in (c for c in plan.cuts if c.fabric == cloth.fabric and not c.owned):
                self._cut(cut)
        owned = [c for c in plan.cuts if c.owned]
        if owned:
            self._room(60)
            self.y += 8
            self._text("From cloth you own", 12.5, BOLD, 0)
            for cut in owned:
                self._cut(cut)

    def _cut(self, cut: Cut) -> None:
        plan = self.plan
        self._room(26)
        self.y += 20
        y = self.height - self.y
        c = self.canvas
        c.setFillColor(black)
        c.setLineWidth(0.7)
        c.setStrokeColor(black)
        c.rect(MARGIN, y - 1, 10, 10)
        c.setFont(MEDIUM, 16)
        c.drawRightString(MARGIN + 62, y - 2, f"{cut.number} ×")
        c.setFont(BOLD, 18)
        c.drawString(MARGIN + 74, y - 2, size_text(cut.cut, plan.measure))
        c.setFont(REGULAR, 10.5)
        words = f"{_shape_words(cut)}, for {', '.join(cut.labels)}"
        lines = simpleSplit(words, REGULAR, 10.5, self.width - 2 * MARGIN - 282)
        for i, line in enumerate(lines):
            c.drawString(MARGIN + 282, y - 12 * i, line)
        c.setFont(BOLD, 12)
        c.drawRightString(MARGIN + 274, y, cut.label)
        self.y += 5 + 12 * (len(lines) - 1)

    def _step(self, step: Step) -> None:
        plan = self.plan
        times = f"    make {step.times}" if step.times > 1 else ""
        what = _step_title(step, plan)
        moves = step_moves(plan.draft, step, plan.measure.seam)
        self._heading(f"{step.number}.  {what}{times}", 190)
        if step.unit is None:
            if step.needs:
                self._text(f"Beside the machine, in order: {run_lengths(step.needs)}.")
            self._text(step.text + (f" Seam: {step.ends}." if step.ends else ""))
            self._row_pictures(moves)
        else:
            self._unit_pictures(step.unit, moves)
        for note in step.notes:
            self._text(note)
        if step.after_each:
            sizes = ";  then ".join(measured_text(size, plan.measure) for size in step.after_each)
            self._text(f"On the way it should measure {sizes}.", 10.5)
        if step.measures:
            self._text(f"Should measure {measured_text(step.measures, plan.measure)}", 15, BOLD, 6)

    def _sittings(self) -> None:
        """Seams counted, thread, and what to do at a sitting; seams that would spare a set-in."""
        plan = self.plan
        if plan.assembly is None:
            return
        self._heading("Sittings")
        self._text(seams_text(plan.seams))
        self._text(thread_text(plan.thread, plan.measure))
        for head, lines in sitting_lines(plan.sittings, plan.rates, plan.measure):
            self._room(44)
            self._text(head, 11.5, MEDIUM)
            for line in lines:
                self._text(line)
        advice = advice_lines(plan.advice, self.project)
        if advice:
            self._heading("Fewer set-in seams")
            for text in advice:
                self._text(text)

    def _needle(self) -> None:
        """What the maker's needle test said, if there is one."""
        needle, plan = self.project.needle, self.plan
        if needle is None:
            return
        test, effect = plan.tested(needle)
        self._heading("Needle test")
        for line in needle_text(test, plan.measure) + effect_text(effect, test.off, plan.measure):
            self._text(line)

    def _unit_pictures(self, unit: UnitPlan, moves: Sequence[Move]) -> None:
        """Moves side by side, three to a line, each with its number and words below; those that are
        alike once, with how often they are made."""
        method, stacks = unit.in_use, self.plan.stacks[unit.unit.label]
        gap, across = 14.0, 3
        wide = (self.width - 2 * MARGIN - gap * (across - 1)) / across
        shown = 112.0
        shapes = like_ones_together(moves)
        for start in range(0, len(shapes), across):
            several = shapes[start : start + across]
            row = [each.move for each in several]
            words = [
                simpleSplit(
                    f"{start + i + 1}. {_times(several[i].times)}"
                    f"{move_text(m.text, method, self.project, stacks)}",
                    REGULAR, 9.5, wide,
                )
                for i, m in enumerate(row)
            ]  # fmt: skip
            self._room(shown + max(map(len, words)) * 12.5 + 14)
            for i, (move, lines) in enumerate(zip(row, words, strict=True)):
                x = MARGIN + i * (wide + gap)
                self._move(move, x, self.height - self.y - 6, wide, shown)
                self.canvas.setFillColor(black)
                self.canvas.setFont(REGULAR, 9.5)
                for k, line in enumerate(lines):
                    self.canvas.drawString(x, self.height - self.y - shown - 18 - k * 12.5, line)
            self.y += shown + max(map(len, words)) * 12.5 + 16
        if method.trim_to and not any(move.do == "trim" for move in moves):
            self._text(f"Trim to {size_text(method.trim_to, self.plan.measure)}.", 10.5, MEDIUM)
        if over_text(method):
            self._text(over_text(method), 10.5)

    def _row_pictures(self, moves: Sequence[Move]) -> None:
        """Laid out, right sides together, sewn: side by side, each with its words above."""
        wide = (self.width - 2 * MARGIN - 20 * (len(moves) - 1)) / len(moves)
        self._room(164)
        for i, move in enumerate(moves):
            left, top = MARGIN + i * (wide + 20), self.height - self.y - 4
            self.canvas.setFillColor(black)
            self.canvas.setFont(REGULAR, 9)
            self.canvas.drawString(left, top - 8, move.text)
            self._move(move, left, top - 16, wide, 120)
        self.y += 152

    # --- drawing ------------------------------------------------------------------------------

    def _move(self, move: Move, left: float, top: float, wide: float, high: float) -> None:
        points = [p.floats() for outline, _ in (*move.lower, *move.upper) for p in outline]
        if not points:
            return
        xs, ys = [x for x, _ in points], [y for _, y in points]
        w, h = max(xs) - min(xs), max(ys) - min(ys)
        scale = min(wide / w, high / h)
        place = (left - min(xs) * scale, top + min(ys) * scale, scale)
        self._sheet(move.lower, place)
        self._sheet(move.upper, place, wrong_side=True)
        self._lines(move, place)

    def _lines(self, move: Move, place: tuple[float, float, float]) -> None:
        left, top, scale = place
        c = self.canvas
        for drawn in move.lines:
            (x0, y0), (x1, y1) = drawn.start.floats(), drawn.end.floats()
            if drawn.start == drawn.end:
                self._spot(drawn, left + x0 * scale, top - y0 * scale)
                continue
            c.saveState()
            c.setStrokeColor(black)
            width, dash = {
                "seam": (1.3, [4, 2]),
                "cut": (1.8, []),
                "mark": (0.5, [1, 2]),
                "ruler": (0.9, [6, 2, 1, 2]),
            }[drawn.kind]
            c.setLineWidth(width)
            c.setDash(dash)
            c.line(left + x0 * scale, top - y0 * scale, left + x1 * scale, top - y1 * scale)
            c.restoreState()

    def _spot(self, line: DrawnLine, x: float, y: float) -> None:
        """A dot, a square where a seam stops, a pin, the ring round a point, a leg's number."""
        c = self.canvas
        c.saveState()
        c.setLineWidth(0.8)
        c.setStrokeColor(black)
        c.setFillColor(black)
        if line.kind == "leg":
            self._tag(str(line.number), x, y, 7)
        elif line.kind == "stop":
            c.setFillColor(white)
            c.rect(x - 3, y - 3, 6, 6, fill=1, stroke=1)
        elif line.kind == "point":
            c.circle(x, y, 4.5, fill=0, stroke=1)
        else:
            c.circle(x, y, {"dot": 2.4, "pin": 1.3}[line.kind], fill=1, stroke=0)
        c.restoreState()

    def _sheet(
        self,
        sheet: Sheet,
        place: tuple[float, float, float],
        wrong_side: bool = False,
        letters_too: bool = True,
    ) -> None:
        """Patches with a light tint of their cloth and its letter; wrong sides white, hatched."""
        left, top, scale = place
        c = self.canvas
        for outline, fabric in sheet:
            path = c.beginPath()
            points = [(left + x * scale, top - y * scale) for x, y in (p.floats() for p in outline)]
            path.moveTo(*points[0])
            for point in points[1:]:
                path.lineTo(*point)
            path.close()
            c.setStrokeColor(black)
            c.setLineWidth(0.8)
            c.setFillColor(white if wrong_side else self._tint(fabric))
            c.drawPath(path, fill=1, stroke=1)
            if wrong_side:
                self._hatch(path, points)
            xs, ys = [x for x, _ in points], [y for _, y in points]
            if letters_too and min(max(xs) - min(xs), max(ys) - min(ys)) > 12:
                x, y = _middle_of(points)
                c.setFillColor(black)
                c.setFont(MEDIUM, 9)
                c.drawCentredString(x, y - 3, self.cloth_letter.get(fabric, ""))

    def _hatch(self, path: Any, points: Sequence[tuple[float, float]]) -> None:
        c = self.canvas
        xs, ys = [x for x, _ in points], [y for _, y in points]
        c.saveState()
        c.clipPath(path, stroke=0, fill=0)
        c.setStrokeColor(FAINT)
        c.setLineWidth(0.35)
        reach = max(ys) - min(ys)
        x = min(xs) - reach
        while x < max(xs):
            c.line(x, min(ys), x + reach, max(ys))
            x += 6
        c.restoreState()

    def _tag(self, label: str, x: float, y: float, size: float) -> None:
        """A label on a white ground, readable on any cloth."""
        c = self.canvas
        wide = pdfmetrics.stringWidth(label, BOLD, size)
        c.setFillColor(white)
        c.setStrokeColor(black)
        c.setLineWidth(0.4)
        c.roundRect(x - wide / 2 - 3, y - size * 0.6, wide + 6, size * 1.2, 3, fill=1, stroke=1)
        c.setFillColor(black)
        c.setFont(BOLD, size)
        c.drawCentredString(x, y - size * 0.35, label)

    def _tint(self, fabric: str | None) -> Color:
        known = self.project.fabric(fabric) if fabric else None
        if known is None:
            return white
        full = HexColor(known.colour)
        return Color(*(1 - (1 - part) * 0.45 for part in (full.red, full.green, full.blue)))


def _middle_of(points: Sequence[tuple[float, float]]) -> tuple[float, float]:
    """The centre of mass of a polygon: inside every convex one, where its letter goes."""
    twice = cx = cy = 0.0
    for (x0, y0), (x1, y1) in zip(points, (*points[1:], points[0]), strict=True):
        part = x0 * y1 - x1 * y0
        twice += part
        cx += (x0 + x1) * part
        cy += (y0 + y1) * part
    return cx / (3 * twice), cy / (3 * twice)


def _step_title(step: Step, plan: BlockPlan) -> str:
    if step.unit is None:
        return "The block" if step.makes == "block" else step.makes.capitalize()
    kind = kind_words(step.unit.unit.kind)
    name = step.unit.in_use.name
    return f"{step.makes}: {kind}" + ("" if name == "plain" else f", {method_words(name)}")


def _times(number: int) -> str:
    return f"{number} times: " if number > 1 else ""


def _shape_words(cut: Cut) -> str:
    """``squares, each cut once on the diagonal``."""
    words = cut.shape if cut.number == 1 else f"{cut.shape}s"
    if cut.shape == "template":
        return f"{words} (by their box)"
    diagonal = diagonal_text(cut.crosscut, cut.lean)
    words += f", each cut {diagonal}" if diagonal else ""
    return f"{words} ({over_triangles(cut.over)})" if cut.over else words
