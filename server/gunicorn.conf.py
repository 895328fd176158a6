"""How the product is served, in every way in which it is started: `--config server/gunicorn.conf.py`."""

chdir = "server"
wsgi_app = "config.wsgi:application"
worker_class = "config.web_worker.WebWorker"
# Readings always find a thread: what costs much holds two of them at most (config/lane.py).
threads = 16
# Longer than a proxy keeps an idle connection (docs/deploy/nginx.conf): it closes first, and never under a write.
keepalive = 75
control_socket_disable = True
logger_class = "config.access_log.Discreet"
