"""The one entry, `evaluate`, and what comes of it; choosing among mechanics."""
