"""One place for each quantity that many rooms read."""
