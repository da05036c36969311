"""The log: marks of drawings, ticks, what counts for a plan and what is spare."""

from __future__ import annotations

import json

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from inlet.core.bench import (
    Thing,
    block_things,
    corner_thing,
    progress,
    quilt_things,
    same_but_log,
    spare_text,
)
from inlet.core.bench.entries import noted, ticked, unpicked
from inlet.core.bench.progress import SewnPile
from inlet.core.draft import draft, turned
from inlet.core.draft.drawn_mark import drawn_mark
from inlet.core.numbers import CENTIMETRES
from inlet.core.numbers import Fraction as F
from inlet.core.plan import plan_block, plan_quilt
from inlet.core.project import (
    INCH,
    LogEntry,
    Quilt,
    measured_in,
    replace,
)
from inlet.files.project.project_json import dumps, dumps_compact, loads, why_not_kept
from tests.blocks import block_of, in_fabrics, project_of
from tests.core.plan import test_improvised as improvised
from tests.sample import many

HST = block_of("0 0 1 1")
AT = "2026-11-30T19:05"
NEXT_DAY = "2026-12-01T08:00"


def mark(block, measure=INCH):
    drawn = draft(block)
    return drawn_mark(drawn, [patch.face for patch in drawn.patches], measure)


coordinates = st.integers(0, 3)
lines = st.tuples(*[coordinates] * 4).filter(lambda c: c[:2] != c[2:])


@given(st.lists(lines, max_size=3), st.sampled_from(["abc", "aab", "fa"]))
@settings(max_examples=many(60, 400), deadline=None)
def test_a_drawing_has_one_mark_in_every_turn_and_in_both_systems(drawn, fabrics):
    drawn = " / ".join(" ".join(map(str, line)) for line in drawn)
    block = block_of(drawn, 3, 3, fabrics=fabrics)
    marks = {mark(turned(block, (n, False))) for n in range(4)}
    assert marks == {mark(block)}
    project = measured_in(project_of(block), CENTIMETRES)
    in_cm = replace(project.measure, seam=INCH.seam * CENTIMETRES.per_inch)
    assert mark(project.blocks[0], in_cm) == mark(block)
    assert mark(block, replace(INCH, seam=F(3, 8))) != mark(block)
    assert mark(replace(block, finished=(F(7), F(7)))) != mark(block)


def test_a_mirror_image_and_other_fabrics_have_marks_of_their_own():
    leaning = block_of("0 0 3 1", 3, 3)
    mirrored = [mark(turned(leaning, (n, True))) for n in range(4)]
    assert mark(leaning) not in mirrored
    assert len(set(mirrored)) == 1
    assert mark(block_of("0 0 1 1", fabrics="ac")) != mark(HST)


names, marks = st.sampled_from(["a", "b", "c"]), st.sampled_from(["", "x", "y"])
entries = st.lists(
    st.builds(
        LogEntry, what=names, drawn=marks, number=st.integers(1, 9),
        did=st.sampled_from(["done", "done", "unpicked", "note"]),
    )
).map(tuple)  # fmt: skip
things = st.lists(
    st.builds(Thing, names, st.integers(0, 9), st.none(), marks),
    max_size=3,
    unique_by=lambda thing: thing.name,
)


@given(entries, things)
@settings(max_examples=many(300, 3000), deadline=None)
def test_nothing_logged_is_lost_and_no_step_has_more_than_it_takes(log, some):
    """What is there is counted by hand, name by name and mark by mark."""
    there = {}
    for entry in log:
        key = entry.what, entry.drawn
        if entry.did == "done":
            there[key] = there.get(key, 0) + entry.number
        if entry.did == "unpicked":
            there[key] = max(0, there.get(key, 0) - entry.number)
    done, spare, _ = progress(log, some)
    assert sum(done.values()) + sum(pile.number for pile in spare) == sum(there.values())
    for thing in some:
        assert done.get(thing.name, 0) <= thing.times
        lacks = thing.times - done.get(thing.name, 0)
        for pile in spare if lacks else ():  # what would fit is never left lying
            both = pile.drawn and thing.drawn
            assert pile.drawn != thing.drawn if both else pile.name != thing.name


parts_of_steps = st.lists(
    st.builds(
        LogEntry, what=names, part=st.sampled_from(["", "cut", "sew"]), number=st.integers(1, 9),
        did=st.sampled_from(["done", "done", "unpicked"]),
    )
).map(tuple)  # fmt: skip


@given(parts_of_steps, things)
@settings(max_examples=many(200, 2000), deadline=None)
def test_parts_of_steps_are_lost_no_more_than_whole_steps(log, some):
    """By hand: what has come through a part and not to the end is begun, or it is spare."""
    some = [thing._replace(drawn="", parts=("cut", "sew")) for thing in some]
    there = {}
    for entry in log:
        through = there.setdefault(entry.what, {})
        if entry.did == "done":
            through[entry.part] = through.get(entry.part, 0) + entry.number
        else:
            through.update({part: max(0, n - entry.number) for part, n in through.items()})
    progressed = progress(log, some)
    for part in ("cut", "sew"):
        only_so_far = sum(
            max(0, through.get(part, 0) - through.get("", 0)) for through in there.values()
        )
        spare = sum(pile.number for pile in progressed.spare if pile.part == part)
        begun = sum(
            number - progressed.done.get(name, 0)
            for (name, of), number in progressed.begun.items() if of == part
        )  # fmt: skip
        assert spare + begun == only_so_far
    for thing in some:
        assert progressed.done.get(thing.name, 0) <= progressed.through(thing, "sew")
        assert progressed.through(thing, "sew") <= progressed.through(thing, "cut")


@given(st.lists(st.integers(-9, 9), max_size=8), entries)
@settings(max_examples=many(200, 2000), deadline=None)
def test_ticks_add_up_and_are_taken_back(steps, before):
    """A number that goes up and down between nothing and 12."""
    thing = Thing("d", 12, (F(7, 2), F(7, 2)), "z")
    log, number = before, 0
    for i, by in enumerate(steps):
        log = ticked(log, thing, number, by, AT if i % 3 else NEXT_DAY)
        number = max(0, min(12, number + by))
        assert progress(log, (thing,)).done.get("d", 0) == number
    assert log[: len(before)] == before
    if not number:
        assert log == before
    gone = unpicked(log, thing, 5, "points cut", AT)
    assert progress(gone, (thing,)).done.get("d", 0) == max(0, number - 5)


def test_ticks_of_a_day_are_one_entry():
    thing = Thing("Sew row 1", 3)
    log = ticked((), thing, 0, 1, AT)
    log = ticked(log, thing, 1, 1, "2026-11-30T19:40")
    assert [(e.number, e.at) for e in log] == [(2, "2026-11-30T19:40")]
    log = ticked(log, thing, 2, 1, NEXT_DAY)
    assert [e.number for e in log] == [2, 1]
    other = ticked(log, Thing("Sew row 2", 1), 0, 1, NEXT_DAY)
    assert ticked(other, thing, 3, -2, NEXT_DAY) == (replace(log[0], number=1), other[-1])
    assert noted(log, "The blade is dull.", AT)[:2] == log


def test_a_few_spare_piles_are_named():
    piles = [SewnPile(f"Make {n}", 2, (F(n), F(n)), "") for n in range(1, 7)]
    assert spare_text(piles[:1], INCH) == "Spare, as no step takes them now: 2 × 1, 1 in."
    assert spare_text(piles, INCH).endswith("2 × 4, 4 in; and 2 more.")
    assert spare_text((), INCH) == ""


def quilt_of(block, number=4):
    return replace(project_of(block), quilt=Quilt(columns=2, rows=number // 2, block=block.id))


def test_a_change_of_the_drawing_moves_what_was_sewn_to_spare_and_back():
    """Half-square triangles of 3 in: in another fabric, size or seam they are spare, at the size
    they were sewn; a larger quilt, another name, or turned blocks take them still."""
    block = block_of("0 0 1 1 / 1 0 1 3 / 0 1 3 1", 3, 3)
    project = quilt_of(block)
    steps = quilt_things(plan_quilt(project).steps)
    unit = steps[0]
    project = replace(project, log=ticked((), unit, 0, unit.times, AT))

    def now(changed):
        return progress(changed.log, quilt_things(plan_quilt(changed).steps))

    assert now(project)[:2] == ({unit.name: unit.times}, ())
    painted = in_fabrics(block, "cdef")
    for other in (
        project.with_block(painted),
        project.with_block(replace(block, finished=(F(12), F(12)))),
        replace(project, measure=replace(project.measure, seam=F(3, 8))),
    ):
        done, (pile,), _ = now(other)
        assert not done
        assert (pile.number, pile.size, pile.name) == (unit.times, unit.size, unit.name)
    for other in (
        replace(project, quilt=replace(project.quilt, rows=5)),
        project.with_block(replace(block, name="Other")),
        project.with_block(turned(block, (1, False))),
    ):
        done, spare, _ = now(other)
        assert sum(done.values()) == unit.times
        assert not spare
    fewer, (pile,), _ = now(replace(project, quilt=replace(project.quilt, rows=1)))
    assert (sum(fewer.values()), pile.number) == (unit.times // 2, unit.times // 2)


def test_what_a_block_alone_makes_is_what_the_quilt_makes():
    block = block_of("0 1 3 1 / 0 2 3 2 / 1 0 1 3 / 2 0 2 3 / 0 0 1 1", 3, 3)
    project = quilt_of(block)
    log = ()
    alone = block_things(plan_block(project, block, 4))
    for thing in alone:
        log = ticked(log, thing, 0, thing.times, AT)
    done, spare, _ = progress(log, quilt_things(plan_quilt(project).steps))
    assert not spare
    assert sum(done.values()) == sum(thing.times for thing in alone)


def test_corners_are_the_step_of_the_quilt():
    project = improvised.quilt()
    step = quilt_things(plan_quilt(project).steps)[0]
    log = ticked((), corner_thing(project, project.blocks[0], 10**6), 0, 30, AT)
    assert progress(log, (step,))[:2] == ({step.name: 30}, ())


def test_an_old_file_opens_with_its_progress():
    project = quilt_of(HST)
    raw = json.loads(dumps(project))
    raw["quilt"]["done"] = {"Make 0": 3, "Sew row 1": 1, "None": 0}
    old = loads(json.dumps(raw))
    assert [(e.what, e.number, e.at) for e in old.log] == [("Make 0", 3, ""), ("Sew row 1", 1, "")]
    assert replace(old, log=()) == project
    assert loads(dumps(old)) == loads(dumps_compact(old)) == old
    assert "done" not in json.loads(dumps(old))["quilt"]


@pytest.mark.parametrize(
    "bad",
    [
        7, {"number": 0}, {"number": 10**9}, {"size": ["0", "1"]}, {"did": "sat"}, {"size": "x"},
        {"text": "x" * 10**6}, {"what": ["a"]},
    ],
)  # fmt: skip
def test_a_damaged_log_never_takes_the_drawing_with_it(bad):
    """What cannot be read is kept as it is, and written back."""
    project = replace(quilt_of(HST), log=(LogEntry(what="Sew row 1", at=AT),))
    raw = json.loads(dumps(project))
    raw["log"].insert(0, bad)
    kept = loads(json.dumps(raw))
    assert kept.log == project.log
    assert kept.blocks == project.blocks
    again = loads(dumps(kept))
    assert again == kept
    assert json.loads(dumps(again))["log_unread"] == [bad]
    for log in (bad, {"a": bad}):
        assert loads(json.dumps(raw | {"log": log})).blocks == project.blocks


def test_what_a_file_cannot_hold_is_not_logged():
    project = quilt_of(HST)
    long = replace(project, log=(LogEntry(text="x" * 10**6),))
    assert "log[0].text" in why_not_kept(long, project)
    assert same_but_log(long, project)
    assert not same_but_log(replace(project, name="b"), project)
