"""What stands on the sheets of the pack, a file a kind of sheet."""
