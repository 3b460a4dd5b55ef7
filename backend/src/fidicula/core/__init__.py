"""The rules and formulas of the work. No input, no output, no clock, no web."""
