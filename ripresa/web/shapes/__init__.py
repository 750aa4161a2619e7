"""What travels: core values with the labels that a person reads, so that no one else has to work them out."""
