# Settings that were changed at the console, kept through a reboot; another program begins with its own.
import os

PATH = "/trowel_set"


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
            with open(PATH + "_new", "w") as file:
                file.write("\n".join(rows))
            try:
                os.remove(PATH)
            except OSError:
                pass
            os.rename(PATH + "_new", PATH)
            return True
        except OSError:
            return False
