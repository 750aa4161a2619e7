"""Core values to and from open formats: one module for each. Bytes or text in and out, no files opened."""
