"""What the developers run beside the tests: the bench and the pictures."""
