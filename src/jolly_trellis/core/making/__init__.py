"""How a piece is made: steps, order, phases, margins while it is made, patterns."""
