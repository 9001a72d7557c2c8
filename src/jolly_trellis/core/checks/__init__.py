"""One file per verb; the fixes stand beside the check they invert."""
