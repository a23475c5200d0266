"""Writes a learned network as the whole numbers that the kernel computes with.

    python3 export.py WEIGHTS OUT

Values between the layers have 12 fractional bits in 16. The weights of a layer get as many
fractional bits as leave the sums in 32 bits whatever comes in: those of one sum add up to less
than 65536, and no value is beyond 32768.
"""
import argparse
import base64
import math
import struct
import textwrap

import numpy as np
import torch

import network

VALUE_BITS = 12
#: Fractional bits of the network's unit in the target's sums: 14 of a grey, of which it has 64.
TARGET_BITS = 14 + int(math.log2(network.GREY))

HEAD = '''/*
 * Made by tools/crisp/export.py; its README says what these were learned from, and how well they do.
 */

/** The network that rebuilds magnified text, as `readModel` reads it. */
export const CRISP_WEIGHTS = [
'''


def layer(convolution, slopes, last: bool) -> bytes:
    """Shift, biases, slopes and weights of a layer; little-endian."""
    weights = convolution.weight.detach().double().numpy()
    biases = convolution.bias.detach().double().numpy()
    outputs = len(weights)
    largest = np.abs(weights).reshape(outputs, -1).sum(1).max()
    bits = min(14, math.floor(math.log2(65000 / largest)))
    whole = np.round(weights * 2 ** bits)
    if np.abs(whole).reshape(outputs, -1).sum(1).max() >= 65536 or np.abs(whole).max() > 32767:
        raise ValueError('These weights do not fit.')
    # What is lost by the last layer's shift is rounded with the target's samples.
    shift = bits + VALUE_BITS - TARGET_BITS if last else bits
    started = np.round(biases * 2 ** (bits + VALUE_BITS)) + 2 ** (shift - 1)
    out = struct.pack('<i', shift) + started.astype('<i4').tobytes()
    if slopes is not None:
        out += np.round(slopes.weight.detach().double().numpy() * 32768).astype('<i2').tobytes()
    return out + whole.transpose(0, 2, 3, 1).astype('<i2').tobytes()


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument('weights')
    parser.add_argument('out')
    given = parser.parse_args()
    net = network.Crisp()
    net.load_state_dict(torch.load(given.weights))
    slopes = list(net.slopes) + [None]
    packed = b''.join(layer(c, s, s is None) for c, s in zip(net.convolutions, slopes))
    lines = textwrap.wrap(base64.b64encode(packed).decode(), 92)
    with open(given.out, 'w', encoding='ascii') as file:
        file.write(HEAD + ''.join(f"  '{line}',\n" for line in lines) + "].join('');\n")
    print(len(packed), 'bytes')


if __name__ == '__main__':
    main()
