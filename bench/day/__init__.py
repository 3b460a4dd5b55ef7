"""A whole day in one browser tab: a seeded walk through the real interface, and beside it a ledger of what was entered.

`walk.py` is the hands, `acts.py` what they do, `ledger.py` what was meant, which knows nothing of the application.
"""
