"""Work under way stops soon after it is asked to, wherever it is."""

from __future__ import annotations

import threading

import pytest

from inlet.core.cancellation import Job, Stopped, check, tell, under
from inlet.core.plan.block import plan_block
from tests.blocks import project_of
from tests.core.assembly.corpus import corpus


def test_nothing_stops_without_a_task():
    check()
    with under(Job()):
        check()


def test_what_is_asked_to_stop_stops_here_and_not_in_other_threads():
    job, other = Job(), []
    job.stop()
    with under(job):
        thread = threading.Thread(target=lambda: other.append(check()))
        thread.start()
        thread.join()
        with pytest.raises(Stopped):
            check()
    check()
    assert other == [None]


class Counting(Job):
    """Counts how often it is asked; asked to stop after so many times."""

    def __init__(self, after: float = float("inf")) -> None:
        self.after, self.asked, self.give_way = after, 0, None

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


def test_a_job_that_nobody_listens_to_may_be_told():
    with under(Job()):
        tell(0.5)
    heard: list[float] = []
    with under(Job(heard.append)):
        tell(0.5)
    assert heard == [0.5]
