"""Installs, starts and stops. Standard library only: it runs before anything is installed."""
