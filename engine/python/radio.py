# The board's radio: joins a network, and opens connections that nobody has to wait for.
import network
import socket

# Not ready yet: in progress, try again.
NOT_YET = (11, 115, 119)


class Radio:
    def __init__(self):
        self.station = network.WLAN(network.STA_IF)

    def join(self, name, password):
        self.station.active(True)
        try:
            self.station.disconnect()
        except OSError:
            pass
        self.station.connect(name, password)

    def is_joined(self):
        return self.station.isconnected()

    def connect(self, host, port):
        return Link(host, port)


class Link:
    def __init__(self, host, port):
        self.socket = socket.socket()
        self.socket.setblocking(False)
        try:
            self.socket.connect((host, port))
        except OSError as error:
            if error.errno not in NOT_YET:
                # Boards have few of them.
                self.socket.close()
                raise

    # How many bytes went out; 0: none could yet.
    def send(self, data):
        try:
            return self.socket.send(data) or 0
        except OSError as error:
            # A connection that is still being made is not connected yet.
            if error.errno in NOT_YET or error.errno in (107, 128):
                return 0
            raise

    # What has come; b"": that was all; None: nothing yet.
    def receive(self):
        try:
            return self.socket.recv(512)
        except OSError as error:
            if error.errno in NOT_YET:
                return None
            raise

    def close(self):
        self.socket.close()
