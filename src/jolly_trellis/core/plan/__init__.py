"""The plan of an event: its brief, and what is made for it, kind by kind."""
