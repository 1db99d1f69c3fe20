"""The simulated mail server speaks SMTP (RFC 5321), and shows what it got."""

from __future__ import annotations

import smtplib
import urllib.request
from email.message import EmailMessage

import pytest

from tests.conftest import Registry


def letter(to: str, subject: str = "Grüße & <b>") -> EmailMessage:
    message = EmailMessage()
    message["From"], message["To"], message["Subject"] = "post@vinetag.example", to, subject
    message["Message-ID"] = "<one@vinetag.example>"
    message.set_content("Straße\n.\n..two dots\n")
    return message


def post(registry: Registry) -> smtplib.SMTP:
    return smtplib.SMTP("127.0.0.1", registry.mail_port, timeout=10)


def test_what_is_sent_is_kept_and_shown(registry: Registry) -> None:
    before = len(registry.mail)
    with post(registry) as server:
        server.send_message(letter("edda@quietpress.example"))
    [kept] = registry.mail[before:]
    assert (kept["to"], kept["subject"]) == ("edda@quietpress.example", "Grüße & <b>")
    assert kept["text"].splitlines() == ["Straße", ".", "..two dots"]
    assert kept["identity"] == "<one@vinetag.example>"
    with urllib.request.urlopen(f"{registry.origin}/mail", timeout=5) as reply:  # noqa: S310 - loopback
        page = reply.read().decode()
    assert "Grüße &amp; &lt;b&gt;" in page
    assert "<b>" not in page


@pytest.mark.parametrize(
    ("kind", "to", "code"),
    [("", "nobody.at.home@x.example", 550), ("refuse", "a@x.example", 550),
     ("later", "a@x.example", 451)],
)  # fmt: skip
def test_it_refuses(registry: Registry, kind: str, to: str, code: int) -> None:
    if kind:
        registry.faults(service="mail", kind=kind, registry="x.example")
    with post(registry) as server, pytest.raises(smtplib.SMTPRecipientsRefused) as refused:
        server.send_message(letter(to))
    assert refused.value.recipients[to][0] == code


def test_a_letter_too_large_is_refused(registry: Registry) -> None:
    message = letter("edda@quietpress.example")
    message.set_content("x" * 1_100_000)
    with post(registry) as server, pytest.raises(smtplib.SMTPSenderRefused):
        server.send_message(message)
