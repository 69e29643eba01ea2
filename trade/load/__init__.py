"""What is demanded.

Things, use classes, load cases, and how a shelf shares them among its supports.
"""
