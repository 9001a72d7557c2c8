"""What an event needs, piece by piece, and what the stores have of it.

Asks the job and what is made; answers needs, bunches to buy, what lies on the shelves, what is hired.
"""
