"""What things look like, as primitives in metres with ids and inks and no colours, and how they are seen."""
