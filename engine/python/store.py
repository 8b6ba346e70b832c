# Settings that were changed at the console, kept through a reboot; another program begins with its own.
import os

PATH = "/trowel_set"
NET_PATH = "/trowel_net"
SKIP_PATH = "/trowel_skip"


class Store:
    # Rows of (line, name, value) for the program of this number.
    def read(self, number):
        try:
            with open(PATH) as file:
                rows = file.read().split("\n")
            if int(rows[0]) != number or rows[-1] != "end":
                return []
            return [(int(row.split(" ")[0]), row.split(" ")[1], row.split(" ")[2]) for row in rows[1:-1]]
        except (OSError, ValueError, IndexError):
            return []

    def write(self, number, changed):
        rows = [str(number)] + ["%d %s %s" % (line, name, changed[(line, name)]) for line, name in changed] + ["end"]
        try:
            replace(PATH, "\n".join(rows))
            return True
        except OSError:
            return False


def replace(path, text):
    # The old file stays until the new one is whole.
    with open(path + "_new", "w") as file:
        file.write(text)
    try:
        os.remove(path)
    except OSError:
        pass
    os.rename(path + "_new", path)


# By id of a line for how long yet it is skipped, s, as it was when this was written; a board that was off meanwhile skips so much longer.
class SkipStore:
    def read(self):
        try:
            with open(SKIP_PATH) as file:
                rows = file.read().split("\n")
            if rows[-1] != "end":
                return {}
            return dict([(row.split(" ")[0], int(row.split(" ")[1])) for row in rows[:-1]])
        except (OSError, ValueError, IndexError):
            return {}

    def write(self, left):
        try:
            replace(SKIP_PATH, "\n".join(["%s %d" % (name, left[name]) for name in left] + ["end"]))
            return True
        except OSError:
            return False


# What was told of the network: a name and a value a row. It belongs to the board and stays there, whatever program is loaded; no program holds it.
class NetStore:
    def read(self):
        try:
            with open(NET_PATH) as file:
                rows = file.read().split("\n")
            return dict([tuple(row.split(" ", 1)) for row in rows if " " in row])
        except OSError:
            return {}

    def write(self, told):
        try:
            replace(NET_PATH, "\n".join(["%s %s" % (name, told[name]) for name in told]))
            return True
        except OSError:
            return False
