"""The printed guide of a block: what the maker takes to the table. Letter or A4, readable without
colour, and of few pages: cards two or three to a page, small ones beside one another."""

from __future__ import annotations

import os
from collections.abc import Iterator, Sequence
from itertools import groupby
from typing import Any, BinaryIO

from reportlab.lib.colors import black

from inlet import __version__
from inlet.core.cancellation import check, tell
from inlet.core.cutlist import Cut
from inlet.core.figures import sheet_figure
from inlet.core.layout import buying_text, strips_text
from inlet.core.methods import PRESS
from inlet.core.piecing import (
    Step,
    StepCard,
    advice_lines,
    cards,
    cloth_rows,
    effect_text,
    needle_text,
    run_lengths,
    step_moves,
)
from inlet.core.plan import BlockPlan, SewnBlock
from inlet.core.planning import UnitPlan, kind_words, method_words, move_text, over_text
from inlet.core.pressing import CARE, pressing_lines
from inlet.core.schedule import seams_text, sitting_lines, thread_text
from inlet.core.table import Move, Repeated, diagonal_text, like_ones_together, over_triangles
from inlet.core.units import label_place, letters
from inlet.core.words import CAUTIONS, cloth_name, length_text, measured_text, size_text
from inlet.files.pdf.cutting_pdf import block_name, draw_cutting
from inlet.files.pdf.figure import Pen
from inlet.files.pdf.guide_back import BackPicture
from inlet.files.pdf.guide_blocks import (
    LEAST_PICTURE,
    CutLine,
    Flow,
    PageBlock,
    PageCard,
    PageTable,
    PageWords,
    Pictures,
    Title,
    in_lines,
    wide_of,
)
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, PageCanvas, write_pages

TOP = 58.0
LEAST_COVER = 190.0
"""How large the block is drawn at the least."""
_PLAIN = ("", "edge to edge")
"""Ends of a seam that need no word."""


def write_guide(plan: BlockPlan, path: str | os.PathLike[str], paper: str | None = None) -> None:
    """Write the guide of a plan as PDF, see ``write_pages``."""
    write_pages(path, plan.measure, paper, lambda to, size: _write(plan, to, size))


def _write(plan: BlockPlan, to: BinaryIO, size: tuple[float, float]) -> None:
    canvas: Any = PageCanvas(to, pagesize=size)
    canvas.setTitle(f"{plan.block.title}, {size_text(plan.block.finished, plan.measure)}")
    canvas.setCreator(f"Inlet {__version__}")
    _Guide(plan, plan.block.title, canvas, size).write(plan)
    canvas.save()


def draw_making(
    canvas: Any, plan: SewnBlock, name: str, size: tuple[float, float], page: int
) -> int:
    """How a block of a quilt is made, its units too, on pages of their own after ``page``; the
    number of the last."""
    guide = _Guide(plan, name, canvas, size, page)
    guide.making()
    return guide.page


MOST_BACK = 300.0
"""Points that the picture of the back is high at most, but on a sheet of its own."""


class _Guide:
    """The pages of one guide."""

    def __init__(
        self, plan: SewnBlock, name: str, canvas: Any, size: tuple[float, float], before: int = 0
    ) -> None:
        self.plan, self.name, self.project = plan, name, plan.project
        self.width, self.height = size
        self.canvas = canvas
        self.before = self.page = before
        used = dict.fromkeys(p.fabric for p in plan.draft.patches)
        self.cloth_letter = {fabric: letters(i).lower() for i, fabric in enumerate(used)}
        self.pen = Pen(self.canvas, self.project, self.cloth_letter, size[1])
        self.flow = Flow(self.pen, size, MARGIN, TOP, self._new_page)
        self.half = (self.flow.wide - Flow.BESIDE) / 2
        self.noted: set[str] = set()

    def write(self, plan: BlockPlan) -> None:
        """The whole guide of a block."""
        self.flow.turn()
        self._cover()
        self._cut_list(plan)
        self._steps()
        self._back()
        tell(0.6)
        for section in (self._sittings(plan), self._needle(plan)):
            self.flow.text(list(section))
        self._cutting(plan)
        self._foot()

    def making(self) -> None:
        """How the block is made, as a part of a quilt's guide."""
        self.flow.turn()
        self._cover()
        self._steps()
        self._back()
        self._foot()

    def _steps(self) -> None:
        step_cards = cards(self.plan.steps)
        for several in groupby(step_cards, lambda card: card.first.unit is None):
            steps = []
            for card in several[1]:
                check()
                steps.append(self._step(card))
            self.flow.cards(steps)

    def _cutting(self, plan: BlockPlan) -> None:
        """The cutting plan, on pages of its own."""

        def turn() -> float:
            self.flow.turn()
            return self.height - TOP

        size = self.width, self.height
        draw_cutting(self.canvas, plan, block_name(plan), size, turn(), turn)

    # --- pages --------------------------------------------------------------------------------

    def _new_page(self) -> None:
        if self.page > self.before:
            self._foot()
        if self.page:
            self.canvas.showPage()
        self.page += 1
        plan, c = self.plan, self.canvas
        c.setFillColor(INK)
        c.setFont(BOLD, 15)
        c.drawString(MARGIN, self.height - 38, self.name)
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

    def _foot(self) -> None:
        c = self.canvas
        c.setFillColor(FAINT)
        c.setFont(REGULAR, 8.5)
        copies = f", {self.plan.copies} blocks" if self.plan.copies > 1 else ""
        c.drawString(MARGIN, 24, f"{self.project.name or 'Untitled project'}{copies}")
        c.drawRightString(self.width - MARGIN, 24, f"page {self.page}")

    def _cover(self) -> None:
        """The block with its units, and beside it what they are."""
        plan, flow = self.plan, self.flow
        key = ",   ".join(
            f"{letter} {cloth_name(self.project, fabric)}"
            for fabric, letter in self.cloth_letter.items()
        )
        beside: list[PageBlock] = [PageWords(f"Fabrics: {key}", 11, MEDIUM, 5)]
        beside += [PageWords(_unit_line(unit, plan), 10.5) for unit in plan.units]
        needed = sum(block.height(self.half) for block in beside)
        w, h = (float(x) for x in plan.block.finished)
        side = max(LEAST_COVER, min(self.half, needed))
        scale = min(side / w, side * 1.4 / h)
        top = self.height - flow.y
        picture = tuple((p.polygon, p.fabric) for p in plan.draft.patches)
        self.pen.draw(sheet_figure(picture, self.pen.frame(MARGIN, top, scale), lettered=False))
        self.canvas.setFillColor(black)
        for unit in plan.units:
            for spot in unit.unit.places:
                xs, ys = zip(*(p.floats() for p in spot.part.outline), strict=True)
                x, y = label_place(plan.draft, spot.part)
                size = max(6.0, min(16.0, (min(max(xs) - min(xs), max(ys) - min(ys))) * scale / 3))
                own = unit.unit.label.split(" ")[-1]  # without the block's name
                self.pen.tag(own, MARGIN + x * scale, top - y * scale, size)
        below: list[PageBlock] = [
            PageWords(problem.text, 10.5, MEDIUM) for problem in plan.problems
        ]
        below.append(PageWords(CAUTIONS, 8.5))
        high = h * scale + 10
        if needed <= high:
            flow.blocks(beside, MARGIN + self.half + Flow.BESIDE, self.half, flow.y)
            flow.y += high
        else:  # many units: below, over the whole width
            flow.y += high
            flow.text(beside)
        flow.text(below)

    def _cut_list(self, plan: BlockPlan) -> None:
        """Each fabric with its strips and sizes, in two columns."""
        page_cards: list[PageCard] = []
        for cloth in plan.cloth.best:
            letter_ = self.cloth_letter.get(cloth.fabric, "")
            head: list[PageBlock] = [
                PageWords(f"{letter_}   {cloth_name(self.project, cloth.fabric)}", 12.5, BOLD, 0),
                PageWords(buying_text(cloth, plan.measure), 9.5),
                PageWords(strips_text(cloth, plan.measure), 10.5),
            ]
            cuts = [c for c in plan.cuts if c.fabric == cloth.fabric and not c.owned]
            page_cards.append(PageCard((*head, *map(self._cut, cuts))))
        owned = [c for c in plan.cuts if c.owned]
        if owned:
            head = [PageWords("From fabric you own", 12.5, BOLD, 0)]
            page_cards.append(PageCard((*head, *map(self._cut, owned))))
        if page_cards:
            title = Title("Cut list", size=14)
            if page_cards[0].height(self.half) + title.height(self.half) > self.flow.left_over:
                self.flow.turn()
            self.flow.cards([PageCard((title,))])
            self.flow.columns(page_cards)

    def _cut(self, cut: Cut) -> CutLine:
        words = f"{_shape_words(cut)}, for {', '.join(cut.labels)}"
        return CutLine(cut.number, size_text(cut.cut, self.plan.measure), cut.label, words)

    def _step(self, card: StepCard) -> PageCard:
        """A card with its title and what its work should measure, pictures, and words to them."""
        plan, step = self.plan, card.first
        measure = plan.measure
        moves = step_moves(plan.draft, step, measure.seam)
        shown = like_ones_together(moves) if step.unit else [Repeated(m, 1) for m in moves]
        shown = [repeat for repeat in shown if repeat.move.do != "cut"]  # said, and in the cut list
        pressed = plan.press(step)
        if pressed is not None:
            shown = _with_press(shown, pressed.moves[-1])
        comes_along = step.unit is not None and step.unit.in_use.made_with is not None
        # What comes out of the runs before stays behind them: a half may be laid beside another.
        half = wide_of(shown, LEAST_PICTURE) <= self.half and not comes_along
        figure = f"measures {measured_text(step.measures, measure)}" if step.measures else ""
        repeats = [repeat for repeat in shown if repeat.move.text]
        words = self._unit_words(card, repeats) if step.unit else self._seam_words(step)
        if pressed is not None:
            number = next(i for i, repeat in enumerate(shown, 1) if repeat.move.do == "press")
            words.append(PageWords(f"{number}. {pressed.text}", font=MEDIUM))
        if step.after_each:
            sizes = ";  then ".join(measured_text(size, measure) for size in step.after_each)
            words.append(PageWords(f"On the way it should measure {sizes}."))
        for note in step.notes:
            said = note.strip("The 0123456789")  # a caution is said once, whatever its numbers
            if said not in self.noted:
                words.append(PageWords(note))
            self.noted.add(said)
        title = Title(_card_title(card, plan), figure)
        pictures: list[Pictures] = in_lines(shown, self.half if half else self.flow.wide)
        return PageCard((title, *pictures, *words), half)

    def _unit_words(self, card: StepCard, shown: Sequence[Repeated]) -> list[PageBlock]:
        plan, step = self.plan, card.first
        assert step.unit is not None
        method, stacks = step.unit.in_use, plan.stacks[step.makes]
        cut = [move_text(m.text, method, self.project, stacks) for m in method.moves
               if m.do == "cut"]  # fmt: skip
        told: dict[str, list[str]] = {}
        for i, repeat in enumerate(shown, 1):
            text = move_text(repeat.move.text, method, self.project, stacks, repeat.times)
            told.setdefault(f"{_times(repeat)}{text}", []).append(str(i))
        said = cut + [f"{', '.join(numbers)}. {text}" for text, numbers in told.items()]
        if method.trim_to and not any(repeat.move.do == "trim" for repeat in shown):
            said.append(f"Trim to {size_text(method.trim_to, plan.measure)}.")
        if over_text(method) and len(card.steps) == 1:  # else it stands in the table
            said.append(over_text(method))
        words: list[PageBlock] = [PageWords("  ".join(said))]
        if len(card.steps) > 1:
            words.append(PageWords(f"All of them like {step.makes}:", 9.5, MEDIUM))
            rows = cloth_rows(card, plan.stacks, self.project)
            words.append(PageTable(tuple(map(tuple, rows))))
        return words

    def _seam_words(self, step: Step) -> list[PageBlock]:
        words: list[PageBlock] = []
        if step.needs and step.join is not None:
            words.append(PageWords(f"Beside the machine, in order: {run_lengths(step.needs)}."))
        words.append(
            PageWords(step.text + (f" Seam: {step.ends}." if step.ends not in _PLAIN else ""))
        )
        return words

    def _back(self) -> None:
        """The block from the back, as it is pressed: on a sheet of its own for those who press at
        the end, else beside what is said of it."""
        pressing = self.plan.pressing.best
        if pressing is None:
            return
        said: list[PageBlock] = [
            PageWords("Seen from the back: left and right change places. " + CARE)
        ]
        said += [PageWords(line) for line in pressing_lines(pressing)]
        versions = [(pressing, "The back, as it is pressed")]
        if len(pressing.versions) > 1:
            versions = [(pressing, "The back, version 1"), (pressing.second, "The back, version 2")]
        for version, name in versions:
            title = Title(name, size=14)
            if pressing.school == "end":
                self.flow.turn()
                blocks = [title, *said]
                room = self.flow.left_over - sum(b.height(self.flow.wide) for b in blocks) - 8
                self.flow.text([*blocks, BackPicture(version, room)])
            else:
                picture = PageCard((title, BackPicture(version, MOST_BACK)), True)
                self.flow.cards([picture, PageCard(tuple(said), True)] if said else [picture])
            said = []

    def _sittings(self, plan: BlockPlan) -> Iterator[PageBlock]:
        """Seams counted, thread, and what to do at a sitting; seams that would spare a set-in."""
        if plan.assembly is None:
            return
        yield Title("Sittings", size=14)
        yield PageWords(seams_text(plan.seams))
        yield PageWords(thread_text(plan.work.thread, plan.measure))
        for head, lines in sitting_lines(plan.work.sittings, plan.rates, plan.measure):
            yield PageWords(head, 11.5, MEDIUM)
            yield from map(PageWords, lines)
        advice = advice_lines(plan.advice, self.project)
        if advice:
            yield Title("Fewer set-in seams", size=14)
            yield from map(PageWords, advice)

    def _needle(self, plan: BlockPlan) -> Iterator[PageBlock]:
        """What the maker's needle test said, if there is one."""
        needle = self.project.needle
        if needle is None:
            return
        test, effect = plan.tested(needle)
        yield Title("Seam allowance test", size=14)
        yield from map(PageWords, needle_text(test, plan.measure))
        yield from map(PageWords, effect_text(effect, test.off, plan.measure))


def _unit_line(unit: UnitPlan, plan: SewnBlock) -> str:
    name = unit.in_use.name
    return (
        f"{unit.unit.label}:  {unit.count} × {kind_words(unit.unit.kind)}, unfinished "
        f"{size_text(unit.unfinished, plan.measure)}"
        + ("" if name == "plain" else f", {method_words(name)}")
        + (f" (mirror image of {unit.unit.mirror_of})" if unit.unit.mirror_of else "")
    )


def _with_press(shown: list[Repeated], press: Move) -> list[Repeated]:
    """Moves with that at the iron, in place of the last picture of what is sewn; its words are
    said apart."""
    kept = [repeat for repeat in shown if repeat.move.text not in (PRESS, "Sewn")]
    opened = [i for i, repeat in enumerate(kept) if repeat.move.do == "open"]
    if opened:
        last = kept[opened[-1]]
        kept[opened[-1]] = Repeated(press._replace(text=last.move.text), last.times)
        return kept
    return [*kept, Repeated(press._replace(text=""), 1)]


def _card_title(card: StepCard, plan: SewnBlock) -> str:
    first, *others = card.steps
    if others:
        numbers = ", ".join(str(step.number) for step in card.steps)
        labels = ", ".join(step.makes for step in card.steps)
        _, _, what = _step_title(first, plan).partition(": ")
        return f"{numbers}.  {labels}: {what}, {sum(step.times for step in card.steps)} in all"
    times = f", make {first.times}" if first.times > 1 else ""
    return f"{first.number}.  {_step_title(first, plan)}{times}"


def _step_title(step: Step, plan: SewnBlock) -> str:
    if step.unit is None:
        named = f"{step.makes[0].upper()}{step.makes[1:]}"
        return "The block" if step.makes == "block" else named
    kind = kind_words(step.unit.unit.kind)
    name = step.unit.in_use.name
    return f"{step.makes}: {kind}" + ("" if name == "plain" else f", {method_words(name)}")


def _times(repeat: Repeated) -> str:
    """How often a move is made, where its own words do not say it."""
    return f"{repeat.times} times: " if repeat.times > 1 and "{row}" not in repeat.move.text else ""


def _shape_words(cut: Cut) -> str:
    """``squares, each cut once on the diagonal``."""
    words = cut.shape if cut.number == 1 else f"{cut.shape}s"
    if cut.shape == "template":
        return f"{words} (by their box)"
    diagonal = diagonal_text(cut.crosscut, cut.lean)
    words += f", each cut {diagonal}" if diagonal else ""
    return f"{words} ({over_triangles(cut.over)})" if cut.over else words
