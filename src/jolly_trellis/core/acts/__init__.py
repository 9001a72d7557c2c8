"""Acts: what is done to the things of a part, in order, and where each of them is after any act.

The acts follow from the few choices of the plan; nothing about where a thing is, is kept anywhere. Whoever asks what
a vessel weighs at the door, what is carried apart, what is put in at the place or what is left at strike asks here.
"""
