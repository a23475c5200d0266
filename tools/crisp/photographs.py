"""Photographs and drawn backgrounds that Debian ships for desktops, as patches."""
import glob
import random

import numpy as np
from PIL import Image

#: Packages mate-backgrounds and gnome-backgrounds; which of them are kept apart for reporting.
FILES = sorted(glob.glob('/usr/share/backgrounds/mate/**/*.jpg', recursive=True)
               + glob.glob('/usr/share/backgrounds/mate/**/*.png', recursive=True)
               + glob.glob('/usr/share/backgrounds/gnome/*.webp'))


class Photographs:
    def __init__(self, apart: bool):
        self.pictures = []
        for file in FILES[::4] if apart else [f for i, f in enumerate(FILES) if i % 4]:
            picture = Image.open(file).convert('RGB')
            picture.thumbnail((2400, 2400))
            self.pictures.append(np.asarray(picture))

    def cut(self, rng: random.Random, width: int, height: int) -> np.ndarray:
        """A patch in 0 to 1, of a picture made smaller by a random amount first."""
        picture = rng.choice(self.pictures)
        room = min(picture.shape[1] / width, picture.shape[0] / height)
        by = rng.uniform(1, max(1, min(4, room)))
        w, h = min(picture.shape[1], int(width * by)), min(picture.shape[0], int(height * by))
        x, y = rng.randint(0, picture.shape[1] - w), rng.randint(0, picture.shape[0] - h)
        patch = Image.fromarray(picture[y:y + h, x:x + w]).resize((width, height), Image.LANCZOS)
        return np.asarray(patch).astype(np.float32) / 255
