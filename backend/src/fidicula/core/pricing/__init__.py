"""What work and parts come to: money, minutes and their order, exact and rounded once."""
