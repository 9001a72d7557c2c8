"""The made-up scenario: the reopening supper of a small ropewalk museum by a salt marsh."""
