"""The remake stage: arrangements with their thumbnails, a cut dragged, squares by chance."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable

from PySide6.QtCore import QCoreApplication, QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from inlet.core.draft.patches import draft
from inlet.core.improvised import corner_choice, field_of
from inlet.core.memo import forget_all
from inlet.core.numbers.fraction import Fraction as F
from inlet.core.numbers.systems import INCHES
from inlet.core.plan import plan_quilt
from inlet.core.project.block import Block, FabricAt, straight
from inlet.core.project.fabric import Fabric
from inlet.core.project.improvised import usual_corners
from inlet.core.project.made_from import Cuts
from inlet.core.project.measure import INCH
from inlet.core.project.project import Project
from inlet.core.project.quilt import Quilt
from inlet.core.remake.offers import offers
from inlet.core.remake.slices import equal_parts, sliced

Row = tuple[str, tuple[float, float], str]
FABRICS = tuple(
    Fabric(id=name, name=name, colour=f"#{i * 60:02x}8060") for i, name in enumerate("abcd")
)


def sixteen_triangles() -> Block:
    """Eight half-square triangles round a four-patch of eight more: sixteen patches on a grid of
    four by two."""
    seams = [straight((F(x), F(0)), (F(x), F(2))) for x in range(1, 4)]
    seams.append(straight((F(0), F(1)), (F(4), F(1))))
    spots = []
    for x in range(4):
        for y in range(2):
            rises = (x + y) % 2
            start, end = (F(x), F(y + rises)), (F(x + 1), F(y + 1 - rises))
            seams.append(straight(start, end))
            low, high = F(1, 4), F(3, 4)
            for at, name in ((low, "abcd"[x]), (high, "dcab"[x])):
                spot = (x + at, y + (at if rises else 1 - at))
                spots.append(FabricAt(point=spot, fabric=name))
    return Block(
        id="bench", finished=(F(12), F(12)), columns=(F(1),) * 4, rows=(F(1),) * 2,
        seams=tuple(seams), fabric_at=tuple(spots),
    )  # fmt: skip


def timed(do: Callable[[], object], runs: int, before: Callable[[], object]) -> tuple[float, float]:
    """Milliseconds: the median and the worst."""
    took = []
    for _ in range(runs):
        before()
        began = time.perf_counter()
        do()
        took.append((time.perf_counter() - began) * 1000)
    return statistics.median(took), max(took)


def remake_rows() -> list[Row]:
    from inlet.ui import theme
    from inlet.ui.shell.session import Session
    from inlet.ui.shell.window import Window
    from inlet.ui.widgets.thumbnails import SmallPicture, thumbnail

    app = QApplication.instance() or QApplication([])
    theme.apply(app)
    block = sixteen_triangles()
    project = Project(fabrics=FABRICS, blocks=(block,))
    third = equal_parts(F(25, 2), 3)

    def first_twelve() -> None:
        slices = sliced(block.finished, Cuts(third, third), INCH)
        for offer in offers(draft(block), slices)[:12]:
            thumbnail(SmallPicture(offer.picture, ""), project, 84, 1, False)

    rows: list[Row] = [
        ("arrangements of 3 x 3 slices of 16 patches, twelve drawn",
         timed(first_twelve, 5, forget_all), "300"),
    ]  # fmt: skip

    session = Session()
    window = Window(session)
    window.resize(1280, 800)
    window.show()
    session.start(project, None)
    window.show_stage("remake")
    while not session.at_rest:
        app.processEvents()
    page = window.remake.slice_page
    places = iter([F(k, 8) for k in range(12, 30)] * 4)

    def drag() -> None:
        which = (0, len(page.start.cuts()[0]) - 1)
        page.start.move_cut(which, next(places))
        page.start.repaint()
        page.result.repaint()

    rows.append(("a cut dragged to redrawn pictures", timed(drag, 15, app.processEvents), "16"))
    session.close()
    window.may_leave = lambda: True
    window.close()

    return rows + improvised_rows(app)


def improvised_rows(app: QCoreApplication) -> list[Row]:
    """Squares by chance, the whole plan of 40 by 40 of them, and their field looked at."""
    from inlet.ui.quilt.scene import Scene
    from inlet.ui.quilt.top_view import TopView

    corners = usual_corners((F(9, 2), F(9, 2)), ("b", "c", "d"), INCHES)
    spot = FabricAt(point=(F(1, 2), F(1, 2)), fabric="a")
    block = Block(id="square", finished=(F(4), F(4)), fabric_at=(spot,), improvised=corners)
    quilt = Quilt(setting="straight", columns=40, rows=40, block="square")
    project = Project(fabrics=FABRICS, blocks=(block,), quilt=quilt)

    def by_chance() -> None:
        choice = corner_choice(block, project)
        assert choice is not None
        assert len(choice.squares(tuple(field_of(50, 40)))) == 2000

    def whole() -> None:
        assert plan_quilt(project).fabric_plans.best

    def scene() -> Scene:
        return Scene(plan_quilt(project).top, project)

    view = TopView()
    view.marks = False
    view.resize(700, 700)
    view.show_scene(scene())
    view.show()
    app.processEvents()
    nearer = iter([1.01, 0.99, 1.02] * 20)
    held = Qt.MouseButton.MiddleButton
    QTest.mousePress(view, held, pos=QPoint(300, 300))
    steps = iter(range(5, 200, 5))

    def panned() -> None:
        QTest.mouseMove(view, QPoint(300 + next(steps), 310))
        view.repaint()

    def zoomed() -> None:
        view.zoom(next(nearer))
        view.repaint()

    rows: list[Row] = [
        ("2,000 improvised squares", timed(by_chance, 5, forget_all), "200"),
        ("40 x 40 improvised squares planned and laid out", timed(whole, 3, forget_all), "1000"),
        ("their field made", timed(scene, 3, forget_all), ""),
        ("their field panned", timed(panned, 15, lambda: None), "16"),
        ("their field zoomed", timed(zoomed, 15, lambda: None), "16"),
    ]
    view.close()
    return rows
