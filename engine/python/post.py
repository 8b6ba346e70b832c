# One report, one connection: HTTP.
REQUEST = "POST /api/readings HTTP/1.1\r\nHost: %s\r\nAuthorization: Bearer %s\r\nContent-Type: application/json\r\nContent-Length: %d\r\nConnection: close\r\n\r\n"
MOST_ANSWER = 16384


class Post:
    def __init__(self, radio, told, about):
        self.radio = radio
        self.told = told
        self.link = None
        self.out = b""
        self.answer = b""

    def begin(self, body, host, port):
        self.out = (REQUEST % (self.told["gateway"], self.told["key"], len(body))).encode() + body
        self.answer = b""
        self.link = self.radio.connect(host, port)

    # What can be done at once. Status and text of the answer once it is there; None until then. OSError: it came to nothing.
    def step(self):
        if self.out:
            self.out = self.out[self.link.send(self.out) :]
            return None
        part = self.link.receive()
        if part is None:
            return None
        self.answer += part
        if len(self.answer) > MOST_ANSWER:
            raise OSError(90)
        if part != b"" and not is_whole(self.answer):
            return None
        self.let_go()
        parts = self.answer.split(b"\r\n\r\n", 1)
        return (parts[0][9:12].decode(), parts[1]) if len(parts) == 2 else ("", b"")

    # Nothing is to be said for so long, s.
    def rest(self, _):
        pass

    def let_go(self):
        if self.link is not None:
            self.link.close()
            self.link = None


def is_whole(answer):
    # Head and body are there as far as the head says.
    at = answer.find(b"\r\n\r\n")
    if at < 0:
        return False
    for row in answer[:at].split(b"\r\n"):
        if row.lower().startswith(b"content-length:"):
            try:
                return len(answer) - at - 4 >= int(row[15:])
            except ValueError:
                return False
    return False
