"""What was done between two lines: the student error behind a line that does not hold, and the line that is right."""
