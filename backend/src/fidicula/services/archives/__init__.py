"""Instruments and whole houses as archives: written in a stream, looked at before anything is taken in."""
