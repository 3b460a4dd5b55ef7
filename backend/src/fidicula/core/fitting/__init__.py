"""Fitting the parts: nut, fingerboard, post and bar, afterlength, adjusters, gauges."""
