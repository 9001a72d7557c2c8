"""Hung work: lines, hang points, and where it all comes to rest."""
