"""The printed guide of a block: what the maker takes to the table. Letter or A4, readable without
colour, and of few pages: cards two or three to a page, small ones beside one another."""

from __future__ import annotations

import os
from collections.abc import Iterator, Mapping, Sequence
from itertools import groupby
from typing import Any, BinaryIO

from reportlab.platypus import CondPageBreak, Flowable, PageBreak

from inlet.core.buying import chart_lines, shopping, shopping_lines, size_chart, sizes_typed
from inlet.core.cancellation import check
from inlet.core.cutlist import Cut
from inlet.core.improvised import seam_text
from inlet.core.layout import buying_text, grain_texts, strips_text
from inlet.core.methods import PRESS
from inlet.core.numbers import vulgar_text
from inlet.core.piecing import (
    Step,
    StepCard,
    advice_lines,
    cards,
    effect_text,
    fabric_rows,
    run_lengths,
    seam_test_text,
    step_moves,
)
from inlet.core.plan import BlockPlan, SewnBlock
from inlet.core.planning import kind_words, method_words, move_text, over_text
from inlet.core.pressing import CARE, pressing_lines
from inlet.core.project import Measure
from inlet.core.remake import nesting_text
from inlet.core.schedule import seams_text, sitting_lines, thread_text
from inlet.core.table import Move, Repeated, like_ones_together, over_triangles
from inlet.core.templates import stack_shape
from inlet.core.units import letters
from inlet.core.words import CAUTIONS, fabric_name, length_text, measured_text, size_text
from inlet.files.pdf.booklet import Chapter, Contents, moves_in_cells
from inlet.files.pdf.cutting_pdf import block_name, cutting_story
from inlet.files.pdf.document import (
    Document,
    Story,
    height_of,
    paragraph,
    side_by_side,
    text_table,
    together,
    unbroken_ends,
)
from inlet.files.pdf.guide_back import BackPicture
from inlet.files.pdf.guide_blocks import (
    CutLine,
    Fabrics,
    PageCard,
    Title,
    WordRows,
    cards_story,
    columns_story,
)
from inlet.files.pdf.guide_cover import CoverPicture, to_have, unit_line
from inlet.files.pdf.pages import BOLD, FAINT, INK, MARGIN, MEDIUM, REGULAR, page_of, write_pages

TOP = 58.0
LEAST_COVER = 230.0
"""How large the block is drawn at the least."""
FEW_MOVES = 2
"""Moves that find room beside one another in half the width of a page."""
_PLAIN = ("", "edge to edge")
"""Ends of a seam that need no word."""


def write_guide(
    plan: BlockPlan, path: str | os.PathLike[str], paper: str | None = None, sizes: str = ""
) -> None:
    """Write the guide of a plan as PDF, see ``write_pages``; with a chart of ``sizes`` as they are
    typed, where any are."""

    def draw(to: BinaryIO, size: tuple[float, float]) -> None:
        asked = plan.asked.block
        title = f"{asked.title}, {size_text(asked.finished, plan.measure)}"
        document = Document(to, size, title, TOP)
        guide = _Guide(plan, plan.block.title, document)
        document.section("guide", guide.furnish)
        document.add(*guide.cover_page(plan))
        document.add(*guide.cut_list(plan))
        document.add(Chapter("Cutting"), *cutting_story(plan, block_name(plan), document))
        document.add(*guide.sewing())
        for sewn in plan.then_sewn:
            add_making(document, sewn, sewn.block.title)
        sliced = plan.asked.sliced
        if plan.nesting is not None and sliced is not None:
            document.add(paragraph(nesting_text(plan.nesting, sliced.how)))
        document.add(*guide.ending(plan, sizes))
        if plan.block.improvised is not None and plan.block.improvised.cards:
            document.section("corners", guide.furnish, columns=2)
            document.add(*_corner_cards(plan))
        document.write()

    write_pages(path, plan.measure, paper, draw)


def _corner_cards(plan: BlockPlan) -> Iterator[Flowable]:
    """Where the seams of each improvised square lie."""
    yield Title("Where seams lie", size=14)
    for number, square in enumerate(plan.squares, 1):
        check()
        lines = [seam_text(seam, plan.measure) for seam in square.seams]
        fabrics = [fabric_name(plan.project, fabric) for fabric in square.fabrics]
        words = "; ".join(f"{line}, {of}" for line, of in zip(lines, fabrics, strict=True))
        yield paragraph(f"{number}. {words or 'plain'}")


def add_making(document: Document, plan: SewnBlock, name: str) -> None:
    """How a block of a quilt is made, its units too, on pages of their own."""
    guide = _Guide(plan, name, document)
    document.section(f"making {name}", guide.furnish)
    document.add(*guide.making())


MOST_BACK = 300.0
"""Points that the picture of the back is high at most, but on a sheet of its own."""


class _Guide:
    """What a guide of one block says."""

    def __init__(self, plan: SewnBlock, name: str, document: Document) -> None:
        self.plan, self.name, self.project, self.document = plan, name, plan.project, document
        used = dict.fromkeys(p.fabric for p in plan.draft.patches)
        self.fabric_letter = {fabric: letters(i).lower() for i, fabric in enumerate(used)}
        self.fabrics = Fabrics(self.project, self.fabric_letter)
        self.noted: set[str] = set()

    def making(self) -> Story:
        """How the block is made, as a part of a quilt's guide."""
        return [Chapter(self.name), *self._cover(), *self.sewing(chapters=False)]

    def sewing(self, chapters: bool = True) -> Story:
        """The steps, those of units first, and how all is pressed."""
        story: Story = []
        own_steps = [step for step in self.plan.steps if self.plan.sewn_in(step) is self.plan]
        for of_block, several in groupby(cards(own_steps), lambda card: card.first.unit is None):
            if chapters:
                story.append(Chapter("The block" if of_block else "Units", shown=True))
            steps = []
            for card in several:
                check()
                steps.append(self._step(card))
            story += cards_story(steps, self.document)
        back = self._back()
        if back and chapters:
            story.append(Chapter("Pressing"))
        return [*story, *back]

    def ending(self, plan: BlockPlan, sizes: str) -> Story:
        """Sittings, the seam allowance test, the chart of sizes."""
        story: Story = []
        for title, section in (
            ("Sittings", self._sittings(plan)), ("Seam allowance test", self._seam_test(plan)),
            ("Sizes", self._sizes(plan, sizes)),
        ):  # fmt: skip
            parts = list(section)
            if parts:
                story += unbroken_ends([Chapter(title), *parts])
        return story

    # --- pages --------------------------------------------------------------------------------

    def furnish(self, c: Any) -> None:
        """The head of a page, the block and its sizes; its foot, the project and the page."""
        plan, (width, height) = self.plan, self.document.size
        c.setFillColor(INK)
        c.setFont(BOLD, 15)
        c.drawString(MARGIN, height - 38, self.name)
        c.setFont(MEDIUM, 10.5)
        sizes = (
            f"finished {size_text(plan.block.finished, plan.measure)}    "
            f"unfinished {size_text(plan.unfinished, plan.measure)}    "
            f"seam {length_text(plan.measure.seam, plan.measure)}"
        )
        c.drawRightString(width - MARGIN, height - 38, vulgar_text(sizes))
        c.setStrokeColor(INK)
        c.setLineWidth(1.2)
        c.line(MARGIN, height - 46, width - MARGIN, height - 46)
        c.setFillColor(FAINT)
        c.setFont(REGULAR, 10)
        copies = f", {plan.copies} blocks" if plan.copies > 1 else ""
        c.drawString(MARGIN, 24, f"{self.project.name or 'Untitled project'}{copies}")
        page_of(c, width - MARGIN, 24)

    def _cover(self) -> Story:
        """The block with its units, and beside it what they are."""
        plan, document = self.plan, self.document
        key = ",   ".join(
            f"{letter} {fabric_name(self.project, fabric)}"
            for fabric, letter in self.fabric_letter.items()
        )
        units = [paragraph(f"Fabrics: {key}", 11, MEDIUM, 5)]
        units += [paragraph(unit_line(unit, plan), 10.5) for unit in plan.units]
        needed = height_of(units, document.half)
        side = max(LEAST_COVER, min(document.half, needed))
        picture = CoverPicture(plan, self.fabrics, side)
        story: Story = []
        if needed <= picture.tall(document.half):
            story.append(side_by_side([[picture], units], document.wide))
        else:  # many units: below, over the whole width
            story += [picture, *unbroken_ends(units)]
        story += [paragraph(problem.text, 10.5, MEDIUM) for problem in plan.problems]
        return [*story, paragraph(CAUTIONS)]

    def cover_page(self, plan: BlockPlan) -> Story:
        """The block, what is in the booklet, what to buy and to have."""
        document = self.document
        contents = [Title("In this booklet", size=14), Contents(document.story)]
        buying_list = shopping(plan, notes=False)
        lines = [line[:2] for line in shopping_lines(buying_list, plan.project)[1:]]
        buy: list[Flowable] = [Title("To buy", size=14)]
        buy += [paragraph(f"{fabric}: {much}", gap=3, box=True) for fabric, much in lines]
        buy += [Title("To have", size=14)]
        buy += [paragraph(each, gap=3, box=True) for each in to_have(plan.project)]
        return [
            Chapter("The block and its units"), *self._cover(),
            side_by_side([contents, buy], document.wide),
        ]  # fmt: skip

    def cut_list(self, plan: BlockPlan) -> Story:
        """Each fabric with its strips and sizes, in two columns."""
        page_cards: list[PageCard] = []
        grain = grain_texts(plan.fabric_plans.best, plan.cuts, plan.measure)
        for fabric_plan in plan.fabric_plans.best:
            letter_ = self.fabric_letter.get(fabric_plan.fabric, "")
            head: list[Flowable] = [
                paragraph(
                    f"{letter_}   {fabric_name(self.project, fabric_plan.fabric)}", 12.5, BOLD, 0
                ),
                paragraph(buying_text(fabric_plan, plan.measure)),
                paragraph(strips_text(fabric_plan, plan.measure), 10.5),
            ]
            cuts = [c for c in plan.cuts if c.fabric == fabric_plan.fabric and not c.owned]
            page_cards.append(PageCard((*head, *(self._cut(c, grain) for c in cuts))))
        owned = [c for c in plan.cuts if c.owned]
        if owned:
            head = [paragraph("From fabric you own", 12.5, BOLD, 0)]
            page_cards.append(PageCard((*head, *(self._cut(c, {}) for c in owned))))
        if not page_cards:
            return []
        title = Title("Cut list", size=14)
        room = height_of([title, *page_cards[0].parts], self.document.half)
        listed = columns_story(page_cards, self.document)
        return [CondPageBreak(room), Chapter("Cut list"), title, *listed]

    def _cut(self, cut: Cut, grain: Mapping[str, str]) -> CutLine:
        words = f"{_shape_words(cut, self.plan.measure)}, for {', '.join(cut.labels)}"
        if cut.label in grain:
            words += f"; {grain[cut.label]}"
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
        figure = f"measures {measured_text(step.measures, measure)}" if step.measures else ""
        before, texts = (
            self._unit_words(card, shown) if step.unit else self._seam_words(step, shown)
        )
        if pressed is not None:
            number = next(i for i, repeat in enumerate(shown) if repeat.move.do == "press")
            texts[number] = f"{texts[number]} {pressed.text}".strip()
        after: list[Flowable] = []
        if step.after_each:
            sizes = ";  then ".join(measured_text(size, measure) for size in step.after_each)
            after.append(paragraph(f"On the way it should measure {sizes}."))
        for note in step.notes:
            said = note.strip("The 0123456789")  # a caution is said once, whatever its numbers
            if said not in self.noted:
                after.append(paragraph(note))
            self.noted.add(said)
        title = Title(_card_title(card, plan), figure)
        # What comes out of the runs before stays behind them: a half may be laid beside another.
        comes_along = step.unit is not None and step.unit.in_use.made_with is not None
        half = len(shown) <= FEW_MOVES and not comes_along
        wide = self.document.half if half else self.document.wide
        pictures = moves_in_cells(shown, texts, wide, self.fabrics)
        return PageCard((title, *before, *pictures, *after), half)

    def _unit_words(
        self, card: StepCard, shown: Sequence[Repeated]
    ) -> tuple[list[Flowable], list[str]]:
        """What is said before the pictures, and the sentence below each."""
        plan, step = self.plan, card.first
        assert step.unit is not None
        method, stacks = step.unit.in_use, plan.stacks[step.makes]
        cut = [move_text(m.text, method, self.project, stacks) for m in method.moves
               if m.do == "cut"]  # fmt: skip
        texts = [
            move_text(repeat.move.text, method, self.project, stacks, repeat.times)
            if repeat.move.text else ""
            for repeat in shown
        ]  # fmt: skip
        said = list(cut)
        if method.trim_to and not any(repeat.move.do == "trim" for repeat in shown):
            said.append(f"Trim to {size_text(method.trim_to, plan.measure)}.")
        if over_text(method) and len(card.steps) == 1:  # else it stands in the table
            said.append(over_text(method))
        words: list[Flowable] = [paragraph("  ".join(said))] if said else []
        if len(card.steps) > 1:
            words.append(paragraph(f"All of them like {step.makes}:", font=MEDIUM))
            rows = fabric_rows(card, plan.stacks, self.project)
            words.append(WordRows(rows))
        return words, texts

    def _seam_words(
        self, step: Step, shown: Sequence[Repeated]
    ) -> tuple[list[Flowable], list[str]]:
        words: list[Flowable] = []
        if step.needs and step.join is not None:
            words.append(paragraph(f"Beside the machine, in order: {run_lengths(step.needs)}."))
        words.append(
            paragraph(step.text + (f" Seam: {step.ends}." if step.ends not in _PLAIN else ""))
        )
        return words, [repeat.move.text for repeat in shown]

    def _back(self) -> Story:
        """The block from the back, as it is pressed: on a sheet of its own for those who press at
        the end, else beside what is said of it."""
        pressing, document = self.plan.pressing.best, self.document
        if pressing is None:
            return []
        said = [paragraph("Seen from the back: left and right change places. " + CARE)]
        said += [paragraph(line) for line in pressing_lines(pressing)]
        versions = [(pressing, "The back, as it is pressed")]
        if len(pressing.versions) > 1:
            second = pressing.second
            versions = [(pressing, "The back, version 1"), (second, "The back, version 2")]
        story: Story = []
        for version, name in versions:
            title = Title(name, size=14)
            if pressing.method == "end":
                above = [title, *said]
                room = document.high - height_of(above, document.wide) - 8
                picture = BackPicture(version, self.fabrics, room)
                story += [PageBreak(), together([*above, picture], 0)]
            else:
                picture = BackPicture(version, self.fabrics, MOST_BACK)
                story.append(side_by_side([[title, picture], said], document.wide))
            said = []
        return story

    def _sittings(self, plan: BlockPlan) -> Iterator[Flowable]:
        """Seams counted, thread, and what to do at a sitting; seams that would spare a set-in."""
        if plan.assembly is None:
            return
        yield Title("Sittings", size=14)
        yield paragraph(seams_text(plan.seams))
        yield paragraph(thread_text(plan.work.thread, plan.measure))
        for head, lines in sitting_lines(plan.work.sittings, plan.rates, plan.measure):
            yield paragraph(head, 11.5, MEDIUM)
            yield from map(paragraph, lines)
        advice = advice_lines(plan.advice, self.project)
        if advice:
            yield Title("Fewer set-in seams", size=14)
            yield from map(paragraph, advice)

    def _seam_test(self, plan: BlockPlan) -> Iterator[Flowable]:
        """What the maker's seam allowance test said, if there is one."""
        seam_test = self.project.seam_test
        if seam_test is None:
            return
        test, effect = plan.tested(seam_test)
        yield Title("Seam allowance test", size=14)
        yield from map(paragraph, seam_test_text(test, plan.measure))
        yield from map(paragraph, effect_text(effect, test.off, plan.measure))

    def _sizes(self, plan: BlockPlan, sizes: str) -> Iterator[Flowable]:
        """The chart of sizes that was asked for."""
        if sizes:
            widths = sizes_typed(sizes, plan)
            chart = size_chart(plan.project, plan.block, widths, plan.copies)
            lines = chart_lines(chart, plan)
            yield Title("Other sizes", size=14)
            yield text_table(lines)


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


def _shape_words(cut: Cut, measure: Measure) -> str:
    """``squares, each cut once on the diagonal``."""
    words = cut.shape if cut.number == 1 else f"{cut.shape}s"
    if cut.shape == "template":
        shape = stack_shape(cut, measure)
        box = "by its box" if cut.number == 1 else "by their box"
        return f"{words} ({box})" if shape == cut.shape else f"{words} ({box}): {shape}"
    diagonal = cut.diagonal
    words += f", each cut {diagonal}" if diagonal else ""
    return f"{words} ({over_triangles(cut.over)})" if cut.over else words
