"""What is left to do: jobs against the schedule, shared out, at the maker's pace, till the end."""

from __future__ import annotations

from collections import Counter
from datetime import date, timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.bench.diary import diary_lines, entry_text
from inlet.core.bench.edits import (
    with_cuts,
    with_job,
    with_note,
    with_tick,
    with_time,
    with_timer,
    with_unpicked,
)
from inlet.core.bench.finish import date_typed, finish, finish_text, last_day
from inlet.core.bench.jobs import BenchJob, LaidFor, jobs, minutes_left, share_done
from inlet.core.bench.kit import kit
from inlet.core.bench.overview import step_lines
from inlet.core.bench.pace import pace_of
from inlet.core.bench.progress import progress
from inlet.core.bench.report import kit_lines, today_lines, used_lines
from inlet.core.bench.sharing import quick_jobs, sittings_left
from inlet.core.bench.spent import FabricSpent, spent_lines
from inlet.core.bench.things import Thing, block_things
from inlet.core.bench.timing import going_on, is_forgotten, minutes_typed, paused, timed
from inlet.core.bench.today import today
from inlet.core.numbers import CENTIMETRES
from inlet.core.numbers import Fraction as F
from inlet.core.plan import plan_block, plan_quilt
from inlet.core.project import (
    INCH,
    Binding,
    Border,
    LaidFabric,
    LogEntry,
    Quilt,
    Sashing,
    Timer,
    measured_in,
    replace,
)
from tests.blocks import block_of, project_of
from tests.sample import many

AT = "2026-11-30T19:05"
DRAWN = (
    "0 0 1 1 / 1 0 1 3 / 0 1 3 1 / 2 0 2 3 / 0 2 3 2",
    "1 0 1 2 / 0 1 2 1 / 0 0 1 1 / 1 1 2 2",
    "0 1 2 1 / 2 0 2 2 / 1 2 3 2 / 1 1 1 3 / 1 1 2 2",
    "0 0 3 1",
    "",
)


@st.composite
def plans(draw):
    """A project with its plan: of a few blocks, or of a quilt with what goes round it."""
    drawn = draw(st.sampled_from(DRAWN))
    side = draw(st.sampled_from([9, F(17, 2), 11]))
    block = block_of(drawn, 3, 3, size=(side, side), fabrics=draw(st.sampled_from(["ab", "abc"])))
    project = project_of(block, style=draw(st.sampled_from(["exact", "trim"])))
    if draw(st.booleans()):
        project = measured_in(project, CENTIMETRES)
    if draw(st.booleans()):
        return project, plan_block(project, project.blocks[0], draw(st.integers(1, 5)))
    quilt = Quilt(columns=draw(st.integers(1, 4)), rows=draw(st.integers(1, 3)), block=block.id)
    if draw(st.booleans()):
        quilt = replace(
            quilt, sashing=Sashing(width=F(1), fabric="a"), binding=Binding(width=F(9, 4)),
            borders=(Border(width=F(2), fabric="b"),),
        )  # fmt: skip
    project = replace(project, quilt=quilt)
    plan = plan_quilt(project)
    plan.work_out()
    return project, plan


@given(plans(), st.integers(5, 200), st.sampled_from([0.6, 1.0, 1.7]))
@settings(max_examples=many(25, 300), deadline=None)
def test_jobs_take_as_long_as_the_schedule_says_and_are_shared_out_once(planned, minutes, pace):
    project, plan = planned
    all_jobs = jobs(plan, project)
    assert minutes_left(all_jobs) == pytest.approx(plan.work.minutes)
    assert share_done(all_jobs) == 0
    sittings = sittings_left(all_jobs, minutes, pace)
    numbers = Counter()
    for sitting in sittings:
        for portion in sitting:
            numbers[portion.which] += portion.number
        each = [portion.minutes / portion.number for portion in sitting]
        assert sum(p.minutes for p in sitting) <= minutes + max(each) + 1e-6
    assert numbers == Counter({i: job.left for i, job in enumerate(all_jobs) if job.left})
    order = [portion.which for sitting in sittings for portion in sitting]
    assert order == sorted(order)


@given(plans(), st.data())
@settings(max_examples=many(25, 300), deadline=None)
def test_ticked_in_any_portions_everything_is_done_and_taken_back_nothing_is(planned, data):
    """Each job by itself, in portions: no tick is without effect, and each is the tick of the
    step."""
    project, plan = planned
    for i in range(len(jobs(plan, project))):
        while (now := jobs(plan, project)[i]).left:
            by = data.draw(st.integers(1, max(1, now.left)), label="by")
            project = with_job(project, now, by, AT)
            assert now.done + by <= jobs(plan, project)[i].done
    done = jobs(plan, project)
    assert share_done(done) == 1
    assert not any(today(done, project, 60, "2026-12-01").portions)
    things = [job.thing for job in done if job.thing is not None]
    counted = progress(project.log, things).done
    assert all(counted[thing.name] == thing.times for thing in things)
    for i in reversed(range(len(done))):
        while (now := jobs(plan, project)[i]).done:
            by = -data.draw(st.integers(1, now.done), label="back")
            project = with_job(project, now, by, AT)
            if now.thing is not None and (now.part or not now.thing.parts):
                assert jobs(plan, project)[i].done <= now.done
            if jobs(plan, project)[i].done == now.done:
                break  # a part that a later one says was done
    assert all(entry.number > 0 for entry in project.log)


@given(plans(), st.integers(3, 60), st.data())
@settings(max_examples=many(20, 200), deadline=None)
def test_what_is_quickly_done_can_be_begun(planned, minutes, data):
    """After some jobs in their order: what is offered fits the time, is no more than is left, and
    all that it is made of is done."""
    project, plan = planned
    number = len(jobs(plan, project))
    for i in range(data.draw(st.integers(0, number), label="jobs done")):
        job = jobs(plan, project)[i]
        project = with_job(project, job, job.left, AT)
    now = jobs(plan, project)
    done = {job.thing.name for job in now if job.thing is not None and not job.left}
    done = {
        name
        for name in done
        if all(not job.left for job in now if job.thing is not None and job.thing.name == name)
    }
    for portion in quick_jobs(now, project, minutes):
        assert 0 < portion.number <= portion.job.left
        assert portion.minutes <= minutes + 1e-6
        named = {job.thing.name for job in now if job.thing is not None}
        assert set(portion.job.needs) & named <= done
    if share_done(now) < 1 and minutes >= 60:
        assert quick_jobs(now, project, 10**6)


def block_plan():
    """Four 9 in blocks of a half-square triangle and eight squares."""
    project = project_of(block_of(DRAWN[0], 3, 3))
    return project, plan_block(project, project.blocks[0], 4)


def test_a_tick_at_cutting_is_the_tick_at_the_bench():
    project, plan = block_plan()
    first = jobs(plan, project)[0]
    assert first.laid is not None
    project = with_cuts(project, first.laid, 3, AT)
    assert jobs(plan, project)[0].done == 3
    assert project.cutting.begun[0].done == 3
    assert [(e.did, e.what, e.number) for e in project.log] == [("cut", f"Cut {first.what}", 3)]
    project = with_cuts(project, first.laid, -1, AT)
    assert (jobs(plan, project)[0].done, project.log[-1].number) == (2, 2)
    assert not progress(project.log, ()).spare


def test_the_list_of_a_day_ends():
    """What is done today is no longer on the list, and its minutes are used up."""
    project, plan = block_plan()
    listed = today(jobs(plan, project), project, 10, "2026-11-30")
    while listed.portions:
        before = listed.minutes
        project = with_job(project, listed.portions[0].job, listed.portions[0].number, AT)
        listed = today(jobs(plan, project), project, 10, "2026-11-30")
        assert listed.minutes < before or not listed.portions
    assert 8 <= listed.minutes_done <= 12
    assert list(today_lines(listed)) == ["Today's list is done."]
    assert today(jobs(plan, project), project, 10, "2026-12-01").portions


def test_pace_is_minutes_taken_over_minutes_by_the_rates():
    project, plan = block_plan()
    sew = next(job for job in jobs(plan, project) if job.verb == "Sew")
    planned = sew.minutes * sew.times
    entry = LogEntry(
        what=sew.thing.name, part=sew.part, number=sew.thing.times, at=AT, minutes=30,
        drawn=sew.thing.drawn,
    )  # fmt: skip
    log = (entry, LogEntry(did="note", text="x", minutes=99), LogEntry(what="Knit", minutes=50))
    pace = pace_of(log, jobs(plan, project))
    assert pace.factor == pytest.approx(30 / planned)
    more = LogEntry(did="timed", what=sew.thing.name, part=sew.part, minutes=30)
    assert pace_of((*log, more), jobs(plan, project)).factor == pytest.approx(60 / planned)
    assert pace_of((replace(entry, minutes=10),), jobs(plan, project)) == (1.0, 0)  # too little
    later = replace(entry, minutes=None, at="2026-12-01T10:00")
    assert pace_of((entry, later), jobs(plan, project)).factor == pytest.approx(30 / planned)
    assert pace_of((later, more), jobs(plan, project)).factor == pytest.approx(30 / planned)
    shared = replace(entry, minutes=None)  # ticked in the same minute
    assert pace_of((entry, shared), jobs(plan, project)).factor == pytest.approx(15 / planned)


def test_the_timer_hands_its_minutes_to_the_next_tick():
    project, plan = block_plan()
    project = with_timer(project, Timer(since="2026-11-30T18:45"))
    project = with_job(project, jobs(plan, project)[0], 1, AT)
    assert (project.log[-1].minutes, project.bench.timer) == (20, Timer(since=AT))
    project = with_job(project, jobs(plan, project)[0], 1, AT)  # merged: no minute has passed
    assert (project.log[-1].minutes, project.log[-1].number) == (None, 1)
    late = "2026-11-30T23:05"
    forgotten = with_job(project, jobs(plan, project)[0], 1, late)
    assert forgotten.log[-1].minutes is None
    assert is_forgotten(project.bench.timer, late)
    stopped = with_time(project, 25, late, "Make test A")
    assert stopped.bench.timer is None
    assert entry_text(stopped.log[-1], INCH) == "Worked on test A, 25 min"


def test_a_timer_is_paused_and_goes_on():
    timer = paused(Timer(since="2026-11-30T19:00"), AT)
    assert timer == Timer(counted=5)
    assert timed(timer, "2026-11-30T22:00") == 5
    on = going_on(timer, "2026-11-30T22:00")
    assert timed(on, "2026-11-30T22:10") == 15
    assert timed(Timer(since="never"), AT) == 0
    assert timed(Timer(since="2026-12-01T00:00"), AT) == 0  # the clock was put back


@pytest.mark.parametrize(
    ("text", "minutes"),
    [("25", 25), ("25 min", 25), ("1 h 20", 80), ("2h", 120), ("19:30-20:15", 45),
     ("9.05 to 10:00", 55)],
)  # fmt: skip
def test_times_are_typed(text, minutes):
    assert minutes_typed(text) == minutes


@pytest.mark.parametrize(
    ("text", "why"),
    [("20:15-19:30", "ends before it starts"), ("25:00-26:00", "time of day"), ("0", "above 0"),
     ("soon", "type minutes"), ("", "type minutes"), ("99999", "up to a week")],
)  # fmt: skip
def test_times_that_cannot_be_are_told(text, why):
    with pytest.raises(ValueError, match=why):
        minutes_typed(text)


@given(st.integers(0, 400), st.integers(1, 21), st.integers(-30, 400))
@settings(max_examples=many(60, 600))
def test_the_last_day_is_counted_by_hand(sittings, a_week, wished_in):
    """Day by day: the k-th sitting is on the first day by which k/a_week weeks have passed."""
    first = date(2026, 11, 30)

    def by_hand(number):
        day, sat = first, 0
        while sat < number:
            passed = (day - first).days + 1
            sat = min(number, (passed * a_week + 6) // 7)
            day += timedelta(days=1)
        return max(first, day - timedelta(days=1))

    assert last_day(sittings, a_week, first) == by_hand(sittings)
    wished = first + timedelta(days=wished_in)
    when = finish(sittings, a_week, first, wished)
    assert when.last <= when.lost
    if when.last <= wished:
        assert when.enough is None
    elif when.enough is not None:
        assert by_hand(sittings) > wished
        assert last_day(sittings, when.enough, first) <= wished
        assert last_day(sittings, when.enough - 1, first) > wished
    assert finish_text(when, sittings, a_week).endswith((".", "smaller."))


@pytest.mark.parametrize("text", ["2026-12-20", "20 Dec 2026", "20.12.2026", "20 december 2026"])
def test_a_day_is_typed(text):
    assert date_typed(text) == date(2026, 12, 20)


@pytest.mark.parametrize("text", ["soon", "31 Feb 2026", "2026", "20 Dec"])
def test_no_day_is_told(text):
    with pytest.raises(ValueError, match="type a day"):
        date_typed(text)


def test_a_kit_is_what_the_next_steps_take():
    project, plan = block_plan()
    packed = kit(jobs(plan, project), plan, project, 2)
    assert len(packed.steps) == 2
    cut = {f"Stack {cut.label}:" for cut in plan.cuts}
    assert {" ".join(line.split()[:2]) for line in packed.stacks} <= cut
    assert any("squares of A" in line for line in packed.stacks)
    for job in jobs(plan, project):
        project = with_job(project, job, job.left, AT)
    assert list(kit_lines(kit(jobs(plan, project), plan, project))) == ["There is nothing to sew."]


def test_fabric_thread_and_money_are_told_against_the_plan():
    project, plan = block_plan()
    fabrics = tuple(replace(fabric, price=F(12)) for fabric in project.fabrics)
    project = replace(project, fabrics=fabrics)
    plan = plan_block(project, project.blocks[0], 4)
    lines = list(used_lines(jobs(plan, project), plan, project))
    assert lines[0].startswith("A: 0 in of ")
    assert lines[-1].startswith("Fabric for 0 of ")
    for job in jobs(plan, project):
        project = with_job(project, job, job.left, AT)
    done = list(used_lines(jobs(plan, project), plan, project))
    for line in done[:-2]:
        cut, _, planned = line.partition(": ")[2].removesuffix(" cut up").partition(" of ")
        assert cut == planned
    thread = done[-2].partition(": ")[2].split(" of ")
    assert thread[0] == thread[1]
    sewn = next(job.thing for job in jobs(plan, project) if job.verb == "Sew")
    project = with_unpicked(project, sewn, 1, "stretched", AT)
    for job in jobs(plan, project):
        project = with_job(project, job, job.left, AT)
    again = list(used_lines(jobs(plan, project), plan, project))[-2].partition(": ")[2]
    assert again.split(" of ")[0] != again.split(" of ")[1]  # what is sewn twice takes more


def test_the_log_reads_as_a_diary():
    project, plan = block_plan()
    unit = next(job.thing for job in jobs(plan, project) if job.verb == "Sew")
    project = with_job(project, jobs(plan, project)[0], 2, "2026-11-29T20:00")
    for job in jobs(plan, project):
        if job.thing == unit:
            project = with_job(project, job, job.left, AT)
    project = with_unpicked(project, unit, 1, "points cut off", AT)
    project = with_note(project, "New needle.", AT, photo="a.jpg")
    lines = list(diary_lines(project.log, project.measure))
    assert lines[0] == "Sun 29 Nov 2026"
    assert lines[1].endswith("2 cuts")
    assert lines[2] == "Mon 30 Nov 2026"
    name = unit.name.partition(" ")[2]
    assert f"  19:05  Sew 4 × {name}" in lines
    assert f"  19:05  Unpicked 1 × {name}: points cut off" in lines
    assert lines[-1] == "  19:05  New needle. (photograph a.jpg)"


def test_all_steps_are_told_part_by_part():
    """Counted by hand: a line for each piece of fabric and each step, what is done of each part."""
    project, plan = block_plan()
    first = step_lines(jobs(plan, project), project)
    fabrics = sum(job.laid is not None for job in jobs(plan, project))
    assert len(first) == fabrics + len(plan.steps)
    unit = next(i for i, line in enumerate(first) if line.cells[0] == plan_steps_name(plan, 0))
    assert first[unit].cells[1] == "no"
    for job in jobs(plan, project):
        if job.laid is not None:
            project = with_job(project, job, job.left, AT)
    name = first[unit].cells[0]
    sew = next(
        job for job in jobs(plan, project)
        if job.verb == "Sew" and job.thing.name == name
    )  # fmt: skip
    project = with_job(project, sew, sew.left, AT)
    cells = step_lines(jobs(plan, project), project)[unit].cells
    assert cells[1] == "✓"
    assert cells[2].startswith("✓ ")
    assert cells[5] == f"0 of {sew.thing.times}"
    for job in jobs(plan, project):
        project = with_job(project, job, job.left, AT)
    for line in step_lines(jobs(plan, project), project):
        assert all(cell == "" or cell.startswith("✓") for cell in line.cells[1:])


@pytest.mark.parametrize(
    ("verb", "what", "times", "number", "title"),
    [
        ("Press", "Skiff A", 12, 12, "Press 12 × Skiff A"),
        ("Press", "Skiff A", 12, 1, "Press 1 × Skiff A"),
        ("Press", "Skiff", 1, 1, "Press Skiff"),
        ("Sew", "runs of Skiff A", 3, 3, "Sew 3 runs of Skiff A"),
        ("Sew", "runs of Skiff A", 3, 1, "Sew 1 run of Skiff A"),
        ("Cut apart", "segments for B", 9, 9, "Cut apart 9 segments for B"),
        ("Sew", "strip sets for B", 2, 1, "Sew 1 strip set for B"),
        ("Lay", "it out", 1, 1, "Lay it out"),
    ],
)
def test_a_job_is_called_what_a_person_says(verb, what, times, number, title):
    job = BenchJob("machine", verb, what, times, 0, 1.0, Thing("x", times))
    assert job.title(number) == title
    lying = LaidFor("", 1, "fog", LaidFabric(kind="new", width=F(42), length=F(9)))
    cutting = BenchJob("mat", "Cut", "Fog", 9, 0, 1.0, laid=lying)
    assert [cutting.number_text(1), cutting.number_text(9)] == ["1 cut", "9 cuts"]
    runs = BenchJob("machine", "Sew", "runs of A", 3, 0, 1.0)
    assert [runs.number_text(1), runs.number_text(3)] == ["1 run", "3 runs"]
    assert (cutting.title(1), cutting.title(9)) == ("Cut Fog, 1 cut", "Cut Fog, 9 cuts")


def eights():
    """24 half-square triangles, made eight at a time: three runs."""
    block = replace(block_of("0 0 1 1"), methods={"half-square-triangle": "eight-at-a-time"})
    project = project_of(block)
    return project, plan_block(project, block, 24)


def test_runs_are_ticked_as_the_units_that_come_of_them():
    project, plan = eights()
    for job in jobs(plan, project):
        if job.laid is not None:
            project = with_job(project, job, job.left, AT)

    def verbs():
        return {job.verb: job for job in jobs(plan, project) if job.laid is None}

    assert [(job.verb, job.times) for job in verbs().values()] == [
        ("Mark", 3), ("Sew", 3), ("Cut apart", 3), ("Press", 24),
    ]  # fmt: skip
    for verb in ("Mark", "Sew"):
        project = with_job(project, verbs()[verb], 1, AT)
    assert [(e.part, e.number) for e in project.log[-2:]] == [("mark", 8), ("sew", 8)]
    quick = {p.job.verb: p.number for p in quick_jobs(jobs(plan, project), project, 10**6)}
    assert quick == {"Mark": 2, "Cut apart": 1}
    line = step_lines(jobs(plan, project), project)[-1]
    assert line.cells[1:] == ("✓", "1 of 3", "0 of 24", "", "0 of 24")
    assert jobs(plan, project)[line.which].verb == "Mark"
    project = with_job(project, verbs()["Press"], 9, AT)  # so nine came through all before
    assert [verbs()[verb].done for verb in ("Mark", "Sew", "Cut apart", "Press")] == [1, 1, 1, 9]
    project = with_job(project, verbs()["Press"], 15, AT)
    assert share_done(jobs(plan, project)) == 1
    assert step_lines(jobs(plan, project), project)[-1].cells[5] == "✓ 24"


def test_how_much_is_done_is_told_by_minutes():
    def job(minutes, done):
        return BenchJob("mat", "Cut", "x", 4, done, minutes, Thing("x", 4))

    assert share_done([job(3.0, 2), job(1.0, 0)]) == 6 / 16
    assert share_done([job(0.0, 1), job(0.0, 4)]) == 5 / 8
    assert share_done([job(0.001, 3), job(100.0, 4)]) == 0.999
    assert share_done([]) == 0
    assert minutes_left([job(3.0, 1), job(1.0, 4)]) == 9


@pytest.mark.parametrize(
    ("sittings", "a_week", "wished", "text"),
    [
        (0, 3, None, "Everything is done."),
        (1, 3, None, "1 sitting is left. At 3 a week the last is on Mon 30 Nov 2026. If today is "
                     "lost: Wed 2 Dec 2026."),
        (7, 3, date(2026, 12, 14), "7 sittings are left. At 3 a week the last is on Mon 14 Dec "
         "2026, the day you wish. If today is lost: Wed 16 Dec 2026, 2 days after the day you "
         "wish."),
        (7, 3, date(2026, 12, 15), "7 sittings are left. At 3 a week the last is on Mon 14 Dec "
         "2026, 1 day before the day you wish. If today is lost: Wed 16 Dec 2026, 1 day after the "
         "day you wish."),
        (7, 3, date(2026, 12, 6), "7 sittings are left. At 3 a week the last is on Mon 14 Dec "
         "2026, 8 days after the day you wish. If today is lost: Wed 16 Dec 2026, 10 days after "
         "the day you wish. 7 sittings a week would be enough."),
        (99, 3, date(2026, 12, 1), "enough: make them longer, or the quilt smaller."),
    ],
)  # fmt: skip
def test_the_end_is_told_in_words(sittings, a_week, wished, text):
    when = finish(sittings, a_week, date(2026, 11, 30), wished)
    told = finish_text(when, sittings, a_week)
    assert told == text if sittings != 99 else told.endswith(text)


def test_time_typed_with_a_tick_leaves_the_timer_alone():
    project, plan = block_plan()
    project = with_timer(project, Timer(since="2026-11-30T18:45"))
    thing = next(job.thing for job in jobs(plan, project) if job.thing is not None)
    typed = with_tick(project, thing, 0, 1, AT, minutes=7)
    assert (typed.log[-1].minutes, typed.bench) == (7, project.bench)
    back = with_tick(typed, thing, 1, -1, AT)
    assert (back.log, back.bench) == ((), project.bench)


def plan_steps_name(plan, at):
    return block_things(plan)[at].name


def test_what_is_used_is_told_by_hand():
    fog, silt = FabricSpent("Fog", F(9), F(36), F(10)), FabricSpent("Silt", F(0), F(5), None)
    assert list(spent_lines([fog, silt], (36.0, 144.0), INCH)) == [
        "Fog: 9 in of 36 in cut up", "Silt: 0 in of 5 in cut up",
        "Thread, top and bobbin: 2.0 yd of 8.0 yd", "Fabric for 2 1/2 of 10 is cut up",
    ]  # fmt: skip
