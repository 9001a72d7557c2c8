"""Load, ask the core, save: what the interface can have done."""
