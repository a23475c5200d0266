"""Learns a network from patches.

    python3 train.py DATA OUT [--steps N] [--seed S]
"""
import argparse
import copy
import math
import time

import numpy as np
import torch

import network

BATCH = 24


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument('data')
    parser.add_argument('out')
    parser.add_argument('--steps', type=int, default=24000)
    parser.add_argument('--seed', type=int, default=1)
    given = parser.parse_args()
    torch.manual_seed(given.seed)
    torch.set_num_threads(1)
    data = np.load(given.data)
    small, large = data['small'], data['large']
    net = network.Crisp()
    mean = copy.deepcopy(net)
    print(sum(p.numel() for p in net.parameters()), 'weights', len(small), 'patches')
    way = torch.optim.Adam(net.parameters(), 3e-3)
    choose = np.random.default_rng(given.seed)
    began = time.time()
    lost = 0.0
    for step in range(given.steps):
        for group in way.param_groups:
            group['lr'] = 3e-3 * (.5 + .5 * math.cos(math.pi * step / given.steps)) + 1e-6
        inputs, truth = batch(small, large, choose)
        loss = (rebuilt(net, inputs) - cut(truth, network.MARGIN)).abs().mean()
        way.zero_grad()
        loss.backward()
        way.step()
        with torch.no_grad():
            # The kernel's slopes are fractions.
            for slope in net.slopes:
                slope.weight.clamp_(-1, .999)
            share = min(.999, step / (step + 10))
            for a, b in zip(mean.parameters(), net.parameters()):
                a.lerp_(b, 1 - share)
        lost += loss.item()
        if step % 500 == 499:
            print(step + 1, f'{lost / 500:.3f}', f'{time.time() - began:.0f} s', flush=True)
            lost = 0
            torch.save(mean.state_dict(), given.out)
    torch.save(mean.state_dict(), given.out)


def batch(small, large, choose):
    """Some patches, turned light to dark and of less contrast at random."""
    at = choose.integers(0, len(small), BATCH)
    inputs = torch.from_numpy(small[at]).float()[:, None]
    truth = torch.from_numpy(large[at]).float()[:, None]
    turn = torch.from_numpy(np.where(choose.random(BATCH) < .5, -1, 1)).float()
    scale = turn * torch.from_numpy(np.where(choose.random(BATCH) < .3,
                                             choose.uniform(.3, 1, BATCH), 1)).float()
    scale = scale[:, None, None, None]
    return 126 + (inputs - 126) * scale, 126 + (truth - 126) * scale


def rebuilt(net, inputs):
    """What the network makes of planes, without its margin."""
    plain = cut(network.doubled(inputs), network.MARGIN - 2)
    return plain + net(inputs)


def cut(planes, margin):
    """A picture at twice the size without the margin of its source."""
    by = 2 * margin
    return planes[:, :, by:-by, by:-by] if by else planes


if __name__ == '__main__':
    main()
