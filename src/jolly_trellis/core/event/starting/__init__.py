"""How each thing that people order is begun.

Asks a size, a place or a word; answers a part begun as the trade begins it, and the same at another size.
"""
