"""A top moved and zoomed by hand looks as if it were painted there afresh."""

from __future__ import annotations

import numpy as np
import pytest
from PySide6.QtCore import QPoint, QPointF, Qt

from inlet.core.numbers.fraction import Fraction as F
from inlet.core.plan import plan_quilt
from inlet.core.project.quilt import Quilt, QuiltPlace
from inlet.core.project.value import replace
from inlet.ui.quilt.scene import Scene
from inlet.ui.quilt.top_picture import MANY
from inlet.ui.quilt.top_view import SMALLEST_MARKED, TopView
from tests.blocks import block_of, project_of
from tests.core.plan.test_improvised import quilt

MIDDLE = Qt.MouseButton.MiddleButton


@pytest.fixture(params=[(9, 7), (30, 30)])
def view(request, qtbot):
    """A few improvised squares, and so many that they are stretched while zooming."""
    project = quilt(*request.param)
    scene = Scene(plan_quilt(project).top, project)
    assert (scene.many > MANY) == (request.param == (30, 30))
    view = TopView()
    qtbot.addWidget(view)
    view.marks = False
    view.resize(500, 420)
    view.show_scene(scene)
    view.show()
    qtbot.waitExposed(view)
    return view


HAIR = 48
"""Of 255: how far an edge may differ, as it lies at another fraction of a pixel."""


def differs(view):
    """By how much the view differs at most from itself painted from nothing."""
    pictures = []
    for _ in range(2):
        image = view.grab().toImage()
        pixels = np.frombuffer(image.constBits(), dtype=np.uint8)
        pictures.append(pixels.reshape(image.height(), -1).astype(int))
        view._picture.forget()
    return abs(pictures[0] - pictures[1]).max()


def test_a_top_that_was_dragged_is_the_top_painted_there(view, qtbot):
    view.zoom(1.7)
    qtbot.wait(100)
    view.grab()
    qtbot.mousePress(view, MIDDLE, pos=QPoint(200, 200))
    for to in (QPoint(230, 170), QPoint(150, 260), QPoint(151, 200)):
        qtbot.mouseMove(view, to)
        view.grab()
    assert differs(view) < HAIR
    qtbot.mouseRelease(view, MIDDLE, pos=QPoint(151, 200))


def test_a_top_that_was_zoomed_is_sharp_soon_after(view, qtbot):
    view.grab()
    for factor in (1.25, 1.25, 0.9):
        view.zoom(factor)
        view.grab()
    qtbot.waitUntil(lambda: view._picture._last.frame == view.frame_, timeout=5000)
    assert differs(view) < HAIR


CORNERS = [(0, 0), (1, 0), (1, 1), (0, 1)]
"""Clockwise from the upper left."""
LIES = [(turn, mirror) for mirror in (False, True) for turn in (0, 90, 180, 270)]


def lying_in_eight_ways(qtbot, block):
    """A row of a block of 6 in, in every turn, then mirrored in every turn. Mirrored left to right,
    its upper left lies at the right; then it goes round with each quarter turn."""
    places = tuple(
        QuiltPlace(column=i, row=0, turn=turn, mirror=mirror)
        for i, (turn, mirror) in enumerate(LIES)
    )
    project = replace(
        project_of(block), quilt=Quilt(columns=8, rows=1, block="test", places=places)
    )
    view = TopView()
    qtbot.addWidget(view)
    view.resize(1000, 300)
    view.show_scene(Scene(plan_quilt(project).top, project))
    return view


def pixels_of(view):
    """Height, width, the three colours."""
    image = view.grab().toImage()
    pixels = np.array(image.constBits(), dtype=np.uint8)
    return pixels.reshape(image.height(), image.width(), 4).astype(int)[..., :3]


def test_every_block_is_painted_as_it_lies(qtbot):
    """One quarter is of another fabric: the upper left as drawn."""
    view = lying_in_eight_ways(qtbot, block_of("1 0 1 2 / 0 1 2 1", 2, 2, (F(6), F(6)), "baaa"))
    view.marks = False
    pixels = pixels_of(view)
    for i, (turn, mirror) in enumerate(LIES):
        at = [view.frame_.map(QPointF(6 * i + 1.5 + 3 * x, 1.5 + 3 * y)) for x, y in CORNERS]
        colours = [tuple(pixels[round(p.y()), round(p.x())]) for p in at]
        other = (turn // 90 + mirror) % 4
        assert len({colour for k, colour in enumerate(colours) if k != other}) == 1
        assert colours.count(colours[other]) == 1


def test_a_mark_stands_where_the_upper_left_of_each_block_lies(qtbot):
    view = lying_in_eight_ways(qtbot, block_of("", 1, 1, (F(6), F(6)), "b"))
    pictures = []
    for view.marks in (False, True):
        pictures.append(pixels_of(view))
    changed = (pictures[0] != pictures[1]).any(axis=2)
    filled = (pictures[1] > 240).all(axis=2) & changed
    for i, (turn, mirror) in enumerate(LIES):
        left, top = view.frame_.map(QPointF(6 * i, 0)).toTuple()
        half = view.frame_.m11() * 3
        marked = [
            corner
            for corner in CORNERS
            if changed[
                round(top + corner[1] * half) : round(top + (corner[1] + 1) * half),
                round(left + corner[0] * half) : round(left + (corner[0] + 1) * half),
            ].any()
        ]
        assert marked == [CORNERS[(turn // 90 + mirror) % 4]]
        across = slice(round(left), round(left + 2 * half))
        assert filled[:, across].any() != mirror


def test_a_mark_stands_on_blocks_that_are_large_enough(qtbot):
    view = lying_in_eight_ways(qtbot, block_of("", 1, 1, (F(6), F(6)), "b"))
    for side in (SMALLEST_MARKED - 1, SMALLEST_MARKED + 1):
        view.zoom(side / 6 / view.frame_.m11())
        pictures = []
        for view.marks in (False, True):
            pictures.append(pixels_of(view))
        assert (pictures[0] != pictures[1]).any() == (side > SMALLEST_MARKED)
