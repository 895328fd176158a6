#!/bin/sh
# /usr/local/bin/lumvek: ./lumvek with its environment and as its account, for whoever looks after the machine.
set -a
. /etc/lumvek/lumvek.env
set +a
cd /opt/lumvek && exec runuser -u lumvek -- env HOME=/var/lib/lumvek ./lumvek "$@"
