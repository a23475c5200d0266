"""Draws the pages that are kept apart for measuring, at their size and at larger ones.

    python3 apart.py FOLDER

Pages are luma as grey PNG: `page-N-1.png` as it would be recorded and `page-N-S.png` at S times its
size. `reading.png` has lines of small text, which `reading.txt` gives in their order.
"""
import argparse
import os
import random

import numpy as np
from PIL import Image

import fonts
import pages
from photographs import Photographs

WIDTH, HEIGHT = 320, 240
SCALES = [1, 1.25, 1.5, 2]
PAGES = 8


def save(folder: str, name: str, picture: np.ndarray) -> None:
    Image.fromarray(picture).save(os.path.join(folder, name), optimize=True)


def text_pages(folder: str) -> None:
    rng = random.Random(2026)
    photographs = Photographs(True)
    made = 0
    while made < PAGES:
        page = pages.make_page(rng, WIDTH, HEIGHT, fonts.APART, photographs, True)
        letters = sum(isinstance(s, pages.Shape) and s.letters for s in page.shapes)
        if letters < 10 or any(isinstance(s, pages.Photograph) for s in page.shapes):
            continue
        for scale in SCALES:
            save(folder, f'page-{made}-{scale}.png', pages.luma(pages.draw(page, scale)))
        made += 1


def reading(folder: str) -> None:
    rng = random.Random(7)
    page = pages.Page(480, 270, (.98, .95, .88))
    sentences = []
    top = 14.0
    for size in [9, 9, 9, 10, 10, 10, 11, 11, 11, 12, 12, 12]:
        painter = pages.Painter(rng, page, fonts.APART)
        sentence = ' '.join(rng.choice(PLAIN) for _ in range(9))
        painter.text(8, top, sentence, (.24, .17, .12), size, upright=True)
        sentences.append(sentence)
        top += size * 2
    save(folder, 'reading.png', pages.luma(pages.draw(page, 1)))
    with open(os.path.join(folder, 'reading.txt'), 'w', encoding='utf-8') as file:
        file.write('\n'.join(sentences) + '\n')


PLAIN = ('kiln glaze firing ramp hold cone shelf clay bisque stoneware celadon cobalt schedule '
         'batch recipe sample export curve hour degree window colour measure wheel throw trim '
         'handle vessel studio notes open close save').split()


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument('folder')
    given = parser.parse_args()
    os.makedirs(given.folder, exist_ok=True)
    text_pages(given.folder)
    reading(given.folder)


if __name__ == '__main__':
    main()
