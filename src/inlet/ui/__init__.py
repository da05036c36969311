"""The window: draws what the core computed, computes nothing of the craft itself."""
