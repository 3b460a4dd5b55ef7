"""Fidicula: the measuring, arithmetic and record of a violin-family workshop."""
