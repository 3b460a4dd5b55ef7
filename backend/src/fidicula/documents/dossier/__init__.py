"""What outlives the program: the record of an instrument as plain JSON, its seal, and the archives that carry it."""
