"""``./bench``: one table, a row a figure. Nothing here is asserted; aims stand beside."""

from __future__ import annotations

import os
import random
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from copy import copy
from pathlib import Path

import shapely
import shapely.ops
from PySide6.QtWidgets import QApplication

from benchmarks.assembling import cases
from benchmarks.cutting import rows as cutting_rows
from benchmarks.hand import hand_rows
from benchmarks.log import log_rows
from benchmarks.pressing import cases as pressing_cases
from benchmarks.quilt import quilt_rows
from benchmarks.remake import remake_rows
from benchmarks.shell import shell_rows
from inlet.core.draft import patches
from inlet.core.draft.compass import quarter_arc
from inlet.core.draft.edit import add_seams, paint
from inlet.core.fitting.answers import answers
from inlet.core.fitting.remedies import Fitting
from inlet.core.geometry.arrange import arrange
from inlet.core.geometry.curve import Curve, flattened
from inlet.core.geometry.point import Point
from inlet.core.memo import forget_all
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.piecing.resew import resewn
from inlet.core.plan.block import plan_block
from inlet.core.planning.planned import plan_units
from inlet.core.project.block import Block, FabricAt, straight
from inlet.core.project.fabric import Fabric
from inlet.core.project.project import Project
from inlet.core.project.value import replace
from inlet.core.units.breakdown import break_down
from inlet.files.project.project_json import load, save

FABRICS = tuple(Fabric(id=c, name=c, colour=f"#{k * 2:02x}{200 - k:02x}80") for k, c in
               zip(range(0, 100, 20), "abcde", strict=True))  # fmt: skip


def timed(do: Callable[[], object], runs: int = 5, before: Callable[[], None] | None = None):
    """(median, worst) in milliseconds."""
    took = []
    for _ in range(runs):
        if before:
            before()
        start = time.perf_counter()
        do()
        took.append((time.perf_counter() - start) * 1000)
    return statistics.median(took), max(took)


def forget() -> None:
    """Forget what was worked out, so that a plan is worked out as for the first time."""
    forget_all()


def triangles_and_squares(n: int, triangles: int) -> Block:
    """An n x n grid in which the first cells, scattered, hold half-square triangles."""
    block = Block(id="bench", finished=(F(3 * n), F(3 * n)), columns=(F(1),) * n, rows=(F(1),) * n)
    seams = [straight((F(i), F(0)), (F(i), F(n))) for i in range(1, n)]
    seams += [straight((F(0), F(i)), (F(n), F(i))) for i in range(1, n)]
    cells = [(x, y) for x in range(n) for y in range(n)]
    random.Random(7).shuffle(cells)
    for x, y in cells[:triangles]:
        seams.append(straight((F(x), F(y)), (F(x + 1), F(y + 1))))
    block = replace(block, seams=tuple(seams))
    colour = random.Random(8)
    spots = []
    for x, y in cells:
        for dx, dy in ((F(3, 4), F(1, 4)), (F(1, 4), F(3, 4))):
            spots.append(FabricAt(point=(x + dx, y + dy), fabric=colour.choice("abc")))
    return replace(block, fabric_at=tuple(spots))


UNITS = (
    "0 0 1 1", "0 0 1 1 / 0 1 1 0", "0 0 1 1 / 1/2 1/2 1 0", "1/2 0 1/2 1 / 0 1/2 1 1/2",
    "1/2 0 1 1/2 / 1 1/2 1/2 1 / 1/2 1 0 1/2 / 0 1/2 1/2 0", "0 1/3 1 1/3 / 0 2/3 1 2/3",
    "1/3 0 1/3 1 / 2/3 0 2/3 1 / 0 1/3 1 1/3 / 0 2/3 1 2/3", "1/4 0 0 1/4 / 3/4 1 1 3/4",
)  # fmt: skip


def sixty_units() -> Block:
    """Units of eight kinds in a grid of 10 x 6 cells, in a few fabrics."""
    block = Block(id="bench", finished=(F(30), F(18)), columns=(F(1),) * 10, rows=(F(1),) * 6)
    seams = [straight((F(i), F(0)), (F(i), F(6))) for i in range(1, 10)]
    seams += [straight((F(0), F(i)), (F(10), F(i))) for i in range(1, 6)]
    spots = []
    for x in range(10):
        for y in range(6):
            for text in UNITS[(x + 3 * y) % len(UNITS)].split(" / "):
                x0, y0, x1, y1 = (F(n) for n in text.split())
                seams.append(straight((x + x0, y + y0), (x + x1, y + y1)))
            for k in range(16):
                at = (x + F(2 * (k % 4) + 1, 8) + F(1, 50), y + F(2 * (k // 4) + 1, 8) + F(1, 99))
                spots.append(FabricAt(point=at, fabric="abc"[(k * 7 + x * y) % 3]))
    return replace(block, seams=tuple(seams), fabric_at=tuple(spots))


def compared(block: Block) -> None:
    """Its units named, every method of each worked out and costed, and the one to take found."""
    drawn = patches.draft(block)
    project = Project(fabrics=FABRICS, blocks=(block,))
    assert all(plan.advised for plan in plan_units(project, block, drawn, break_down(drawn), 1))


def random_seams(count: int, size: int) -> list[tuple[Point, Point]]:
    chance = random.Random(1)
    out: list[tuple[Point, Point]] = []
    while len(out) < count:
        p, q = (Point(F(chance.randint(0, size)), F(chance.randint(0, size))) for _ in range(2))
        if p != q:
            out.append((p, q))
    return out


def mixed_seams(count: int, size: int) -> list[Curve]:
    """Straight seams and quarter circles in turn, between points of a grid."""
    return [
        quarter_arc(p, q, bool(i % 4)) if i % 2 else Curve(p, q)
        for i, (p, q) in enumerate(random_seams(count, size))
    ]


def theirs(seams: list[Curve], size: int) -> None:
    """The same seams through shapely, arcs in chords within a thousandth: noded, polygonized."""
    lines = [shapely.LineString([*flattened(c, 1e-3), c.end.floats()]) for c in seams]
    lines.append(shapely.box(0, 0, size, size).exterior)
    list(shapely.ops.polygonize(shapely.unary_union(lines)))


def cold_start() -> float:
    """Seconds from starting the process to a demo window drawn with its plan."""
    code = (
        "import sys, time; t=float(sys.argv[1]);"
        "from inlet.ui.shell import app;"
        "app._picture=lambda a,w,o: (a.processEvents(), w.grab(), w.session.close(),"
        " print(time.time()-t), 0)[-1];"
        "from inlet.command_line import main;"
        "main(['--demo','--picture','x'])"
    )
    done = subprocess.run(
        [sys.executable, "-c", code, str(time.time())],
        capture_output=True, text=True, check=True,
        env={**os.environ, "QT_QPA_PLATFORM": "offscreen", "PYTHONDONTWRITEBYTECODE": ""},
    )  # fmt: skip
    return float(done.stdout.split()[-1])


def opening(count: int) -> tuple[str, tuple[float, float], str]:
    """Reading a project of many blocks and showing its first in the window."""
    from inlet.ui import theme
    from inlet.ui.shell.session import Session
    from inlet.ui.shell.window import Window

    app = QApplication.instance() or QApplication([])
    theme.apply(app)
    blocks = [
        replace(triangles_and_squares(7, 31), id=f"b{i}", name=f"Block {i}") for i in range(count)
    ]
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "many.inlet"
        save(Project(fabrics=FABRICS, blocks=tuple(blocks)), path)
        session = Session()
        window = Window(session)
        window.resize(1280, 800)
        window.show()

        def open_it() -> None:
            session.start(load(path), path)
            window.draft.drawing.repaint()
            app.processEvents()

        found = timed(open_it, 5, forget)
        while session.plan is None:
            app.processEvents()
        session.close()
        window.may_leave = lambda: True
        window.close()
    return f"opening a project of {count} 80-patch blocks", found, "300"


def redraws() -> list[tuple[str, tuple[float, float], str]]:
    """An edit to the redrawn picture, in the window, at several sizes of block."""
    from inlet.ui import theme
    from inlet.ui.shell.session import Session
    from inlet.ui.shell.window import Window

    app = QApplication.instance() or QApplication([])
    theme.apply(app)
    rows = []
    for n, triangles, aim in ((4, 4, "16"), (7, 31, "30"), (16, 44, "100")):
        block = triangles_and_squares(n, triangles)
        session = Session()
        window = Window(session)
        window.resize(1280, 800)
        window.show()
        session.start(Project(fabrics=FABRICS, blocks=(block,)), None)
        count = len(session.draft.patches)
        drawing = window.draft.drawing

        def wait(session=session) -> None:
            while session.plan is None:
                app.processEvents()

        def edit(session=session, drawing=drawing, k=[0]) -> None:  # noqa: B006 - counts runs
            k[0] += 1
            if k[0] % 2:
                session.edit_block(
                    add_seams(
                        session.block, [straight((F(0), F(1, 2 + k[0])), (F(1), F(1, 2 + k[0])))]
                    )
                )
            else:
                colour = "abcde"[k[0] % 5]
                session.edit_block(paint(session.block, (F(1, 9), F(8, 9)), colour))
            drawing.repaint()

        rows.append(
            (f"edit to redrawn picture with checks, {count} patches", timed(edit, 10, wait), aim)
        )
        wait()
        session.close()
        window.may_leave = lambda: True
        window.close()
    return rows


def as_cut(units: Block) -> list[tuple[str, tuple[float, float], str]]:
    """The proof as cut beside the exact one, and the answers to an awkward size."""
    rows = []
    for count, triangles in ((6, 4), (20, 0)):
        block = triangles_and_squares(count, triangles)
        project = Project(fabrics=FABRICS, blocks=(block,))
        plan = plan_block(project, block)

        def exact(plan=plan) -> None:
            resewn(plan.draft, plan.root, plan.units, plan.measure.seam)

        def cut(plan=plan) -> None:
            fitting = Fitting(plan.draft, plan.root, plan.units, plan.measure, True)
            assert fitting.usual.worst >= 0

        took = timed(exact, 9)
        patches_ = f"{len(plan.draft.patches)} patches"
        rows.append((f"exact proof of {patches_}", took, ""))
        rows.append((f"as-cut proof of {patches_}", timed(cut, 9), f"{took[0]:.1f}"))
    awkward = replace(units, finished=(F(61, 2), F(183, 10)))
    project = Project(fabrics=FABRICS, blocks=(awkward,))
    plan = plan_block(project, awkward)
    first = plan.fitting
    assert first is not None

    def answered() -> None:
        fitting = copy(first)  # with what the plan has asked of it
        vars(fitting).pop("trimmed", None)
        assert answers(fitting, project, awkward, 1, plan.ruler_friendly)

    name = f"answers to an awkward size, {sum(u.count for u in plan.units)} units"
    rows.append((name, timed(answered, 5), "100"))
    return rows


def main() -> None:
    rows: list[tuple[str, tuple[float, float], str]] = []
    starts = [cold_start() * 1000 for _ in range(3)]
    rows.append(
        ("cold start to a drawn demo window", (statistics.median(starts), max(starts)), "1000")
    )
    for n, triangles, aim in ((5, 15, "50"), (18, 76, "500")):
        block = triangles_and_squares(n, triangles)
        project = Project(fabrics=FABRICS, blocks=(block,))
        count = n * n + triangles
        plan = lambda p=project, b=block: plan_block(p, b)  # noqa: E731
        assert plan().resewn
        rows.append((f"plan of a {count}-patch block, nothing cached", timed(plan, 7, forget), aim))
        rows.append((f"plan of a {count}-patch block, again", timed(plan, 7), aim))
    block = sixty_units()
    patches.draft(block)
    forget()
    rows += as_cut(block)
    name = "60 units named, all their methods compared"
    rows.append((f"{name}, nothing cached", timed(lambda: compared(block), 7, forget), "100"))
    rows.append((f"{name}, again", timed(lambda: compared(block), 7), "100"))
    for name, do, aim in cases(triangles_and_squares(18, 76)):
        rows.append((name, timed(do, 3), aim))
    for name, do, aim in pressing_cases(FABRICS):
        rows.append((name, timed(do, 5), aim))
    for count, size in ((200, 12), (200, 40), (300, 12)):
        mixed = count == 300
        seams = mixed_seams(count, size) if mixed else [
            Curve(p, q) for p, q in random_seams(count, size)
        ]  # fmt: skip
        ours = timed(lambda s=seams, n=size: arrange(F(n), F(n), s))
        other = timed(lambda s=seams, n=size: theirs(s, n))
        name = f"{count} {'mixed ' if mixed else ''}seams on a grid of {size}"
        rows.append((f"exact arrangement, {name}", ours, f"{10 * other[0]:.0f}"))
        rows.append((f"shapely noding and polygonize, {name}", other, ""))
    rows.append(opening(60))
    rows += redraws()
    rows += remake_rows()
    rows += shell_rows()
    rows += log_rows()
    rows += hand_rows()
    rows += quilt_rows()
    width = max(len(name) for name, _, _ in rows)
    print(f"{'figure':<{width}}  {'median ms':>10}  {'worst ms':>9}  {'aim ms':>7}")
    for name, (median, worst), aim in rows:
        print(f"{name:<{width}}  {median:>10.1f}  {worst:>9.1f}  {aim:>7}")
    print("cutting: median and worst of 20 cut lists")
    for line in cutting_rows():
        print(line, flush=True)


if __name__ == "__main__":
    main()
