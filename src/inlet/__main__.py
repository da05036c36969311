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
    code = run()
    app = sys.modules.get("inlet.ui.shell.app")  # loaded where there was a window
    return int(app.end(code)) if app is not None else code


if __name__ == "__main__":
    sys.exit(main())
