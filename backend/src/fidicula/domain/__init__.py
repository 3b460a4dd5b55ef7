"""The entities of the workshop, each written once and never changed: what is on record."""
