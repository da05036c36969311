"""The pressing stage: the block from the back."""

__all__ = ["stage", "ticket"]
