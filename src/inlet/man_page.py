"""The manual page ``inlet(1)``, made of the parsers of the command line."""

from __future__ import annotations

import argparse
from collections.abc import Iterator, Mapping

from inlet import __version__

HEAD = """.TH INLET 1 "" "Inlet @version" "User Commands"
.SH NAME
inlet \\- draft pieced quilt blocks and work out how to cut and sew them
.SH SYNOPSIS
.B inlet
[\\fIOPTION\\fR]... [\\fIFILE\\fR]
.br
.B inlet
\\fICOMMAND\\fR \\fIFILE\\fR [\\fIOPTION\\fR]...
.SH DESCRIPTION
Without a command, Inlet opens its window, with the project in \\fIFILE\\fR where one is given.
The commands work without a window. Numbers are typed as on a ruler: 3 1/2, 3-1/2, 3.5, 9 cm.
"""
FOOT = """.SH EXIT STATUS
0, or 2 with one line on standard error that names what is wrong and where; 130 where Ctrl+C
stopped it.
.SH FILES
.B inlet --where
tells where Inlet keeps its settings, the shelf, unsaved work and its log.
"""


def man_page(window: argparse.ArgumentParser, commands: Mapping[str, Command]) -> str:
    """The page, in the macros of man(7): options of the window, then each command by its name."""
    lines = [HEAD.replace("@version", __version__), ".SH OPTIONS\n", *_options(window)]
    lines.append(".SH COMMANDS\n")
    for name, (parser, text) in commands.items():
        places = " ".join(_value(action) for action in _actions(parser) if not _names(action))
        lines.append(f".SS inlet {name} {places}\n{_escaped(_sentence(text))}\n")
        lines += _options(parser)
    return "".join([*lines, FOOT])


Command = tuple[argparse.ArgumentParser, str]
"""The parser of a command, and what the command does."""


def _options(parser: argparse.ArgumentParser) -> Iterator[str]:
    for action in _actions(parser):
        names = _names(action)
        if not names or action.help == argparse.SUPPRESS:
            continue
        value = _value(action)
        told = ", ".join(f"\\fB{_escaped(name)}\\fR" for name in names)
        text = _escaped(_sentence(action.help or ""))
        yield f".TP\n{told}{f' {value}' if value else ''}\n{text}\n"


def _actions(parser: argparse.ArgumentParser) -> list[argparse.Action]:
    return parser._actions  # argparse has no other way to list what it reads


def _names(action: argparse.Action) -> list[str]:
    return list(action.option_strings)


def _value(action: argparse.Action) -> str:
    """What stands for the value: nothing where an option takes none."""
    if action.nargs == 0:
        return ""
    named = action.metavar if isinstance(action.metavar, str) else action.dest.upper()
    shown = "|".join(map(str, action.choices)) if action.choices else named
    return f"\\fI{_escaped(shown)}\\fR"


def _sentence(text: str) -> str:
    text = text.replace("%%", "%").strip()
    return f"{text[:1].upper()}{text[1:]}{'' if text.endswith(('.', '…')) else '.'}" if text else ""


def _escaped(text: str) -> str:
    """Text for roff: a backslash and a hyphen as themselves, no line that begins as a macro."""
    text = text.replace("\\", "\\e").replace("-", "\\-")
    return f"\\&{text}" if text.startswith((".", "'")) else text
