"""Putting a piece together: what it stands on, what goes with it, how it is built before it is judged."""
