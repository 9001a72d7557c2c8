"""One file per mechanic: how it is sized and what it gives."""
