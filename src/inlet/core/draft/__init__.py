"""The draft stage: a block as drawn, its patches, and what is wrong with it."""
