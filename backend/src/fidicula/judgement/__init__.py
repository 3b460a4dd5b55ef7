"""What is wanted of an instrument, what is so, and what to do. No database, no clock, no sentence."""
