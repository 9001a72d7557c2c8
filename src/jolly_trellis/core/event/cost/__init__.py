"""What an event costs and what to ask for it.

Asks needs, prices and hours; answers lines in decimal money, and the price as a client accepted it.
"""
