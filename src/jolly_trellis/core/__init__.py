"""The computation core: pure functions over frozen values, SI units, no input or output."""
