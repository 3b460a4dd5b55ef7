"""Documents with numbers of their own, payments, and what is open."""
