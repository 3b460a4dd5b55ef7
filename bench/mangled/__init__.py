"""Archives that fit the published schema and nothing else: what comes in never breaks the house.

`values.py` makes values by a JSON Schema and puts them into a dossier, `run.py` takes the archives in and asks for
every page.
"""
