"""The window round the stages: rail, top bar, tape, and the session they share."""

__all__ = ["app", "help_button", "session", "tape"]
