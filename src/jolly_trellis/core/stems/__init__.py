"""The stems of a recipe: their rows, the water they have of their own, how long they last without."""
