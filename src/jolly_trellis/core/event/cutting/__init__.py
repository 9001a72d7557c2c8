"""What an event cuts and from what.

Asks needs and the stores; answers one cut plan a material: strips, columns and pieces, counted in whole cells.
"""
