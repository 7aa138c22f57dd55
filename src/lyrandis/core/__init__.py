"""The computation and the rules of the job; knows no interface, no database and no clock."""
