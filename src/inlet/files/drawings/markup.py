"""Text in drawings that are XML."""

from __future__ import annotations

import re
from xml.sax.saxutils import escape

_NOT_IN_XML = re.compile("[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")


def xml_text(text: str) -> str:
    """Text as it stands between tags, or in an attribute in double quotes; letters that no XML may
    hold, such as U+0000, as a question mark."""
    return escape(_NOT_IN_XML.sub("?", text), {'"': "&quot;"})
