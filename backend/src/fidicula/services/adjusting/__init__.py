"""Use cases of adjusting: posts, sounds and strings."""
