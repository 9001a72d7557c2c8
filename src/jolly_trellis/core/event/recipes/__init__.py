"""Recipes at another size, price, season or variety.

Asks recipe lines and a wish; answers recipe lines.
"""
