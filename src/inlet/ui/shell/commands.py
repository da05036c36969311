"""Everything that can be found by its words: the actions of the menu, the pages of each stage, and
each field, button and list of them."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial

from PySide6.QtGui import QAction
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractSpinBox,
    QComboBox,
    QLineEdit,
    QScrollArea,
    QStackedWidget,
    QWidget,
)
from shiboken6 import isValid

from inlet.ui.shell.command_search import Command
from inlet.ui.widgets.tabs import opened_by

PEOPLE_SAY = {
    "undo": "take back mistake revert",
    "redo": "again repeat",
    "grey view": "value contrast black and white light dark monochrome",
    "table view": "full screen large big from afar sewing room",
    "larger text": "font zoom bigger readable size",
    "smaller text": "font zoom size",
    "print the guide": "pattern instructions booklet pdf paper printer",
    "print the labels": "stickers tags stacks bags",
    "print the cutting plan": "cut list mat diagram layout",
    "write the list of cuts": "cutting spreadsheet csv table",
    "write the shopping list": "yardage buy fabric needed how much requirements metres",
    "shopping list": "yardage buy fabric needed how much requirements metres",
    "write the size chart": "sizes resize scale enlarge",
    "size chart": "sizes resize scale enlarge",
    "write the templates": "shapes paper pattern pieces dxf svg cutter",
    "calibrate the printer": "test square scale true size",
    "what i have": "stash stock scraps owned fat quarters leftovers",
    "how i cut": "ruler mat blade rotary cutter left handed folds tools",
    "cut list": "pieces how many",
    "at the mat": "cutting fabric layout rotary",
    "seam allowance test": "quarter inch seam needle position scant",
    "seam allowance": "quarter inch scant",
    "ruler mark": "precision eighth sixteenth rounding",
    "cutting style": "oversize trim down exact",
    "finished width": "block size dimensions",
    "finished height": "block size dimensions",
    "sittings": "schedule evenings time plan sessions",
    "measure in inches": "imperial units yards",
    "measure in centimetres": "metric units cm metres",
    "turn it a quarter": "rotate",
    "mirror it": "flip reverse",
    "copy the block": "duplicate",
    "add a block": "new block draw",
    "import a drawing": "svg open picture trace",
    "fit to size": "quilt dimensions bed lap king target",
    "edges": "border binding backing batting sashing",
    "setting": "layout on point straight rows columns",
    "colours": "colourways shuffle fabrics random",
    "quilting": "stitching lines motif",
    "improvised corners": "crumb scrappy wonky stitch and flip",
    "centre a motif": "t-shirt memory panel fussy cut",
    "slice and set again": "disappearing cut apart rearrange",
    "made sizes": "measured too small too big off",
    "today": "next what to do now",
    "the hand": "my seam scant learnt accuracy quarter inch",
    "what will it do?": "forecast risk points cut off tolerance simulate accuracy rows match",
    "practise": "exercise train learn better seam accuracy",
    "diary": "journal photos notes log",
    "pressing": "iron seams open to one side",
    "units": "hst flying geese pieces parts",
    "bands": "grid columns rows divisions",
    "pack with its photographs": "zip backup send share",
    "dark look": "night theme mode colours",
    "light look": "day theme mode colours",
    "look of the system": "theme mode colours",
    "quit": "exit close leave",
    "save as": "copy rename",
    "new": "start project begin",
    "help for this stage": "manual how to instructions what is",
}
"""Other words for a title, in small letters without its points."""
Go = Callable[[QWidget], object]


def of_actions(groups: Sequence[tuple[str, Sequence[QAction]]]) -> Iterator[Command]:
    """The actions of a menu, by its groups."""
    for group, actions in groups:
        for action in actions:
            title = _plain(action.text())
            if title and action.isEnabled():
                keys = action.shortcut().toString()
                yield Command(title, group, keys, _said(title), action.trigger)


def of_widgets(where: str, root: QWidget, go: Go) -> Iterator[Command]:
    """The pages and fields below a widget; ``go`` shows one of them and gives it the focus."""
    seen: set[str] = set()
    for widget in root.findChildren(QWidget):
        title = _name(widget)
        if not title or title in seen or _is_put_away(widget, root):
            continue
        seen.add(title)
        page = opened_by(widget)
        on = _plain(page.text()) if page is not None and page is not widget else ""
        place = f"{where}, {on}" if on else where
        yield Command(title, place, "", _said(title), partial(_go_if_there, go, widget))


def _go_if_there(go: Go, widget: QWidget) -> None:
    """What was made anew since it was listed is gone: nothing can be shown of it."""
    if isValid(widget):
        go(widget)


def reveal(widget: QWidget) -> None:
    """Turn to the page a widget is on, scroll to it, give it the focus."""
    pages = []
    above: QWidget | None = widget
    while above is not None:
        page = opened_by(above, itself=True)
        if page is not None and page not in pages:
            pages.append(page)
        above = above.parentWidget()
    for page in reversed(pages):
        if page is not widget and not page.isChecked():
            page.click()
    if isinstance(widget, QAbstractButton) and widget.property("page"):
        widget.click()
    above = widget.parentWidget()
    while above is not None:
        if isinstance(above, QScrollArea):
            above.ensureWidgetVisible(widget)
        above = above.parentWidget()
    widget.setFocus()


def _name(widget: QWidget) -> str:
    """What a field or button is called; empty of what is neither."""
    if isinstance(widget, QAbstractButton):
        return _plain(widget.accessibleName() or widget.text())
    if isinstance(widget, QLineEdit | QComboBox | QAbstractSpinBox):
        inner = isinstance(widget.parentWidget(), QComboBox | QAbstractSpinBox)
        return "" if inner else _plain(widget.accessibleName())
    return ""


def _is_put_away(widget: QWidget, root: QWidget) -> bool:
    """Is it hidden though its page were shown, or not to be used now?"""
    if not widget.isEnabled():
        return True
    above: QWidget | None = widget
    while above is not None and above is not root:
        stacked = isinstance(above.parentWidget(), QStackedWidget)
        if above.isHidden() and not stacked and opened_by(above, itself=True) is None:
            return True
        above = above.parentWidget()
    return False


def _plain(text: str) -> str:
    return text.replace("&", "").rstrip("…").strip()


def _said(title: str) -> str:
    return PEOPLE_SAY.get(title.casefold(), "")
