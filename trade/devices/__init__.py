"""What people hold at the wall.

A real device answers the questions of `base.py`; `stand_ins.py` does so over hidden walls.
"""
