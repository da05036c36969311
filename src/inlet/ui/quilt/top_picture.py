"""A top as it was painted last: moved and stretched while the hand moves, then sharp."""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple, cast

from PySide6.QtCore import QPointF, QRect, QRectF, Qt, QTimer
from PySide6.QtGui import QImage, QPainter, QRegion, QTransform
from PySide6.QtWidgets import QWidget

from inlet.ui import theme
from inlet.ui.quilt.scene import Scene, TopLook

SETTLED = 60
"""Milliseconds after the last zoom a top of many pieces is painted sharp."""
MANY = 2500
"""Pieces of a top that take longer to paint than a frame."""


class PaintedTop(NamedTuple):
    """A picture of a top: of what, in which frame."""

    what: object
    frame: QTransform
    image: QImage


class PaintedView:
    """The picture that a widget shows of a top; it asks the widget to update where it has been
    stretched, and is to be sharp again."""

    def __init__(self, widget: QWidget) -> None:
        self._widget = widget
        self._last: PaintedTop | None = None
        self._exact = False
        self._settling = QTimer(widget)
        self._settling.setSingleShot(True)
        self._settling.setInterval(SETTLED)
        self._settling.timeout.connect(self._settle)

    def forget(self) -> None:
        """Paint all of it next time."""
        self._last = None

    def of(self, scene: Scene, frame: QTransform, look: TopLook, afar: bool) -> QImage:
        """The top through ``frame``; ``afar``: out of focus."""
        ratio = self._widget.devicePixelRatioF()
        what = (id(scene), self._widget.size().toTuple(), look, afar, ratio)
        last = self._last
        if last is not None and last.what == what:
            if last.frame == frame:
                return last.image
            by = QPointF(frame.dx() - last.frame.dx(), frame.dy() - last.frame.dy())
            if last.frame.m11() == frame.m11() and not afar and _whole(by * ratio):
                image = self._scrolled(scene, last.image, by, frame, look)
                self._last = PaintedTop(what, frame, image)
                return image
            if scene.many > MANY and not self._exact:
                self._settling.start()
                return _stretched(last, frame)
        self._exact = False
        size = self._widget.size()
        image = QImage(size * ratio, QImage.Format.Format_RGB32)
        image.setDevicePixelRatio(ratio)
        image.fill(theme.GROUND)
        with QPainter(image) as painter:
            scene.paint(painter, frame, QRectF(self._widget.rect()), look)
        if afar:
            image = _squinted(image)
        self._last = PaintedTop(what, frame, image)
        return image

    def _settle(self) -> None:
        self._exact = True
        self._widget.update()

    def _scrolled(
        self, scene: Scene, before: QImage, by: QPointF, frame: QTransform, look: TopLook
    ) -> QImage:
        """The picture before, moved by whole pixels; what comes into sight is painted."""
        image = before.copy()
        image.fill(theme.GROUND)
        with QPainter(image) as painter:
            step, seen = by.toPoint(), self._widget.rect()
            painter.drawImage(step, before)
            strips = QRegion(seen) - QRegion(seen.translated(step))
            for strip in cast("Iterable[QRect]", strips):
                painter.setClipRect(strip)
                scene.paint(painter, frame, QRectF(strip), look)
        return image


def _whole(by: QPointF) -> bool:
    """Is it a move by whole pixels?"""
    return all(abs(step - round(step)) < 1e-6 for step in (by.x(), by.y()))


def _stretched(before: PaintedTop, frame: QTransform) -> QImage:
    """The picture before, as it would lie in another frame: to look at while zooming."""
    image = before.image.copy()
    image.fill(theme.GROUND)
    with QPainter(image) as painter:
        painter.setTransform(before.frame.inverted()[0] * frame)
        painter.drawImage(0, 0, before.image)
    return image


def _squinted(picture: QImage) -> QImage:
    """A picture out of focus: made small and large again."""
    wide, high = picture.width(), picture.height()
    smooth = Qt.TransformationMode.SmoothTransformation
    ratio = Qt.AspectRatioMode.IgnoreAspectRatio
    small = picture.scaled(max(1, wide // 4), max(1, high // 4), ratio, smooth)
    image: QImage = small.scaled(wide, high, ratio, smooth)
    image.setDevicePixelRatio(picture.devicePixelRatio())
    return image
