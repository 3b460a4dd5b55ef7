"""HTTP: routers only translate between requests and use cases."""
