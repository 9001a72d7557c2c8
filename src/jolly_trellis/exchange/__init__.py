"""Open formats: one file each, reading and writing side by side."""
