"""Simulated stand-ins for devices and services outside, each behind one small interface."""
