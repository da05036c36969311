"""What is cut: pieces and their stacks, strip sets, sizes that land on the ruler's marks."""
