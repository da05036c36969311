"""What is kept of what was worked out: as much as was said, and never another's."""

from __future__ import annotations

import ast
import sys
from pathlib import Path
from threading import Barrier, Thread

import inlet
from inlet.core.memo import KeyedTable, Latest, forget_all, memo, number_kept


def test_a_result_is_worked_out_once_until_all_is_forgotten():
    asked = []

    @memo(2)
    def double(number):
        asked.append(number)
        return 2 * number

    assert [double(n) for n in (1, 2, 1, 2)] == [2, 4, 2, 4]
    assert asked == [1, 2]
    double(3)  # one more than is kept: 1 goes
    assert [double(n) for n in (2, 1)] == [4, 2]
    assert asked == [1, 2, 3, 1]
    assert number_kept() >= 2
    forget_all()
    assert number_kept() == 0
    assert double(1) == 2
    assert asked == [1, 2, 3, 1, 1]


def test_the_latest_are_known_by_which_object_they_belong_to():
    latest = Latest(2)
    one, equal, third = [1], [1], [3]
    assert latest.of(one, len) == 1
    assert latest.get(equal) is None  # equal, yet another
    latest.keep(equal, "second")
    assert latest.of(one, sum) == 1  # not asked again, and the newest now
    latest.keep(third, "third")
    assert (latest.get(equal), latest.get(one), latest.get(third)) == (None, 1, "third")
    latest.forget()
    assert latest.get(one) is None


def test_a_key_that_is_gone_leaves_no_value_to_another_in_its_place():
    latest = Latest(50)
    for number in range(2_000):
        key = [number]
        assert latest.get(key) is None  # were keys not held, its place in memory would come again
        latest.keep(key, number)


def test_a_table_keeps_what_is_none_too():
    table, asked = KeyedTable(2), []

    def make():
        asked.append(1)

    assert [table.of("a", make) for _ in range(3)] == [None] * 3
    assert asked == [1]
    table.of("b", lambda: 2)
    table.of("c", lambda: 3)
    table.of("a", make)
    assert asked == [1, 1]


def test_many_threads_may_ask_at_once():
    table, latest, wrong = KeyedTable(7), Latest(7), []
    keys = [(n,) for n in range(20)]
    gate = Barrier(4)

    def work(step):
        gate.wait()
        try:
            for n in range(4_000):
                key = keys[n * step % 20]
                if table.of(key, lambda key=key: key[0]) != key[0]:
                    wrong.append(key)
                if latest.of(key, lambda key: key[0]) != key[0]:
                    wrong.append(key)
        except KeyError as error:
            wrong.append(error)

    before = sys.getswitchinterval()
    sys.setswitchinterval(1e-6)
    threads = [Thread(target=work, args=(step,)) for step in (1, 3, 7, 9)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    sys.setswitchinterval(before)
    assert wrong == []


def test_nothing_keeps_results_in_another_way():
    """What is kept past it would not be forgotten, bounded or safe between threads."""
    bare = []
    core = Path(inlet.__file__).parent / "core"
    for file in set(core.rglob("*.py")) - {core / "memo.py"}:
        for node in ast.parse(file.read_text("utf-8")).body:  # one in a function ends with it
            decorated = [ast.unparse(d) for d in getattr(node, "decorator_list", [])]
            if any("cache" in d for d in decorated):
                bare.append(f"{file.name}: {node.name}")
            value = ast.unparse(getattr(node, "value", None) or ast.Constant(0))
            if isinstance(node, ast.Assign | ast.AnnAssign) and value in ("{}", "[]", "set()"):
                bare.append(f"{file.name}: {ast.unparse(node)}")
            if value.startswith(("deque(", "WeakKeyDictionary(", "OrderedDict(")):
                bare.append(f"{file.name}: {ast.unparse(node)}")
    assert bare == []
