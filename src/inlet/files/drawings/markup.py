"""SVG drawings, built with an XML library."""

from __future__ import annotations

import re
from collections.abc import Iterable
from xml.etree.ElementTree import Element, SubElement, indent, tostring

from inlet.core.figures import Colour, Corners
from inlet.core.project import Measure

SVG = "http://www.w3.org/2000/svg"
INKS: dict[Colour, str] = {"ink": "#17414c", "soft": "#5c7a80", "accent": "#bf4b23"}
NO_FABRIC = "#ffffff"
_NOT_IN_XML = re.compile("[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")


def drawing(size: tuple[float, float], measure: Measure, title: str = "", **more: str) -> Element:
    """An empty drawing at finished size, a user unit an inch or a centimetre."""
    wide, high = size
    unit = measure.system.unit
    root = Element("svg", {"xmlns": SVG, "width": f"{wide:g}{unit}", "height": f"{high:g}{unit}",
                           "viewBox": f"0 0 {wide:.9g} {high:.9g}", **more})  # fmt: skip
    if title:
        add(root, "title", text=title)
    return root


def add(
    parent: Element, tag: str, attributes: dict[str, str] | None = None, text: str = ""
) -> Element:
    """Another element in one. Letters that no XML may hold, such as U+0000, become a question
    mark."""
    clean = {key: _clean(value) for key, value in (attributes or {}).items()}
    element = SubElement(parent, tag, clean)
    if text:
        element.text = _clean(text)
    return element


def markup(root: Element) -> str:
    """The drawing as text, an element a line."""
    indent(root, "")
    return tostring(root, "unicode") + "\n"


def path_through(points: Iterable[tuple[float, float]], closed: bool = True) -> str:
    """The ``d`` of a path through places."""
    return "M " + " L ".join(f"{x:.9g} {y:.9g}" for x, y in points) + (" Z" if closed else "")


def outlines_path(outlines: Iterable[Corners]) -> str:
    """The ``d`` of an outline with its holes."""
    return " ".join(path_through(corners) for corners in outlines)


def _clean(text: str) -> str:
    return _NOT_IN_XML.sub("?", text)
