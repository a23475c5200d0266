"""Pairs of patches: luma as recorded, and the truth at twice the size.

    python3 data.py FILE [--pages N] [--seed S] [--apart]
"""
import argparse
import random

import numpy as np
from PIL import Image

import cubic
import fonts
import pages
import recorders
from photographs import Photographs

WIDTH, HEIGHT = 320, 240
PATCH = 48
#: Patches taken of each picture.
EACH = 10


def drawn(rng: random.Random, photographs: Photographs, apart: bool):
    page = pages.make_page(rng, WIDTH, HEIGHT, fonts.APART if apart else fonts.LEARNED,
                           photographs, apart)
    return pages.luma(pages.draw(page, 1)), pages.luma(pages.draw(page, 2)), page


def pairs(rng: random.Random, count: int, apart: bool):
    """Yields inputs and truths of whole pages."""
    photographs = Photographs(apart)
    waiting = []
    for _ in range(count):
        small, large, page = drawn(rng, photographs, apart)
        lot = rng.random()
        if lot < .22:
            yield small, large
        elif lot < .30:
            # Drawn larger, then made smaller by the recorder: softer, with the same truth.
            by = rng.choice([1.25, 1.5, 2])
            bigger = pages.luma(pages.draw(page, by))
            way = rng.choice([Image.BILINEAR, Image.BICUBIC, Image.BOX])
            yield recorders.resized(bigger, WIDTH, HEIGHT, way), large
        elif lot < .36:
            # Enlarged or sharpened before: nothing more is to be had, and nothing may ring.
            if rng.random() < .5:
                part = small[:HEIGHT // 2, :WIDTH // 2]
                odd = recorders.resized(part, WIDTH, HEIGHT,
                                     rng.choice([Image.BILINEAR, Image.BICUBIC]))
            else:
                odd = recorders.sharpened(small, rng.uniform(.5, 1.5))
            yield odd, cubic.rounded(odd)
        else:
            waiting.append((small, large))
        if len(waiting) == 40:
            yield from recorded(rng, waiting)
            waiting = []
    if waiting:
        yield from recorded(rng, waiting)


def recorded(rng: random.Random, waiting):
    setting = recorders.SETTINGS[rng.choice(list(recorders.SETTINGS))]
    back = recorders.compressed([small for small, _ in waiting], setting)
    for (_, large), frames in zip(waiting, back):
        yield frames[0], large
        yield frames[-1], large


def patches(rng: random.Random, small: np.ndarray, large: np.ndarray):
    """Patches of a page, those with much in them more often."""
    places = [(rng.randrange(0, WIDTH - PATCH), rng.randrange(0, HEIGHT - PATCH))
              for _ in range(60)]
    weights = [small[y:y + PATCH, x:x + PATCH].std() + 1 for x, y in places]
    for x, y in rng.choices(places, weights, k=EACH):
        yield (small[y:y + PATCH, x:x + PATCH],
               large[2 * y:2 * (y + PATCH), 2 * x:2 * (x + PATCH)])


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument('file')
    parser.add_argument('--pages', type=int, default=2400)
    parser.add_argument('--seed', type=int, default=7)
    parser.add_argument('--apart', action='store_true')
    given = parser.parse_args()
    rng = random.Random(given.seed)
    found = [patch for small, large in pairs(rng, given.pages, given.apart)
             for patch in patches(rng, small, large)]
    np.savez(given.file, small=np.stack([a for a, _ in found]),
             large=np.stack([b for _, b in found]))
    print(f'{len(found)} patches')


if __name__ == '__main__':
    main()
