import pytest

from tidewatch.gauge import FRAME, BrokenFrame, checksum, parse


def frame(station=7, seconds=1_700_000_000, millimetres=2345):
    data = FRAME.pack(station, seconds, millimetres, 0)[:-1]
    return data + bytes([checksum(data)])


def test_a_frame_is_read():
    assert parse(frame()).level == 2.345


def test_a_flipped_bit_is_noticed():
    broken = bytearray(frame())
    broken[3] ^= 1
    with pytest.raises(BrokenFrame):
        parse(bytes(broken))
