"""Other ways of the same job: each a set of edits, the job after them planned whole, and what it comes to."""
