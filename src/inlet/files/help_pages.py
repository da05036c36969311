"""The pages of the help, from the files that ship with Inlet: one source for the window and for
whoever reads them as they are.

A page is Markdown. ``[words](help:page#Heading)`` leads to a page, ``(go:stage)`` to a stage,
``![words](picture:name)`` is a picture of the craft. A heading may end in ``{#anchor}``.
"""

from __future__ import annotations

import re
from typing import NamedTuple

from inlet.assets import ASSETS
from inlet.core.memo import memo

FOLDER = ASSETS / "help"
_HEADING = re.compile(r"^(#+) (.*?)(?: \{#([\w-]+)\})?$", re.MULTILINE)


class HelpSection(NamedTuple):
    """A part of a page below a heading; ``anchor`` is what leads to it, the heading where it has no
    other."""

    page: str
    heading: str
    anchor: str
    text: str

    @property
    def link(self) -> str:
        return f"help:{self.page}#{self.anchor}"


class HelpPage(NamedTuple):
    """A page: its ``markdown`` without anchors, and its sections in order; the first is the whole
    page's beginning."""

    name: str
    markdown: str
    sections: tuple[HelpSection, ...]

    @property
    def title(self) -> str:
        return self.sections[0].heading

    @property
    def pictures(self) -> tuple[str, ...]:
        """The names of the pictures on it."""
        return tuple(re.findall(r"\(picture:([\w-]+)\)", self.markdown))

    @property
    def links(self) -> tuple[str, ...]:
        """Where it leads to."""
        return tuple(re.findall(r"\]\(<?((?:help|go):[^)>]*)>?\)", self.markdown))

    def heading_of(self, anchor: str) -> str:
        """The heading an anchor leads to; empty where none does."""
        return next((s.heading for s in self.sections if s.anchor == anchor), "")


@memo(1)
def help_pages() -> dict[str, HelpPage]:
    """Every page by its name."""
    return {
        path.stem: _page(path.stem, path.read_text("utf-8")) for path in sorted(FOLDER.glob("*.md"))
    }


def all_sections() -> list[HelpSection]:
    """Every section of every page, to look for words in."""
    return [section for page in help_pages().values() for section in page.sections]


def _page(name: str, text: str) -> HelpPage:
    headings = list(_HEADING.finditer(text))
    ends = [match.start() for match in headings[1:]] + [len(text)]
    sections = tuple(
        HelpSection(name, match[2], match[3] or match[2], text[match.end() : end].strip())
        for match, end in zip(headings, ends, strict=True)
    )
    return HelpPage(name, _HEADING.sub(r"\1 \2", text), sections)
