# What a board keeps through a reboot: the day's water, the lock, the round, the watched dose. Records go round in sixteen files, so that one that is cut off
# leaves the one before it, and no place is written all the time.
import binascii
import hashlib
import os

from engine import HOURS, Fields

FOLDER = "/trowel_kept"
SLOTS = 16


def sign(text):
    return binascii.hexlify(hashlib.sha256(text.encode()).digest()).decode()[:12]


def path_of(slot):
    return "%s/%d" % (FOLDER, slot)


def text_of(number, names, kept, contact_names, hours):
    rows = [str(number)]
    for at in range(len(names)):
        one = kept[at]
        watch = -1 if one.watch_tenths is None else one.watch_tenths
        values = [1 if one.locked else 0, one.no_rise, one.pulses, watch] + list(one.hours_ml)
        rows.append(names[at] + " " + " ".join([str(value) for value in values]))
    # Of a contact the seconds that it was on.
    for at in range(len(contact_names)):
        rows.append("+" + contact_names[at] + " " + " ".join([str(value) for value in hours[at]]))
    text = "\n".join(rows)
    return text + "\n" + sign(text)


def record_of(text):
    # (number, memory by name), or None for a record that was cut off or damaged.
    try:
        body, _, mark = text.rpartition("\n")
        if sign(body) != mark:
            return None
        rows = body.split("\n")
        lines = {}
        for row in rows[1:]:
            words = row.split(" ")
            numbers = [int(word) for word in words[1:]]
            if row.startswith("+"):
                lines[words[0]] = numbers
                continue
            lines[words[0]] = Fields(
                hours_ml=numbers[4 : 4 + HOURS],
                locked=numbers[0] != 0,
                no_rise=numbers[1],
                pulses=numbers[2],
                watch_tenths=None if numbers[3] < 0 else numbers[3],
            )
        return (int(rows[0]), lines)
    except (ValueError, IndexError):
        return None


# Cannot have been kept: the engine takes it for the worst, a day that has had all it may.
def damaged():
    return Fields(hours_ml=None, locked=False, no_rise=0, pulses=0, watch_tenths=None)


class Kept:
    # Names of the lines and of the contacts: a record belongs to them, not to their places.
    def __init__(self, names, contact_names=()):
        self.names = names
        self.contact_names = contact_names
        self.number = 0
        self.fails = 0
        self.newest = None
        self.had_files = False
        for slot in range(SLOTS):
            try:
                with open(path_of(slot)) as file:
                    text = file.read()
            except (OSError, ValueError):
                continue
            self.had_files = True
            record = record_of(text)
            if record is not None and record[0] >= self.number:
                self.number, self.newest = record

    def read(self):
        # By line; None: nothing was ever kept for it.
        if self.newest is None:
            return [damaged() if self.had_files else None for _ in self.names]
        return [self.newest.get(name) for name in self.names]

    def read_contacts(self):
        # By contact; None: nothing was ever kept for it. What is no list is taken for a day that has had all it may.
        if self.newest is None:
            return ["damaged" if self.had_files else None for _ in self.contact_names]
        return [self.newest.get("+" + name) for name in self.contact_names]

    def write(self, kept, hours=()):
        self.number += 1
        try:
            try:
                os.mkdir(FOLDER)
            except OSError:
                pass
            with open(path_of(self.number % SLOTS), "w") as file:
                file.write(text_of(self.number, self.names, kept, self.contact_names, hours))
            return True
        except OSError:
            self.fails += 1
            return False
