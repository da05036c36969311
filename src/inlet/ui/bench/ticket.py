"""The ticket of the bench: the job under the hand, the timer, what else could be done, the end."""

from __future__ import annotations

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QWidget

from inlet.core.bench import (
    QUICK,
    REASONS,
    date_typed,
    end_text,
    going_on,
    is_forgotten,
    kit,
    kit_lines,
    minutes_typed,
    pace_text,
    paused,
    quick_lines,
    timed,
    used_lines,
    with_time,
    with_timer,
    with_unpicked,
)
from inlet.core.numbers import vulgar_text
from inlet.core.project import Bench, Timer, replace
from inlet.core.schedule import minutes_text
from inlet.ui.bench.stage import BenchStage
from inlet.ui.guard import guarded
from inlet.ui.shell.session import Session
from inlet.ui.widgets.choices import ChoiceField
from inlet.ui.widgets.inputs import NumberBox
from inlet.ui.widgets.parts import ValueEdit, button, column, label, row, rule

MOST_STEPS = 12
MOST_A_WEEK = 21
TYPED = "…"
"""Stands for a reason that is typed."""


@guarded
class BenchTicket(QWidget):
    """What the stage cannot show on a line."""

    def __init__(self, session: Session, stage: BenchStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        self.setObjectName("ticketBody")
        layout = column(self, 16, 8)
        self.title = label("", "heading", True)
        self.done = label("", "", True)
        self.more = button("One more", lambda: stage.tick_here(1))
        self.fewer = button("One less", lambda: stage.tick_here(-1))
        for widget in (self.title, self.done):
            layout.addWidget(widget)
        layout.addLayout(row(self.more, self.fewer, 1))
        self.unpicking = _Unpicking(session, stage)
        layout.addWidget(self.unpicking)
        layout.addWidget(rule())
        self.timing = _Timing(session, stage)
        layout.addWidget(self.timing)
        layout.addWidget(rule())
        self.quick_title = label(f"In the next {QUICK} minutes", "heading", True)
        self.quick = label("", "", True)
        layout.addWidget(self.quick_title)
        layout.addWidget(self.quick)
        layout.addWidget(rule())
        self.ending = _Ending(session, stage)
        layout.addWidget(self.ending)
        layout.addWidget(rule())
        self.kit = _Kit(session, stage)
        layout.addWidget(self.kit)
        layout.addWidget(rule())
        layout.addWidget(label("Used so far", "heading"))
        self.spent = label("", "small", True)
        layout.addWidget(self.spent)
        layout.addStretch(1)
        stage.shown.connect(self.refresh)

    def refresh(self) -> None:
        stage, session = self.stage, self.session
        job = stage.job
        self.title.setText(vulgar_text(job.title(job.times)) if job else "Nothing is picked")
        self.done.setVisible(job is not None)
        if job is not None:
            self.done.setText(f"{job.done} of {job.times} done")
        self.more.setEnabled(job is not None and job.left > 0)
        self.fewer.setEnabled(job is not None and job.done > 0)
        self.unpicking.refresh()
        self.timing.refresh()
        lines = list(quick_lines(stage.jobs, session.project, stage.list))
        self.quick.setText(vulgar_text("\n".join(lines)) if lines else "Nothing is ready for it.")
        self.ending.refresh()
        self.kit.refresh()
        plan = session.work_plan
        if plan is not None and stage.jobs:
            used = used_lines(stage.jobs, plan, session.project)
            self.spent.setText(vulgar_text("\n".join(used)))


@guarded
class _Unpicking(QWidget):
    """What was sewn and is taken apart again, and why."""

    def __init__(self, session: Session, stage: BenchStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        layout = column(self, 0, 4)
        self.number = NumberBox()
        self.number.setAccessibleName("How many are unpicked")
        self.why = ChoiceField("Why it is unpicked", lambda _: self._chose())
        self.why.offer([(why.capitalize(), why) for why in (*REASONS, TYPED)], REASONS[0])
        self.why.setItemText(len(REASONS), "Another reason …")
        self.typed = ValueEdit("The reason", lambda _: None)
        self.unpick_ = button("Unpick", self.unpick)
        layout.addLayout(row(label("Unpick"), self.number, self.why))
        layout.setStretch(0, 0)
        layout.addWidget(self.typed)
        layout.addLayout(row(self.unpick_, 1))
        self.typed.hide()

    def _chose(self) -> None:
        self.typed.setVisible(self.why.currentData() == TYPED)

    def refresh(self) -> None:
        """Only what is sewn to its end can be unpicked."""
        job = self.stage.job
        thing = job.thing if job is not None else None
        most = self.stage.sewn(thing) if thing is not None else 0
        self.setVisible(most > 0)
        self.number.setRange(1, max(1, most))

    def unpick(self) -> None:
        job = self.stage.job
        if job is None or job.thing is None:
            return
        why = self.why.currentData()
        why = self.typed.text().strip() if why == TYPED else why
        session = self.session
        number = self.number.value()
        session.edit(with_unpicked(session.project, job.thing, number, why, session.now))


@guarded
class _Timing(QWidget):
    """The timer: started, paused, told when it was forgotten, its time corrected."""

    def __init__(self, session: Session, stage: BenchStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        layout = column(self, 0, 4)
        self.state = label("", "heading", True)
        self.note = label("", "warning", True)
        self.go_ = button("Start the timer", self.go)
        self.stop_ = button("Stop", self.stop)
        self.spent = ValueEdit("Time spent", self._take_spent)
        self.spent.setPlaceholderText("25, 1 h 20 or 19:30-20:15")
        self.spent.refused.connect(session.said)
        layout.addWidget(self.state)
        layout.addWidget(self.note)
        layout.addLayout(row(self.go_, self.stop_, 1))
        layout.addLayout(row(label("or it took"), self.spent))
        self._minute = QTimer(self)
        self._minute.setInterval(20_000)
        self._minute.timeout.connect(self.refresh)

    @property
    def timer(self) -> Timer | None:
        bench = self.session.project.bench
        return bench.timer if bench is not None else None

    def refresh(self) -> None:
        timer, now = self.timer, self.session.now
        if timer is None:
            self._minute.stop()
            self.state.setText("No time is taken")
        else:
            self._minute.start()
            clock = minutes_text(timed(timer, now)) if timed(timer, now) else "0 min"
            self.state.setText(f"{clock}, running" if timer.since else f"{clock}, paused")
        forgotten = timer is not None and is_forgotten(timer, now)
        self.note.setText(
            "Was the timer forgotten? A tick leaves its time out. Stop it, or type how long it "
            "took."
        )
        self.note.setVisible(forgotten)
        running = timer is not None and bool(timer.since)
        self.go_.setText("Pause" if running else "Go on" if timer else "Start the timer")
        self.stop_.setVisible(timer is not None)

    def go(self) -> None:
        """Start, pause, or go on."""
        session, timer = self.session, self.timer
        if timer is None:
            new = Timer(since=session.now)
        else:
            new = paused(timer, session.now) if timer.since else going_on(timer, session.now)
        session.edit(with_timer(session.project, new))

    def stop(self) -> None:
        """What it has counted since the last tick is written down; nothing where it was
        forgotten."""
        session, timer = self.session, self.timer
        if timer is None:
            return
        minutes = timed(timer, session.now)
        if minutes and not is_forgotten(timer, session.now):
            session.edit(with_time(session.project, minutes, session.now, self._what()))
        else:
            session.edit(with_timer(session.project, None))

    def _what(self) -> str:
        job = self.stage.job
        return job.thing.name if job is not None and job.thing is not None else ""

    def _take_spent(self, text: str) -> None:
        minutes = minutes_typed(text)
        session = self.session
        session.edit(with_time(session.project, minutes, session.now, self._what()))
        self.spent.show_value("")


@guarded
class _Ending(QWidget):
    """When it will be done, and what a lost day means."""

    def __init__(self, session: Session, stage: BenchStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        layout = column(self, 0, 4)
        layout.addWidget(label("When it is done", "heading"))
        self.text = label("", "", True)
        self.pace = label("", "small", True)
        self.wished = ValueEdit("The day you wish", self._take_day)
        self.wished.setPlaceholderText("20 Dec 2026")
        self.wished.refused.connect(session.said)
        self.a_week = NumberBox()
        self.a_week.setRange(1, MOST_A_WEEK)
        self.a_week.setAccessibleName("Sittings a week")
        self.a_week.editingFinished.connect(self._take_week)
        layout.addLayout(row(label("I wish it by"), self.wished))
        layout.addLayout(row(label("sittings a week"), self.a_week, 1))
        layout.addWidget(self.text)
        layout.addWidget(self.pace)

    @property
    def bench(self) -> Bench:
        return self.session.project.bench or Bench()

    def refresh(self) -> None:
        bench, listed = self.bench, self.stage.list
        self.wished.show_value(bench.finish)
        self.a_week.setValue(bench.sittings_a_week)
        self.text.setVisible(listed is not None)
        self.pace.setVisible(listed is not None and listed.pace.minutes > 0)
        if listed is None:
            return
        self.text.setText(end_text(self.session.project, listed, self.session.now[:10]))
        self.pace.setText(pace_text(listed.pace))

    def _take_day(self, text: str) -> None:
        day = date_typed(text)
        self._edit(replace(self.bench, finish=day.isoformat() if day else ""))

    def _take_week(self) -> None:
        self._edit(replace(self.bench, sittings_a_week=self.a_week.value()))

    def _edit(self, bench: Bench) -> None:
        if bench != self.bench:
            self.session.edit(replace(self.session.project, bench=bench))


@guarded
class _Kit(QWidget):
    """What is packed to sew the next steps somewhere else."""

    def __init__(self, session: Session, stage: BenchStage) -> None:
        super().__init__()
        self.session, self.stage = session, stage
        layout = column(self, 0, 4)
        layout.addWidget(label("To take along", "heading"))
        self.steps = NumberBox()
        self.steps.setRange(1, MOST_STEPS)
        self.steps.setValue(4)
        self.steps.setAccessibleName("Steps to take along")
        self.steps.valueChanged.connect(lambda _: self.refresh())
        self.text = label("", "", True)
        layout.addLayout(row(label("for the next"), self.steps, label("steps"), 1))
        layout.addWidget(self.text)

    def refresh(self) -> None:
        plan = self.session.work_plan
        if plan is None or not self.stage.jobs:
            self.text.setText("")
            return
        packed = kit(self.stage.jobs, plan, self.session.project, self.steps.value())
        self.text.setText(vulgar_text("\n".join(kit_lines(packed))))
