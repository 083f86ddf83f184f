"""The wrong answers that a class will give, and options made of them."""
