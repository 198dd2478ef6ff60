"""Readers and writers of a job or a plan in open formats."""
