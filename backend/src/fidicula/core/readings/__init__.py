"""What the bench says: typed words to millimetres, doubts, and which readings still hold."""
