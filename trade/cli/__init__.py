"""What can be asked in a shell, a module for what is asked together.

A command imports no other's.
"""
