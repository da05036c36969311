"""A block sewn up as it is cut: whether its seams fit, and what to do where they do not."""
