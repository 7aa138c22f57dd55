"""The names and addresses under which this machine can be reached by others."""

from __future__ import annotations

import ipaddress
import socket

import ifaddr


def own_names() -> frozenset[str]:
    """The machine's own host names and the addresses of its interfaces, lower case."""
    host = socket.gethostname()
    names = {host, host.partition(".")[0], f"{host.partition('.')[0]}.local", socket.getfqdn()}
    for adapter in ifaddr.get_adapters():
        for ip in adapter.ips:
            names.add(ip.ip if isinstance(ip.ip, str) else ip.ip[0])
    return frozenset(n.lower() for n in names if n)


def is_any(host: str) -> bool:
    """Whether a host to listen on stands for every address of the machine."""
    try:
        return ipaddress.ip_address(host).is_unspecified
    except ValueError:
        return False
