"""Tasks and people, and the run sheet made of both.

Asks tasks with their windows and hands; answers who does what when, and what that breaks.
"""
