"""The pages of a PDF as pictures, drawn by PDFium."""

from __future__ import annotations

import threading

from PySide6.QtCore import QSizeF
from PySide6.QtGui import QImage

POINTS = 72
"""A point is a 72nd of an inch."""
_LOCK = threading.Lock()
"""PDFium draws one page at a time."""


class PdfPages:
    """The pages of a PDF that Inlet made."""

    def __init__(self, data: bytes) -> None:
        from pypdfium2 import PdfDocument  # loads a library of some megabytes

        self._closed = False
        with _LOCK:
            self._document = PdfDocument(data)
            self.sizes = [QSizeF(*self._document[i].get_size()) for i in range(len(self._document))]
        """Width and height of each page, in points."""

    def contents(self) -> list[tuple[str, int]]:
        """The chapters, each with the number of its page, from 0 on."""
        with _LOCK:
            chapters = []
            for mark in self._document.get_toc():
                target = mark.get_dest()
                if target is not None:
                    chapters.append((mark.get_title(), target.get_index()))
            return chapters

    def __len__(self) -> int:
        return len(self.sizes)

    def picture(self, number: int, dots: float) -> QImage:
        """A page, so many ``dots`` an inch; empty once the pages are closed."""
        with _LOCK:
            if self._closed:
                return QImage()
            page = self._document[number]
            bitmap = page.render(scale=dots / POINTS, prefer_bgrx=True)  # as Qt lays out RGB32
            kind = QImage.Format.Format_RGB32
            size = bitmap.width, bitmap.height, bitmap.stride
            image = QImage(bitmap.buffer, *size, kind).copy()  # the buffer goes with its bitmap
        image.setDotsPerMeterX(round(dots / 0.0254))
        image.setDotsPerMeterY(round(dots / 0.0254))
        return image

    def close(self) -> None:
        """The document is given back; nothing is drawn of it any more."""
        with _LOCK:
            if not self._closed:
                self._closed = True
                self._document.close()
