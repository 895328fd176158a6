"""Plans: in which order postures are taken up."""
