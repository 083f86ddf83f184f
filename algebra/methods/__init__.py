"""Ways to work a problem; one method or one close group a file."""
