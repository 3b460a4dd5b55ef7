"""The pages of an instrument: finding, handles, consequences, ways beside each other; one module for each."""
