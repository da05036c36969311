"""Work under way stops soon after it is asked to, wherever it is."""

from __future__ import annotations

import threading
import time

import pytest

from inlet.core.plan import plan_block
from inlet.core.stopping import Stopped, Task, check, under
from tests.blocks import block_of, project_of
from tests.core.assembly.corpus import corpus


def test_nothing_stops_without_a_task():
    check()
    with under(Task()):
        check()


def test_what_is_asked_to_stop_stops_here_and_not_in_other_threads():
    task, other = Task(), []
    task.stop()
    with under(task):
        thread = threading.Thread(target=lambda: other.append(check()))
        thread.start()
        thread.join()
        with pytest.raises(Stopped):
            check()
    check()
    assert other == [None]


class Counting(Task):
    """Counts how often it is asked; asked to stop after so many times."""

    def __init__(self, after: float = float("inf")) -> None:
        self.after, self.asked = after, 0

    @property
    def asked_to_stop(self) -> bool:
        self.asked += 1
        return self.asked > self.after


@pytest.mark.parametrize("share", [0.01, 0.3, 0.6, 0.95])
def test_a_plan_stops_wherever_it_is_and_is_the_same_afterwards(share):
    _, block, _, _ = corpus()[20]
    whole, counting = plan_block(project_of(block), block), Counting()
    with under(counting):
        plan_block(project_of(block), block)
    assert counting.asked > 20
    with pytest.raises(Stopped), under(Counting(share * counting.asked)):
        plan_block(project_of(block), block)
    again = plan_block(project_of(block), block)
    assert (again.resewn, again.steps) == (True, whole.steps)


def test_a_plan_under_way_stops_for_the_next(qapp):
    from inlet.ui.planner import Planner

    planner, got = Planner(), []
    planner.done.connect(lambda plan: got.append(plan.block.id))
    slow = block_of("0 0 1 1", 1, 1)
    big = next(b for _, b, _, _ in corpus() if len(b.seams) > 20)
    for n in range(4):
        planner.ask(project_of(big), big, n + 1)
        end = time.monotonic() + 0.03
        while time.monotonic() < end:
            qapp.processEvents()
    planner.ask(project_of(slow), slow, 1)
    end = time.monotonic() + 20
    while "test" not in got and time.monotonic() < end:
        qapp.processEvents()
    planner.stop()
    assert got[-1] == "test"
