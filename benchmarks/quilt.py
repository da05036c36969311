"""A quilt of 40 x 40 blocks of 16 patches in the window: opened, drawn, moved, recoloured, planned;
1,000 places scattered. Memory is the peak of a process of its own."""

from __future__ import annotations

import json
import re
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from inlet.core.memo import forget_all
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan.quilt import plan_quilt
from inlet.core.plan.quilt_answers import quilt_answers
from inlet.core.project.block import Block, FabricAt, straight
from inlet.core.project.fabric import Fabric
from inlet.core.project.project import Project
from inlet.core.project.quilt import Colourway, Quilt, QuiltPlace, Scatter
from inlet.core.project.value import replace
from inlet.core.setting.places import placed
from inlet.core.setting.scatter import scattered
from inlet.files.project.project_json import load, save

SIDE = 40
AIMS = {
    "open": "1000", "first picture": "300", "pan a step": "16", "zoom a step": "16",
    "change of one fabric": "100", "full plan with cutting": "5000",
}  # fmt: skip
FABRICS = tuple(
    Fabric(id=name, name=name, colour=f"#{i * 40:02x}8060") for i, name in enumerate("abcdef")
)


def sixteen_patches() -> Block:
    """Eight half-square triangles round two sides of eight squares, on a grid of four by three."""
    seams = [straight((F(x), F(0)), (F(x), F(3))) for x in (1, 2, 3)]
    seams += [straight((F(0), F(y)), (F(4), F(y))) for y in (1, 2)]
    seams += [straight((F(x), F(1)), (F(x + 1), F(0))) for x in range(4)]
    fabric = []
    for x in range(4):
        for y in range(3):
            low, high = (F(1, 4), F(3, 4)) if y == 0 else (F(1, 2), F(1, 2))
            for k, part in enumerate({low, high}):
                spot = FabricAt(point=(x + part, y + part), fabric="abcdef"[(x + y + k) % 6])
                fabric.append(spot)
    return Block(
        id="sixteen", name="Sixteen", finished=(F(8), F(8)), columns=(F(1),) * 4,
        rows=(F(1),) * 3, seams=tuple(seams), fabric_at=tuple(fabric),
    )  # fmt: skip


def large_quilt() -> Project:
    quilt = Quilt(columns=SIDE, rows=SIDE, block="sixteen", turning="quarter-turns")
    return Project(fabrics=FABRICS, blocks=(sixteen_patches(),), quilt=quilt)


def measured() -> dict[str, list[float]]:
    """Milliseconds of each, in the window; run in a process of its own."""
    from PySide6.QtCore import QPointF
    from PySide6.QtWidgets import QApplication

    from inlet.ui import theme
    from inlet.ui.shell.session import Session
    from inlet.ui.shell.window import Window

    app = QApplication([])
    theme.apply(app)
    out: dict[str, list[float]] = {}

    def timed(name: str, do: Callable[[], object]) -> None:
        start = time.perf_counter()
        do()
        out.setdefault(name, []).append(1000 * (time.perf_counter() - start))

    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "large.inlet"
        save(large_quilt(), path)
        session = Session()
        window = Window(session)
        window.resize(1280, 800)
        window.show()
        window.show_stage("quilt")
        app.processEvents()

        def wait() -> None:
            while not session.at_rest:
                app.processEvents()

        wait()
        window.show_stage("draft")
        timed("open", lambda: session.start(load(path), path))
        top = window.quilt.top

        def first() -> None:
            window.show_stage("quilt")
            top.repaint()

        timed("first picture", first)
        wait()

        def pan() -> None:
            frame = top.frame_
            top._scale = frame.m11()
            top._corner = QPointF(frame.dx() + 9, frame.dy() + 5)
            top.repaint()

        for _ in range(12):
            timed("pan a step", pan)
        for k in range(12):
            timed("zoom a step", lambda k=k: (top.zoom(1.25 if k % 4 < 3 else 0.5), top.repaint()))
        for k in range(5):

            def recolour(k: int = k) -> None:
                fabric = replace(session.project.fabrics[0], colour=f"#{k * 30:02x}4050")
                session.edit(session.project.with_fabric("a", fabric))
                top.repaint()

            timed("change of one fabric", recolour)
            wait()
        project = session.project
        forget_all()  # the window has laid out this very fabric
        timed(
            "full plan with cutting",
            lambda: (p := plan_quilt(project)) and p.fabric_plans.best and p.steps,
        )
        session.history.mark_saved()
        session.close()
        window.close()
    out["peak memory, MB"] = [peak_memory()]
    return out


def peak_memory() -> float:
    """The most memory this process had, in MB. What ``getrusage`` tells begins with what the
    process had that started it."""
    found = re.search(r"VmHWM:\s+(\d+) kB", Path("/proc/self/status").read_text(encoding="ascii"))
    assert found is not None
    return int(found[1]) / 1024


def remedies_ms() -> float:
    """What can be done where 30 different blocks of one size come out at several."""
    blocks = []
    for i in range(30):
        grid = 2 + i % 6
        drawn = [(x, 0, x, grid) for x in range(1, grid)] + [
            (0, y, grid, y) for y in range(1, grid)
        ]
        drawn += [(x, 0, x + 1, 1) for x in range(i // 6)]
        seams = tuple(straight((F(a), F(b)), (F(c), F(d))) for a, b, c, d in drawn)
        blocks.append(
            Block(id=f"b{i}", finished=(F(43, 4), F(43, 4)), columns=(F(1),) * grid,
                  rows=(F(1),) * grid, seams=seams)
        )  # fmt: skip
    places = tuple(QuiltPlace(column=i % 6, row=i // 6, block=f"b{i}") for i in range(30))
    quilt = Quilt(columns=6, rows=5, block="b0", places=places)
    plan = plan_quilt(replace(large_quilt(), blocks=tuple(blocks), quilt=quilt))
    start = time.perf_counter()
    quilt_answers(plan)
    return 1000 * (time.perf_counter() - start)


def scatter_ms() -> float:
    ways = tuple(
        Colourway(id=f"w{i}", fabrics={"a": c, "b": d}) for i, (c, d) in enumerate(
            zip("bcdefa", "cdefab", strict=True))
    )  # fmt: skip
    scatter = Scatter(colourways=tuple(w.id for w in ways), fabrics_apart=True)
    quilt = Quilt(columns=40, rows=25, block="sixteen", colourways=ways, scatter=scatter)
    project = replace(large_quilt(), quilt=quilt)
    places = placed(quilt)
    start = time.perf_counter()
    scattered(places, project)
    return 1000 * (time.perf_counter() - start)


def quilt_rows() -> list[tuple[str, tuple[float, float], str]]:
    done = subprocess.run(
        [sys.executable, "-m", "benchmarks.quilt"], capture_output=True, text=True, check=True
    )
    rows = []
    for name, found in json.loads(done.stdout.splitlines()[-1]).items():
        aim = AIMS.get(name, "600")
        label = f"quilt of {SIDE} x {SIDE} blocks: {name}"
        rows.append((label, (statistics.median(found), max(found)), aim))
    remedies = [remedies_ms() for _ in range(3)]
    rows.append(("remedies of a sampler of 30 blocks", (statistics.median(remedies), max(remedies)),
                 "500"))  # fmt: skip
    scatters = [scatter_ms() for _ in range(5)]
    rows.append(("1,000 places scattered by rules", (statistics.median(scatters), max(scatters)),
                 "200"))  # fmt: skip
    return rows


if __name__ == "__main__":
    print(json.dumps(measured()))
