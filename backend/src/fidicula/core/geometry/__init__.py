"""Where strings, board and crown are in space."""
