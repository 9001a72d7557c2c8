"""The HTTP door: parse, call a service, return."""
