"""What the card of the README says: learned weights against linear filters, on what was kept apart.

    python3 evaluate.py WEIGHTS
"""
import argparse
import random

import numpy as np
import torch

import cubic
import data
import network
import pages
import recorders
import train
from photographs import Photographs

PAGES = 40
#: Side of the best linear filter for each of the four samples.
SIDE = 7


def psnr(a: np.ndarray, b: np.ndarray) -> float:
    # Hardly any difference at all counts as 80 dB.
    return 10 * np.log10(255 ** 2 / max(6.5e-4, np.mean((a.astype(float) - b) ** 2)))


def inner(plane: np.ndarray, margin: int = 2 * network.MARGIN) -> np.ndarray:
    return plane[margin:-margin, margin:-margin]


def rebuilt(net: network.Crisp, small: np.ndarray) -> np.ndarray:
    wide = torch.from_numpy(np.pad(small, network.MARGIN, mode='edge')).float()[None, None]
    with torch.no_grad():
        return train.rebuilt(net, wide)[0, 0].round().clamp(0, 255).numpy()


def windows(small: np.ndarray) -> np.ndarray:
    """All squares of a plane, one a row."""
    wide = np.pad(small.astype(np.float64), SIDE // 2, mode='edge')
    squares = np.lib.stride_tricks.sliding_window_view(wide, (SIDE, SIDE))
    return squares.reshape(small.size, SIDE * SIDE)


def best_linear(pairs) -> np.ndarray:
    """The least squares of the learned letters' pages: a filter for each of the four samples."""
    left, right = np.zeros((SIDE ** 2, SIDE ** 2)), np.zeros((SIDE ** 2, 4))
    for small, large in pairs:
        a = windows(small)
        height, width = small.shape
        four = large.reshape(height, 2, width, 2).transpose(0, 2, 1, 3).reshape(-1, 4)
        left += a.T @ a
        right += a.T @ four
    return np.linalg.solve(left + np.eye(SIDE ** 2), right)


def linear(filters: np.ndarray, small: np.ndarray) -> np.ndarray:
    height, width = small.shape
    four = (windows(small) @ filters).reshape(height, width, 2, 2).transpose(0, 2, 1, 3)
    return np.clip(np.round(four.reshape(2 * height, 2 * width)), 0, 255)


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument('weights')
    given = parser.parse_args()
    torch.set_num_threads(1)
    net = network.Crisp()
    net.load_state_dict(torch.load(given.weights))
    learned, apart = Photographs(False), Photographs(True)
    rng = random.Random(3)
    filters = best_linear(data.drawn(rng, learned, False)[:2] for _ in range(PAGES))
    shown = [data.drawn(rng, apart, True)[:2] for _ in range(PAGES)]
    for name, inputs in [('clean', [s for s, _ in shown])] + [
            (key, [f[-1] for f in recorders.compressed([s for s, _ in shown], setting)])
            for key, setting in recorders.SETTINGS.items()]:
        report(name, net, filters, inputs, [large for _, large in shown])
    photos = []
    for _ in range(PAGES):
        large = pages.luma(apart.cut(rng, 480, 360))
        photos.append((np.round(large.reshape(180, 2, 240, 2).mean((1, 3))).astype(np.uint8), large))
    report('photographs', net, filters, [s for s, _ in photos], [b for _, b in photos])
    worst = min(psnr(inner(rebuilt(net, s)), inner(b)) - psnr(inner(cubic.rounded(s)), inner(b))
                for s, b in photos)
    print(f'the worst of the photographs: {worst:+.2f} dB beside Catmull-Rom')


def report(name, net, filters, inputs, truths) -> None:
    ways = {'Catmull-Rom': cubic.rounded, 'best linear': lambda s: linear(filters, s),
            'rebuilt': lambda s: rebuilt(net, s)}
    found = [f'{way} {psnr(stacked(make, inputs), np.concatenate([inner(t) for t in truths])):.2f}'
             for way, make in ways.items()]
    print(name, *found, sep=', ', flush=True)


def stacked(make, inputs) -> np.ndarray:
    return np.concatenate([inner(make(small)) for small in inputs])


if __name__ == '__main__':
    main()
