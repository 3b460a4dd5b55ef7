"""Instruments whose truth is known, to practise on and to try the advice with. Shares nothing with the core."""
