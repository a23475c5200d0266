"""Pages of interfaces, drawn from the same outlines at their size and at twice their size.

A page is a list of shapes in its own pixels. Letters are outlines too: they are asked for at the
size of the page, hinted or not, and the same outlines are then filled at either scale. If the
larger picture came from letters hinted at twice the size, its stems would lie elsewhere and the
network would learn a contradiction.
"""
import math
import random
from dataclasses import dataclass, field

import cairo
import numpy as np
from PIL import Image

import words
from photographs import Photographs

Color = tuple[float, float, float]


@dataclass
class Shape:
    """Something to fill or stroke, in the page's pixels."""
    path: cairo.Path
    color: Color
    width: float | None = None
    letters: bool = False
    gradient: tuple[float, float, float, float, Color] | None = None


@dataclass
class Photograph:
    """A photograph on a page: where, and its picture at twice the size in 0 to 1."""
    x: int
    y: int
    picture: np.ndarray


@dataclass
class Page:
    width: int
    height: int
    ground: Color
    shapes: list[Shape | Photograph] = field(default_factory=list)
    #: How coverage of letters is bent, as systems do for contrast.
    bend: float = 1
    #: Whether letters have a coverage for each colour.
    fringes: bool = False


@dataclass
class Theme:
    ground: Color
    panel: Color
    ink: Color
    faint: Color
    accent: Color
    rule: Color


def hsv(h: float, s: float, v: float) -> Color:
    k = [(n + h * 6) % 6 for n in (5, 3, 1)]
    r, g, b = (v - v * s * max(0, min(x, 4 - x, 1)) for x in k)
    return r, g, b


def theme(rng: random.Random, apart: bool) -> Theme:
    """Colours that go together; those kept apart are warm and of middle contrast."""
    hue = rng.random()
    if apart:
        dark = rng.random() < 0.5
        paper, ink = ((.16, .13, .10), (.93, .86, .74)) if dark else ((.98, .95, .88), (.24, .17, .12))
        return Theme(paper, tuple(c * .94 for c in paper), ink, mixed(ink, paper, .4),
                     (.80, .33, .13), mixed(ink, paper, .8))
    kind = rng.random()
    if kind < .45:
        paper = hsv(hue, rng.uniform(0, .06), rng.uniform(.93, 1))
        ink = hsv(hue, rng.uniform(0, .4), rng.uniform(0, .3))
    elif kind < .85:
        paper = hsv(hue, rng.uniform(0, .35), rng.uniform(.04, .22))
        ink = hsv(hue, rng.uniform(0, .15), rng.uniform(.75, 1))
    else:
        paper = hsv(hue, rng.uniform(.2, .9), rng.uniform(.3, .9))
        ink = (1, 1, 1) if sum(paper) < 1.6 else (.05, .05, .08)
    return Theme(paper, mixed(paper, ink, rng.uniform(.02, .12)), ink,
                 mixed(ink, paper, rng.uniform(.3, .6)), hsv(rng.random(), .75, rng.uniform(.5, .95)),
                 mixed(paper, ink, rng.uniform(.1, .3)))


def mixed(a: Color, b: Color, share: float) -> Color:
    return tuple(x * (1 - share) + y * share for x, y in zip(a, b))


class Painter:
    """Adds shapes to a page; knows how its letters are drawn."""

    def __init__(self, rng: random.Random, page: Page, fonts: list[str]):
        self.rng, self.page, self.fonts = rng, page, fonts
        # Cairo drops letters that lie outside of the surface they are asked for on.
        self.scratch = cairo.Context(cairo.ImageSurface(cairo.FORMAT_A8, 2048, 512))
        self.scratch.set_tolerance(.02)
        options = cairo.FontOptions()
        hinted = rng.random() < .6
        options.set_hint_style(rng.choice([cairo.HINT_STYLE_SLIGHT, cairo.HINT_STYLE_SLIGHT,
                                           cairo.HINT_STYLE_MEDIUM, cairo.HINT_STYLE_FULL])
                               if hinted else cairo.HINT_STYLE_NONE)
        options.set_hint_metrics(cairo.HINT_METRICS_ON if hinted else cairo.HINT_METRICS_OFF)
        self.scratch.set_font_options(options)
        self.hinted = hinted

    def add(self, color: Color, **more) -> None:
        self.page.shapes.append(Shape(self.scratch.copy_path(), color, **more))
        self.scratch.new_path()

    def text(self, x: float, y: float, text: str, color: Color, size: float,
             family: str | None = None, bold: bool = False, upright: bool = False) -> float:
        """Sets a line, its baseline at y; returns where it ends."""
        c = self.scratch
        italic = self.rng.random() < .05 and not upright
        slant = cairo.FONT_SLANT_ITALIC if italic else cairo.FONT_SLANT_NORMAL
        c.select_font_face(family or self.rng.choice(self.fonts), slant,
                           cairo.FONT_WEIGHT_BOLD if bold else cairo.FONT_WEIGHT_NORMAL)
        c.set_font_size(size)
        if self.hinted:
            x, y = round(x), round(y)
        c.new_path()
        c.move_to(x, y)
        c.text_path(text)
        end = x + c.text_extents(text).x_advance
        self.add(color, letters=True)
        return end

    def box(self, x, y, w, h, color, radius=0, width=None, **more) -> None:
        c = self.scratch
        c.new_path()
        if radius:
            for dx, dy, turn in ((w - radius, radius, -.5), (w - radius, h - radius, 0),
                                 (radius, h - radius, .5), (radius, radius, 1)):
                c.arc(x + dx, y + dy, radius, turn * math.pi, (turn + .5) * math.pi)
            c.close_path()
        else:
            c.rectangle(x, y, w, h)
        self.add(color, width=width, **more)

    def lines(self, points, color, width, closed=False, fill=False) -> None:
        c = self.scratch
        c.new_path()
        for point in points:
            c.line_to(*point)
        if closed:
            c.close_path()
        self.add(color, width=None if fill else width)


def make_page(rng: random.Random, width: int, height: int, fonts: list[str],
              photographs: Photographs, apart: bool = False) -> Page:
    """A page of some panels, each with another kind of content."""
    t = theme(rng, apart)
    page = Page(width, height, t.ground, bend=rng.choice([1, 1, rng.uniform(.7, 1.25)]),
                fringes=rng.random() < .15)
    p = Painter(rng, page, fonts)
    columns = rng.randint(1, 2)
    rows = rng.randint(1, 2)
    for column in range(columns):
        for row in range(rows):
            x, y = column * width // columns, row * height // rows
            w, h = width // columns, height // rows
            if rng.random() < .6:
                p.box(x + 3, y + 3, w - 6, h - 6, t.panel, radius=rng.choice([0, 0, 4, 6]))
            if rng.random() < .4:
                p.box(x + 3.5, y + 3.5, w - 7, h - 7, t.rule, radius=rng.choice([0, 4]), width=1)
            kind = rng.choices(KINDS, WEIGHTS)[0]
            kind(p, t, x + 8, y + 8, w - 16, h - 16, photographs)
    if rng.random() < .3:
        pointer(p, rng.uniform(10, width - 20), rng.uniform(10, height - 20))
    return page


def paragraph(p, t, x, y, w, h, _):
    rng = p.rng
    size = rng.choice([8, 9, 10, 11, 11, 12, 12, 13, 13, 14, 14, 15, 16, 18, 20, 24, 28])
    size += 0 if p.hinted else rng.uniform(-.5, .5)
    family, bold = rng.choice(p.fonts), rng.random() < .2
    gap = size * rng.uniform(1.15, 1.6)
    top = y + size
    while top < y + h:
        color = rng.choices([t.ink, t.faint, t.accent], [6, 2, 1])[0]
        p.text(x + rng.choice([0, 0, 12]), top, words.line(rng, 2, 12), color, size, family, bold)
        top += gap


def code(p, t, x, y, w, h, _):
    rng = p.rng
    size = rng.choice([9, 10, 11, 12, 13, 14])
    mono = [f for f in p.fonts if 'Mono' in f or f in ('Fira Code', 'Inconsolata', 'Cousine', 'Hack', 'mononoki')]
    family = rng.choice(mono)
    tones = [t.ink, t.accent, t.faint, hsv(rng.random(), .6, .8), hsv(rng.random(), .5, .6)]
    top, number = y + size, rng.randint(1, 400)
    while top < y + h:
        p.text(x, top, f'{number:3d}', t.faint, size, family)
        left = x + size * (2.4 + rng.randint(0, 3))
        while left < x + w and rng.random() < .85:
            left = p.text(left, top, words.word(rng) + ' ', rng.choice(tones), size, family)
        top, number = top + size * 1.4, number + 1


def table(p, t, x, y, w, h, _):
    rng = p.rng
    size = rng.choice([9, 10, 11, 12, 13, 14])
    family = rng.choice(p.fonts)
    gap = round(size * rng.uniform(1.6, 2.2))
    across = rng.randint(2, 4)
    for i, top in enumerate(range(int(y), int(y + h - gap), gap)):
        if i % 2 and rng.random() < .7:
            p.box(x, top, w, gap, t.panel)
        for column in range(across):
            p.text(x + 4 + column * w / across, top + gap * .7, words.line(rng, 1, 2),
                   t.ink if i else t.accent, size, family, bold=i == 0)
        p.lines([(x, top + .5), (x + w, top + .5)], t.rule, 1)


def form(p, t, x, y, w, h, _):
    rng = p.rng
    size = rng.choice([10, 11, 12, 13, 14])
    family = rng.choice(p.fonts)
    gap = round(size * 2.6)
    for top in range(int(y), int(y + h - gap), gap):
        radius = rng.choice([0, 3, 5])
        if rng.random() < .4:
            p.box(x, top, min(w, 110), gap - 6, t.accent, radius=radius)
            p.text(x + 10, top + gap * .5, words.line(rng, 1, 2), (1, 1, 1), size, family)
        else:
            p.box(x + .5, top + .5, w - 1, gap - 7, t.rule, radius=radius, width=1)
            p.text(x + 8, top + gap * .5, words.line(rng, 1, 4), t.ink, size, family)


def icons(p, t, x, y, w, h, _):
    rng, c = p.rng, p.scratch
    step = rng.choice([18, 22, 26, 34])
    for top in range(int(y), int(y + h - step), step):
        for left in range(int(x), int(x + w - step), step):
            color = rng.choice([t.ink, t.faint, t.accent])
            width = rng.choice([1, 1, 1.5, 2])
            a, b, s = left + 3, top + 3, step - 8
            points = [(a + rng.random() * s, b + rng.random() * s) for _ in range(rng.randint(2, 5))]
            if rng.random() < .4:
                c.new_path()
                c.arc(a + s / 2, b + s / 2, s * rng.uniform(.2, .5), 0, 2 * math.pi)
                p.add(color, width=rng.choice([None, width]))
            else:
                snapped = [(round(u) + .5, round(v) + .5) for u, v in points]
                p.lines(rng.choice([points, snapped]), color, width, rng.random() < .5,
                        rng.random() < .25)


def chart(p, t, x, y, w, h, _):
    rng = p.rng
    for i in range(5):
        p.lines([(x, round(y + i * h / 5) + .5), (x + w, round(y + i * h / 5) + .5)], t.rule, 1)
        p.text(x, y + i * h / 5 - 2, str(rng.randint(0, 1400)), t.faint, rng.choice([8, 9, 10]))
    for _ in range(rng.randint(1, 3)):
        color, level, points = hsv(rng.random(), .7, .8), rng.random() * h, []
        for i in range(24):
            level = min(h, max(0, level + rng.gauss(0, h / 12)))
            points.append((x + i * w / 23, y + level))
        if rng.random() < .6:
            p.lines(points, color, rng.choice([1, 1.5, 2, 3]))
        else:
            for u, v in points[::2]:
                p.box(round(u), round(v), 6, y + h - round(v), color)


def gradient(p, t, x, y, w, h, _):
    turn = p.rng.random() * 2 * math.pi
    p.box(x, y, w, h, t.accent, radius=p.rng.choice([0, 8]),
          gradient=(x, y, x + w * math.cos(turn), y + h * math.sin(turn), t.ground))
    p.text(x + 10, y + h / 2, words.line(p.rng, 1, 3), t.ink, p.rng.choice([12, 16, 22]))


def photograph(p, t, x, y, w, h, photographs):
    x, y, w, h = (int(v) & ~1 for v in (x, y, w, h))
    p.page.shapes.append(Photograph(x, y, photographs.cut(p.rng, 2 * w, 2 * h)))


def pointer(p, x, y):
    big = p.rng.choice([1, 1, 1.3, 1.6])
    shape = [(0, 0), (0, 16), (3.6, 12.6), (6.2, 18.4), (8.6, 17.4), (6, 11.6), (11.4, 11.4)]
    points = [(x + a * big, y + b * big) for a, b in shape]
    dark = p.rng.random() < .5
    p.lines(points, (0, 0, 0) if dark else (1, 1, 1), 0, True, fill=True)
    p.lines(points, (1, 1, 1) if dark else (0, 0, 0), 1, True)


KINDS = [paragraph, code, table, form, icons, chart, gradient, photograph]
WEIGHTS = [30, 16, 12, 12, 9, 7, 3, 11]


def draw(page: Page, scale: float) -> np.ndarray:
    """The page as RGB in 0 to 1, at so many times its size."""
    width, height = round(page.width * scale), round(page.height * scale)
    surface = cairo.ImageSurface(cairo.FORMAT_RGB24, width, height)
    c = cairo.Context(surface)
    c.set_antialias(cairo.ANTIALIAS_BEST)
    c.set_source_rgb(*page.ground)
    c.paint()

    def pixels() -> np.ndarray:
        surface.flush()
        rows = np.ndarray((height, surface.get_stride() // 4, 4), np.uint8, surface.get_data())
        return rows[:, :width, 2::-1]

    for shape in page.shapes:
        if isinstance(shape, Photograph):
            tall, wide = (round(side * scale / 2) for side in shape.picture.shape[:2])
            part = pixels()[round(shape.y * scale):, round(shape.x * scale):][:tall, :wide]
            part[:] = reduced(shape.picture, wide, tall)[:part.shape[0], :part.shape[1]]
            surface.mark_dirty()
            continue
        if shape.letters:
            write(page, shape, scale, pixels())
            surface.mark_dirty()
            continue
        c.save()
        c.scale(scale, scale)
        if shape.gradient:
            x0, y0, x1, y1, other = shape.gradient
            ramp = cairo.LinearGradient(x0, y0, x1, y1)
            ramp.add_color_stop_rgb(0, *shape.color)
            ramp.add_color_stop_rgb(1, *other)
            c.set_source(ramp)
        else:
            c.set_source_rgb(*shape.color)
        c.new_path()
        c.append_path(shape.path)
        if shape.width is None:
            c.fill()
        else:
            c.set_line_width(shape.width)
            c.stroke()
        c.restore()
    return pixels().astype(np.float32) / 255


def write(page: Page, shape: Shape, scale: float, pixels: np.ndarray) -> None:
    """Lays letters on the page's pixels."""
    height, width = pixels.shape[:2]
    measure = cairo.Context(cairo.ImageSurface(cairo.FORMAT_A8, 1, 1))
    measure.append_path(shape.path)
    x0, y0, x1, y1 = (side * scale for side in measure.path_extents())
    # Two more to each side, for the filter of fringes.
    left, right = max(0, math.floor(x0) - 2), min(width, math.ceil(x1) + 2)
    top, bottom = max(0, math.floor(y0)), min(height, math.ceil(y1))
    if right <= left or bottom <= top:
        return
    part = pixels[top:bottom, left:right]
    cover = coverage(page, shape, scale, left, top, right - left, bottom - top)
    mixed_in = part * (1 - cover) + np.array(shape.color, np.float32) * 255 * cover
    part[:] = np.round(mixed_in)


def coverage(page: Page, shape: Shape, scale: float, left: int, top: int,
             width: int, height: int) -> np.ndarray:
    """Coverage of a rectangle by letters, height x width x 1 or 3 colours."""
    fine = 3 if page.fringes else 1
    mask = cairo.ImageSurface(cairo.FORMAT_A8, width * fine, height)
    c = cairo.Context(mask)
    c.set_antialias(cairo.ANTIALIAS_BEST)
    c.set_tolerance(.05)
    c.scale(fine, 1)
    c.translate(-left, -top)
    c.scale(scale, scale)
    c.append_path(shape.path)
    c.fill()
    mask.flush()
    rows = np.ndarray((height, mask.get_stride()), np.uint8, mask.get_data())[:, :width * fine]
    cover = rows.astype(np.float32) / 255
    if fine == 3:
        # The five-tap filter that FreeType uses for displays with stripes.
        taps = np.array([8, 77, 86, 77, 8], np.float32) / 256
        wide = np.pad(cover, ((0, 0), (2, 2)))
        cover = sum(tap * wide[:, i:i + width * 3] for i, tap in enumerate(taps))
        cover = cover.reshape(height, width, 3)
    else:
        cover = cover[:, :, None]
    return np.clip(cover, 0, 1) ** page.bend


def reduced(picture: np.ndarray, width: int, height: int) -> np.ndarray:
    """A photograph in so many pixels of 0 to 255, each the mean of what it covers."""
    whole = Image.fromarray(np.round(picture * 255).astype(np.uint8))
    return np.asarray(whole.resize((width, height), Image.BOX))


def luma(rgb: np.ndarray) -> np.ndarray:
    """Luma of BT.709 in video range, as 8 bits."""
    return np.round(16 + 219 * (rgb @ np.array([.2126, .7152, .0722], np.float32))).astype(np.uint8)
