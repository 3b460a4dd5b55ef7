"""Use cases of who signs in, who may do what, and who did it."""
