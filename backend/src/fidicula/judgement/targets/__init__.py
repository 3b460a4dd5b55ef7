"""What is wanted of an instrument, and where each target comes from."""
