"""What to buy for blocks, whether what is there does, and the same block at other sizes."""
