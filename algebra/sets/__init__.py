"""Problems that belong together: ladders, problems like one, what happens in one, what a colleague says of a sheet."""
