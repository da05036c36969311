"""The piecing stage: one step a card."""

__all__ = ["advice", "card", "sittings", "stage", "ticket"]
