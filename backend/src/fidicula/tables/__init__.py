"""The shop's figures, schools and rules of work as data: one row a fact, each row checked when it is read."""
