"""The HTTP interface: thin routers over the core, the store and the files."""
