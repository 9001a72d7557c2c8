"""The catalogue that ships with the program: plain CSV, units in the column names, a source for each row."""
