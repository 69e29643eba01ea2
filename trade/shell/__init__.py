"""What can be asked in a shell, a module for what is asked together; a command imports no other's."""
