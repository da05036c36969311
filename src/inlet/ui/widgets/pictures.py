"""Pictures chosen from files, and as text for a project."""

from __future__ import annotations

import base64
from pathlib import Path

from PySide6.QtCore import QBuffer, QIODevice, QSize, Qt
from PySide6.QtGui import QImage, QImageReader

PICTURES = "Pictures (*.png *.jpg *.jpeg);;All files (*)"


def read_picture(name: str, largest: int) -> QImage | None:
    """The picture in a file, turned as it was taken, no side longer than so many pixels; None where
    it is none."""
    reader = QImageReader(name)
    reader.setAutoTransform(True)
    image = reader.read()
    if image.isNull():
        return None
    if max(image.width(), image.height()) > largest:
        keep, smooth = (
            Qt.AspectRatioMode.KeepAspectRatio,
            Qt.TransformationMode.SmoothTransformation,
        )
        image = image.scaled(QSize(largest, largest), keep, smooth)
    return image


def not_a_picture(name: str) -> str:
    return f"{Path(name).name}: not a picture that can be read."


def as_text(image: QImage, kind: str) -> str:
    """A picture as base64 of a PNG or JPEG file; nothing but the picture is kept."""
    store = QBuffer()
    store.open(QIODevice.OpenModeFlag.WriteOnly)
    image.save(store, kind)  # type: ignore[call-overload]  # its stub asks for bytes
    return base64.b64encode(bytes(store.data().data())).decode()


def from_text(text: str) -> QImage:
    """The picture again; empty where it is none."""
    return QImage.fromData(base64.b64decode(text))
