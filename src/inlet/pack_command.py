"""``inlet pack`` and ``inlet unpack``: a project and its photographs as one file."""

from __future__ import annotations

import argparse
from pathlib import Path

from inlet import terminal
from inlet.files.packing import missing_text, pack, unpack
from inlet.files.project.project_json import load


def add_pack_options(parser: argparse.ArgumentParser) -> None:
    to = "the packed file, a ZIP"
    parser.add_argument("-o", "--output", metavar="OUT.zip", required=True, help=to)


def add_unpack_options(parser: argparse.ArgumentParser) -> None:
    to = "where to, else the current folder"
    parser.add_argument("-o", "--output", metavar="FOLDER", default=".", help=to)


def run_pack(options: argparse.Namespace) -> int:
    path, target = Path(options.file), Path(options.output)
    missing = pack(load(path), path, target)
    if missing:
        terminal.complain(f"inlet: {missing_text(missing)}")
    return 0


def run_unpack(options: argparse.Namespace) -> int:
    unpacked = unpack(Path(options.file), Path(options.output))
    photos = f" and {unpacked.photos} photographs" if unpacked.photos else ""
    terminal.say(f"{unpacked.project} is written{photos}.")
    return 0
