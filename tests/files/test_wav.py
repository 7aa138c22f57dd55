"""WAV in and out: every usual coding, and what is refused."""

import io

import numpy as np
import pytest
import soundfile

from lyrandis.core.errors import RefusedError
from lyrandis.core.sound.events import analyse
from lyrandis.files.wav import read_wav, write_wav
from lyrandis.instruments.recorder import SimulatedRecorder


class TestWav:
    def samples(self):
        return SimulatedRecorder(seed=1, shots=2, seconds=8, channels=2).record()[0]

    @pytest.mark.parametrize("subtype", ["PCM_16", "PCM_24", "PCM_32", "FLOAT"])
    def test_every_usual_coding(self, subtype):
        out = io.BytesIO()
        soundfile.write(out, self.samples(), 48_000, format="WAV", subtype=subtype)
        read, rate = read_wav(out)
        assert rate == 48_000
        assert np.abs(read - self.samples()).max() < 1e-4

    def test_round_trip(self):
        read, rate = read_wav(io.BytesIO(write_wav(self.samples(), 44_100)))
        assert (rate, read.shape) == (44_100, self.samples().shape)

    @pytest.mark.parametrize(
        ("spoil", "words"),
        [
            (lambda _: b"", "not a WAV"),
            (lambda _: b"x" * 5000, "does not begin with RIFF"),
            (lambda w: w[:60], "cut off: its head tells of 8.0 s"),
            (lambda w: w[:20] + b"\xff\xff" + w[22:], "broken|coded"),
        ],
    )
    def test_a_broken_file_is_refused(self, spoil, words):
        file = io.BytesIO(spoil(write_wav(self.samples(), 48_000)))
        with pytest.raises(RefusedError, match=words):
            analyse(*read_wav(file))

    def test_a_file_too_large_is_not_read(self):
        class Huge(io.BytesIO):
            def seek(self, at, whence=0):
                return super().seek(at, whence)

            def tell(self):
                return 200_000_000

            def read(self, *_):
                raise AssertionError("it was read")

        with pytest.raises(RefusedError, match="200 MB"):
            read_wav(Huge(b"RIFF"))

    @pytest.mark.parametrize(("rate", "channels", "words"), [(8000, 1, "8000 Hz"), (48_000, 3, "two channels")])  # fmt: skip
    def test_another_kind_of_recording(self, rate, channels, words):
        out = io.BytesIO()
        soundfile.write(out, np.zeros((9000, channels)), rate, format="WAV")
        with pytest.raises(RefusedError, match=words):
            read_wav(out)
