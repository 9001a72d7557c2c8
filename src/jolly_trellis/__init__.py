"""Jolly Trellis plans foam-free flower mechanics: a scale drawing that calculates."""

__version__ = "0.2.0"
