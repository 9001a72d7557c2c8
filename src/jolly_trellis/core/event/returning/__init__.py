"""What comes back.

Asks what went out; answers what is due when, held for which event, and what can be used again.
"""
