"""The document: measure, cloths, blocks and all that a file holds, as values."""
