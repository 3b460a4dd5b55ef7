"""The only place with sentences: codes and amounts in, words out."""
