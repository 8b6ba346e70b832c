# Starts the newest whole program of this board, or none while a program is being put on it.
# A program lies in a folder of its own with a list of its files, written last; a folder that does not agree with its list is not started.
import binascii
import hashlib
import machine
import os
import sys
import time

FOLDERS = ("trowel_a", "trowel_b")
LOAD_FLAG = "/trowel_load"
# In load mode the board restarts into its program when nobody has written to it for so long, s.
QUIET_S = 120
quiet_s = QUIET_S
# Held here, or it would be swept away.
quiet_timer = None


def list_of(folder):
    # Number of the program, outputs as (pin, level at rest), with the length of a pulse in ms where a valve is shut by one, files as (sum, name); None: no list, or one that was cut off.
    try:
        with open("/%s/files.txt" % folder) as file:
            rows = file.read().split("\n")
        if rows[0] != "trowel 1" or "end" not in rows:
            return None
        number = int(rows[1])
        outputs = []
        files = []
        for row in rows[2 : rows.index("end")]:
            words = row.split(" ")
            if words[0] == "off":
                outputs.append((int(words[1]), int(words[2]), 0))
            elif words[0] == "pulse":
                outputs.append((int(words[1]), int(words[2]), int(words[3])))
            elif words[0] == "file":
                files.append((words[1], words[2]))
        return (number, folder, outputs, files)
    except (OSError, ValueError, IndexError):
        return None


def newest_first():
    return sorted([one for one in map(list_of, FOLDERS) if one is not None], reverse=True)


def switch_off(outputs):
    for pin, level, pulse_ms in outputs:
        one = machine.Pin(pin, machine.Pin.OUT, value=level)
        one.value(level)
        if pulse_ms > 0:
            one.value(1 - level)
            time.sleep_ms(pulse_ms)
            one.value(level)


def sum_of(path):
    total = hashlib.sha256()
    with open(path, "rb") as file:
        while True:
            block = file.read(512)
            if not block:
                return binascii.hexlify(total.digest()).decode()
            total.update(block)


def is_whole(program):
    try:
        for told, name in program[3]:
            if sum_of("/%s/%s" % (program[1], name)) != told:
                return False
        return True
    except OSError:
        return False


def is_flagged():
    # The flag holds for one start: the next one runs the program again, whatever came of loading.
    try:
        os.remove(LOAD_FLAG)
        return True
    except OSError:
        return False


def second_of_quiet(_):
    global quiet_s
    quiet_s -= 1
    if quiet_s <= 0:
        machine.reset()


def wait_for_load():
    global quiet_timer
    for number in (-1, 0):
        try:
            quiet_timer = machine.Timer(number)
            quiet_timer.init(period=1000, callback=second_of_quiet)
            print("# load mode: outputs are off, the program starts again after %d s of quiet" % QUIET_S)
            return
        except (ValueError, OSError, AttributeError, TypeError):
            pass
    print("# load mode: outputs are off, restart the board for its program")


def start(programs):
    for program in programs:
        if not is_whole(program):
            print("# program %d is not whole and is passed over" % program[0])
            continue
        path = "/" + program[1]
        sys.path.insert(0, path)
        try:
            import start

            return start.turns(program[0])
        except Exception as error:
            print("# program %d does not start: %r" % (program[0], error))
            switch_off(program[2])
            sys.path.remove(path)
            for _, name in program[3]:
                sys.modules.pop(name.split(".")[0], None)
    print("# no program")
    return None


programs = newest_first()
# Outputs off before anything else.
for program in programs[:1]:
    switch_off(program[2])
if is_flagged():
    wait_for_load()
    turns = None
else:
    turns = start(programs)
# A simulated board turns its program itself.
if turns is not None and not hasattr(machine, "turned_from_outside"):
    for _ in turns:
        pass
