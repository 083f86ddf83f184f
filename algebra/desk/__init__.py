"""What is asked of the methods: a worked solution, the methods side by side, the next step, more problems, features."""
