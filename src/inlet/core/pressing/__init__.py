"""Which way each seam is pressed, and what lies on what then."""
