"""The networks: a residual to Catmull-Rom at twice the size, from luma alone."""
import torch
from torch import nn

import cubic

#: Greys that count as one in the network.
GREY = 64.0
#: Sides of the convolutions' squares, and values between them.
SIZES = [5, 3, 3, 3, 3]
CHANNELS = 12
#: Samples around that one draws from.
MARGIN = sum(size // 2 for size in SIZES)


class Crisp(nn.Module):
    """Convolutions with PReLU between them; the last gives the four samples of each."""

    def __init__(self):
        super().__init__()
        ends = [1] + [CHANNELS] * (len(SIZES) - 1) + [4]
        self.convolutions = nn.ModuleList(
            nn.Conv2d(a, b, size) for size, a, b in zip(SIZES, ends, ends[1:]))
        self.slopes = nn.ModuleList(nn.PReLU(CHANNELS, .2) for _ in SIZES[1:])
        for convolution in self.convolutions:
            nn.init.kaiming_normal_(convolution.weight, .2)
            nn.init.zeros_(convolution.bias)
        # It begins as the plain filter.
        nn.init.normal_(self.convolutions[-1].weight, std=1e-3)

    def forward(self, luma: torch.Tensor) -> torch.Tensor:
        """The residual in greys, of luma that is larger by the margin on each side."""
        at = (luma - 126) / GREY
        for convolution, slope in zip(self.convolutions, self.slopes):
            at = slope(convolution(at))
        return nn.functional.pixel_shuffle(self.convolutions[-1](at), 2) * GREY


def doubled(luma: torch.Tensor) -> torch.Tensor:
    """Catmull-Rom at twice the size in greys, not rounded, of planes with two more on each side."""
    taps = torch.tensor(cubic.TAPS / 128.0, dtype=torch.float32)
    kernels = []
    for down in (taps.flip(0), taps):
        for right in (taps.flip(0), taps):
            kernel = torch.zeros(5, 5)
            # The first phase uses samples -2..1, the second -1..2 around its own.
            top, left = (0 if down is not taps else 1), (0 if right is not taps else 1)
            kernel[top:top + 4, left:left + 4] = down[:, None] * right[None, :]
            kernels.append(kernel)
    weight = torch.stack(kernels)[:, None]
    return nn.functional.pixel_shuffle(nn.functional.conv2d(luma, weight), 2)
