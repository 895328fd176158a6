"""What the server's tests stand on."""
