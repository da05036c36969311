"""Ways to make a unit: one file a family, the catalogue of all, trimming, and the proof."""
