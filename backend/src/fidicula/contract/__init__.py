"""The wire models of the computation contract, shared by the HTTP interface and the command line."""
