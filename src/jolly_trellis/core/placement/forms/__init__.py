"""Forms of arrangement, one file each; a new file is all that a new one takes."""
