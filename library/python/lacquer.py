"""Lacquer from Python: finishes opened, played and drawn, by ctypes only.

    import lacquer
    with lacquer.open("strike.lacquer") as finish:
        finish.cue("hit", at=0.5, strength=0.8)
        pixels = finish.draw(0.7, 1280, 720)          # bytes, RGBA, rows from the top

The shared library is looked for in LACQUER_LIBRARY (a file), then beside this module, then where the system looks.
Finishes may be used from any thread; calls on one finish wait for one another.
"""

import ctypes
import ctypes.util
import os
import pathlib

__all__ = ["Fault", "Finish", "open", "open_text", "version"]


class _FaultInfo(ctypes.Structure):
    _fields_ = [("id", ctypes.c_char * 64), ("message", ctypes.c_char * 512), ("mend", ctypes.c_char * 256)]


class _DialInfo(ctypes.Structure):
    _fields_ = [("name", ctypes.c_char_p), ("kind", ctypes.c_char_p), ("numbers", ctypes.c_int),
                ("value", ctypes.c_double * 3), ("least", ctypes.c_double), ("most", ctypes.c_double),
                ("unit", ctypes.c_char_p), ("driven", ctypes.c_int)]


class Fault(Exception):
    """What went wrong: `id`, and `mend`, what would mend it."""

    def __init__(self, info):
        self.id = info.id.decode()
        self.mend = info.mend.decode("utf-8", "replace")
        message = info.message.decode("utf-8", "replace")
        super().__init__(f"{message} - {self.mend}" if self.mend else message)


def _load():
    beside = pathlib.Path(__file__).resolve().parent / "liblacquer.so.0"
    named = os.environ.get("LACQUER_LIBRARY") or (str(beside) if beside.exists() else None)
    library = ctypes.CDLL(named or ctypes.util.find_library("lacquer") or "liblacquer.so.0")
    finish, text, number, fault = ctypes.c_void_p, ctypes.c_char_p, ctypes.c_double, ctypes.POINTER(_FaultInfo)
    numbers, whole, size = ctypes.POINTER(ctypes.c_double), ctypes.c_int, ctypes.c_size_t
    shapes = {
        "version": (text, []), "open": (finish, [text, fault]), "open_text": (finish, [text, size, text, fault]),
        "close": (None, [finish]),
        "frame": (None, [finish, ctypes.POINTER(whole), ctypes.POINTER(whole), numbers]),
        "dial_count": (whole, [finish]), "dial": (whole, [finish, whole, ctypes.POINTER(_DialInfo)]),
        "cue_name": (text, [finish, whole]), "signal_name": (text, [finish, whole]),
        "step_name": (text, [finish, whole]), "variant_name": (text, [finish, whole]),
        "use_variant": (whole, [finish, text, fault]), "hold": (whole, [finish, text, numbers, whole, fault]),
        "let_go": (whole, [finish, text, fault]), "clear_tape": (whole, [finish]),
        "use_tape": (whole, [finish, text, fault]),
        "cue_at": (whole, [finish, text, number, number, number, number, number, whole, fault]),
        "set": (whole, [finish, text, number, numbers, whole, fault]),
        "value": (whole, [finish, text, number, numbers, fault]),
        "draw": (whole, [finish, text, number, whole, whole, whole, ctypes.c_void_p, size, fault]),
    }
    for name, (result, arguments) in shapes.items():
        function = getattr(library, "lacquer_" + name)
        function.restype, function.argtypes = result, arguments
    return library


_library = _load()


def version():
    """The version of the library."""
    return _library.lacquer_version().decode()


def _numbers(value):
    values = list(value) if hasattr(value, "__iter__") else [value]
    return (ctypes.c_double * len(values))(*values), len(values)


class Finish:
    """An open finish. Use it as a context, or close it."""

    def __init__(self, handle):
        self._handle = handle

    def __enter__(self):
        return self

    def __exit__(self, *_):
        self.close()

    def close(self):
        """Lets go of it; it can't be used afterwards."""
        handle, self._handle = self._handle, None
        if handle:
            _library.lacquer_close(handle)

    def _call(self, name, *arguments):
        fault = _FaultInfo()
        done = getattr(_library, "lacquer_" + name)(self._handle, *arguments, ctypes.byref(fault))
        if not done:
            raise Fault(fault)
        return done

    def _names(self, kind):
        names = []
        while (name := getattr(_library, f"lacquer_{kind}_name")(self._handle, len(names))) is not None:
            names.append(name.decode())
        return names

    @property
    def size(self):
        """Width and height of the frame that it is made for."""
        width, height = ctypes.c_int(), ctypes.c_int()
        _library.lacquer_frame(self._handle, ctypes.byref(width), ctypes.byref(height), None)
        return width.value, height.value

    @property
    def length(self):
        """How long its tape plays, in seconds."""
        length = ctypes.c_double()
        _library.lacquer_frame(self._handle, None, None, ctypes.byref(length))
        return length.value

    @property
    def dials(self):
        """Name to a dictionary of kind, value, least, most, unit and driven."""
        made = {}
        for index in range(_library.lacquer_dial_count(self._handle)):
            info = _DialInfo()
            if _library.lacquer_dial(self._handle, index, ctypes.byref(info)):
                value = list(info.value)[:info.numbers]
                made[info.name.decode()] = {
                    "kind": info.kind.decode(), "value": value[0] if info.numbers == 1 else value,
                    "least": info.least, "most": info.most, "unit": info.unit.decode(), "driven": bool(info.driven)}
        return made

    cues = property(lambda self: self._names("cue"), doc="Names of the cues that it listens to.")
    signals = property(lambda self: self._names("signal"), doc="Names of its signals.")
    steps = property(lambda self: self._names("step"), doc="Names of its steps.")
    variants = property(lambda self: self._names("variant"), doc="Names of its variants.")

    def use_variant(self, name):
        """Switches a variant on, or with "" all off."""
        self._call("use_variant", name.encode())

    def hold(self, dial, value):
        """Holds a dial at a number, or at three."""
        self._call("hold", dial.encode(), *_numbers(value))

    def let_go(self, dial):
        """Lets it go again."""
        self._call("let_go", dial.encode())

    def clear_tape(self):
        """Nothing is played from here on but what follows."""
        _library.lacquer_clear_tape(self._handle)

    def use_tape(self, path):
        """Plays the tape of a file."""
        self._call("use_tape", os.fsencode(path))

    def cue(self, name, at, strength=1.0, direction=0.0, x=0.5, y=0.5, object=0):
        """Plays a cue at a time in seconds."""
        self._call("cue_at", name.encode(), at, strength, direction, x, y, object)

    def set(self, name, at, value):
        """Sets a signal, or a dial on the tape."""
        self._call("set", name.encode(), at, *_numbers(value))

    def value(self, name, seconds):
        """What a dial, response, signal or one of their outputs is worth: a number, or a list of them."""
        value = (ctypes.c_double * 3)()
        count = self._call("value", name.encode(), seconds, value)
        return value[0] if count == 1 else list(value)[:count]

    def draw(self, seconds, width, height, step=None, floats=False):
        """The picture as a bytearray: RGBA, 8 bits of display values each, or floats in linear light."""
        stride = width * (16 if floats else 4)
        memory = bytearray(max(1, stride * height) if width > 0 and height > 0 else 1)
        place = (ctypes.c_char * len(memory)).from_buffer(memory)
        self._call("draw", None if step is None else step.encode(), seconds, width, height, 1 if floats else 0,
                   ctypes.byref(place), max(stride, 0))
        return memory


def _opened(handle, fault):
    if not handle:
        raise Fault(fault)
    return Finish(handle)


def open(path):  # as files are opened; the built-in is not needed here
    """Opens a finish. Raises a Fault."""
    fault = _FaultInfo()
    return _opened(_library.lacquer_open(os.fsencode(path), ctypes.byref(fault)), fault)


def open_text(text, path=""):
    """Opens the text of a finish; relative paths in it go by `path`."""
    fault = _FaultInfo()
    data = text.encode()
    return _opened(_library.lacquer_open_text(data, len(data), os.fsencode(path), ctypes.byref(fault)), fault)
