"""From parts to the saw: boards and sheets as sold, and how to cut them."""
