"""The bench: what comes next, what was made and how large it came out, the diary."""

from __future__ import annotations

from PySide6.QtCore import Signal
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QStackedWidget, QWidget

from inlet.core.bench import (
    BenchJob,
    Portion,
    Thing,
    Today,
    number_done,
    progress,
    spare_text,
    step_lines,
    things_of,
    today,
)
from inlet.core.project import Rates
from inlet.ui.bench.diary_page import DiaryPage
from inlet.ui.bench.forecast_page import ForecastPage
from inlet.ui.bench.hand_page import HandPage
from inlet.ui.bench.made_page import MadePage
from inlet.ui.bench.practise_page import PractisePage
from inlet.ui.bench.steps_page import StepsPage
from inlet.ui.bench.today_page import TodayPage
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.shell.tape import Reading
from inlet.ui.widgets.parts import column, scrolled, when_seen
from inlet.ui.widgets.tabs import opens, tabs

PAGES = (
    ("today", "Today"), ("steps", "All steps"), ("made", "Made sizes"), ("hand", "The hand"),
    ("forecast", "What will it do?"), ("practise", "Practise"), ("diary", "Diary"),
)  # fmt: skip


@guarded
class BenchStage(QWidget):
    """Pages of the bench; ``shown`` tells that what they show has changed."""

    pointed = Signal(object)
    shown = Signal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.jobs: tuple[BenchJob, ...] = ()
        self.list: Today | None = None
        self._history = session.history  # the document the list is of
        self.which: int | None = None  # the job that the ticket is about
        self._looked_at: tuple[str, str, str] | None = None  # the job under the hand, by its name
        self.there: int | None = None  # minutes there are today, where not as usual
        layout = column(self, 16, 8)
        line, self.page_buttons = tabs(self, PAGES, self.turn_to)
        layout.addWidget(line)
        self.today, self.diary = TodayPage(session), DiaryPage(session)
        self.made, self.steps = MadePage(session), StepsPage(session)
        self.hand = HandPage(session)
        self.forecast, self.practise = ForecastPage(session), PractisePage(session)
        self.steps.looked_at.connect(self.look_at)
        self.steps.table.asked.connect(self.tick_here)
        self.made.pointed.connect(self.pointed)
        self.forecast.pointed.connect(self.pointed)
        self.pages = QStackedWidget()
        listed, diary_area = scrolled(self.today, "page"), scrolled(self.diary, "page")
        looked = [scrolled(page, "page") for page in (self.hand, self.forecast, self.practise)]
        page_areas = (listed, self.steps, self.made, *looked, diary_area)
        for page in page_areas:
            self.pages.addWidget(page)
        opens(self.page_buttons, dict(zip(self.page_buttons, page_areas, strict=True)))
        layout.addWidget(self.pages, 1)
        self.today.looked_at.connect(self.look_at)
        self.today.ticked.connect(self.tick)
        self.today.typed.connect(self.have_minutes)
        self.page = "today"
        self.page_buttons["today"].setChecked(True)
        self._show_anew = when_seen(
            self,
            self.refresh,
            session.planned,
            session.quilted,
            session.topped,
            session.changed,
            session.worked,
            session.laid_out,
        )

    def turn_to(self, page: str) -> None:
        """Today, all steps, the made sizes, the hand, or the diary."""
        self.page = page
        self.page_buttons[page].setChecked(True)
        self.pages.setCurrentIndex([name for name, _ in PAGES].index(page))
        self.refresh()

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def refresh(self) -> None:
        """What is next by the log as it is now; a quilt that is not planned is, aside, and the
        list stays as it was until then."""
        session = self.session
        if session.history is not self._history:
            self._looked_at = None
        if not session.is_quilt:
            session.lay_out()  # what is begun here stays as it is laid out
        session.ask_jobs()
        known_jobs = session.jobs
        if known_jobs is not None:
            self._history, self.jobs = session.history, known_jobs
            self.list = today(self.jobs, session.project, self.minutes, session.now[:10])
        elif session.history is not self._history:  # what was before is another project's
            self.jobs, self.list = (), None
        self._keep_job()
        if self.page == "today":
            self.today.show_list(self.list, self.minutes)
        elif self.page == "steps":
            self._show_steps()
        elif self.page == "made":
            self.made.refresh()
        elif self.page == "hand":
            self.hand.refresh()
        elif self.page == "forecast":
            self.forecast.refresh()
        elif self.page == "practise":
            self.practise.refresh()
        else:
            self.diary.refresh()
        self.shown.emit()

    @property
    def minutes(self) -> int:
        """The time there is today."""
        return self.there or (self.session.project.rates or Rates()).sitting

    def have_minutes(self, minutes: int) -> None:
        """There is so much time today."""
        if minutes != self.minutes:
            self.there = minutes
            self.refresh()

    def _show_steps(self) -> None:
        project, plan = self.session.project, self.session.work_plan
        things = things_of(plan) if plan is not None else ()
        spare = progress(project.log, things).spare if things else ()
        self.steps.show_lines(
            step_lines(self.jobs, project), spare_text(spare, self.session.measure)
        )

    def _keep_job(self) -> None:
        """The job under the hand, wherever it stands now, or the first of the list."""
        first = self.list.portions[0].which if self.list and self.list.portions else None
        looked_at = self._looked_at
        which = next((i for i, job in enumerate(self.jobs) if job.named == looked_at), None)
        over = which is not None and not self.jobs[which].left and self.page == "today"
        if over and first is not None:
            self._looked_at, which = None, None
        self.which = first if which is None else which

    @property
    def job(self) -> BenchJob | None:
        """The job that the ticket is about."""
        return self.jobs[self.which] if self.which is not None and self.jobs else None

    @property
    def hears(self) -> QWidget | None:
        """What takes the keys that its card or picture tells of."""
        return {0: self.today, 1: self.steps.table}.get(self.pages.currentIndex())

    def reading(self) -> Reading | None:
        """The size that is looked at, for the tape."""
        return self.made.reading() if self.page == "made" else None

    def sewn(self, thing: Thing) -> int:
        """How many of a thing are sewn to the end."""
        return number_done(self.session.project.log, thing)

    def look_at(self, which: int) -> None:
        if which != self.which:
            self.which, self._looked_at = which, self.jobs[which].named
            self.shown.emit()

    def tick(self, portion: Portion) -> None:
        """A line of the list is done."""
        self.which = self._looked_at = None
        self.session.tick_job(portion.job, portion.number)

    def tick_here(self, by: int) -> None:
        """So many more of the job under the hand are done, or fewer."""
        if self.job is not None:
            self.session.tick_job(self.job, by)
