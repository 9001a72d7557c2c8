"""All the pieces of one event seen together: its job, and a room for each thing that is asked of it."""
