"""The trail of an instrument: every act of adjusting, where the post then stood, and what was heard there."""
