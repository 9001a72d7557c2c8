"""What is to be done for an event.

Asks the job and what is made; answers tasks with their length, window, order and hands.
"""
