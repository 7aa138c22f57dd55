"""A certificate of one's own: by whom it is taken, for what, how long, and when it is made anew."""

import ssl
import stat
from datetime import UTC, datetime, timedelta

import pytest
from cryptography import x509
from typer.testing import CliRunner

from lyrandis import certificates
from lyrandis.cli import app

NOW = datetime.now(UTC)
HOSTS = ["192.168.1.20", "198.51.100.7", "bench", "bench.local", "127.0.0.1", "::1", "localhost"]


@pytest.fixture
def made(tmp_path):
    certificates.make_authority(tmp_path, HOSTS, NOW)
    place, left = certificates.ready(tmp_path, HOSTS, NOW)
    assert left == []
    return place


def taken(place, host, authority=None):
    """Whether a browser that trusts the authority takes the certificate for a host: a handshake."""
    server = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    server.load_cert_chain(place.own, place.own_key)
    client = ssl.create_default_context(cafile=authority or place.authority)
    to, back = ssl.MemoryBIO(), ssl.MemoryBIO()
    asks = client.wrap_bio(back, to, server_hostname=host)
    answers = server.wrap_bio(to, back, server_side=True)
    for _ in range(10):
        done = True
        for side in (asks, answers):
            try:
                side.do_handshake()
            except ssl.SSLWantReadError:
                done = False
            except ssl.SSLCertVerificationError:
                return False
        if done:
            return True
    raise AssertionError("no end of the handshake")


@pytest.mark.parametrize("host", HOSTS)
def test_it_is_taken_for_every_name_and_address_of_the_machine(made, host):
    assert taken(made, host)


def test_it_is_taken_for_no_other_place_nor_by_who_has_not_its_authority(made, tmp_path):
    assert not taken(made, "192.168.1.21")
    assert not taken(made, "bench.example")
    other = certificates.make_authority(tmp_path / "other", HOSTS, NOW)
    assert not taken(made, "bench", other)


@pytest.mark.usefixtures("made")
def test_the_authority_may_vouch_for_nothing_out_in_the_world(tmp_path):
    place, left = certificates.ready(tmp_path, [*HOSTS, "bank.example", "8.8.8.8"], NOW)
    assert left == ["8.8.8.8", "bank.example"]
    assert not taken(place, "bank.example")
    # Not even where its key is in other hands: the limits stand in what phones install.
    limits = x509.load_pem_x509_certificate(place.authority.read_bytes()).extensions
    constraints = limits.get_extension_for_class(x509.NameConstraints)
    assert constraints.critical
    assert limits.get_extension_for_class(x509.BasicConstraints).value.path_length == 0


def test_it_is_made_once_and_anew_for_a_new_address_or_near_its_end(made, tmp_path):
    first = made.own.read_bytes()
    assert certificates.ready(tmp_path, HOSTS[1:], NOW)[0].own.read_bytes() == first
    moved = certificates.ready(tmp_path, [*HOSTS, "192.168.1.77"], NOW)[0]
    assert moved.own.read_bytes() != first
    assert taken(moved, "192.168.1.77")
    second = moved.own.read_bytes()
    soon = NOW + timedelta(days=certificates.OWN_DAYS - certificates.RENEW_DAYS)
    assert certificates.ready(tmp_path, HOSTS, soon)[0].own.read_bytes() != second
    authority = made.authority.read_bytes()
    certificates.make_authority(tmp_path, HOSTS, NOW)
    assert made.authority.read_bytes() == authority


def test_it_lasts_398_days_and_its_keys_are_its_owners_alone(made):
    own = x509.load_pem_x509_certificate(made.own.read_bytes())
    assert own.not_valid_after_utc - own.not_valid_before_utc == timedelta(days=398)
    for key in (made.authority_key, made.own_key):
        assert stat.S_IMODE(key.stat().st_mode) == 0o600


def test_what_is_damaged_is_made_anew_and_without_an_authority_there_is_none(made, tmp_path):
    made.own.write_text("no certificate")
    assert taken(certificates.ready(tmp_path, HOSTS, NOW)[0], "bench")
    with pytest.raises(certificates.NoAuthorityError):
        certificates.ready(tmp_path / "none", HOSTS, NOW)


def test_the_command_makes_it_and_says_what_to_do(tmp_path):
    told = CliRunner().invoke(app, ["certificate", "--data", str(tmp_path), "--name", "bench"])
    assert told.exit_code == 0, told.output
    assert "--host 0.0.0.0" in told.output
    assert certificates.of(tmp_path).own.exists()
    assert taken(certificates.of(tmp_path), "bench")
