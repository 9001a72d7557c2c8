"""What is said or typed in words, understood."""
