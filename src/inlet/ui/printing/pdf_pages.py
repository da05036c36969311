"""The pages of a PDF as pictures, drawn by PDFium."""

from __future__ import annotations

import threading
from contextlib import closing
from typing import TYPE_CHECKING
from weakref import finalize

from PySide6.QtCore import QSizeF
from PySide6.QtGui import QImage

if TYPE_CHECKING:
    from pypdfium2 import PdfDocument

POINTS = 72
"""A point is a 72nd of an inch."""
_LOCK = threading.RLock()
"""PDFium does one thing at a time, in all threads together: what it made is given back to it within
the lock, too, and not when Python comes to it. The lock may be taken again by its thread, as that
may clear away other pages meanwhile."""


class PdfPages:
    """The pages of a PDF that Inlet made."""

    def __init__(self, data: bytes) -> None:
        from pypdfium2 import PdfDocument  # loads a library of some megabytes

        self._closed = False
        with _LOCK:
            self._document = PdfDocument(data)
            self.sizes = [self._size(i) for i in range(len(self._document))]
        """Width and height of each page, in points."""
        self._give_back = finalize(self, _give_back, self._document)
        self._give_back.atexit = False  # the library sees to that

    def _size(self, number: int) -> QSizeF:
        with closing(self._document[number]) as page:
            return QSizeF(*page.get_size())

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
            with closing(self._document[number]) as page:
                bitmap = page.render(scale=dots / POINTS, prefer_bgrx=True)  # as Qt has RGB32
                with closing(bitmap):
                    size = bitmap.width, bitmap.height, bitmap.stride
                    # The buffer goes with its bitmap.
                    image = QImage(bitmap.buffer, *size, QImage.Format.Format_RGB32).copy()
        image.setDotsPerMeterX(round(dots / 0.0254))
        image.setDotsPerMeterY(round(dots / 0.0254))
        return image

    def close(self) -> None:
        """The document is given back; nothing is drawn of it any more."""
        with _LOCK:
            self._closed = True
            self._give_back()


def _give_back(document: PdfDocument) -> None:
    with _LOCK:
        document.close()
