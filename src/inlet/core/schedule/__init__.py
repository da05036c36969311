"""What is done where and when: tasks, batches, sittings, thread."""
