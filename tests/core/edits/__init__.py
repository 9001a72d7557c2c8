"""Tests of what is done to a plan by one press."""
