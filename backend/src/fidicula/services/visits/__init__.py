"""Use cases of a visit, from arrival to hand-over."""
