"""All the pieces of one event seen together."""
