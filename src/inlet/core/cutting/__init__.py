"""The cutting stage: pieces by cloth, strips across the width, cloth to buy."""
