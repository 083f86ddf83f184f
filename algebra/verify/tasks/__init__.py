"""One task of a working in each file, behind the protocol of `task.Task`."""
