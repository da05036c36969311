"""From the project to a plan: of a block, and of the quilt."""
