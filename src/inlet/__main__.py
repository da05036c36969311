"""``python -m inlet`` and the command ``inlet``."""

from __future__ import annotations

import sys


def main() -> int:
    """Run the command line; stopped while it is still being loaded, say so in a line, too."""
    try:
        from inlet.command_line import main as run
    except KeyboardInterrupt:
        print("inlet: stopped", file=sys.stderr)
        return 130
    except ModuleNotFoundError as error:
        if (error.name or "").startswith("inlet"):
            raise
        print(f"inlet: the package {error.name} is missing; run ./start again", file=sys.stderr)
        return 2
    return run()


if __name__ == "__main__":
    sys.exit(main())
