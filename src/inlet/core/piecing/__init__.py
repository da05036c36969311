"""The piecing stage: the order of joins, the steps, and the proof that they give the draft."""
