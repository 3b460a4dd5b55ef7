"""How work goes on at the bench."""
