"""The bench sheet of one instrument: cells, cut, drawing, words and whys, built from the log and the figures."""
