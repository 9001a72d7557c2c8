"""How fast the program is: `./trellis bench`."""
