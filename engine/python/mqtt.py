# Reports over one connection that stays open: MQTT 3.1.1, as much of it as reports and answers want. Numbers of packets and flags are those of the standard.
MOST_ANSWER = 16384
KEEP_ALIVE_S = 90
# Beyond such a rest the connection is made anew.
MOST_REST_S = 45

NOT_LET_IN = 13
CONNACK, PUBLISH, PUBACK, SUBACK = 2, 3, 4, 9


class Mqtt:
    def __init__(self, radio, told, about):
        self.radio = radio
        self.told = told
        self.board = about.board
        self.topic = "trowel/%s/%s/" % (about.garden, about.board)
        self.link = None
        self.out = b""
        self.heard = b""
        self.number = 0

    def begin(self, body, host, port):
        self.number = self.number % 65000 + 1
        if self.link is None:
            self.heard = b""
            self.out = self.connect() + self.subscribe()
            self.link = self.radio.connect(host, port)
        name = text_of(self.topic + "report")
        # At least once: it is sent again by whoever reports, not by this connection.
        self.out += packet(0x32, name + self.number.to_bytes(2, "big") + body)

    def connect(self):
        # A clean session, with user and password.
        about = text_of("MQTT") + b"\x04\xc2" + KEEP_ALIVE_S.to_bytes(2, "big")
        return packet(0x10, about + text_of(self.board) + text_of(self.board) + text_of(self.told["key"]))

    def subscribe(self):
        return packet(0x82, b"\xff\xff" + text_of(self.topic + "answer") + b"\x01")

    # What can be done at once. Status and text of the answer once it is there; None until then. OSError: it came to nothing.
    def step(self):
        if self.out:
            self.out = self.out[self.link.send(self.out) :]
            return None
        part = self.link.receive()
        if part == b"":
            # The other end has let go: no room there, or a key that is none.
            raise OSError(104)
        if part:
            self.heard += part
            if len(self.heard) > MOST_ANSWER:
                raise OSError(90)
        return self.next()

    def next(self):
        # The whole packets that have come, one after the other.
        while True:
            length, at = length_of(self.heard)
            if length is None or len(self.heard) < at + length:
                return None
            kind, flags, body = self.heard[0] >> 4, self.heard[0] & 15, self.heard[at : at + length]
            self.heard = self.heard[at + length :]
            if kind == CONNACK and body[1:2] != b"\x00":
                raise OSError(NOT_LET_IN)
            if kind == SUBACK and body[2:3] == b"\x80":
                raise OSError(NOT_LET_IN)
            if kind != PUBLISH:
                continue
            place = 2 + int.from_bytes(body[:2], "big")
            if flags & 6:
                # Nothing rests on it: the report is what is kept or not.
                self.link.send(packet(0x40, body[place : place + 2]))
                place += 2
            text = body[place:]
            return ("400" if text.startswith(b'{"error"') else "200", text)

    def rest(self, seconds):
        if seconds > MOST_REST_S:
            self.let_go()

    def let_go(self):
        if self.link is not None:
            self.link.close()
            self.link = None


def text_of(text):
    raw = text.encode()
    return len(raw).to_bytes(2, "big") + raw


def packet(head, body):
    # Seven bits of the length in a byte, the lowest first.
    length = len(body)
    out = bytes([head])
    while True:
        out += bytes([length % 128 + (128 if length >= 128 else 0)])
        length //= 128
        if length == 0:
            return out + body


def length_of(heard):
    # Of the first packet: its length, and where its body begins; None: not all of that has come.
    length = 0
    for at in range(1, min(len(heard), 5)):
        length += (heard[at] & 127) << (7 * (at - 1))
        if heard[at] < 128:
            return length, at + 1
    if len(heard) >= 5:
        raise OSError(90)
    return None, 0
