"""A layout that puts widgets side by side and goes on in a new line where they no longer fit."""

from __future__ import annotations

from PySide6.QtCore import QPoint, QRect, QSize, Qt
from PySide6.QtWidgets import QLayout, QLayoutItem, QSizePolicy, QWidget

from inlet.ui import theme
from inlet.ui.guard import guarded


@guarded
class FlowLayout(QLayout):
    """Left to right, top to bottom; as high as its width makes it."""

    def __init__(self, parent: QWidget, margin: int, spacing: int) -> None:
        super().__init__(parent)
        self._items: list[QLayoutItem] = []
        self._sizes: list[QSize] = []  # of the items, until something of the layout changes
        self._heights: dict[int, int] = {}  # by width: asked for many times in one layout pass
        self.setContentsMargins(margin, margin, margin, margin)
        self.setSpacing(spacing)
        policy = QSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Minimum)
        policy.setHeightForWidth(True)
        parent.setSizePolicy(policy)

    def addItem(self, item: QLayoutItem) -> None:
        self._items.append(item)
        self.invalidate()

    def sizes(self) -> list[tuple[QWidget | None, QSize]]:
        """Each widget in order, with the size it is given."""
        pairs = zip(self._items, self._hints(), strict=True)
        return [(item.widget(), size) for item, size in pairs]

    def insert(self, place: int, widget: QWidget) -> None:
        """Put a widget in at a place."""
        self.addWidget(widget)
        self._items.insert(place, self._items.pop())
        self.invalidate()

    def invalidate(self) -> None:
        self._sizes, self._heights = [], {}
        super().invalidate()

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        if not 0 <= index < len(self._items):
            return None
        self.invalidate()
        return self._items.pop(index)

    def expandingDirections(self) -> Qt.Orientation:
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        if width not in self._heights:
            self._heights[width] = self._arrange(QRect(0, 0, width, 0), place=False)
        return self._heights[width]

    def setGeometry(self, box: QRect) -> None:
        super().setGeometry(box)
        self._arrange(box, place=True)

    def sizeHint(self) -> QSize:
        sizes = self._hints()
        width = sum(s.width() for s in sizes) + self.spacing() * max(0, len(sizes) - 1)
        height = max((s.height() for s in sizes), default=0)
        margins = self.contentsMargins()
        return QSize(
            width + margins.left() + margins.right(), height + margins.top() + margins.bottom()
        )

    def minimumSize(self) -> QSize:
        size = QSize()
        for item in self._items:
            size = size.expandedTo(item.minimumSize())
        margins = self.contentsMargins()
        return size + QSize(margins.left() + margins.right(), margins.top() + margins.bottom())

    def _hints(self) -> list[QSize]:
        if len(self._sizes) != len(self._items):
            self._sizes = [item.sizeHint() for item in self._items]
        return self._sizes

    def _arrange(self, box: QRect, place: bool) -> int:
        """Put the widgets into ``box`` if asked; the height they need."""
        margins = self.contentsMargins()
        left, right = box.x() + margins.left(), box.right() - margins.right()
        x, y, line = left, box.y() + margins.top(), 0
        for item, size in zip(self._items, self._hints(), strict=True):
            if x > left and x + size.width() > right + 1:
                x, y, line = left, y + line + self.spacing(), 0
            if place:
                item.setGeometry(QRect(QPoint(x, y), size))
            x += size.width() + self.spacing()
            line = max(line, size.height())
        return y + line + margins.bottom() - box.y()


def flowing(*widgets: QWidget) -> QWidget:
    """Widgets side by side, those that have no room in the next line."""
    line = QWidget()
    flow = FlowLayout(line, 0, theme.px(6))
    for widget in widgets:
        flow.addWidget(widget)
    return line
