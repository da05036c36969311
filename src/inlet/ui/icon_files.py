"""Drawings as pixels, for desktops that show no SVG."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QBuffer, QByteArray, QIODevice, QRectF
from PySide6.QtGui import QImage, QImageWriter, QPainter
from PySide6.QtSvg import QSvgRenderer


def as_png(drawing: Path, side: int) -> bytes:
    """An SVG drawing as a PNG, so many pixels a side, transparent where nothing is drawn."""
    image = QImage(side, side, QImage.Format.Format_ARGB32)
    image.fill(0)
    with QPainter(image) as painter:
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        QSvgRenderer(str(drawing)).render(painter, QRectF(0, 0, side, side))
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    QImageWriter(buffer, QByteArray(b"png")).write(image)
    return bytes(buffer.data().data())
