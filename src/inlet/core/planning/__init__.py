"""A unit as planned: methods compared, what the maker chose, cloth at hand, what is left over."""
