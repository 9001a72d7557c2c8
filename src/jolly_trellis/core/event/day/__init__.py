"""The day seen whole.

Asks tasks and a run sheet; answers what does not fit, what was tried and helps, and what else it takes.
"""
