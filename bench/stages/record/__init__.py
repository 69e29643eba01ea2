"""What really went in, proof loads and inspections."""
